package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Model;

/** Values and calculations that each rest on the one before, as in a table somebody filled in downwards. */
class LongChainsTest {
    /** {@code a0} is 1 s; every other comes to one second more than the one before it and states no type. */
    private static String chain(int length) {
        return "attribute a0 : DurationValue = 1 [s];\n"
                + IntStream.range(1, length)
                        .mapToObj(i -> "attribute a" + i + " = a" + (i - 1) + " + 1 [s];\n")
                        .collect(Collectors.joining());
    }

    private static String chainedPart(int length) {
        return chain(length) + "attribute x : DurationValue; assert constraint { x == a" + (length - 1) + " }";
    }

    @Test
    void theTypeComesThroughAnyNumberOfValues() {
        Model model = Models.of("part p {\n" + chain(20_000) + "}");
        assertThat(model.environment()
                        .typeOf(Models.element(model, "Test::p::a19999").id()))
                .isEqualTo(new Type.Number(Dimension.parse("T")));
        assertThat(new DisplayUnits(model)
                        .of(Models.element(model, "Test::p::a19999"))
                        .symbol())
                .isEqualTo("s");
    }

    @Test
    void aThousandValuesAreComputedAndMoreAreRefusedByName() {
        Trajectory run = Runs.run(chainedPart(1000), 1);
        assertThat(Runs.at(run, "p.x", 1)).isEqualTo(1000);
        assertThatThrownBy(() -> Runs.sorted(chainedPart(1100)))
                .isInstanceOf(ModelFault.class)
                .hasMessage("'p.a99' is reached over more than 1000 values that each rest on the next, beginning "
                        + "with 'p.a1099'; give one of them a number");
    }

    /** Each calls the one before it twice: gone through again for each call, a hundred of them would take for ever. */
    @Test
    void whatACalculationGivesIsFoundOnceHoweverOftenItIsCalled() {
        Model model = Models.of("calc def c0 { in x : DurationValue; x }\n"
                + IntStream.rangeClosed(1, 100)
                        .mapToObj(i -> "calc def c" + i + " { in x : DurationValue; c" + (i - 1) + "(x) + c" + (i - 1)
                                + "(2 * x) }\n")
                        .collect(Collectors.joining())
                + "attribute t = c100(1 [s]);");
        assertThat(model.environment().typeOf(Models.element(model, "Test::t").id()))
                .isEqualTo(new Type.Number(Dimension.parse("T")));
    }

    /** The numbers of Fibonacci by their definition: F(60) would take a few million million calls. */
    @Test
    void callsThatBranchWithoutEndAreGivenUpInSeconds() {
        String fibonacci = "calc def F { in n : Integer; return : Integer = if n < 2 ? n else F(n - 1) + F(n - 2); }";
        SortedSystem few =
                Runs.sortedModel(fibonacci + "part p { attribute x : Real; assert constraint { x == F(20) } }");
        assertThat(Runs.at(Simulation.run(few, RunSettings.of(0, 1), RunControl.NONE), "p.x", 1))
                .isEqualTo(6765);
        assertThatThrownBy(() ->
                        Runs.sortedModel(fibonacci + "part p { attribute x : Real; assert constraint { x == F(60) } }"))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining("calculations that call themselves twice");
    }

    @Test
    void rangesWithinRangesAreGivenUpToo() {
        assertThatThrownBy(() -> Runs.sorted("attribute x : Real; assert constraint { x == (1..9000)->collect { in i; "
                        + "(1..9000)->collect { in j; i * j }->sum() }->sum() }"))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining("ranges within ranges");
    }
}
