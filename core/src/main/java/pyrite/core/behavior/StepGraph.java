package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The steps of a behaviour and the successions between them, own and inherited: a directed graph (SysML 2.0, 7.17.4 to
 * 7.17.6). A succession is written as an element of its own, or as {@code then} before the step it leads to. A step
 * that redefines an inherited one takes its place in the inherited successions.
 */
public final class StepGraph {
    /** Where every action starts and is done; both stand in the graph only if a succession names them. */
    public static final ElementId START = LibraryNames.id("Actions::Action::start");

    public static final ElementId DONE = LibraryNames.id("Actions::Action::done");

    private final List<Element> steps;
    private final List<Succession> successions;
    private final Map<ElementId, List<Succession>> from = new HashMap<>();
    private final Map<ElementId, List<Succession>> to = new HashMap<>();

    /**
     * That one step comes after another.
     *
     * @param carrier the element that says so: a succession, or the step it leads to, which has {@code then} before it
     * @param guard the condition under which it is taken; null if there is none
     */
    public record Succession(
            ElementId from,
            ElementId to,
            Element carrier,
            @Nullable Expression guard,
            boolean isElse) {
        /** Whether it is a {@code then} before the step it leads to. */
        public boolean isThen() {
            return carrier.kind() != ElementKind.SUCCESSION;
        }

        /** Whether it names where it comes from, instead of coming from the step written before it. */
        public boolean hasSource() {
            return !isThen() && carrier.get(Property.SOURCE).isPresent();
        }

        public boolean isConditional() {
            return guard != null || isElse;
        }
    }

    private record Known(Map<ElementId, StepGraph> graphs) {}

    /** The graph of a definition or usage of a behaviour, known once it was asked for. */
    public static StepGraph of(Model model, Element behavior) {
        return model.derived(Known.class, _ -> new Known(new ConcurrentHashMap<>()))
                .graphs()
                .computeIfAbsent(behavior.id(), _ -> new StepGraph(model, behavior));
    }

    private StepGraph(Model model, Element behavior) {
        this.steps = model.inheritance().features(behavior).stream()
                .filter(feature -> isStep(feature.kind()) && !model.isLibrary(feature.id()))
                .toList();
        List<Succession> all = new ArrayList<>();
        model.inheritance().generals(behavior).stream()
                .filter(general -> !model.isLibrary(general.id()))
                .forEach(general -> all.addAll(written(model, behavior, general)));
        this.successions = List.copyOf(all);
        successions.forEach(succession -> {
            from.computeIfAbsent(succession.from(), _ -> new ArrayList<>()).add(succession);
            to.computeIfAbsent(succession.to(), _ -> new ArrayList<>()).add(succession);
        });
    }

    /** Whether successions lead to and from such elements: what happens, as opposed to what is. */
    public static boolean isStep(ElementKind kind) {
        return kind.isBehavior() && kind != ElementKind.TRANSITION && !kind.isFlow()
                || kind == ElementKind.USE_CASE
                || kind == ElementKind.INCLUDED_USE_CASE
                || kind == ElementKind.CALCULATION
                || kind == ElementKind.EVENT;
    }

    /** The successions that stand in the body of one of the generals. */
    private static List<Succession> written(Model model, Element behavior, Element general) {
        return written(
                model.children(general.id()),
                id -> id.equals(START) || id.equals(DONE) ? id : effective(model, behavior, id));
    }

    /**
     * The successions that the members of one body state, in the order in which they are written.
     *
     * @param standing what stands for a step that a succession names
     */
    static List<Succession> written(List<Element> members, UnaryOperator<ElementId> standing) {
        List<Succession> found = new ArrayList<>();
        ElementId before = null;
        for (Element member : members) {
            if (member.kind() == ElementKind.SUCCESSION) {
                ElementId source = end(member, Property.SOURCE).map(standing).orElse(before);
                ElementId target = end(member, Property.TARGET).map(standing).orElse(null);
                if (target == null) {
                    before = source;
                } else if (source != null) {
                    found.add(new Succession(
                            source,
                            target,
                            member,
                            member.get(Property.GUARD).orElse(null),
                            member.get(Property.ELSE).orElse(false)));
                }
            } else if (isStep(member.kind())) {
                ElementId step = standing.apply(member.id());
                if (before != null && member.get(Property.THEN).orElse(false)) {
                    found.add(new Succession(before, step, member, null, false));
                }
                before = step;
            }
        }
        return found;
    }

    private static Optional<ElementId> end(Element succession, Property<Reference> property) {
        return succession.get(property).map(Reference::target);
    }

    /** What has taken the place of a step of a general. */
    private static ElementId effective(Model model, Element behavior, ElementId step) {
        return model.inheritance().effective(behavior, step).map(Element::id).orElse(step);
    }

    /** In the order in which they are written, inherited ones included; control nodes are among them. */
    public List<Element> steps() {
        return steps;
    }

    public List<Succession> successions() {
        return successions;
    }

    public List<Succession> from(ElementId step) {
        return from.getOrDefault(step, List.of());
    }

    public List<Succession> to(ElementId step) {
        return to.getOrDefault(step, List.of());
    }

    /** Whether a succession says where the behaviour starts. */
    public boolean hasStart() {
        return from.containsKey(START);
    }

    /**
     * The steps that no succession leads to. Nothing orders them, so they begin with the behaviour, whether it names
     * its start or not (SysML 2.0, 7.17.1: without successions, steps are performed concurrently).
     */
    public List<ElementId> unordered() {
        return steps.stream()
                .filter(step -> to(step.id()).isEmpty() && isPerformed(step))
                .map(Element::id)
                .toList();
    }

    /** A calculation, an event, and what is handed in may stand among steps without being one. */
    private static boolean isPerformed(Element step) {
        return step.kind() != ElementKind.CALCULATION
                && step.kind() != ElementKind.EVENT
                && step.get(Property.DIRECTION).isEmpty()
                && step.get(Property.REFERENTIAL).isEmpty()
                && step.get(Property.ROLE).isEmpty();
    }

    /**
     * The steps with which a story begins: those behind its start, or those that nothing leads to; of a circle the one
     * written first.
     */
    public List<ElementId> first() {
        if (hasStart()) {
            return from(START).stream().map(Succession::to).toList();
        }
        List<ElementId> ids = steps.stream().map(Element::id).toList();
        List<ElementId> first = ids.stream().filter(step -> to(step).isEmpty()).toList();
        return first.isEmpty() ? ids.stream().limit(1).toList() : first;
    }

    /** The steps that successions lead to from some of them, these among them. */
    public Set<ElementId> reachedFrom(List<ElementId> some) {
        Set<ElementId> reached = new LinkedHashSet<>();
        List<ElementId> waiting = new ArrayList<>(some);
        while (!waiting.isEmpty()) {
            ElementId step = waiting.removeLast();
            if (reached.add(step)) {
                from(step).forEach(succession -> waiting.add(succession.to()));
            }
        }
        return reached;
    }
}
