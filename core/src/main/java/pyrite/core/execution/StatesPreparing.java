package pyrite.core.execution;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StateGraph;
import pyrite.core.dynamics.Flattening.Counted;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** Prepares state machines. */
final class StatesPreparing extends Preparing {
    private final StepsPreparing steps;
    private final DeedsPreparing deeds;
    private final Map<Instance, StateNode> states = new IdentityHashMap<>();

    StatesPreparing(Preparing shared, StepsPreparing steps, DeedsPreparing deeds) {
        super(shared);
        this.steps = steps;
        this.deeds = deeds;
    }

    List<StateNode> states() {
        return List.copyOf(states.values());
    }

    StateNode state(Element element, Instance instance, @Nullable StateNode around, @Nullable StepNode step) {
        StateGraph graph = StateGraph.of(model, element);
        read(element);
        int subject = step != null ? step.subject : subject(Subject.Kind.STATE, instance);
        Counted counted = flattening.counted(instance);
        StateNode node = new StateNode(element, instance, subject, counted, around, graph.isParallel());
        states.put(instance, node);
        Map<ElementId, StateNode> inner = new HashMap<>();
        for (Element state : graph.states()) {
            flattening.in(instance, state).stream().findFirst().ifPresent(each -> {
                StateNode within = state(state, each, node, null);
                node.states.add(within);
                inner.put(state.id(), within);
            });
        }
        node.entry = action(graph, "entry", instance);
        node.during = action(graph, "do", instance);
        node.exit = action(graph, "exit", instance);
        for (StateGraph.Beginning beginning : graph.beginnings()) {
            StateNode target = inner.get(beginning.state());
            if (target != null) {
                later.add(() -> node.beginnings.add(new StateNode.Beginning(
                        target, beginning.guard() == null ? null : question(beginning.guard(), instance))));
            }
        }
        graph.transitions().forEach(transition -> way(transition, node, instance, inner));
        return node;
    }

    private void way(
            StateGraph.Transition transition, StateNode around, Instance scope, Map<ElementId, StateNode> inner) {
        StateNode from = inner.getOrDefault(transition.from(), anywhere(transition.carrier(), Property.SOURCE, scope));
        boolean ends = transition.to().equals(StateGraph.DONE);
        StateNode to = ends
                ? null
                : inner.getOrDefault(transition.to(), anywhere(transition.carrier(), Property.TARGET, scope));
        if (from == null || !ends && to == null) {
            throw new ModelFault(
                    "a transition of '" + around.instance.path() + "' leads to or from what is no state in it",
                    List.of(transition.carrier().id()));
        }
        Element carrier = transition.carrier();
        read(carrier);
        Instance instance =
                flattening.in(scope, carrier).stream().findFirst().orElseGet(() -> flattening.inside(carrier, scope));
        StepNode effect = StateGraph.effect(model, carrier)
                .map(action -> steps.step(action, first(instance, action)))
                .orElse(null);
        deeds.trigger(carrier, instance, part(scope));
        Expression guard = model.inheritance().nearest(carrier, Property.GUARD).orElse(null);
        later.add(() -> from.ways.add(new StateNode.Way(
                carrier, deeds.triggerOf(instance), guard == null ? null : question(guard, instance), effect, to)));
    }

    /** A state that a transition names by a way of several steps. */
    @Nullable
    StateNode anywhere(Element carrier, Property<Reference> property, Instance scope) {
        return model.inheritance()
                .nearest(carrier, property)
                .map(Reference::chain)
                .filter(chain -> chain.size() > 1)
                .map(chain -> flattening.instances(new FeatureReference(List.copyOf(chain), Span.NONE), scope))
                .filter(found -> !found.isEmpty())
                .map(found -> states.get(found.getFirst()))
                .orElse(null);
    }

    @Nullable
    StepNode action(StateGraph graph, String role, Instance instance) {
        Element action = graph.action(role);
        return action == null ? null : steps.step(action, first(instance, action));
    }
}
