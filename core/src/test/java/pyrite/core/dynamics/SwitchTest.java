package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.util.Arrays;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Validates;

/** Conditions faster than the steps, zero for a while, many at once: what they switch is known in closed form. */
class SwitchTest {
    /** The share of a second for which sin(2πt) is above 0.9. */
    private static final double ABOVE = (Math.PI - 2 * Math.asin(0.9)) / (2 * Math.PI);

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sin(6.283185307179586 * t) > 0.9",
                "-sin(6.283185307179586 * t) < -0.9",
                "not (0.9 >= cos(6.283185307179586 * t))"
            })
    @Validates(
            what = "a thousand pulses in a run of a thousand seconds",
            against = "their share of time in closed form",
            within = "1e-4 s of 1000 s")
    void everyPulseOfAThousandIsMet(String pulse) {
        Trajectory trajectory = Runs.run("""
                attribute t : Real = time / 1 [s];
                attribute on : TimeValue := 0 [s];
                assert constraint law { der(on) == if %s ? 1.0 else 0.0 }
                """.formatted(pulse), 1000);
        assertThat(Runs.at(trajectory, "p.on", 1000)).isCloseTo(1000 * ABOVE, within(1e-4));
    }

    @Test
    @Validates(what = "day and night of a year", against = "half of the time, 729 switches", within = "1 s of a year")
    void dayAndNightOfAYearAreMet() {
        Trajectory trajectory = Runs.run("""
                attribute phase : Real = time / 86400 [s];
                attribute light : TimeValue := 0 [s];
                attribute day : Boolean = sin(6.283185307179586 * phase) > 0;
                assert constraint law { der(light) == if day ? 1.0 else 0.0 }
                """, 365 * 86400.0);
        assertThat(Runs.at(trajectory, "p.light", 365 * 86400.0)).isCloseTo(365 * 43200.0, within(1.0));
        assertThat(trajectory.switches().stream().filter(t -> t > 0)).hasSize(729);
    }

    /** A fast swing drives the condition, so no instant is known beforehand. */
    @Test
    @Validates(
            what = "short crossings of a swinging state",
            against = "their duration in closed form",
            within = "0.01 s of 2.83 s, at a tolerance of 1e-9")
    void shortCrossingsOfAStateAreMet() {
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 0;
                attribute v : FrequencyValue := 1 [1/s];
                attribute above : TimeValue := 0 [s];
                assert constraint law { der(x) == v and der(v) == -x / 1 [s^2] and der(above) == if x > 0.9999 ? 1.0 else 0.0 }
                """, 200 * Math.PI);
        assertThat(Runs.at(trajectory, "p.above", 200 * Math.PI)).isCloseTo(200 * Math.acos(0.9999), within(0.01));
        assertThat(trajectory.switches()).hasSize(200);
    }

    @Test
    void theIntervalOfRecordingChangesNothing() {
        SortedSystem system = Runs.sorted("""
                attribute x : Real := 1;
                attribute wave : Real = sin(9 * time / 1 [s]);
                assert constraint law { der(x) == (cos(time / 1 [s]) + (if x > 0.5 and wave > 0 ? 0.2 else 0.0)) / 1 [s] }
                """);
        RunSettings settings = RunSettings.of(0, 30);
        Trajectory coarse = Simulation.run(system, settings.withInterval(30), RunControl.NONE);
        Trajectory fine = Simulation.run(system, settings.withInterval(0.001), RunControl.NONE);
        assertThat(coarse.switches()).isNotEmpty().isEqualTo(fine.switches());
        assertThat(coarse.at(30, false)).containsExactly(fine.at(30, false));
    }

    @Test
    void aMarginThatIsZeroForAWhileDoesNotHold() {
        Trajectory trajectory = Runs.run("""
                attribute left : Real = max(0, 1 - time / 1 [s]);
                attribute on : TimeValue := 0 [s];
                assert constraint law { der(on) == if left > 0 ? 1.0 else 0.0 }
                """, 10);
        assertThat(Runs.at(trajectory, "p.on", 10)).isCloseTo(1, within(1e-6));
    }

    @Test
    void aStateThatComesToRestAtZeroDoesNotHoldUpARun() {
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 1;
                attribute rest : Real = max(0, x);
                attribute on : TimeValue := 0 [s];
                assert constraint law { der(x) == if rest > 0 ? -1 [1/s] else 0 [1/s] }
                assert constraint clock { der(on) == if rest > 0 ? 1.0 else 0.0 }
                """, 10);
        assertThat(Runs.at(trajectory, "p.on", 10)).isCloseTo(1, within(1e-6));
    }

    @Test
    void manyPartsMaySwitchWithinTheLastDigitsOfAnInstant() {
        Trajectory trajectory = Simulation.run(
                Runs.sortedModel("""
                part def Cell {
                    attribute limit : Real; attribute x : Real := 0; attribute y : Real := 0;
                    assert constraint law { der(x) == 0.3 [1/s] and der(y) == if x > limit ? 1 [1/s] else 0 [1/s] }
                }
                part p { %s attribute sum : Real = %s; }
                """.formatted(
                        IntStream.range(0, 120)
                                .mapToObj(i -> "part c%d : Cell { attribute :>> limit = %s; }"
                                        .formatted(i, 0.3 * (1 + i * Math.ulp(1.0))))
                                .collect(Collectors.joining("\n")),
                        IntStream.range(0, 120).mapToObj("c%d.y"::formatted).collect(Collectors.joining(" + ")))),
                RunSettings.of(0, 3),
                RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.sum", 3)).isCloseTo(240, within(1e-6));
    }

    @Test
    void aConditionThatIsFasterThanCanBeFollowedIsNamed() {
        assertThatThrownBy(() -> Runs.run(switchedBy("sin(1e18 * (1 + time / 1 [s])) > 0.5"), 1000))
                .isInstanceOf(RunFailure.class)
                .hasMessageContaining("the condition in 'p.law' changes faster than can be followed");
        RunSettings brief = RunSettings.of(0, 1000).withBudget(Duration.ofMillis(300));
        SortedSystem system = Runs.sorted(switchedBy("sin(1e6 * time / 1 [s]) > 0.5"));
        assertThatThrownBy(() -> Simulation.run(system, brief, RunControl.NONE))
                .isInstanceOf(RunFailure.class)
                .hasMessageContaining("used up its")
                .hasMessageContaining("the condition in 'p.law' has switched");
    }

    private static String switchedBy(String condition) {
        return "attribute x : Real := 0; assert constraint law { der(x) == if %s ? 1 [1/s] else 0 [1/s] }"
                .formatted(condition);
    }

    @Test
    void whatIsCutOffIsNeverShownBeyond() {
        Trajectory trajectory = Runs.run("attribute y : Real = min(time / 1 [s], 50);", 100);
        assertThat(Arrays.stream(trajectory.record(0.01).column(Runs.index(trajectory, "p.y")))
                        .max())
                .hasValue(50);
    }

    @Test
    void aSwitchInTheLastMomentIsNoFailure() {
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 0;
                assert constraint law { der(x) == if time < 9.9999999999999 [s] ? 1 [1/s] else 0 [1/s] }
                """, 10);
        assertThat(trajectory.stop()).isEqualTo(10);
        assertThat(Runs.at(trajectory, "p.x", 10)).isCloseTo(10, within(1e-9));
    }
}
