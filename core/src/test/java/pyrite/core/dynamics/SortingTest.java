package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SortingTest {
    @Test
    void equationsMayStandInAnyOrderAndAnyDirection() {
        Trajectory trajectory = Runs.run("""
                attribute a : Real;
                attribute b : Real;
                attribute c : Real;
                attribute x : Real := 1;
                assert constraint last { 2 * a == b + 3 * a - c }
                assert constraint middle { c / 4 == b }
                assert constraint leading { b - x == 1 }
                assert constraint motion { 2 [s] * der(x) + a == 0 }
                """, 1);
        // b = x + 1, c = 4 b, a = c - b = 3 b, 2 x' = -3 (x + 1)
        double x = 2 * Math.exp(-1.5) - 1;
        assertThat(Runs.at(trajectory, "p.x", 1)).isCloseTo(x, within(1e-7));
        assertThat(Runs.at(trajectory, "p.a", 1)).isCloseTo(3 * (x + 1), within(1e-6));
    }

    @Test
    void bindingsAreEquations() {
        SortedSystem sorted = Runs.sortedModel("""
                part def Source { attribute give : Real = 3; }
                part def Sink { attribute take : Real; attribute twice : Real = 2 * take; }
                part p { part source : Source; part sink : Sink; bind sink.take = source.give; }
                """);
        Trajectory trajectory = Simulation.run(sorted, RunSettings.of(0, 1), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.sink.twice", 1)).isEqualTo(6);
    }

    @Test
    void aBindingOfPortsAddsNoEquation() {
        SortedSystem sorted = Runs.sortedModel("""
                port def Hose { attribute pressure : Real; }
                part def Source { port out1 : Hose; attribute give : Real = 3; }
                part p { part source : Source; port border : Hose; bind source.out1 = border;
                    attribute taken : Real; assert constraint { taken == 2 * source.give } }
                """);
        Trajectory trajectory = Simulation.run(sorted, RunSettings.of(0, 1), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.taken", 1)).isEqualTo(6);
    }

    @Test
    void whatAPortCarriesIsBoundToWhatItsPartHas() {
        SortedSystem sorted = Runs.sortedModel("""
                port def Hose { in attribute pressure : Real; in item oil; }
                part def Sink { attribute pressure : Real; item oil; port inlet : Hose; port idle : Hose;
                    bind inlet.pressure = pressure; bind inlet.oil = oil; }
                part p { part sink : Sink; attribute given : Real; assert constraint { given == 4 }
                    bind sink.inlet.pressure = given; }
                """);
        Trajectory trajectory = Simulation.run(sorted, RunSettings.of(0, 1), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.sink.pressure", 1)).isEqualTo(4);
    }

    @Test
    void reusableConstraintsMeanTheirEquationWithTheParametersPutIn() {
        SortedSystem sorted = Runs.sortedModel("""
                constraint def Ohm { in u : ElectricPotentialValue; in r : ResistanceValue; in i : ElectricCurrentValue; u == r * i }
                part p {
                    attribute voltage : ElectricPotentialValue = 12 [V];
                    attribute current : ElectricCurrentValue;
                    assert constraint law : Ohm { in u = voltage; in r = 4 ['Ω']; in i = current; }
                }
                """);
        Trajectory trajectory = Simulation.run(sorted, RunSettings.of(0, 1), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.current", 0)).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "attribute a : Real; attribute b : Real; assert constraint sum { a + b == 3 }|"
                        + "1 equations for 2 unknowns; nothing is left to determine 'p.b'",
                "attribute a : Real; assert constraint one { a == 1 } assert constraint two { a == 2 }|"
                        + "the equations 'p.two', 'p.one' are too many for 'p.a'",
                "attribute a : Real = 1; assert constraint again { a == 2 }|everything in the equation 'p.again' is already given by "
                        + "fixed or start values (p.a = 1)",
                "attribute a : Real; attribute b : Real; assert constraint one { a == b + 1 } "
                        + "assert constraint two { b == 2 - a }|an algebraic loop",
                "attribute a : Real; assert constraint square { a^3 == 8 }|"
                        + "'p.a' stands in them in a way they cannot be solved for (not linear)",
                "attribute a : Real; assert constraint nothing { a - a == time / 1 [s] }|"
                        + "the equation 'p.nothing' cannot be solved; 'p.a' cancels out",
                "attribute m : MassValue = 0 [kg]; attribute f : ForceValue = 1 [N]; "
                        + "attribute v : SpeedValue := 0 [m/s]; assert constraint law { m * der(v) == f - 2 * f * time / "
                        + "1 [s] }|the equation 'p.law' cannot determine 'der(p.v)', because its factor there, m, comes "
                        + "to zero with the values given",
                "attribute a : Real; attribute b : Real; assert constraint law { 0 * a + b == 1 }|"
                        + "the equation 'p.law' cannot determine 'p.a', because its factor there, 0, comes to zero",
                "attribute x : Real; assert constraint law { der(x) == 1 [1/s] }|"
                        + "'p.x' changes in time (its derivative is used) but has no start value",
                "attribute x : Real := y; attribute y : Real = time / 1 [s]; "
                        + "assert constraint law { der(x) == 1 [1/s] }|depends on what changes",
                "attribute a : Real = 1; assert constraint law { a < 2 }|is an equation with '=='",
                "part q[0..*];|it must be known how many 'q' there are",
                "attribute a : Real = maximum(b); attribute b : Real = 1;|maximum looks at a whole run",
                "attribute x : LengthValue = 1 [m] * sin(time / 1 [s]); attribute v : SpeedValue = der(x);|"
                        + "is given by a formula (=), so its derivative cannot be used"
            })
    void aModelThatCannotRunIsExplained(String members, String message) {
        assertThatThrownBy(() -> Runs.sorted(members))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining(message);
    }

    /** An equation between fixed values says nothing new if it holds, but for rounding. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "attribute a : Real = 1; assert constraint again { a == 1 }",
                "attribute a : Real = 0.1; assert constraint again { a + 0.2 == 0.3 }",
                "attribute a : Real = 1e15; assert constraint again { a / 3 * 3 == a + 100 }",
                "attribute a : Real = -1e15; assert constraint again { a - 100 == a / 3 * 3 }",
                "attribute a : Real = 0.1; assert constraint again { a + 0.2 - 0.3 == 0 }",
                "attribute a : Real = 3; assert constraint again { a == (1, 2)->collect { in i : Real; i }->sum() }",
                "attribute a : LengthValue = 0.1 [nm]; assert constraint again { a + 0.2 [nm] - 0.3 [nm] == 0 [m] }",
            })
    void whatIsTrueAnywayIsNoEquation(String members) {
        assertThat(Runs.sorted(members).assignments()).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "attribute a : Real = 1; assert constraint again { a == 1.00000001 }",
                "attribute a : LengthValue = 1 [nm]; attribute m : MassValue = 7 [kg]; "
                        + "assert constraint again { m * a == m * 2 [nm] }",
                "attribute a : Real = 1e-9; assert constraint again { a == 0 }",
                "attribute a : Real = 1e15; assert constraint again { a == -a }"
            })
    void whatIsAlmostTrueIsOneTooMany(String members) {
        assertThatThrownBy(() -> Runs.sorted(members))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining("is already given by");
    }

    @Test
    void whatASettledConditionLeavesOutNeedsNoEquation() {
        SortedSystem sorted = Runs.sorted("""
                attribute linear : Boolean = true;
                attribute unused : Real;
                attribute y : Real;
                assert constraint law { y == if linear ? 2 * time / 1 [s] else unused }
                """);
        assertThat(Runs.at(Simulation.run(sorted, RunSettings.of(0, 3), RunControl.NONE), "p.y", 3))
                .isEqualTo(6);
    }

    @Test
    void aPartThatContainsItselfIsRefused() {
        assertThatThrownBy(() -> Runs.sortedModel("part def Doll { part inner : Doll; } part p : Doll;"))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining("contains itself");
    }

    @Test
    void aThousandEquationsAreSortedFromAnyOrder() {
        StringBuilder members = new StringBuilder("attribute x0 : Real = time / 1 [s];\n");
        for (int i = 1000; i >= 1; i--) {
            members.append("attribute x")
                    .append(i)
                    .append(" : Real; assert constraint c")
                    .append(i)
                    .append(" { x")
                    .append(i)
                    .append(" - x")
                    .append(i - 1)
                    .append(" == 1 }\n");
        }
        Trajectory trajectory = Simulation.run(Runs.sorted(members.toString()), RunSettings.of(0, 2), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.x1000", 2)).isCloseTo(1002, within(1e-9));
    }
}
