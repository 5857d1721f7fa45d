package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * What can be said of a behaviour before it runs: steps that no way leads to, steps and joins that wait for what never
 * comes, states that nothing enters or leaves, or that are never completed, transitions that compete, and those that do
 * not fit what a machine inherits any more.
 */
public final class BehaviorChecks {
    private final Model model;
    private final Element behavior;
    private final List<Gap> gaps = new ArrayList<>();

    /** What is missing. */
    public enum Kind {
        UNREACHED,
        STANDSTILL,
        UNENTERED,
        UNLEFT,
        COMPETING,
        UNENDING,
        UNFIT
    }

    /** @param member the step or state */
    public record Gap(Kind kind, Element member, String sentence) {}

    private BehaviorChecks(Model model, Element behavior) {
        this.model = model;
        this.behavior = behavior;
    }

    /** Of a behaviour with steps or states of its own; steps of a story are checked by {@code StoryChecks}. */
    public static List<Gap> of(Model model, Element behavior) {
        BehaviorChecks checks = new BehaviorChecks(model, behavior);
        if (StateGraph.isState(behavior.kind()) || behavior.kind() == ElementKind.STATE_DEFINITION) {
            checks.states();
            checks.unleft();
            checks.gaps.addAll(TransitionChecks.of(model, behavior));
        } else if (model.children(behavior.id()).stream().anyMatch(child -> StepGraph.isStep(child.kind()))) {
            checks.unreached();
            checks.standstills();
        }
        return List.copyOf(checks.gaps);
    }

    private void unreached() {
        StepGraph graph = StepGraph.of(model, behavior);
        Set<ElementId> reached = graph.reachedFrom(Stream.concat(graph.first().stream(), graph.unordered().stream())
                .toList());
        graph.steps().stream()
                .filter(step -> !graph.successions().isEmpty()
                        && !reached.contains(step.id())
                        && !graph.to(step.id()).isEmpty())
                .forEach(step ->
                        gaps.add(new Gap(Kind.UNREACHED, step, "no way leads from the start to '" + name(step) + "'")));
    }

    private void standstills() {
        StepExploration.of(model, behavior)
                .forEach(standstill -> gaps.add(new Gap(
                        Kind.STANDSTILL,
                        standstill.step(),
                        "'" + name(standstill.step()) + "' may wait for "
                                + standstill.missing().stream()
                                        .map(step -> "'" + name(step) + "'")
                                        .collect(Collectors.joining(" and "))
                                + " without end; a merge node lets either lead on")));
    }

    /** States run one after the other; of parallel ones each begins with the state around them. */
    private void states() {
        List<Element> states = model.inheritance().features(behavior).stream()
                .filter(feature -> feature.kind() == ElementKind.STATE && !model.isLibrary(feature.id()))
                .toList();
        boolean isParallel =
                model.inheritance().nearest(behavior, Property.PARALLEL).orElse(false);
        if (states.size() < 2 || isParallel) {
            return;
        }
        Set<ElementId> entered = entered();
        states.stream()
                .filter(state -> !entered.contains(state.id()))
                .forEach(state ->
                        gaps.add(new Gap(Kind.UNENTERED, state, "no transition leads to state '" + name(state) + "'")));
    }

    private Set<ElementId> entered() {
        Set<ElementId> entered = new LinkedHashSet<>();
        model.inheritance().generals(behavior).stream()
                .filter(general -> !model.isLibrary(general.id()))
                .flatMap(general -> model.children(general.id()).stream())
                .forEach(member -> {
                    if (member.kind() == ElementKind.TRANSITION || member.kind() == ElementKind.SUCCESSION) {
                        member.get(Property.TARGET)
                                .map(Reference::target)
                                .ifPresent(target -> entered.add(standing(target)));
                    } else if (member.get(Property.THEN).orElse(false)) {
                        entered.add(standing(member.id()));
                    }
                });
        return entered;
    }

    /**
     * States of a machine that stands alone. What is within another state is left together with that one. A state that
     * a general machine does not leave either is told there.
     */
    private void unleft() {
        if (isWithinState()) {
            return;
        }
        sequences(behavior).forEach(machine -> {
            StateGraph graph = StateGraph.of(model, machine);
            graph.states().stream()
                    .filter(state -> graph.states().size() > 1
                            && !isLeft(graph, state)
                            && (machine.id().equals(state.owner()) || isLeftInGeneral(state)))
                    .forEach(state -> gaps.add(new Gap(
                            Kind.UNLEFT, state, "no transition leaves state '" + within(machine, state) + "'")));
        });
    }

    private String within(Element machine, Element state) {
        return machine.equals(behavior) ? name(state) : name(machine) + "." + name(state);
    }

    private boolean isLeftInGeneral(Element state) {
        return state.owner() != null && isLeft(StateGraph.of(model, model.get(state.owner())), state);
    }

    private static boolean isLeft(StateGraph graph, Element state) {
        return graph.transitions().stream()
                .anyMatch(transition -> transition.from().equals(state.id()));
    }

    private boolean isWithinState() {
        return isState(behavior.owner())
                || model.referrers(behavior.id()).stream()
                        .map(model::get)
                        .anyMatch(user -> isState(user.owner())
                                && user.references(Property.TYPES).stream()
                                        .anyMatch(type -> type.target().equals(behavior.id())));
    }

    private boolean isState(@Nullable ElementId id) {
        return id != null
                && (StateGraph.isState(model.get(id).kind()) || model.get(id).kind() == ElementKind.STATE_DEFINITION);
    }

    /** A machine, or of one with parallel states each of these. */
    private Stream<Element> sequences(Element machine) {
        StateGraph graph = StateGraph.of(model, machine);
        return graph.isParallel() ? graph.states().stream().flatMap(this::sequences) : Stream.of(machine);
    }

    /** What redefines a state of a general stands for it. */
    private ElementId standing(ElementId state) {
        return model.inheritance().effective(behavior, state).map(Element::id).orElse(state);
    }

    private String name(Element member) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(member), member.kind().title());
    }
}
