package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Validates;
import pyrite.core.model.ElementId;

/** Compiled terms are worth what the same terms are worth when they are interpreted. */
@Validates(what = "compiled equations", against = "the same terms interpreted")
class CompilerTest {
    private static final int VARIABLES = 6;
    private static final Equation ORIGIN =
            new Equation(Terms.ZERO, Terms.ZERO, ElementId.ofLibrary("x"), "x", Map.of());

    @Property(tries = 200)
    void compiledAndInterpretedAgree(@ForAll long seed) {
        Random random = new Random(seed);
        RandomTerms terms = new RandomTerms(random, 3);
        List<SortedSystem.Assignment> assignments = IntStream.range(3, VARIABLES)
                .mapToObj(i -> new SortedSystem.Assignment(i, terms.term(5), ORIGIN))
                .toList();
        FlatSystem flat = new FlatSystem(List.of(), List.of(), Map.of(), terms.relations(), List.of());
        SortedSystem system = new SortedSystem(flat, assignments);
        boolean[] modes = new boolean[terms.relations().size()];
        IntStream.range(0, modes.length).forEach(i -> modes[i] = random.nextBoolean());
        double[] start = random.doubles(VARIABLES, -3, 3).toArray();
        assertThat(values(Compiler.compile(system), start, modes))
                .containsExactly(values(InterpretedKernel.of(system), start, modes));
    }

    private static double[] values(Kernel kernel, double[] start, boolean[] modes) {
        double[] v = start.clone();
        double[] margins = new double[modes.length];
        kernel.evaluate(0.7, v, modes);
        kernel.margins(0.7, v, modes, margins);
        return IntStream.concat(IntStream.range(0, v.length), IntStream.range(v.length, v.length + margins.length))
                .mapToDouble(i -> i < v.length ? v[i] : margins[i - v.length])
                .toArray();
    }

    @Test
    void aTermTooLargeForAMethodIsInterpreted() {
        Term sum = Terms.plus(new Term.Variable(0), new Term.Time());
        for (int i = 0; i < 13; i++) {
            sum = Terms.plus(sum, sum);
        }
        FlatSystem flat = new FlatSystem(List.of(), List.of(), Map.of(), List.of(), List.of());
        Kernel kernel = Compiler.compile(new SortedSystem(flat, List.of(new SortedSystem.Assignment(1, sum, ORIGIN))));
        double[] v = {1, 0};
        kernel.evaluate(0.5, v, new boolean[0]);
        assertThat(v[1]).isEqualTo(1.5 * 8192);
    }

    @Test
    void manyAssignmentsAreSpreadOverMethods() {
        List<SortedSystem.Assignment> assignments = IntStream.range(1, 20_000)
                .mapToObj(i -> new SortedSystem.Assignment(i, Terms.plus(new Term.Variable(i - 1), Terms.ONE), ORIGIN))
                .toList();
        FlatSystem flat = new FlatSystem(List.of(), List.of(), Map.of(), List.of(), List.of());
        double[] v = new double[20_000];
        Compiler.compile(new SortedSystem(flat, assignments)).evaluate(0, v, new boolean[0]);
        assertThat(v[19_999]).isEqualTo(19_999);
    }
}
