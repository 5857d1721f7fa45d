package pyrite.core.view;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.story.Actors;
import pyrite.core.story.UseCases;

/**
 * Use cases within the border of what they are about, with the actors outside of it: one box for all actors of a type,
 * and the needs that each use case frames.
 */
final class UseCasesView {
    private static final int MOST_NODES = 300;

    private final Model model;
    private final BoxTexts texts;
    private final Set<String> hidden;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final Map<ElementId, String> keys = new LinkedHashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();

    private UseCasesView(Model model, Set<String> hidden) {
        this.model = model;
        this.texts = new BoxTexts(model);
        this.hidden = hidden;
    }

    static Diagram of(Model model, ShownView view) {
        Set<Element> within = view.exposed().stream()
                .flatMap(exposed -> model.subtree(exposed.id()).stream())
                .collect(Collectors.toSet());
        List<Element> shown =
                UseCases.all(model).stream().filter(within::contains).toList();
        UseCasesView cases = new UseCasesView(model, view.placement().hidden());
        shown.stream().limit(MOST_NODES).forEach(cases::add);
        shown.stream().limit(MOST_NODES).forEach(cases::relate);
        return new Diagram(List.copyOf(cases.nodes.values()), cases.edges, Math.max(0, shown.size() - MOST_NODES));
    }

    private void add(Element useCase) {
        Element subject = Actors.subject(model, useCase)
                .map(each -> UseCases.type(model, each).orElse(each))
                .orElse(null);
        String around = subject == null ? "" : subject.id().toString();
        String key = (around.isEmpty() ? "" : around + ".") + useCase.id();
        if (hidden.contains(key)) {
            return;
        }
        if (subject != null) {
            nodes.computeIfAbsent(around, _ -> border(subject, around));
        }
        keys.put(useCase.id(), key);
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        around,
                        useCase,
                        BoxTexts.keyword(useCase),
                        texts.name(useCase),
                        needs(useCase),
                        List.of(),
                        false,
                        false,
                        false,
                        Diagram.Shape.USE_CASE));
    }

    private Diagram.Node border(Element subject, String key) {
        return new Diagram.Node(
                key,
                "",
                subject,
                BoxTexts.keyword(subject),
                texts.name(subject),
                List.of(),
                List.of(),
                false,
                true,
                false);
    }

    private List<Diagram.Compartment> needs(Element useCase) {
        List<Element> needs = UseCases.needs(model, useCase);
        return needs.isEmpty()
                ? List.of()
                : List.of(new Diagram.Compartment(
                        "",
                        List.of(new Diagram.Line(
                                useCase.id(),
                                "needs "
                                        + needs.stream()
                                                .map(need -> RequirementIds.of(model, need))
                                                .collect(Collectors.joining(", ")),
                                true))));
    }

    private void relate(Element useCase) {
        String key = keys.get(useCase.id());
        if (key == null) {
            return;
        }
        for (Element actor : Actors.all(model, useCase)) {
            Element who = UseCases.type(model, actor).orElse(actor);
            String whoKey = who.id().toString();
            if (!hidden.contains(whoKey)) {
                nodes.computeIfAbsent(
                        whoKey,
                        _ -> Diagram.Node.plain(who, "actor", texts.name(who), List.of())
                                .shaped(Diagram.Shape.ACTOR));
                edges.add(Diagram.Edge.of(whoKey, key, Diagram.Relation.PARTICIPATION, "", actor.id()));
            }
        }
        UseCases.included(model, useCase).forEach(other -> relate(key, other, Diagram.Relation.INCLUSION, "«include»"));
        UseCases.generals(model, useCase).forEach(other -> relate(key, other, Diagram.Relation.SPECIALIZATION, ""));
    }

    private void relate(String key, Element other, Diagram.Relation relation, String label) {
        String to = keys.get(other.id());
        if (to != null && !to.equals(key)) {
            edges.add(Diagram.Edge.of(key, to, relation, label, null));
        }
    }
}
