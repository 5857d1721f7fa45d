package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;

/**
 * The functions and operators of expressions at tabulated values (Abramowitz and Stegun, chapter 4), computed in a run.
 * A sign binds closer than a power (KerML 8.2.5.8.1).
 */
class FunctionsTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sin(pi / 6) | 0.5",
                "cos(pi / 3) | 0.5",
                "tan(pi / 4) | 1",
                "arcsin(1) | 1.5707963267948966",
                "arccos(0) | 1.5707963267948966",
                "arctan(1) | 0.7853981633974483",
                "exp(1) | 2.718281828459045",
                "ln(10) | 2.302585092994046",
                "sqrt(2) | 1.4142135623730951",
                "abs(-3.5) | 3.5",
                "min(3, 2) | 2",
                "max(3, 2) | 3",
                "2^10 | 1024",
                "2^0.5 | 1.4142135623730951",
                "-2^2 | 4",
                "-(2^2) | -4",
                "1 - 2 - 3 | -4",
                "12 / 3 / 2 | 2",
                "7 % 4 | 3",
                "-7 % 4 | -3",
                "7.5 % 2 + 1 | 2.5",
                "(90 [min] % 1 [h]) / 1 [min] | 30",
                "2 + 3 * 4 | 14",
                "(2 + 3) * 4 | 20",
                "if 1 < 2 ? 5 else 6 | 5",
                "if not (1 < 2) ? 5 else 6 | 6",
                "if 1 < 2 and 2 < 1 ? 5 else 6 | 6",
                "if 1 < 2 or 2 < 1 ? 5 else 6 | 5",
                "if 1 < 2 xor 2 < 3 ? 5 else 6 | 6",
                "sin(30 [deg]) | 0.5",
                "arctan(1) / 1 [deg] | 45",
                "1 [h] / 1 [min] | 60",
                "1 [kWh] / 1 [MJ] | 3.6",
                "sqrt(9 [m^2]) / 1 [m] | 3",
                "abs(-2 [km]) / 1 [m] | 2000",
                "max(1 [bar], 90 [kPa]) / 1 [Pa] | 100000",
                "5e-3 | 0.005",
                "sum((1, 2, 3)) | 6",
                "max((1, 3, 2)) | 3",
                "NumericalFunctions::max(1, 2) | 2",
                "(1, 2, 3)->reduce NumericalFunctions::'*' | 6",
                "(9, 16)->collect sqrt->sum() | 7",
                "if (1, 2, 3)->includes(2) ? 5 else 6 | 5",
                "if (1, 2, 3)->excludes(1 + 1) ? 5 else 6 | 6",
                "floor(-2.5) | -3",
                "round(2.6) | 3",
                "if \"a\" + \"b\" == \"ab\" ? 5 else 6 | 5",
                "10 ['m/s'] / 1 [km/h] | 36",
                "1 ['kW⋅h'] / 1 [MJ] | 3.6",
                "1 ['J/(kg⋅K)'] * 1 [kg*K] / 1 [J] | 1",
                "1 ['s⁻¹'] / 1 [Hz] | 1",
                "(km/h) / (m/s) * 3.6 | 1",
                "1 [USCustomaryUnits::ft] / 1 [USCustomaryUnits::'in'] | 12",
                "1 [B] / 1 [bit] | 8",
            })
    void aFunctionHasItsTabulatedValue(String expression, double value) {
        SortedSystem sorted =
                Runs.sorted("attribute x : Real := 0; attribute y : Real; assert constraint moves { der(x) == 1 [1/s] }"
                        + " assert constraint given { y == " + expression + " }");
        Trajectory trajectory = Simulation.run(sorted, RunSettings.of(0, 1), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.y", 1)).isCloseTo(value, within(1e-12 * Math.max(1, Math.abs(value))));
    }

    /** What has no value as a number is refused or named, never carried on. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sqrt(1 [m]) + 1 [m] | added",
                "sin(1 [m]) | ",
                "1 [m] + 1 [s] | cannot be added",
                "exp(1 [kg]) | ",
                "min(1 [m], 1 [s]) | ",
                "nowhere + 1 | there is no 'nowhere'",
                "sin() | ",
                "sin(1, 2) | ",
                "2 ** | ",
                "(1 + 2 | ",
            })
    void whatMakesNoSenseIsRefusedBeforeAnyRun(String expression, String reason) {
        assertThat(Models.problemsOf("attribute y : Real = " + expression + ";"))
                .isNotEmpty()
                .anySatisfy(problem -> assertThat(problem).contains(reason == null ? "" : reason));
    }
}
