package pyrite.core.behavior;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Tries all ways through the steps of one behaviour, with every branch of every decision, and finds where they stand
 * still: steps that wait for several successions which never all bring something.
 *
 * <p>A succession hands on one token. A step, fork or join takes one from each succession that leads to it and gives
 * one to each that leads from it; a merge takes any one; a decision gives one to one branch, whose guard is not looked
 * at (SysML 2.0, 7.17.4 and 7.17.5). Only decisions choose, so the order of everything else makes no difference to
 * where it ends, and one order is tried. The number of markings is bounded by {@link #MOST_MARKINGS}, and by so many
 * tokens on one succession; beyond that nothing is said.
 */
final class StepExploration {
    static final int MOST_MARKINGS = 20_000;
    private static final int MOST_TOKENS = 4;

    private final Map<ElementId, Element> steps = new LinkedHashMap<>();
    private final List<Succession> successions;
    /**
     * By the step: the places of its successions in a marking. Those behind the last belong to first steps, the very
     * last to what goes on without end.
     */
    private final Map<ElementId, List<Integer>> in = new HashMap<>();

    private final Map<ElementId, List<Integer>> out = new HashMap<>();
    private final int[] begin;
    private final Map<ElementId, Set<ElementId>> waiting = new LinkedHashMap<>();
    /** The steps that go on without end by themselves, asked for once. */
    private final Set<ElementId> endless = new HashSet<>();

    private boolean isExhausted = true;
    private boolean ends;

    private StepExploration(Model model, Element behavior, Predicate<Element> isEndless) {
        StepGraph graph = StepGraph.of(model, behavior);
        graph.steps().forEach(step -> steps.put(step.id(), step));
        graph.steps().stream().filter(isEndless).map(Element::id).forEach(endless::add);
        this.successions = graph.successions();
        for (int i = 0; i < successions.size(); i++) {
            Succession succession = successions.get(i);
            out.computeIfAbsent(succession.from(), _ -> new ArrayList<>()).add(i);
            in.computeIfAbsent(succession.to(), _ -> new ArrayList<>()).add(i);
        }
        List<ElementId> first = graph.hasStart() ? graph.unordered() : graph.first();
        this.begin = new int[successions.size() + first.size() + 1];
        for (int i = 0; i < first.size(); i++) {
            // What begins with the behaviour waits for nothing else at first.
            in.put(first.get(i), new ArrayList<>(List.of(successions.size() + i)));
            begin[successions.size() + i] = 1;
        }
        out.getOrDefault(StepGraph.START, List.of()).forEach(i -> begin[i] = 1);
    }

    /**
     * A step that stands still.
     *
     * @param missing the steps before it from which nothing comes any more
     */
    record Standstill(Element step, List<Element> missing) {}

    /** The steps that stand still in some way through a behaviour, in the order in which they are written. */
    static List<Standstill> of(Model model, Element behavior) {
        StepExploration exploration = new StepExploration(model, behavior, _ -> false);
        exploration.explore();
        return exploration.isExhausted ? exploration.standstills() : List.of();
    }

    /**
     * Whether something goes on in every way through a behaviour, without end.
     *
     * @param isEndless whether a step goes on without end by itself
     */
    static boolean neverEnds(Model model, Element behavior, Predicate<Element> isEndless) {
        StepExploration exploration = new StepExploration(model, behavior, isEndless);
        exploration.explore();
        return exploration.isExhausted && !exploration.ends;
    }

    private List<Standstill> standstills() {
        return steps.values().stream()
                .filter(step -> waiting.containsKey(step.id()))
                .map(step -> new Standstill(
                        step,
                        waiting.getOrDefault(step.id(), Set.of()).stream()
                                .filter(steps::containsKey)
                                .map(steps::get)
                                .toList()))
                .toList();
    }

    private void explore() {
        Set<List<Integer>> seen = new HashSet<>();
        Deque<int[]> open = new ArrayDeque<>(List.of(begin));
        while (!open.isEmpty()) {
            int[] marking = open.removeFirst();
            if (!seen.add(Arrays.stream(marking).boxed().toList())) {
                continue;
            }
            if (seen.size() > MOST_MARKINGS) {
                isExhausted = false;
                return;
            }
            next(marking).forEach(open::addLast);
        }
    }

    /** The markings that follow; where nothing can go on, what waits is noted. */
    private List<int[]> next(int[] marking) {
        Element choice = null;
        for (Element step : steps.values()) {
            if (isEnabled(step, marking)) {
                if (step.kind() != ElementKind.DECIDE) {
                    return fire(step, marking);
                }
                choice = choice == null ? step : choice;
            }
        }
        if (choice != null) {
            return fire(choice, marking);
        }
        noteWaiting(marking);
        ends |= marking[marking.length - 1] == 0;
        return List.of();
    }

    private boolean isEnabled(Element step, int[] marking) {
        List<Integer> incoming = in.getOrDefault(step.id(), List.of());
        return !incoming.isEmpty()
                && (step.kind() == ElementKind.MERGE
                        ? incoming.stream().anyMatch(i -> marking[i] > 0)
                        : incoming.stream().allMatch(i -> marking[i] > 0));
    }

    private List<int[]> fire(Element step, int[] marking) {
        if (step.kind() == ElementKind.TERMINATE && endsAll(step)) {
            ends = true;
            return List.of();
        }
        int[] taken = marking.clone();
        for (int i : in.getOrDefault(step.id(), List.of())) {
            if (taken[i] > 0) {
                taken[i]--;
                if (step.kind() == ElementKind.MERGE) {
                    break;
                }
            }
        }
        if (endless.contains(step.id())) {
            taken[taken.length - 1] = 1;
            return List.of(taken);
        }
        List<Integer> outgoing = out.getOrDefault(step.id(), List.of());
        if (step.kind() == ElementKind.DECIDE && !outgoing.isEmpty()) {
            return outgoing.stream().map(i -> with(taken, List.of(i))).toList();
        }
        List<Integer> conditional = outgoing.stream()
                .filter(i -> successions.get(i).isConditional())
                .toList();
        List<Integer> always = outgoing.stream()
                .filter(i -> !successions.get(i).isConditional())
                .toList();
        if (conditional.isEmpty()) {
            return List.of(with(taken, always));
        }
        return conditional.stream()
                .map(i -> {
                    List<Integer> both = new ArrayList<>(always);
                    both.add(i);
                    return with(taken, both);
                })
                .toList();
    }

    private static boolean endsAll(Element terminate) {
        return terminate.get(Property.CONTENT).isEmpty();
    }

    private int[] with(int[] marking, List<Integer> places) {
        int[] next = marking.clone();
        for (int i : places) {
            if (!successions.get(i).to().equals(StepGraph.DONE)) {
                next[i] = Math.min(MOST_TOKENS, next[i] + 1);
                isExhausted &= next[i] < MOST_TOKENS;
            }
        }
        return next;
    }

    private void noteWaiting(int[] marking) {
        for (Element step : steps.values()) {
            List<Integer> incoming = in.getOrDefault(step.id(), List.of());
            if (incoming.stream().anyMatch(i -> marking[i] > 0)) {
                Set<ElementId> missing = waiting.computeIfAbsent(step.id(), _ -> new LinkedHashSet<>());
                incoming.stream()
                        .filter(i -> marking[i] == 0 && i < successions.size())
                        .forEach(i -> missing.add(successions.get(i).from()));
            }
        }
    }
}
