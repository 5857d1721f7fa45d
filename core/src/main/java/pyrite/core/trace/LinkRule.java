package pyrite.core.trace;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.Metadata;

/**
 * A rule: what links of a kind may join.
 *
 * @param element the metadata that states the rule
 * @param kind the key of the kind of link
 * @param from permitted sources: levels of specifications or kinds of elements
 * @param to permitted targets
 * @param leastFrom the number of links expected from each source
 * @param leastTo the number of links expected to each target
 * @param watched the properties of either end whose change requires a recheck
 */
public record LinkRule(
        Element element,
        String kind,
        List<String> from,
        List<String> to,
        int leastFrom,
        int leastTo,
        Set<String> watched) {

    static LinkRule of(Model model, Element metadata) {
        return new LinkRule(
                metadata,
                Metadata.text(model, metadata, "kind"),
                words(Metadata.text(model, metadata, "from")),
                words(Metadata.text(model, metadata, "to")),
                Metadata.number(model, metadata, "leastFrom"),
                Metadata.number(model, metadata, "leastTo"),
                Set.copyOf(words(Metadata.text(model, metadata, "watched"))));
    }

    private static List<String> words(String text) {
        return Arrays.stream(text.split(","))
                .map(String::strip)
                .filter(word -> !word.isEmpty())
                .distinct()
                .toList();
    }

    boolean allows(Set<String> source, Set<String> target) {
        return from.stream().anyMatch(source::contains) && to.stream().anyMatch(target::contains);
    }

    /** "from subsystem to system". */
    String inWords() {
        return "from " + listed(from) + " to " + listed(to);
    }

    private static String listed(List<String> words) {
        return words.isEmpty() ? "nothing" : words.stream().collect(Collectors.joining(" or "));
    }
}
