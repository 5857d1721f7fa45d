package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;
import pyrite.core.story.Actors;
import pyrite.core.story.Story;
import pyrite.core.structure.InterfaceTable;

/**
 * The Action Flow view of a behaviour (SysML 2.0, 9.2.20): its steps, control nodes, successions and flows. An open
 * step shows its own steps. As a story it says in words what the steps of a use case are, with their numbers.
 */
final class ActionFlowView {
    private static final int MOST_NODES = 500;
    private static final int DEEPEST = 12;
    private static final int LONGEST_LABEL = 38;

    private final Model model;
    private final BoxTexts texts;
    private final Set<String> open;
    private final Set<String> hidden;
    private final boolean isStory;
    private final Map<ElementId, Story.Line> lines = new HashMap<>();
    private final Map<ElementId, String> conditions = new HashMap<>();
    private final Map<ElementId, String> doers = new HashMap<>();
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private int left;

    private ActionFlowView(Model model, ShownView view, Set<String> open) {
        this.model = model;
        this.texts = new BoxTexts(model);
        this.open = open;
        this.hidden = view.placement().hidden();
        this.isStory = view.form() == ShownView.Form.STORY;
    }

    static Diagram of(Model model, ShownView view, Set<String> open) {
        ActionFlowView flow = new ActionFlowView(model, view, open);
        view.exposed().stream().filter(ShownView::hasSteps).forEach(flow::show);
        return new Diagram(List.copyOf(flow.nodes.values()), flow.edges, flow.left);
    }

    private void show(Element behavior) {
        if (isStory) {
            Story story = Story.of(model, behavior);
            Actors actors = Actors.of(model, behavior);
            story.lines().forEach(line -> {
                lines.put(line.step().id(), line);
                actors.of(line).ifPresent(actor -> doers.put(line.step().id(), Actors.spaced(texts.name(actor))));
            });
            story.ways().forEach(way -> {
                if (way.carrier() != null) {
                    conditions.put(way.carrier().id(), way.label() + " " + way.condition());
                    if (way.kind() == Story.Kind.INTERRUPTION) {
                        lines.put(
                                way.carrier().id(),
                                new Story.Line(way.label() + " · whenever", way.carrier(), way.condition()));
                    }
                }
            });
        }
        body(behavior, behavior.id().toString(), "", 0);
    }

    private void body(Element behavior, String prefix, String parent, int depth) {
        StepGraph graph = StepGraph.of(model, behavior);
        if (graph.steps().isEmpty()) {
            return;
        }
        // Functions that only exchange something say nothing of an order.
        boolean isOrdered = isStory || !graph.successions().isEmpty();
        if (parent.isEmpty() && isOrdered) {
            terminal(prefix, parent, StepGraph.START, Diagram.Shape.START);
        }
        for (Element step : graph.steps()) {
            String key = prefix + "." + step.id();
            if (hidden.contains(key)) {
                continue;
            }
            if (nodes.size() >= MOST_NODES) {
                left++;
                continue;
            }
            step(behavior, step, key, parent, depth);
        }
        boolean isDone = !graph.to(StepGraph.DONE).isEmpty();
        if (isDone) {
            terminal(prefix, parent, StepGraph.DONE, Diagram.Shape.DONE);
        }
        if (!graph.hasStart() && parent.isEmpty() && isOrdered) {
            graph.first().forEach(first -> edge(prefix, StepGraph.START, first, "", null));
        }
        graph.successions().forEach(succession -> succession(prefix, succession));
        if (!isStory) {
            flows(behavior, prefix);
        }
    }

