package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Locale;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Validates;

/** Accuracy does not depend on how large a quantity is in its unit. */
class NominalsTest {
    private static String number(double value) {
        return String.format(Locale.ROOT, "%.17g", value);
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-15, 1e-9, 1e-3, 1, 1e6, 1e12})
    @Validates(
            what = "an oscillator from 1e-15 m to 1e12 m",
            against = "cosine",
            within = "1e-5 of the amplitude, at a tolerance of 1e-6")
    void anOscillatorOfAnySizeIsAsExact(double size) {
        Trajectory trajectory = run("""
                attribute x : LengthValue := %s [m];
                attribute v : SpeedValue := 0 [m/s];
                assert constraint law { der(x) == v and der(v) == -x / 1 [s^2] }
                """.formatted(number(size)), 50);
        assertThat(Runs.at(trajectory, "p.x", 50) / size).isCloseTo(Math.cos(50), within(1e-5));
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-9, 1, 1e9})
    void onePushedFromRestIsAsExact(double size) {
        Trajectory trajectory = run("""
                attribute x : LengthValue := 0 [m];
                attribute v : SpeedValue := %s [m/s];
                assert constraint law { der(x) == v and der(v) == -x / 1 [s^2] }
                """.formatted(number(size)), 50);
        assertThat(Runs.at(trajectory, "p.x", 50) / size).isCloseTo(Math.sin(50), within(1e-5));
    }

    @ParameterizedTest
    @ValueSource(doubles = {1e-9, 1e9})
    @Validates(
            what = "an oscillator with periods of nanoseconds and of years",
            against = "cosine",
            within = "1e-5 of the amplitude, at a tolerance of 1e-6")
    void aSlowOrFastSystemIsAsExact(double second) {
        Trajectory trajectory = run("""
                attribute x : Real := 1;
                attribute v : FrequencyValue := 0 [1/s];
                assert constraint law { der(x) == v and der(v) == -x / (%s [s])^2 }
                """.formatted(number(second)), 50 * second);
        assertThat(Runs.at(trajectory, "p.x", 50 * second)).isCloseTo(Math.cos(50), within(1e-5));
    }

    /** Each follows the one before, so the last is zero for a long while: Σ e^-t t^k / k!, an Erlang distribution. */
    @ParameterizedTest
    @CsvSource({"1e-9", "1", "1e9"})
    @Validates(what = "a chain of thirty first-order lags from rest", against = "Erlang distribution", within = "1e-5")
    void aLongChainFromRestIsFollowed(double size) {
        StringBuilder members = new StringBuilder("attribute x0 : Real := " + number(size) + ";\n");
        members.append("assert constraint l0 { der(x0) == 0 [1/s] }\n");
        for (int i = 1; i <= 30; i++) {
            members.append("attribute x%d : Real := 0; assert constraint l%d { der(x%d) == (x%d - x%d) / 1 [s] }\n"
                    .formatted(i, i, i, i - 1, i));
        }
        Trajectory trajectory = run(members.toString(), 40);
        double term = Math.exp(-40);
        double sum = 0;
        for (int k = 0; k < 30; k++) {
            sum += term;
            term *= 40.0 / (k + 1);
        }
        assertThat(Runs.at(trajectory, "p.x30", 40) / size).isCloseTo(1 - sum, within(1e-5));
        assertThat(trajectory.stepCount()).isLessThan(500);
    }

    private static Trajectory run(String members, double stop) {
        return Simulation.run(Runs.sorted(members), RunSettings.of(0, stop), RunControl.NONE);
    }
}
