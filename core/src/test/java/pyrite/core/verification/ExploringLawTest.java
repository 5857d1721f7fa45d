package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.Exploration;
import pyrite.core.execution.Exploration.Kind;
import pyrite.core.execution.Subject;
import pyrite.core.model.Model;

/**
 * In random state machines exploring reaches what breadth-first search in the graph of transitions reaches, and finds a
 * violation exactly where a reached state violates, by a way of the least length.
 */
class ExploringLawTest {
    private static final Exploration.Bounds BOUNDS = new Exploration.Bounds(10, 20_000, 100, Duration.ofSeconds(60));
    private static final int ITEMS = 3;
    private static final int NOWHERE = -1;
    private static final int LIMIT = 5;

    /**
     * A machine that begins in state 0.
     *
     * @param next the state to go to from each by each item; {@link #NOWHERE} if that does nothing
     * @param values what each state assigns
     */
    private record Machine(int[][] next, int[] values) {
        static Machine random(Random random) {
            int size = 2 + random.nextInt(5);
            int[][] next = new int[size][ITEMS];
            for (int[] row : next) {
                Arrays.setAll(row, i -> random.nextInt(3) == 0 ? random.nextInt(size) : NOWHERE);
            }
            int[] values = IntStream.generate(() -> random.nextInt(LIMIT + 2))
                    .limit(size)
                    .toArray();
            return new Machine(next, values);
        }

        String text() {
            StringBuilder text = new StringBuilder();
            IntStream.range(0, ITEMS).forEach(i -> text.append("item def I%d; ".formatted(i)));
            text.append("port def Panel {");
            IntStream.range(0, ITEMS).forEach(i -> text.append("in item i%d : I%d; ".formatted(i, i)));
            text.append(
                    "} part def Thing { port panel : Panel; attribute x : Real := 0; exhibit state m { entry; then s0;");
            for (int state = 0; state < next.length; state++) {
                text.append("state s%d { entry assign x := %d; } ".formatted(state, values[state]));
                for (int item = 0; item < ITEMS; item++) {
                    if (next[state][item] != NOWHERE) {
                        text.append("transition first s%d accept I%d via panel then s%d; "
                                .formatted(state, item, next[state][item]));
                    }
                }
            }
            return text + """
                    } }
                    part p : Thing;
                    requirement <'L-1'> low { subject t : Thing; require constraint { t.x <= %d } }
                    satisfy low by p;
                    """.formatted(LIMIT);
        }

        /** The least number of items to each state; {@code NOWHERE} if none leads there. */
        int[] distances() {
            int[] distances = new int[next.length];
            Arrays.fill(distances, NOWHERE);
            distances[0] = 0;
            Deque<Integer> open = new ArrayDeque<>(List.of(0));
            while (!open.isEmpty()) {
                int state = open.poll();
                for (int target : next[state]) {
                    if (target != NOWHERE && distances[target] == NOWHERE) {
                        distances[target] = distances[state] + 1;
                        open.add(target);
                    }
                }
            }
            return distances;
        }
    }

    @Property(tries = 60)
    void reachesAndViolatesAsTheGraphDoes(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        Machine machine = Machine.random(new Random(seed));
        Model model = Models.of(machine.text());
        Exploration.Result result = Exploring.of(model, Models.element(model, "Test::p"), BOUNDS, RunControl.NONE)
                .explore();
        int[] distances = machine.distances();
        assertThat(result.isComplete()).as("seed %d", seed).isTrue();
        assertThat(result.unreached())
                .as("seed %d", seed)
                .extracting(Subject::path)
                .containsExactlyInAnyOrderElementsOf(unreached(distances));
        List<Integer> violating = new ArrayList<>();
        for (int state = 0; state < distances.length; state++) {
            if (distances[state] != NOWHERE && machine.values()[state] > LIMIT) {
                violating.add(distances[state]);
            }
        }
        assertThat(result.found()).as("seed %d", seed).allMatch(found -> found.kind() == Kind.VIOLATION);
        assertThat(result.found().stream().map(found -> found.words().size()).toList())
                .as("seed %d", seed)
                .isEqualTo(violating.stream().sorted().limit(1).toList());
    }

    private static List<String> unreached(int[] distances) {
        return IntStream.range(0, distances.length)
                .filter(state -> distances[state] == NOWHERE)
                .mapToObj(state -> "p.m.s" + state)
                .toList();
    }
}
