package pyrite.core.story;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** The text of a requirement proposed from that of a step: what is told to happen shall happen. A person edits it. */
public final class ProposedRequirement {
    private static final Map<String, String> IRREGULAR =
            Map.of("is", "be", "are", "be", "has", "have", "does", "do", "goes", "go");
    private static final Set<String> ARTICLES = Set.of("the", "a", "an", "each", "every", "this");
    private static final Set<String> NO_VERBS = Set.of("its", "this", "his", "always", "perhaps", "as", "us");
    private static final int FARTHEST = 5;

    private ProposedRequirement() {}

    /** {@code The leaf rises.} gives {@code The leaf shall rise.} What has no verb that can be told stays as it is. */
    public static String of(String step) {
        String text = step.strip();
        if (text.isEmpty() || text.matches("(?is).*\\b(shall|must)\\b.*")) {
            return text;
        }
        List<String> words = new ArrayList<>(List.of(text.split(" ")));
        int first = ARTICLES.contains(words.getFirst().toLowerCase(Locale.ROOT)) ? 2 : 1;
        for (int i = first; i < Math.min(words.size(), first + FARTHEST); i++) {
            String base = base(words.get(i));
            if (!base.isEmpty()) {
                words.set(i, "shall " + base);
                break;
            }
        }
        String proposed = String.join(" ", words);
        return proposed.endsWith(".") ? proposed : proposed + ".";
    }

    /** The base of a verb in the third person; empty if the word does not look like one. */
    static String base(String written) {
        String word = written.replaceAll("[.,;:]+$", "");
        String rest = written.substring(word.length());
        if (IRREGULAR.containsKey(word)) {
            return IRREGULAR.get(word) + rest;
        }
        boolean isVerb = word.length() > 3
                && word.matches("\\p{Ll}+s")
                && !word.endsWith("ss")
                && !word.endsWith("us")
                && !NO_VERBS.contains(word);
        if (!isVerb) {
            return "";
        }
        if (word.endsWith("ies")) {
            return word.substring(0, word.length() - 3) + "y" + rest;
        }
        boolean isLong = word.matches(".*(ss|sh|ch|x|zz|o)es");
        return word.substring(0, word.length() - (isLong ? 2 : 1)) + rest;
    }
}
