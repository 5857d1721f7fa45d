package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.structure.ConnectorEnds;

/**
 * A part in its surroundings: each whole that has it, reduced to the part and the neighbours it is connected with, and
 * the actors of the use cases of which it is the subject. It is drawn as an Interconnection view.
 */
public final class ContextView {
    private static final int MOST_WHOLES = 6;

    private final Model model;
    private final BoxTexts texts;
    private final Element subject;
    /** What is shown in each whole. */
    private final Map<ElementId, Set<ElementId>> shown = new LinkedHashMap<>();

    private ContextView(Model model, Element subject) {
        this.model = model;
        this.texts = new BoxTexts(model);
        this.subject = subject;
    }

    /** @param open the keys of the parts that show their inside */
    public static Diagram of(Model model, ShownView view, Set<String> open) {
        return view.exposed().isEmpty()
                ? new Diagram(List.of(), List.of(), 0)
                : new ContextView(model, view.exposed().getFirst()).build(view, open);
    }

    private Diagram build(ShownView view, Set<String> open) {
        List<Element> uses = uses();
        uses.stream().limit(MOST_WHOLES).forEach(this::addWhole);
        List<Element> wholes = wholes();
        Diagram inside = InterconnectionView.of(
                model,
                new ShownView(view.form(), view.view(), wholes.isEmpty() ? List.of(subject) : wholes, view.placement()),
                open,
                (whole, part) ->
                        shown.getOrDefault(whole.id(), Set.of()).contains(part.id()) || !shown.containsKey(whole.id()));
        Diagram.Node box = inside.nodes().stream()
                .filter(node -> uses.contains(node.element()) || node.element().equals(subject))
                .findFirst()
                .orElse(null);
        return box == null
                ? inside
                : withActors(inside, box, view.placement().hidden(), Math.max(0, uses.size() - MOST_WHOLES));
    }

    /** Those with the most neighbours first; one that shows none only where no other does. */
    private List<Element> wholes() {
        List<Element> all = shown.entrySet().stream()
                .sorted(Comparator.comparing(entry -> -entry.getValue().size()))
                .map(entry -> model.get(entry.getKey()))
                .toList();
        List<Element> connected = all.stream()
                .filter(whole -> Objects.requireNonNull(shown.get(whole.id())).size() > 1)
                .toList();
        return connected.isEmpty() ? all : connected;
    }

    /** The subject itself where it is a part of something, else the parts typed by it. */
    private List<Element> uses() {
        if (subject.kind().isUsage()) {
            return isInWhole(subject) ? List.of(subject) : List.of();
        }
        return model.referrers(subject.id()).stream()
                .map(model::get)
                .filter(user -> user.kind().isUsage()
                        && user.references(Property.TYPES).stream()
                                .anyMatch(type -> type.target().equals(subject.id())))
                .filter(this::isInWhole)
                .sorted(Comparator.comparing((Element use) -> model.names().qualifiedName(use))
                        .thenComparing(Element::id))
                .toList();
    }

    private boolean isInWhole(Element use) {
        return use.owner() != null && ShownView.hasInside(model.get(use.owner()));
    }

    private void addWhole(Element use) {
        Element whole = model.get(Objects.requireNonNull(use.owner()));
        Set<ElementId> parts = shown.computeIfAbsent(whole.id(), _ -> new HashSet<>());
        parts.add(use.id());
        model.inheritance().generals(whole).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .forEach(member -> {
                    List<ElementId> ends = ConnectorEnds.of(model, member).stream()
                            .map(end -> end.chain().getFirst())
                            .map(first -> model.inheritance()
                                    .effective(whole, first)
                                    .map(Element::id)
                                    .orElse(first))
                            .toList();
                    if (ends.contains(use.id())) {
                        ends.stream()
                                .filter(end -> ShownView.hasInside(model.get(end)))
                                .forEach(parts::add);
                    }
                });
    }

    private Diagram withActors(Diagram inside, Diagram.Node box, Set<String> hidden, int left) {
        Map<String, Diagram.Node> actors = new LinkedHashMap<>();
        Map<String, Set<String>> cases = new HashMap<>();
        Map<String, ElementId> relations = new HashMap<>();
        model.ownElements(Set.of(ElementKind.USE_CASE_DEFINITION, ElementKind.USE_CASE))
                .filter(this::isAboutSubject)
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .forEach(useCase -> model.inheritance().features(useCase).stream()
                        .filter(feature -> feature.kind() == ElementKind.ACTOR && !model.isLibrary(feature.id()))
                        .forEach(actor -> {
                            String title = texts.title(actor);
                            Diagram.Node node = actors.computeIfAbsent(title, _ -> node(actor, title));
                            cases.computeIfAbsent(node.key(), _ -> new LinkedHashSet<>())
                                    .add(texts.name(useCase));
                            relations.putIfAbsent(node.key(), useCase.id());
                        }));
        List<Diagram.Node> nodes = new ArrayList<>(inside.nodes());
        List<Diagram.Edge> edges = new ArrayList<>(inside.edges());
        actors.values().stream().filter(node -> !hidden.contains(node.key())).forEach(node -> {
            nodes.add(node);
            edges.add(Diagram.Edge.of(
                    node.key(),
                    box.key(),
                    Diagram.Relation.PARTICIPATION,
                    String.join(", ", cases.getOrDefault(node.key(), Set.of())),
                    relations.get(node.key())));
        });
        return new Diagram(nodes, edges, inside.left() + left);
    }

    private static Diagram.Node node(Element actor, String title) {
        return Diagram.Node.plain(actor, "actor", title, List.of());
    }

    /** Whether a use case has the subject, or what it is typed by, as its own subject. */
    private boolean isAboutSubject(Element useCase) {
        return model.inheritance().features(useCase).stream()
                .filter(feature -> feature.kind() == ElementKind.SUBJECT)
                .anyMatch(about -> type(about) != null && model.inheritance().isA(subject, about(about)));
    }

    private ElementId about(Element feature) {
        return Objects.requireNonNull(type(feature)).id();
    }

    private @Nullable Element type(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .findFirst()
                .orElse(null);
    }
}
