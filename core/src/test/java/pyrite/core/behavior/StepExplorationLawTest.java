package pyrite.core.behavior;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Model;

/**
 * Random steps, forks, joins, merges and decisions, with every order of everything tried: the steps that stand still in
 * some order are those that the exploration of one order finds, and it ends in some order where that one can end.
 */
class StepExplorationLawTest {
    private static final int NODES = 7;
    private static final int MOST_TOKENS = 4;
    private static final int MOST_MARKINGS = 4_000;

    private final List<String> kinds = new ArrayList<>();
    private final List<int[]> ways = new ArrayList<>();
    private boolean isBounded = true;
    private boolean ends;

    @Property(tries = 400)
    void oneOrderFindsWhatEveryOrderFinds(@ForAll long seed) {
        kinds.clear();
        ways.clear();
        isBounded = true;
        ends = false;
        String text = text(new Random(seed));
        TreeSet<String> expected = waiting();
        if (!isBounded) {
            return;
        }
        Model model = Models.of(text);
        assertThat(StepExploration.of(model, Models.element(model, "Test::B")).stream()
                        .map(standstill -> standstill.step().name()))
                .as("seed %d:%n%s", seed, text)
                .containsExactlyInAnyOrderElementsOf(expected);
        assertThat(StepExploration.neverEnds(model, Models.element(model, "Test::B"), _ -> false))
                .as("seed %d:%n%s", seed, text)
                .isEqualTo(!ends);
    }

    private String text(Random random) {
        StringBuilder text = new StringBuilder("action def B {\n");
        for (int i = 0; i < NODES; i++) {
            String kind = List.of("action", "action", "fork", "join", "merge", "decide")
                    .get(random.nextInt(6));
            kinds.add(kind);
            text.append(kind).append(" n").append(i).append(";\n");
        }
        // Mostly forward, sometimes back into a merge node, so that there are loops.
        for (int i = 0; i < NODES; i++) {
            int most = kinds.get(i).equals("fork") || kinds.get(i).equals("decide") ? 2 : 1;
            for (int k = 0; k < most; k++) {
                int to = i + 1 + random.nextInt(3);
                boolean isBack = random.nextInt(6) == 0;
                int back = random.nextInt(i + 1);
                if (isBack && kinds.get(back).equals("merge")) {
                    to = back;
                }
                if (to < NODES && isFree(i, to)) {
                    ways.add(new int[] {i, to});
                    text.append("first n%d then n%d;\n".formatted(i, to));
                }
            }
        }
        return text.append("}").toString();
    }

    /** One succession leads to a decide or fork node, and one joins the same two steps. */
    private boolean isFree(int from, int to) {
        boolean takesOne = kinds.get(to).equals("decide") || kinds.get(to).equals("fork");
        return ways.stream().noneMatch(way -> way[1] == to && (takesOne || way[0] == from));
    }

    /** The steps with tokens before them where nothing can go on, over every order. */
    private TreeSet<String> waiting() {
        TreeSet<String> waiting = new TreeSet<>();
        List<Integer> start = new ArrayList<>();
        ways.forEach(_ -> start.add(0));
        boolean[] isFirst = new boolean[NODES];
        boolean any = false;
        for (int i = 0; i < NODES; i++) {
            int node = i;
            isFirst[i] = ways.stream().noneMatch(way -> way[1] == node);
            any |= isFirst[i];
        }
        if (!any) {
            isBounded = false;
            return waiting;
        }
        for (int i = 0; i < NODES; i++) {
            start.add(isFirst[i] ? 1 : 0);
        }
        Set<List<Integer>> seen = new HashSet<>();
        Deque<List<Integer>> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            List<Integer> marking = open.pop();
            if (!seen.add(marking)) {
                continue;
            }
            if (seen.size() > MOST_MARKINGS) {
                isBounded = false;
                return waiting;
            }
            List<List<Integer>> next = new ArrayList<>();
            for (int i = 0; i < NODES; i++) {
                next.addAll(fire(i, marking));
            }
            if (next.isEmpty()) {
                ends = true;
                for (int i = 0; i < ways.size(); i++) {
                    if (marking.get(i) > 0) {
                        waiting.add("n" + ways.get(i)[1]);
                    }
                }
            }
            open.addAll(next);
        }
        return waiting;
    }

    private List<List<Integer>> fire(int node, List<Integer> marking) {
        List<List<Integer>> taken = new ArrayList<>();
        List<Integer> incoming = places(node, 1);
        if (incoming.isEmpty()) {
            if (marking.get(ways.size() + node) > 0) {
                taken.add(changed(marking, List.of(ways.size() + node), List.of()));
            }
        } else if (kinds.get(node).equals("merge")) {
            incoming.stream()
                    .filter(place -> marking.get(place) > 0)
                    .forEach(place -> taken.add(changed(marking, List.of(place), List.of())));
        } else if (incoming.stream().allMatch(place -> marking.get(place) > 0)) {
            taken.add(changed(marking, incoming, List.of()));
        }
        List<Integer> outgoing = places(node, 0);
        List<List<Integer>> next = new ArrayList<>();
        for (List<Integer> each : taken) {
            if (kinds.get(node).equals("decide")) {
                outgoing.forEach(place -> next.add(changed(each, List.of(), List.of(place))));
                if (outgoing.isEmpty()) {
                    next.add(each);
                }
            } else {
                next.add(changed(each, List.of(), outgoing));
            }
        }
        return next;
    }

    private List<Integer> places(int node, int end) {
        List<Integer> places = new ArrayList<>();
        for (int i = 0; i < ways.size(); i++) {
            if (ways.get(i)[end] == node) {
                places.add(i);
            }
        }
        return places;
    }

    private List<Integer> changed(List<Integer> marking, List<Integer> less, List<Integer> more) {
        List<Integer> changed = new ArrayList<>(marking);
        less.forEach(place -> changed.set(place, changed.get(place) - 1));
        more.forEach(place -> {
            changed.set(place, changed.get(place) + 1);
            isBounded &= changed.get(place) < MOST_TOKENS;
        });
        return changed;
    }
}
