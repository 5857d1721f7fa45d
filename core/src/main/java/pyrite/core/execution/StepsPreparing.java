package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StateGraph;
import pyrite.core.behavior.StepGraph;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Property;

/** Prepares steps and the order between them. */
final class StepsPreparing extends Preparing {
    private static final ElementId DURATION = LibraryNames.id("Execution::TimedAction::duration");
    private static final ElementId INSIDE = LibraryNames.id("Execution::TimedAction::inside");

    private final PoolsPreparing pools;
    private final ConnectionsPreparing connections;
    private final ParametersPreparing parameters;
    private final DeedsPreparing deeds;
    private final BlocksPreparing blocks;
    private final StatesPreparing states;
    private final Map<Instance, StepNode> steps = new IdentityHashMap<>();
    private int stepCount;

    StepsPreparing(Preparing shared, PoolsPreparing pools, ConnectionsPreparing connections, DeedsPreparing deeds) {
        super(shared);
        this.pools = pools;
        this.connections = connections;
        this.deeds = deeds;
        this.parameters = new ParametersPreparing(shared, connections);
        this.blocks = new BlocksPreparing(shared, this);
        this.states = new StatesPreparing(shared, this, deeds);
    }

    Map<Instance, StepNode> steps() {
        return steps;
    }

    int stepCount() {
        return stepCount;
    }

    StatesPreparing states() {
        return states;
    }

    /** A step that nobody looks at, such as the block of a loop. */
    StepNode nodeOf(Element element, Instance instance) {
        StepNode node = new StepNode(stepCount++, element, instance, -1, null);
        steps.put(instance, node);
        later.add(() -> frame(node));
        return node;
    }

    StepNode step(Element element, Instance instance) {
        StepNode known = steps.get(instance);
        if (known != null) {
            return known;
        }
        read(element);
        boolean isControl = control(element) != null || isEmpty(element);
        StepNode node = new StepNode(
                stepCount++,
                element,
                instance,
                isControl
                        ? -1
                        : subject(
                                StateGraph.isState(element.kind()) ? Subject.Kind.STATE : Subject.Kind.STEP, instance),
                isControl ? null : flattening.counted(instance));
        steps.put(instance, node);
        parameters.parameters(node);
        node.deed = deed(node);
        pools.claims(node);
        later.add(() -> frame(node));
        return node;
    }

    /** What each performance of a step has values of its own for: its attributes, and those of its items. */
    private void frame(StepNode node) {
        node.frame.addAll(flattening.held(node.instance));
        model.inheritance().features(node.element).stream()
                .filter(feature -> feature.kind() == ElementKind.PAYLOAD
                        || feature.kind() == ElementKind.ITEM
                                && !model.inheritance().isA(feature, CLAIM))
                .filter(feature -> !model.isLibrary(feature.id()))
                .flatMap(feature -> flattening.in(node.instance, feature).stream())
                .forEach(item -> node.frame.addAll(flattening.held(item)));
    }

    /** {@code entry;} stands where nothing is done. */
    private boolean isEmpty(Element element) {
        return element.kind() == ElementKind.ACTION
                && !element.get(Property.ROLE).orElse("").isEmpty()
                && model.names().effectiveName(element) == null
                && StepGraph.of(model, element).steps().isEmpty();
    }

    private static Deed.Control.@Nullable Node control(Element element) {
        return switch (element.kind()) {
            case MERGE -> Deed.Control.Node.MERGE;
            case DECIDE -> Deed.Control.Node.DECIDE;
            case FORK -> Deed.Control.Node.FORK;
            case JOIN -> Deed.Control.Node.JOIN;
            default -> null;
        };
    }

    /** What says which form a step has: it, or what it redefines. */
    private Element form(Element element) {
        return model.inheritance().generals(element).stream()
                .filter(each -> switch (each.kind()) {
                    case ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR, STATE, STATE_DEFINITION, EXHIBIT -> true;
                    default -> control(each) != null;
                })
                .findFirst()
                .orElse(element);
    }

