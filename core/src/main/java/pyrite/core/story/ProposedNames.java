package pyrite.core.story;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Names made from what is told in words: the first words that say something, in camel case. */
public final class ProposedNames {
    private static final Pattern WORD = Pattern.compile("[\\p{L}\\p{N}]+(?:['’]\\p{L}+)?");
    private static final Set<String> PASSED_OVER =
            Set.of("a", "an", "the", "is", "are", "be", "been", "was", "its", "their", "his", "her");
    private static final int MOST_WORDS = 5;
    private static final int LONGEST = 40;

    private ProposedNames() {}

    /**
     * {@code The tide service sends a warning.} gives {@code tideServiceSendsWarning}; {@code otherwise} without words.
     */
    public static String of(String text, String otherwise) {
        StringBuilder name = new StringBuilder();
        int words = 0;
        for (String word : words(text)) {
            if (words == MOST_WORDS || name.length() + word.length() > LONGEST) {
                break;
            }
            name.append(words == 0 ? lower(word) : upper(word));
            words++;
        }
        return name.isEmpty() || Character.isDigit(name.charAt(0)) ? otherwise : name.toString();
    }

    /** As {@link #of}, as the name of a definition. */
    public static String ofDefinition(String text, String otherwise) {
        return upper(of(text, otherwise));
    }

    private static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        Matcher found = WORD.matcher(text);
        while (found.find()) {
            String word = found.group().replaceAll("['’]\\p{L}+$", "");
            if (!PASSED_OVER.contains(word.toLowerCase(Locale.ROOT))) {
                words.add(word);
            }
        }
        return words;
    }

    private static String lower(String word) {
        return word.substring(0, 1).toLowerCase(Locale.ROOT) + word.substring(1);
    }

    static String upper(String word) {
        return word.substring(0, 1).toUpperCase(Locale.ROOT) + word.substring(1);
    }
}
