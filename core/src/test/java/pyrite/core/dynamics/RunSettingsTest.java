package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RunSettingsTest {
    @ParameterizedTest
    @CsvSource({
        "0, 1, 1, 1e-12",
        "0, 1, 1e-6, 0.01",
        "-5, 5, 10, 1e-6",
    })
    void theLimitsThemselvesAreAllowed(double start, double stop, double interval, double tolerance) {
        RunSettings settings = new RunSettings(start, stop, interval, tolerance, RunSettings.USUAL_BUDGET);
        assertThat(settings.stop()).isEqualTo(stop);
    }

    @ParameterizedTest
    @CsvSource({
        "1, 1, 0.1, 1e-6, a run ends after it starts",
        "2, 1, 0.1, 1e-6, a run ends after it starts",
        "0, Infinity, 0.1, 1e-6, a run ends after it starts",
        "NaN, 1, 0.1, 1e-6, a run ends after it starts",
        "0, 1, 0, 1e-6, the interval is more than nothing",
        "0, 1, 1.5, 1e-6, the interval is more than nothing",
        "-5, 5, 11, 1e-6, 'at most the run''s 10.0 s, not 11.0 s'",
        "0, 2, 1e-6, 1e-6, would record more than 1000000 instants",
        "0, 1, 0.1, 1e-13, the tolerance is between",
        "0, 1, 0.1, 0.02, the tolerance is between"
    })
    void whatIsBeyondThemIsRefused(double start, double stop, double interval, double tolerance, String reason) {
        assertThatThrownBy(() -> new RunSettings(start, stop, interval, tolerance, RunSettings.USUAL_BUDGET))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(reason);
    }

    @Test
    void aRunRecordsFiveHundredIntervalsWhereNothingElseIsSaid() {
        assertThat(RunSettings.of(10, 60).interval()).isEqualTo(0.1);
    }
}