    private Deed deed(StepNode node) {
        Element form = form(node.element);
        return switch (form.kind()) {
            case MERGE, DECIDE, FORK, JOIN -> new Deed.Control(Objects.requireNonNull(control(form)));
            case ACCEPT -> deeds.accept(node);
            case SEND -> deeds.send(node);
            case ASSIGNMENT -> deeds.assignment(node);
            case TERMINATE -> deeds.terminate(node);
            case IF -> blocks.choice(node, form);
            case WHILE -> blocks.repeated(node, form);
            case FOR -> blocks.forEach(node, form);
            case STATE, STATE_DEFINITION, EXHIBIT ->
                new Deed.Machine(states.state(node.element, node.instance, null, node));
            default -> timedOrSteps(node);
        };
    }

    private Deed timedOrSteps(StepNode node) {
        FeatureValue duration = attribute(node, DURATION);
        boolean hasInside = !StepGraph.of(model, node.element).steps().isEmpty();
        if (hasInside && (duration == null || isInsideRun(node))) {
            return new Deed.Steps(net(node.element, node.instance));
        }
        if (duration == null) {
            if (node.subject >= 0) {
                Subject subject = subjects.get(node.subject);
                subjects.set(
                        node.subject,
                        new Subject(subject.kind(), subject.path(), subject.element(), subject.parent(), true));
            }
            return new Deed.Nothing();
        }
        later.add(() -> node.deed = new Deed.Timed(formula(duration.expression(), node.instance)));
        return new Deed.Nothing();
    }

    @Nullable
    FeatureValue attribute(StepNode node, ElementId feature) {
        return model.inheritance()
                .effective(node.element, feature)
                .flatMap(model.inheritance()::value)
                .orElse(null);
    }

    private boolean isInsideRun(StepNode node) {
        FeatureValue inside = attribute(node, INSIDE);
        return !(inside != null
                && inside.expression() instanceof Expression.BooleanLiteral(boolean value, var _)
                && !value);
    }

    /** The steps in the body of an element, in its instance. */
    StepNet net(Element element, Instance instance) {
        StepGraph graph = StepGraph.of(model, element);
        Map<ElementId, Integer> places = new HashMap<>();
        List<StepNode> nodes = new ArrayList<>();
        for (Element step : graph.steps()) {
            List<Instance> instances = flattening.in(instance, step);
            if (instances.isEmpty() || !step.get(Property.ROLE).orElse("").isEmpty()) {
                continue;
            }
            places.put(step.id(), nodes.size());
            nodes.add(instances.size() == 1 ? step(step, instances.getFirst()) : several(step, instances));
        }
        connections.flows(element, instance);
        List<StepNet.Succession> successions = new ArrayList<>();
        List<Integer> begin = new ArrayList<>();
        for (StepGraph.Succession each : graph.successions()) {
            Integer from =
                    each.from().equals(StepGraph.START) ? Integer.valueOf(StepNet.START) : places.get(each.from());
            Integer to = each.to().equals(StepGraph.DONE) ? Integer.valueOf(StepNet.DONE) : places.get(each.to());
            if (from == null || to == null) {
                throw new ModelFault(
                        "'" + instance.path() + "' leads to or from a step that is not in it",
                        List.of(each.carrier().id()));
            }
            int place = successions.size();
            successions.add(new StepNet.Succession(from, to, null, each.isElse()));
            if (from == StepNet.START) {
                begin.add(place);
            }
            Expression guard = each.guard();
            if (guard != null) {
                later.add(() ->
                        successions.set(place, new StepNet.Succession(from, to, question(guard, instance), false)));
            }
        }
        StepNet net = StepNet.of(nodes, successions, begin);
        // What something flows to is known later: such a step waits for that alone.
        later.add(() -> (graph.hasStart() ? graph.unordered() : graph.first())
                .stream()
                        .map(places::get)
                        .filter(place -> place != null && nodes.get(place).needs.isEmpty())
                        .forEach(net::beginWith));
        return net;
    }

    private StepNode several(Element element, List<Instance> instances) {
        List<StepNode> copies =
                instances.stream().map(each -> step(element, each)).toList();
        Instance first = Objects.requireNonNull(instances.getFirst().around());
        StepNode all = new StepNode(stepCount++, element, first, -1, null);
        all.deed = new Deed.Several(copies);
        return all;
    }
}
