package pyrite.core.consolidation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.story.Turning;

/**
 * Random functions with random parameters, used by the steps of random use cases, are made one in random order. What is
 * one then is kept beside by a forest of sets (Galler and Fischer 1964) that knows nothing of models.
 */
class ConsolidatingLawTest {
    private static final int FUNCTIONS = 6;
    private static final int ITEMS = 3;
    private static final int USE_CASES = 3;
    private static final int STEPS = 5;

    private final int[] root = new int[FUNCTIONS];
    private Model model = Model.EMPTY;

    private int rootOf(int function) {
        return root[function] == function ? function : rootOf(root[function]);
    }

    @Property(tries = 120)
    void stepsAndFlowsFollowWhatBecameOne(@ForAll long seed) {
        Random random = new Random(seed);
        for (int i = 0; i < FUNCTIONS; i++) {
            root[i] = i;
        }
        boolean[][] takes = new boolean[FUNCTIONS][ITEMS];
        int[][] does = new int[USE_CASES][STEPS];
        model = Models.of(text(random, takes, does));
        List<Element> functions = new ArrayList<>();
        for (int i = 0; i < FUNCTIONS; i++) {
            functions.add(Models.element(model, "Test::P" + i % 2 + "::F" + i));
        }
        for (int turn = 0; turn < 4; turn++) {
            unify(random, functions);
            check(functions, does, takes, seed);
        }
    }

    private static String text(Random random, boolean[][] takes, int[][] does) {
        StringBuilder text = new StringBuilder("part def Gate; part def Master;\n");
        for (int item = 0; item < ITEMS; item++) {
            text.append("item def I").append(item).append(";\n");
        }
        StringBuilder[] packages = {new StringBuilder("package P0 {\n"), new StringBuilder("package P1 {\n")};
        for (int i = 0; i < FUNCTIONS; i++) {
            packages[i % 2].append("action def F%d {\n".formatted(i));
            for (int item = 0; item < ITEMS; item++) {
                takes[i][item] = random.nextBoolean();
                if (takes[i][item]) {
                    // Names are given at random, too, so that parameters of one type differ in name.
                    packages[i % 2].append("in item p%d%s : I%d;\n".formatted(item, random.nextInt(2), item));
                }
            }
            packages[i % 2].append("}\n");
        }
        text.append(packages[0]).append("}\n").append(packages[1]).append("}\n");
        for (int useCase = 0; useCase < USE_CASES; useCase++) {
            text.append(
                    "use case def U%d { subject gate : Gate; actor master : Master; first start;\n".formatted(useCase));
            for (int item = 0; item < ITEMS; item++) {
                text.append("then action e%1$d accept i%1$d : I%1$d via master;\n".formatted(item));
            }
            StringBuilder flows = new StringBuilder();
            for (int step = 0; step < STEPS; step++) {
                int function = random.nextInt(FUNCTIONS);
                does[useCase][step] = function;
                text.append("then action s%d : P%d::F%d;\n".formatted(step, function % 2, function));
                for (int item = 0; item < ITEMS; item++) {
                    String name = parameter(packages[function % 2], function, item);
                    if (takes[function][item] && random.nextBoolean()) {
                        flows.append("flow of I%1$d from e%1$d.i%1$d to s%2$d.%3$s;\n".formatted(item, step, name));
                    }
                }
            }
            text.append("then done;\n").append(flows).append("}\n");
        }
        return text.toString();
    }

    private static String parameter(StringBuilder text, int function, int item) {
        int from = text.indexOf("action def F" + function + " {");
        int to = text.indexOf("}", from);
        int at = text.indexOf("in item p" + item, from);
        return at < 0 || at > to ? "" : text.substring(at + 8, at + 11);
    }

