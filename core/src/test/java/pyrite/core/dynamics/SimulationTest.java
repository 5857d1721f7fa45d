package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;
import static org.mockito.ArgumentMatchers.anyDouble;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.time.Duration;
import java.time.InstantSource;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Validates;
import pyrite.core.dynamics.RunFailure.Reason;

/** Systems whose motion is known in closed form. */
class SimulationTest {
    @Test
    void decayIsAnExponential() {
        Trajectory trajectory = Runs.run("attribute x : Real := 2; assert constraint law { der(x) == -x / 5 [s] }", 20);
        for (double t = 0; t <= 20; t += 0.37) {
            assertThat(Runs.at(trajectory, "p.x", t)).isCloseTo(2 * Math.exp(-t / 5), within(1e-7));
        }
    }

    @Test
    void anOscillatorKeepsItsEnergyAndPhase() {
        Trajectory trajectory = Runs.run("""
                attribute x : LengthValue := 1 [m];
                attribute v : SpeedValue := 0 [m/s];
                attribute energy : Real = (x / 1 [m])^2 + (v / 1 [m/s])^2;
                assert constraint law { der(x) == v and der(v) == -x / 1 [s^2] }
                """, 60);
        for (double t = 0; t <= 60; t += 1.1) {
            assertThat(Runs.at(trajectory, "p.x", t)).isCloseTo(Math.cos(t), within(1e-6));
            assertThat(Runs.at(trajectory, "p.energy", t)).isCloseTo(1, within(1e-6));
        }
    }

    @Test
    void aFallingBodyHitsTheGroundWhenGalileoSays() {
        // h = 1/2 g t^2; on the ground it stays, by a switch that must be located and not stepped over.
        Trajectory trajectory = Runs.run("""
                attribute height : LengthValue := 20 [m];
                attribute speed : SpeedValue := 0 [m/s];
                attribute falling : Boolean = height > 0 [m];
                assert constraint law {
                    der(height) == (if falling ? speed else 0 [m/s]) and der(speed) == if falling ? -9.81 [m/s^2] else 0 [m/s^2]
                }
                """, 5);
        double impact = Math.sqrt(2 * 20 / 9.81);
        assertThat(trajectory.switches())
                .singleElement()
                .satisfies(t -> assertThat(t).isCloseTo(impact, within(1e-8)));
        assertThat(Runs.at(trajectory, "p.speed", 5)).isCloseTo(-9.81 * impact, within(1e-6));
    }

    @Test
    void aSwitchInTimeIsMetExactly() {
        Trajectory trajectory = Runs.run(
                "attribute x : Real := 0; assert constraint law { der(x) == if time < 3 [s] ? 1 [1/s] else -2 [1/s] }",
                5);
        assertThat(trajectory.switches())
                .singleElement()
                .satisfies(t -> assertThat(t).isCloseTo(3, within(1e-9)));
        assertThat(Runs.at(trajectory, "p.x", 3)).isCloseTo(3, within(1e-9));
        assertThat(Runs.at(trajectory, "p.x", 5)).isCloseTo(-1, within(1e-8));
    }

