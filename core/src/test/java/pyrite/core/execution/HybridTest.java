package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.execution.EventLog.Kind;

/** Behaviour and equations of the same parts, against closed forms. */
class HybridTest {
    @Test
    void aThermostatSwitchesWhereTheExponentialsCross() {
        // tau T' = outside - T + gain while heating: from 20 the heater lifts it to 22 and lets it fall to 18.
        Played played = Played.of("""
                part p {
                    attribute temperature : Real := 20; attribute heat : Real := 0;
                    assert constraint { 100 [s] * der(temperature) == 10 - temperature + 20 * heat }
                    exhibit state control { entry; then heating;
                        state heating { entry assign heat := 1; } accept when temperature > 22 then resting;
                        state resting { entry assign heat := 0; } accept when temperature < 18 then heating; } }
                """, 600);
        double toTop = 100 * Math.log((30 - 20.0) / (30 - 22));
        double down = 100 * Math.log((22 - 10.0) / (18 - 10));
        double up = 100 * Math.log((30 - 18.0) / (30 - 22));
        List<Double> switches =
                played.trajectory().switches().stream().filter(t -> t > 0).toList();
        assertThat(switches.get(0)).isCloseTo(toTop, within(1e-6));
        assertThat(switches.get(1)).isCloseTo(toTop + down, within(1e-6));
        assertThat(switches.get(2)).isCloseTo(toTop + down + up, within(1e-6));
        assertThat(played.at("p.temperature", toTop + 20)).isCloseTo(10 + 12 * Math.exp(-0.2), within(1e-6));
    }

    @Test
    void anAssignedValueDrivesAnEquationAndIsReadByTheNext() {
        Played played = Played.of("""
                part p { attribute speed : SpeedValue := 0 [m/s]; attribute way : LengthValue := 0 [m];
                    attribute twice : LengthValue = 2 * way;
                    attribute seen : LengthValue := 0 [m];
                    assert constraint { der(way) == speed }
                    perform action drive { first start;
                        then action wait1 accept after 2 [s]; then assign speed := 3 [m/s];
                        then action wait2 accept after 4 [s]; then assign seen := twice; then assign speed := 0 [m/s]; then done; } }
                """, 10);
        assertThat(played.at("p.way", 10)).isCloseTo(12, within(1e-9));
        assertThat(played.at("p.seen", 10)).isCloseTo(24, within(1e-9));
    }

    @Test
    void aTimedStepEndsWhileSomethingMoves() {
        Played played = Played.of("""
                part p { attribute x : Real := 1; assert constraint { der(x) == -x / 1 [s] }
                    perform action w { first start; then action a : TimedAction { attribute :>> duration = 1 [s]; }
                        then action b accept when x < 0.1; then action c : TimedAction {
                            attribute :>> duration = x * 10 [s]; } then done; } }
                """, 10);
        assertThat(played.lines(Kind.ENDED)).contains("1.0 ended p.w.a", "2.303 ended p.w.b", "3.303 ended p.w.c");
    }
}