    private void unify(Random random, List<Element> functions) {
        List<Integer> roots = new ArrayList<>();
        for (int i = 0; i < FUNCTIONS; i++) {
            if (rootOf(i) == i
                    && Consolidation.of(model).feature(functions.get(i).id()).isPresent()) {
                roots.add(i);
            }
        }
        if (roots.size() < 2) {
            return;
        }
        Collections.shuffle(roots, random);
        List<Integer> chosen = roots.subList(0, 2 + random.nextInt(Math.min(2, roots.size() - 1)));
        List<Feature> features = chosen.stream()
                .map(i -> Consolidation.of(model).feature(functions.get(i).id()).orElseThrow())
                .toList();
        String name = random.nextBoolean() ? "Named" + chosen.getFirst() : "F" + chosen.getFirst();
        Edit edit = new Consolidating(model, null, null).unify(features, name, United.of(features));
        model = ((EditResult.Applied) model.apply(edit)).model();
        chosen.forEach(i -> root[i] = chosen.getFirst());
    }

    private void check(List<Element> functions, int[][] does, boolean[][] takes, long seed) {
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems())
                .as("seed %d:%n%s", seed, text)
                .isEmpty();
        for (int useCase = 0; useCase < USE_CASES; useCase++) {
            for (int step = 0; step < STEPS; step++) {
                Element done = Turning.definition(model, Models.element(model, "Test::U" + useCase + "::s" + step))
                        .orElseThrow();
                assertThat(done.id())
                        .as("seed %d", seed)
                        .isEqualTo(functions.get(rootOf(does[useCase][step])).id());
            }
        }
        for (int i = 0; i < FUNCTIONS; i++) {
            // The name that it had leads to what it became.
            Element named = Models.element(model, "Test::P" + i % 2 + "::F" + i);
            Element meant = named.kind() == ElementKind.ALIAS
                    ? model.get(named.get(pyrite.core.model.Property.TARGET)
                            .orElseThrow()
                            .target())
                    : named;
            assertThat(meant.id())
                    .as("seed %d", seed)
                    .isEqualTo(functions.get(rootOf(i)).id());
        }
        flowsLeadToWhatTheirStepTakes(seed);
        eachTakesWhatAllOfItTook(functions, takes, seed);
    }

    private void flowsLeadToWhatTheirStepTakes(long seed) {
        model.ownElements(ElementKind.FLOW).forEach(flow -> {
            List<pyrite.core.model.ElementId> way =
                    flow.get(pyrite.core.model.Property.TARGET).orElseThrow().chain();
            Element step = model.get(way.getFirst());
            Element parameter = model.get(way.getLast());
            assertThat(model.inheritance().features(step)).as("seed %d", seed).contains(parameter);
            Element payload = model.children(flow.id()).getFirst();
            assertThat(parameter.references(pyrite.core.model.Property.TYPES))
                    .isEqualTo(payload.references(pyrite.core.model.Property.TYPES));
        });
    }

    private void eachTakesWhatAllOfItTook(List<Element> functions, boolean[][] takes, long seed) {
        for (int lead = 0; lead < FUNCTIONS; lead++) {
            if (rootOf(lead) != lead) {
                continue;
            }
            for (int item = 0; item < ITEMS; item++) {
                Element type = Models.element(model, "Test::I" + item);
                int members = 0;
                int taking = 0;
                for (int i = 0; i < FUNCTIONS; i++) {
                    members += rootOf(i) == lead ? 1 : 0;
                    taking += rootOf(i) == lead && takes[i][item] ? 1 : 0;
                }
                List<Element> parameters = model.children(functions.get(lead).id()).stream()
                        .filter(child -> child.references(pyrite.core.model.Property.TYPES).stream()
                                .anyMatch(reference -> reference.target().equals(type.id())))
                        .toList();
                assertThat(parameters).as("seed %d", seed).hasSize(taking == 0 ? 0 : 1);
                if (taking > 0) {
                    assertThat(model.inheritance()
                                    .multiplicity(parameters.getFirst())
                                    .lower())
                            .as("seed %d, %d of %d", seed, taking, members)
                            .isEqualTo(taking == members ? 1 : 0);
                }
            }
        }
    }
}
