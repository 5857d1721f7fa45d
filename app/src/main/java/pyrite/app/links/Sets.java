package pyrite.app.links;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Specification;
import pyrite.core.trace.LinkRules;

/**
 * The sets of elements that lists, tables and matrices start from: a specification, by the id of its package, or all
 * elements that link rules know by a word, written {@code ~part}.
 */
final class Sets {
    private Sets() {
    }

    /** A set to choose. */
    public record Choice(String key, String title) {
    }

    /** All sets there are: specifications first, then the words of the rules in force. */
    static List<Choice> all(Workspace.Head head, LinkRules rules) {
        Labels labels = new Labels(head.model());
        List<Choice> choices = new ArrayList<>(Specification.all(head.model()).stream().map(each -> new Choice(each.element().id().toString(), labels.name(each.element()))).toList());
        Set<String> words = new LinkedHashSet<>(List.of("requirement", "need"));
        rules.all().forEach(rule -> Stream.concat(rule.from().stream(), rule.to().stream()).forEach(words::add));
        words.addAll(List.of("part", "verification"));
        words.forEach(word -> choices.add(new Choice("~" + word, "Every " + word)));
        return choices;
    }

    static Stream<Element> of(Workspace.Head head, LinkRules rules, String set) {
        Model model = head.model();
        if (set.isEmpty()) {
            return Stream.empty();
        }
        if (!set.startsWith("~")) {
            return Specification.of(model, head.element(set), false).orElseThrow(() -> new NotFound("this package is no specification")).requirements(model).stream();
        }
        String word = set.substring(1);
        return model.ownElements().stream().filter(each -> each.name() != null || each.shortName() != null).filter(each -> rules.words(each).contains(word))
                .sorted(Comparator.comparing((Element each) -> RequirementIds.of(model, each), RequirementIds.ORDER));
    }
}
