package pyrite.core.function;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Model;

/**
 * Random flows between functions and control nodes, and random performers: the rows are what the transitive closure of
 * the flows (Warshall 1962) and a look at each part's text give.
 */
class ExchangeLawTest {
    private static final int FUNCTIONS = 6;
    private static final int NODES = 4;
    private static final int PARTS = 4;

    @Property(tries = 150)
    void theRowsAreTheClosureOfTheFlows(@ForAll long seed) {
        Random random = new Random(seed);
        int all = 2 * FUNCTIONS + NODES;
        boolean[][] leads = new boolean[all][all];
        StringBuilder flows = new StringBuilder();
        for (int i = 0; i < 3 + random.nextInt(12); i++) {
            int from = random.nextBoolean() ? out(random.nextInt(FUNCTIONS)) : node(random.nextInt(NODES));
            int to = random.nextBoolean() ? in(random.nextInt(FUNCTIONS)) : node(random.nextInt(NODES));
            if (from != to && !leads[from][to]) {
                leads[from][to] = true;
                flows.append("flow from ")
                        .append(name(from))
                        .append(" to ")
                        .append(name(to))
                        .append(";\n");
            }
        }
        boolean[][] performs = new boolean[PARTS][FUNCTIONS];
        Model model = Models.of(text(random, flows.toString(), performs));
        assertThat(rows(model)).as("seed %d:%n%s", seed, flows).isEqualTo(closure(leads, performs));

        // Another part performs a function: only rows with this function change.
        int moved = random.nextInt(FUNCTIONS);
        for (int part = 0; part < PARTS; part++) {
            performs[part][moved] = part == moved % PARTS;
        }
        Model after = Models.of(text(null, flows.toString(), performs));
        TreeSet<String> gone = new TreeSet<>(rows(model));
        gone.removeAll(rows(after));
        assertThat(gone).allMatch(row -> row.contains("f" + moved + " "));
        assertThat(rows(after)).isEqualTo(closure(leads, performs));
    }

    private static int out(int function) {
        return function;
    }

    private static int in(int function) {
        return FUNCTIONS + function;
    }

    private static int node(int node) {
        return 2 * FUNCTIONS + node;
    }

    private static String name(int place) {
        return place < FUNCTIONS
                ? "f" + place + ".given"
                : place < 2 * FUNCTIONS ? "f" + (place - FUNCTIONS) + ".taken" : "n" + (place - 2 * FUNCTIONS);
    }

    /** @param random chooses who performs what; null to write it as it is given */
    private static String text(Random random, String flows, boolean[][] performs) {
        String[] nodes = {"fork", "join", "merge", "decide"};
        StringBuilder text = new StringBuilder();
        StringBuilder body = new StringBuilder();
        for (int i = 0; i < FUNCTIONS; i++) {
            text.append("action def F%1$d { in item taken; out item given; }\n".formatted(i));
            body.append("action f%1$d : F%1$d;\n".formatted(i));
        }
        for (int i = 0; i < NODES; i++) {
            body.append(nodes[i]).append(" n").append(i).append(";\n");
        }
        text.append("action def Whole {\n").append(body).append(flows).append("}\npart def Plant {\n");
        for (int part = 0; part < PARTS; part++) {
            text.append("part p").append(part).append(" {\n");
            for (int i = 0; i < FUNCTIONS; i++) {
                performs[part][i] = random == null ? performs[part][i] : random.nextInt(4) == 0;
                text.append(performs[part][i] ? "perform action a%1$d : F%1$d;\n".formatted(i) : "");
            }
            text.append("}\n");
        }
        return text.append("}\n").toString();
    }

    private static List<String> rows(Model model) {
        ExchangeTable table =
                ExchangeTable.of(model, Models.element(model, "Test::Whole"), Models.element(model, "Test::Plant"), 1);
        return table.rows().stream()
                .map(row -> row.from().function().name() + " "
                        + (row.fromPart() == null ? "nobody" : table.parts().path(row.fromPart())) + " → "
                        + row.to().function().name() + " "
                        + (row.toPart() == null ? "nobody" : table.parts().path(row.toPart())))
                .sorted()
                .toList();
    }

    /** What is sent and not received from others reaches what is received and not handed on. */
    private static List<String> closure(boolean[][] leads, boolean[][] performs) {
        int all = leads.length;
        boolean[][] reaches = new boolean[all][];
        for (int i = 0; i < all; i++) {
            reaches[i] = leads[i].clone();
        }
        for (int k = 0; k < all; k++) {
            for (int i = 0; i < all; i++) {
                for (int j = 0; j < all; j++) {
                    reaches[i][j] |= reaches[i][k] && reaches[k][j];
                }
            }
        }
        List<String> rows = new ArrayList<>();
        for (int from = 0; from < FUNCTIONS; from++) {
            for (int to = 0; to < FUNCTIONS; to++) {
                if (reaches[out(from)][in(to)]) {
                    for (String sender : performers(performs, from)) {
                        for (String receiver : performers(performs, to)) {
                            rows.add("f" + from + " " + sender + " → f" + to + " " + receiver);
                        }
                    }
                }
            }
        }
        return rows.stream().sorted().toList();
    }

    private static List<String> performers(boolean[][] performs, int function) {
        List<String> parts = new ArrayList<>();
        for (int part = 0; part < PARTS; part++) {
            if (performs[part][function]) {
                parts.add("p" + part);
            }
        }
        return parts.isEmpty() ? List.of("nobody") : parts;
    }
}
