package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;

class RecordingTest {
    @Test
    void aDomainThatIsLeftBetweenStepsIsNeverRecordedAsANumber() {
        Trajectory trajectory = Runs.run("""
                attribute x : Real = (time / 1 [s] - 5) * (time / 1 [s] - 5.02);
                attribute y : Real = sqrt(x);
                """, 10);
        assertThatThrownBy(() -> trajectory.record(0.01))
                .isInstanceOf(RunFailure.class)
                .hasMessageStartingWith(
                        "at t = 5.01000 s the equation 'p.y = …' gives no finite value for 'p.y' (NaN)");
    }

    /** Torricelli: level = (1 - t/10)² m until it is dry at 10 s; the root is taken of nothing there. */
    @Test
    void aTankThatRunsDryIsRecordedUpToTheLastInstant() {
        Trajectory trajectory = Runs.run("""
                attribute level : LengthValue := 1 [m];
                attribute outflow : SpeedUnit = if level > 0 [m] ? 0.2 [m/s] * sqrt(level / 1 [m]) else 0 [m/s];
                assert constraint { der(level) == -outflow }
                """, 20);
        Recording recording = trajectory.record(0.5);
        double[] level = recording.column(Runs.index(trajectory, "p.level"));
        assertThat(recording.times()).isSorted();
        for (int i = 0; i < level.length; i++) {
            double left = Math.max(0, 1 - recording.times()[i] / 10);
            assertThat(level[i]).isCloseTo(left * left, within(1e-7));
        }
    }

    @Test
    void everyIntervalIsThereOnceAndASwitchTwice() {
        Trajectory trajectory = Runs.run("attribute y : Real = if time < 2.5 [s] ? 1 else 2;", 4);
        Recording recording = trajectory.record(1);
        assertThat(recording.times()).containsExactly(0, 1, 2, 2.5, 2.5, 3, 4);
        assertThat(recording.column(Runs.index(trajectory, "p.y"))).containsExactly(1, 1, 1, 1, 2, 2, 2);
        assertThat(recording.row(4)).contains(2);
    }

    @Test
    void aMillionInstantsKeepTheirPlaces() {
        Trajectory trajectory = Runs.run("attribute y : Real = time / 1 [s];", 1000);
        Recording recording = trajectory.record(1e-3);
        assertThat(recording.times()).hasSize(1_000_001);
        assertThat(Arrays.equals(recording.times(), recording.column(Runs.index(trajectory, "p.y"))))
                .isTrue();
    }
}