    private void terminal(String prefix, String parent, ElementId id, Diagram.Shape shape) {
        String key = prefix + "." + id;
        Element element = model.get(id);
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        parent,
                        element,
                        shape == Diagram.Shape.START ? "start" : "done",
                        "",
                        List.of(),
                        List.of(),
                        false,
                        false,
                        false,
                        shape));
    }

    private void step(Element behavior, Element step, String key, String parent, int depth) {
        boolean hasInside = ShownView.hasSteps(step)
                && step.kind() != ElementKind.USE_CASE
                && !StepGraph.of(model, step).steps().isEmpty();
        boolean isStretch = isStory && hasInside && !lines.containsKey(step.id());
        boolean isOpen = hasInside && depth < DEEPEST && (open.contains(key) || isStretch);
        Diagram.Shape shape = shape(step);
        Story.Line told = shape.isBare() ? null : lines.get(step.id());
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        parent,
                        step,
                        told != null ? number(told) : BoxTexts.keyword(step),
                        told != null || shape.isBare() ? "" : title(step, isStretch),
                        told != null ? prose(told) : List.of(),
                        List.of(),
                        hasInside && !isStretch,
                        isOpen,
                        !behavior.id().equals(step.owner()),
                        told != null && shape == Diagram.Shape.BOX ? Diagram.Shape.STEP : shape));
        if (isOpen) {
            body(step, key, key, depth + 1);
        }
    }

    private String number(Story.Line line) {
        String doer = doers.get(line.step().id());
        return doer == null ? line.label() : line.label() + " · " + doer;
    }

    private static List<Diagram.Compartment> prose(Story.Line line) {
        return List.of(new Diagram.Compartment(
                "",
                BoxTexts.paragraph(line.text()).stream()
                        .map(text -> new Diagram.Line(line.step().id(), text, true))
                        .toList()));
    }

    private String title(Element step, boolean isStretch) {
        return switch (step.kind()) {
            case ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR ->
                isStretch ? texts.title(step) : NotationWriter.head(model, step).replaceFirst("^then ", "");
            default -> texts.title(step);
        };
    }

    static Diagram.Shape shape(Element step) {
        return switch (step.kind()) {
            case DECIDE, MERGE -> Diagram.Shape.DECISION;
            case FORK, JOIN -> Diagram.Shape.BAR;
            case ACCEPT -> Diagram.Shape.RECEIVE;
            case SEND -> Diagram.Shape.SEND;
            default -> Diagram.Shape.BOX;
        };
    }

    private void succession(String prefix, Succession succession) {
        edge(
                prefix,
                succession.from(),
                succession.to(),
                label(succession),
                succession.isThen() ? null : succession.carrier().id());
    }

    private String label(Succession succession) {
        String told = conditions.get(succession.carrier().id());
        if (told != null && !succession.isThen()) {
            return told.length() <= LONGEST_LABEL
                    ? told.strip()
                    : told.substring(0, LONGEST_LABEL - 1).strip() + "…";
        }
        if (succession.isElse()) {
            return isStory ? "otherwise" : "[else]";
        }
        return succession.guard() == null
                ? ""
                : "["
                        + NotationWriter.expression(
                                model, succession.guard(), succession.carrier().id()) + "]";
    }

    private void edge(String prefix, ElementId from, ElementId to, String label, @Nullable ElementId element) {
        String fromKey = prefix + "." + from;
        String toKey = prefix + "." + to;
        if (nodes.containsKey(fromKey) && nodes.containsKey(toKey)) {
            edges.add(Diagram.Edge.of(fromKey, toKey, Diagram.Relation.SUCCESSION, label, element));
        }
    }

    private void flows(Element behavior, String prefix) {
        model.inheritance().features(behavior).stream()
                .filter(feature -> feature.kind().isFlow() && !model.isLibrary(feature.id()))
                .forEach(flow -> {
                    String from = end(prefix, flow, Property.SOURCE);
                    String to = end(prefix, flow, Property.TARGET);
                    if (from != null && to != null && !from.equals(to)) {
                        edges.add(Diagram.Edge.of(
                                from,
                                to,
                                Diagram.Relation.FLOW,
                                InterfaceTable.carried(model, flow).stream()
                                        .map(InterfaceTable.Carried::name)
                                        .collect(Collectors.joining(", ")),
                                flow.id()));
                    }
                });
    }

    /** The innermost step shown on the way to one end of a flow. */
    private @Nullable String end(String prefix, Element flow, Property<Reference> property) {
        String key = prefix;
        for (ElementId step : flow.get(property).map(Reference::chain).orElse(List.of())) {
            if (!nodes.containsKey(key + "." + step)) {
                break;
            }
            key += "." + step;
        }
        return key.equals(prefix) ? null : key;
    }
}
