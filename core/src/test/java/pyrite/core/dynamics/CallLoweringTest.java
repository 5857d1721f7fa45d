package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;

/** Calculations that people define, functions over several values, and values that are no numbers. */
class CallLoweringTest {
    private static final String PLANT = """
            calc def Mean { in a : Real; in b : Real; (a + b) / 2 }
            calc def Kinetic { in m : MassValue; in v : SpeedValue; return energy : EnergyValue = m * v^2 / 2; }
            calc def Power { in x : Real; in n : Integer; if n < 1 ? 1 else x * Power(x, n - 1) }
            calc def Scaled { in x : Real; in factor : Real = 10; attribute twice : Real = 2 * x; twice * factor }
            calc def Forever { in x : Real; Forever(x + 1) }
            constraint def Within { in x : Real; in most : Real; x <= most }
            enum def Condition { enum good; enum worn; }
            part def Wheel { attribute mass : MassValue default 3 [kg]; attribute condition : Condition default Condition::good; }
            part def Spare :> Wheel;
            part p {
                part wheel : Wheel[3];
                part spare : Spare { attribute :>> mass = 5 [kg]; attribute :>> condition = Condition::worn; }
                attribute x : Real := 0;
                assert constraint motion { der(x) == 1 [1/s] }
                %s
            }
            """;