    @Test
    void kinksOfMinMaxAndAbsAreLocated() {
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 0;
                attribute wave : Real = sin(time / 1 [s]);
                attribute clipped : Real = min(0.5, max(wave, -0.25));
                assert constraint law { der(x) == abs(wave) / 1 [s] }
                """, 2 * Math.PI);
        assertThat(Runs.at(trajectory, "p.x", 2 * Math.PI)).isCloseTo(4, within(1e-7));
        assertThat(Runs.at(trajectory, "p.clipped", Math.PI / 2)).isCloseTo(0.5, within(1e-12));
        assertThat(Runs.at(trajectory, "p.clipped", 3 * Math.PI / 2)).isCloseTo(-0.25, within(1e-12));
        assertThat(trajectory.switches())
                .anyMatch(t -> Math.abs(t - Math.PI / 6) < 1e-6)
                .anyMatch(t -> Math.abs(t - Math.PI) < 1e-6);
    }

    @Test
    void aStateThatBeginsOnASwitchGoesTheWayItMoves() {
        // x starts exactly at the limit and falls through it with no slope at first: v = 0, only its rate is not.
        Trajectory trajectory = Runs.run("""
                attribute x : Real := 0;
                attribute v : FrequencyValue := 0 [1/s];
                assert constraint law { der(x) == v and der(v) == if x < 0 ? -3 [1/s^2] else -1 [1/s^2] }
                """, 1);
        assertThat(Runs.at(trajectory, "p.x", 1)).isCloseTo(-1.5, within(1e-6));
    }

    @Test
    void aBouncingBodySwitchesAtEveryContact() {
        Trajectory trajectory = Runs.run("""
                attribute x : LengthValue := 1 [m];
                attribute v : SpeedValue := 0 [m/s];
                assert constraint law { der(x) == v and der(v) == if x < 0 [m] ? -x * 10000 [1/s^2] else -10 [m/s^2] }
                """, 3);
        double fall = Math.sqrt(0.2);
        assertThat(trajectory.switches().getFirst()).isCloseTo(fall, within(1e-6));
        assertThat(trajectory.switches()).hasSizeGreaterThan(4);
    }

    @Test
    void severalInstancesMoveEachByTheirOwnValues() {
        Model2 model = new Model2();
        Trajectory trajectory =
                Simulation.run(model.sorted, RunSettings.of(0, 4).withTolerance(1e-9), RunControl.NONE);
        assertThat(Runs.at(trajectory, "p.tank#(1).level", 4))
                .isCloseTo(Runs.at(trajectory, "p.tank#(2).level", 4), within(1e-12));
        assertThat(Runs.at(trajectory, "p.total", 4)).isCloseTo(2 * Math.exp(-4), within(1e-7));
    }

    private static final class Model2 {
        private final SortedSystem sorted = Runs.sortedModel("""
                part def Tank { attribute level : LengthValue := 1 [m]; assert constraint law { der(level) == -level / 1 [s] } }
                part p { part tank : Tank[2]; attribute total : LengthValue = sum(tank.level); }
                """);
    }

    @Test
    void aSystemWithoutStatesFollowsTime() {
        Trajectory trajectory = Runs.run("attribute x : Real = cos(time / 1 [s]);", 10);
        assertThat(Runs.at(trajectory, "p.x", 7.3)).isCloseTo(Math.cos(7.3), within(1e-12));
    }

    @Test
    void whatBlowsUpIsNamedWithItsTime() {
        // x' = x^2 from 1 reaches infinity at t = 1.
        RunFailure failure = catchThrowableOfType(
                RunFailure.class,
                () -> Runs.run("attribute x : Real := 1; assert constraint growth { der(x) == x^2 / 1 [s] }", 3));
        assertThat(failure.reason()).isEqualTo(Reason.DIVERGED);
        assertThat(failure.time()).isCloseTo(1, within(1e-3));
        assertThat(failure).hasMessageContaining("p.x").hasMessageContaining("p.growth");
    }

    @Test
    void leavingTheDomainOfAFunctionIsNamedWithItsTime() {
        RunFailure failure = catchThrowableOfType(RunFailure.class, () -> Runs.run("""
                attribute level : Real := 1;
                attribute outflow : FrequencyValue;
                assert constraint balance { der(level) == -outflow - 0.1 [1/s] }
                assert constraint outlet { outflow == sqrt(level) * 1 [1/s] }
                """, 10));
        assertThat(failure.reason()).isEqualTo(Reason.DIVERGED);
        assertThat(failure).hasMessageContaining("p.outlet").hasMessageContaining("p.outflow");
        // 2 (1 - 0.1 ln 11) by separation of variables.
        assertThat(failure.time()).isCloseTo(2 * (1 - 0.1 * Math.log(11)), within(1e-3));
    }

    @Test
    void aDivisionByZeroAtTheStartIsNamed() {
        assertThatThrownBy(
                        () -> Runs.run("attribute x : Real := 0; assert constraint law { der(x) == 1 [1/s] / x }", 1))
                .isInstanceOf(RunFailure.class)
                .hasMessageContaining("t = 0")
                .hasMessageContaining("p.law");
    }

    @Test
    void anOnOffControlWithoutABandIsRefusedAsChattering() {
        RunFailure failure = catchThrowableOfType(
                RunFailure.class,
                () -> Runs.run(
                        "attribute x : Real := 0; assert constraint heater { der(x) == if x < 1 ? 1 [1/s] else -1 [1/s] }",
                        5));
        assertThat(failure.reason()).isEqualTo(Reason.CHATTERING);
        assertThat(failure.time()).isCloseTo(1, within(1e-6));
        assertThat(failure).hasMessageContaining("p.heater");
    }

    @Test
    void aRunCanBeCancelledAndTellsItsProgress() {
        RunControl control = mock(RunControl.class);
        when(control.isCancelled()).thenReturn(false, true);
        SortedSystem sorted = Runs.sorted("attribute x : Real := 1; attribute y : Real := 0; "
                + "assert constraint law { der(x) == y * 1000 [1/s] and der(y) == -x * 1000 [1/s] }");
        assertThatThrownBy(() -> Simulation.run(sorted, RunSettings.of(0, 1000), control))
                .isInstanceOfSatisfying(
                        RunFailure.class,
                        failure -> assertThat(failure.reason()).isEqualTo(Reason.CANCELLED));
        verify(control, atLeastOnce()).progress(anyDouble());
    }

    @Test
    void aRunEndsWhenItsTimeIsUp() {
        InstantSource clock = mock(InstantSource.class);
        when(clock.millis()).thenReturn(0L, 500L, 1_001L);
        SortedSystem sorted = Runs.sorted("attribute x : Real := 1; attribute y : Real := 0; "
                + "assert constraint law { der(x) == y * 1000 [1/s] and der(y) == -x * 1000 [1/s] }");
        assertThatThrownBy(() -> Simulation.run(
                        sorted, RunSettings.of(0, 1000).withBudget(Duration.ofSeconds(1)), RunControl.NONE, clock))
                .isInstanceOf(RunFailure.class)
                .hasMessageContaining("used up its 1 s of computing time");
    }

    /** Van der Pol's oscillator is stiff for a large damping (Hairer and Wanner, IV.1); one that is small is not. */
    @ParameterizedTest
    @CsvSource({"1e6, true", "1, false"})
    @Validates(
            what = "stiffness of the oscillator of van der Pol",
            against = "Hairer and Wanner, Solving Ordinary Differential Equations II, IV.1",
            within = "found for a damping of 1e6, not for 1")
    void stiffnessIsCalledSo(String damping, boolean stiff) {
        SortedSystem system = Runs.sorted("""
                attribute x : Real := 2;
                attribute v : FrequencyValue := 0 [1/s];
                assert constraint law { der(x) == v and der(v) == %s [1/s] * (1 - x^2) * v - x / 1 [s^2] }
                """.formatted(damping));
        RunSettings settings = RunSettings.of(0, 1e6).withBudget(Duration.ofSeconds(2));
        assertThatThrownBy(() -> Simulation.run(system, settings, RunControl.NONE))
                .isInstanceOf(RunFailure.class)
                .satisfies(failure -> assertThat(failure.getMessage().contains("are stiff"))
                        .as(failure.getMessage())
                        .isEqualTo(stiff));
    }

    @Test
    void recordingHasEveryIntervalAndBothSidesOfASwitch() {
        Trajectory trajectory = Runs.run(
                "attribute x : Real := 0; attribute rate : FrequencyValue = if time < 1.05 [s] ? 1 [1/s] else 3 [1/s]; "
                        + "assert constraint law { der(x) == rate }",
                2);
        Recording recording = trajectory.record(0.5);
        List<Double> times = java.util.Arrays.stream(recording.times()).boxed().toList();
        assertThat(times).hasSize(7).startsWith(0.0, 0.5, 1.0).endsWith(1.5, 2.0);
        double[] rate = recording.column(Runs.index(trajectory, "p.rate"));
        assertThat(rate).containsExactly(1, 1, 1, 1, 3, 3, 3);
    }

    @Test
    void settingsThatMakeNoSenseAreRefused() {
        assertThatThrownBy(() -> RunSettings.of(5, 5)).hasMessageContaining("a run ends after it starts");
        assertThatThrownBy(() -> RunSettings.of(0, Double.NaN)).hasMessageContaining("a run ends after it starts");
        assertThatThrownBy(() -> RunSettings.of(0, 1).withInterval(2)).hasMessageContaining("interval");
        assertThatThrownBy(() -> RunSettings.of(0, 1).withInterval(1e-9)).hasMessageContaining("instants");
        assertThatThrownBy(() -> RunSettings.of(0, 1).withTolerance(1)).hasMessageContaining("tolerance");
    }

    @Test
    void aConstraintThatIsAssertedByItsNameIsAnEquation() {
        SortedSystem sorted =
                Runs.sorted("attribute x : Real := 0; attribute y : Real; constraint law { y == 2 * x } assert law; "
                        + "assert constraint moves { der(x) == 1 [1/s] }");
        assertThat(Runs.at(Simulation.run(sorted, RunSettings.of(0, 3), RunControl.NONE), "p.y", 3))
                .isCloseTo(6, within(1e-9));
    }
}
