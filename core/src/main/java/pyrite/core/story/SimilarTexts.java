package pyrite.core.story;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.apache.commons.text.similarity.CosineSimilarity;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Specification;

/**
 * Finds the requirements, functions or other elements that say much the same as a text: the cosine between the words of
 * both, a word counting more the fewer texts have it (Salton, Wong, Yang 1975; the weights of Spärck Jones 1972).
 */
public final class SimilarTexts {
    private static final Pattern SEPARATOR = Pattern.compile("[^\\p{L}\\p{N}]+");
    /** The cosine takes whole numbers: weights are counted in hundredths. */
    private static final double SCALE = 100;

    private static final double LEAST = 0.3;

    private final List<Known> known = new ArrayList<>();
    private final Map<String, Integer> frequencies = new HashMap<>();
    /** The weights of the words of each text, once all texts are known. */
    private final Map<Element, Map<CharSequence, Integer>> weighted = new HashMap<>();

    private record Known(Element element, String text, Set<String> words) {}

    /** @param similarity from 0, no word in common, to 1 */
    public record Match(Element element, String text, double similarity) {}

    private SimilarTexts() {}

    /** Among all requirements of a model; a need is none. */
    public static SimilarTexts in(Model model) {
        SimilarTexts texts = new SimilarTexts();
        model.ownElements().forEach(element -> {
            if (Specification.isRequirement(element) && !element.kind().isNeed()) {
                texts.add(element, RequirementText.of(model, element));
            }
        });
        return texts;
    }

    /** Among anything, by what is said of it. */
    public static SimilarTexts of(Map<Element, String> said) {
        SimilarTexts texts = new SimilarTexts();
        said.forEach(texts::add);
        return texts;
    }

    /** Among functions: their names and what is said of them. */
    static SimilarTexts among(Model model, List<Element> definitions) {
        SimilarTexts texts = new SimilarTexts();
        definitions.forEach(definition -> texts.add(
                definition,
                Actors.spaced(String.valueOf(definition.name())) + " "
                        + model.inheritance().documentation(definition)));
        return texts;
    }

    private void add(Element requirement, String text) {
        Set<String> words = words(text);
        if (!words.isEmpty()) {
            known.add(new Known(requirement, text, words));
            words.forEach(word -> frequencies.merge(word, 1, Integer::sum));
        }
    }

    /** The most similar ones, the best first. */
    public List<Match> to(String text, int most) {
        Map<CharSequence, Integer> weights = weights(words(text));
        if (weights.isEmpty()) {
            return List.of();
        }
        CosineSimilarity cosine = new CosineSimilarity();
        return known.stream()
                .filter(each -> each.words().stream().anyMatch(weights::containsKey))
                .map(each -> new Match(
                        each.element(),
                        each.text(),
                        cosine.cosineSimilarity(
                                weights, weighted.computeIfAbsent(each.element(), _ -> weights(each.words())))))
                .filter(match -> match.similarity() >= LEAST)
                .sorted(Comparator.comparingDouble(Match::similarity)
                        .reversed()
                        .thenComparing(match -> match.element().id()))
                .limit(most)
                .toList();
    }

    private Map<CharSequence, Integer> weights(Set<String> words) {
        Map<CharSequence, Integer> weights = new HashMap<>();
        words.forEach(word -> {
            double share = (known.size() + 1.0) / (frequencies.getOrDefault(word, 0) + 1.0);
            int weight = (int) Math.round(SCALE * Math.log1p(share));
            weights.put(word, weight);
        });
        return weights;
    }

    /** The words of a text without the endings of plurals and verbs, so that rises and rising are one. */
    static Set<String> words(String text) {
        Set<String> words = new HashSet<>();
        for (String word : SEPARATOR.split(text.toLowerCase(Locale.ROOT))) {
            if (!word.isEmpty()) {
                words.add(stem(word));
            }
        }
        return words;
    }

    private static String stem(String word) {
        for (String ending : List.of("ing", "ed", "es", "s", "e")) {
            if (word.endsWith(ending) && word.length() - ending.length() >= 3 && !word.endsWith("ss")) {
                return word.substring(0, word.length() - ending.length());
            }
        }
        return word;
    }
}
