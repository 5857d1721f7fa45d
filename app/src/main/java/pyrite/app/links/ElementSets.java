package pyrite.app.links;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import pyrite.app.requirements.GridRows;
import pyrite.app.store.Person;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Query;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Specification;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.SavedView;

/**
 * The sets of elements that lists, tables and matrices start from: a specification, by the id of its package; the rows
 * of a saved view of the grid, by the view's id; or all elements that link rules know by a word, written {@code ~part}.
 */
@Component
class ElementSets {
    private static final String GRID = "requirements";

    private final GridRows grid;

    ElementSets(GridRows grid) {
        this.grid = grid;
    }

    /** A set to choose. */
    public record Choice(String key, String title) {}

    /**
     * All sets somebody may start from: specifications first, then the filters that are kept, then the words of the
     * rules in force.
     */
    List<Choice> all(Workspace.Head head, Person person) {
        LinkRules rules = LinkRules.in(head.model());
        Labels labels = new Labels(head.model());
        List<Choice> choices = new ArrayList<>(Specification.all(head.model()).stream()
                .map(each -> new Choice(each.element().id().toString(), labels.name(each.element())))
                .toList());
        SavedView.listed(head.model(), person.signIn()).stream()
                .filter(view -> view.page().equals(GRID))
                .forEach(view -> choices.add(new Choice(view.element().id().toString(), "Filter: " + view.name())));
        Set<String> words = new LinkedHashSet<>(List.of("requirement", "need"));
        rules.all()
                .forEach(rule ->
                        Stream.concat(rule.from().stream(), rule.to().stream()).forEach(words::add));
        words.addAll(List.of("part", "verification"));
        words.forEach(word -> choices.add(new Choice("~" + word, "Every " + word)));
        return choices;
    }

    Stream<Element> of(Workspace.Head head, String set) {
        Model model = head.model();
        LinkRules rules = LinkRules.in(model);
        if (set.isEmpty()) {
            return Stream.empty();
        }
        if (!set.startsWith("~")) {
            Element chosen = head.element(set);
            return Specification.of(model, chosen, false)
                    .map(specification -> specification.requirements(model).stream())
                    .or(() -> SavedView.of(model, chosen.id())
                            .filter(view -> view.page().equals(GRID))
                            .map(view -> grid.requirements(head, GridRows.Asked.of(Query.parse(view.query())))))
                    .orElseThrow(
                            () -> new NotFound("this is no specification and no view that was kept from the grid"));
        }
        String word = set.substring(1);
        return RequirementIds.sorted(
                model,
                model.ownElements().stream()
                        .filter(each -> each.name() != null || each.shortName() != null)
                        .filter(each -> rules.words(each).contains(word)))
                .stream();
    }
}