    /** The value of {@code p.y}, declared by the type, at 2 s, when x is 2. */
    private static double value(String type, String expression) {
        SortedSystem sorted = Runs.sortedModel(
                PLANT.formatted("attribute y : " + type + "; assert constraint given { y == " + expression + " }"));
        return Runs.at(Simulation.run(sorted, RunSettings.of(0, 2).withTolerance(1e-9), RunControl.NONE), "p.y", 2);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "Real|Mean(x, 6)|4",
                "Real|Mean(b = x, a = 8)|5",
                "Real|Mean(Mean(x, 4), Mean(0, x))|2",
                "EnergyValue|Kinetic(4 [kg], x * 3 [m/s])|72",
                "Real|Power(x, 5)|32",
                "Real|Scaled(x)|40",
                "Real|Scaled(x, 1)|4",
                "MassValue|sum(wheel.mass)|9",
                "MassValue|sum((wheel.mass, spare.mass))|14",
                "MassValue|(wheel.mass, spare.mass)->max()|5",
                "MassValue|min((wheel.mass, spare.mass))|3",
                "Real|wheel->size() + (1, 2, 3)->size()|6",
                "MassValue|(wheel, spare)->select { in w : Wheel; w.mass > 4 [kg] }->collect { in w : Wheel; w.mass }->sum()|5",
                "MassValue|wheel.{ in w : Wheel; w.mass * 2 }->sum()|18",
                "MassValue|wheel#(2).mass|3",
                "MassValue|wheel.mass->reduce { in a; in b; a + 2 * b }|15",
                "Real|(1..4)->product()|24",
                "Real|(1..4)->collect { in i; i * x }->sum()|20",
                "Real|if wheel->forAll { in w : Wheel; w.mass < 4 [kg] } ? 1 else 0|1",
                "Real|if (wheel, spare)->forAll { in w : Wheel; w.mass < 4 [kg] } ? 1 else 0|0",
                "Real|if (wheel, spare)->exists { in w : Wheel; w.condition == Condition::worn } ? 1 else 0|1",
                "Real|if spare.condition != Condition::good and spare istype Spare and not (wheel#(1) istype Spare) ? 1 else 0|1",
                "Real|if Within(x, 3) ? 1 else 0|1",
                "Real|(x, 5)->max() + (x, 1)->min()|6",
                "Real|sum(collect((1, 2), { in i; i * x }))|6",
                "MassValue|(wheel, spare)->reject { in w : Wheel; w.mass > 4 [kg] }->collect { in w : Wheel; w.mass }->sum()|9",
                "MassValue|(wheel, spare)->last().mass + wheel->head().mass|8",
                "Real|(if spare.mass > 4 [kg] ? (1, 2) else (3, 4))->sum()|3",
                "Real|null->size() + (1, 2)->head()|1",
                "Real|if (wheel, spare)->includes(spare) and wheel->excludes(spare) ? 1 else 0|1",
                "Real|if wheel.condition->includes(Condition::good) and wheel.condition->excludes(Condition::worn) ? 1 else 0|1",
                "Real|if wheel.mass->includes(3 [kg]) ? 1 else 0|1",
                "Real|if null->isEmpty() and wheel->notEmpty() ? 1 else 0|1",
                "Real|if (1 < 2, 2 < 3)->allTrue() and (1 > 2, x > 1)->anyTrue() ? 1 else 0|1",
                "Real|if x > 3 implies x > 9 ? 1 else 0|1",
                "Real|if (x > 1) == (x > 0) ? 1 else 0|1",
                "Real|if (x > 1) != (x > 3) ? 1 else 0|1",
                "Real|if if x > 1 ? x < 3 else x > 5 ? 1 else 0|1",
                "Real|if 2 == 2 and 2 != 3 ? 1 else 0|1",
                "Real|if spare hastype Spare and not (spare hastype Wheel) ? 1 else 0|1",
                "MassValue|(spare as Wheel).mass|5"
            })
    void aCallIsWorthWhatItsDefinitionSays(String type, String expression, double expected) {
        assertThat(value(type, expression)).isCloseTo(expected, within(1e-7));
    }

    @Test
    void aConditionOverSeveralThatVariesIsLocatedInTime() {
        SortedSystem sorted = Runs.sortedModel(PLANT.formatted("""
                attribute late : Boolean = (1, 2, 3)->exists { in i; x > 4 - i };
                attribute y : Real := 0;
                assert constraint counting { der(y) == if late ? 1 [1/s] else 0 [1/s] }"""));
        assertThat(Runs.at(Simulation.run(sorted, RunSettings.of(0, 3).withTolerance(1e-9), RunControl.NONE), "p.y", 3))
                .isCloseTo(2, within(1e-7));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "Real|Forever(1)|calls itself more than 100 times",
                "Real|wheel#(4).mass / 1 [kg]|there are 3, counted from 1, so there is none with the number 4",
                "Real|wheel->select { in w : Wheel; x > 1 }->size()|which ones are selected must be known before the run",
                "MassValue|wheel.mass|this means 3 instances at once",
                "Real|(1, 2)#(x)|which one is meant must be known before the run",
                "Real|(1..x)->sum()|the ends of a range must be known before the run",
                "Real|(1..20000)->sum()|a range of more than 10000 numbers is not computed",
                "Real|x % 2|a rest of a division of what varies jumps, which a run cannot follow",
                "Real|floor(x)|floor of what varies jumps, which a run cannot follow",
                "Real|max(null)|of no values there is no largest",
                "Real|null->reduce { in a; in b; a + b }|there are no values to reduce",
                "Real|if (x, 1)->includes(2) ? 1 else 0|what is among the values must be known before the run",
                "Real|if x == 2 ? 1 else 0|quantities that vary are equal only for an instant"
            })
    void whatCannotBeComputedIsExplained(String type, String expression, String message) {
        assertThatThrownBy(() -> value(type, expression))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining(message);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "Mean(1)|Mean needs a value for its parameter 'b'",
                "Mean(1, 2, 3)|Mean takes 2 arguments, not 3",
                "Mean(1, c = 2)|Mean has no parameter 'c'",
                "Mean(1, 2 [kg])|'b' of Mean is a number, but this is a quantity in kg",
                "wheel->select { in w : Wheel; w.mass }|select works on conditions, but this is a quantity in kg",
                "(1, 2 [m])|the items of a sequence are of one kind, but a number comes first and this is a quantity in m",
                "wheel->sum { in w; 1 }|sum takes the values alone",
                "wheel->select()|select takes a body with one parameter",
                "wheel.mass->product()|product works on plain numbers",
                "if Condition::good == 3 ? 1 else 2|a value of 'Condition' and a number cannot be equated",
                "wheel->collect { in w : Wheel; w.colour }|'Wheel' has no 'colour'",
                "wheel#(1 [kg]).mass|an index is a plain number, but this is a quantity in kg",
                "wheel.mass->includes()|includes takes one value",
                "wheel.mass->includes(3)|cannot be the same",
                "wheel.mass->reduce { in a; a }|reduce takes a body with two parameters",
                "(1, 2)->allTrue()|allTrue works on conditions, but this is a number",
                "p(3)|'p' cannot be called",
                "2 [kg] ^ x|the exponent of a quantity with a unit is written as a number",
                "2 ^ 3 [kg]|an exponent is a plain number",
                "(3 [kg]) [m]|a plain number stands before a unit",
                "maximum(x, 1, 2)|used as an instant"
            })
    void aFaultyCallIsRefusedWhereItStands(String expression, String message) {
        assertThat(Models.problemsOf(PLANT.formatted("attribute y = " + expression + ";")))
                .anySatisfy(problem -> assertThat(problem).contains(message));
    }
}
