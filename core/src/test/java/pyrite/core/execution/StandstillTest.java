package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Who waits for what, who could have given it, and why they did not. */
class StandstillTest {
    private static List<String> report(String model) {
        Happened happened = Played.of(model, 100).engine().happened();
        assertThat(HappenedBytes.read(HappenedBytes.write(happened)).standstill())
                .isEqualTo(happened.standstill());
        assertThat(happened.standstill().isComplete()).isTrue();
        return happened.standstill().entries().stream()
                .map(entry -> (entry.isInCircle() ? "circle: " : "")
                        + happened.log().subjects().get(entry.subject()).path() + " " + entry.what() + ": "
                        + entry.givers().stream().map(Standstill.Giver::why).collect(Collectors.joining("; ")))
                .toList();
    }

    @Test
    void twoThatWaitForEachOtherAreACircle() {
        String side = """
                part def %1$s { port d : %3$s; perform action w { first start;
                    then action take accept %2$s via d; then action give send new %4$s() via d; then done; } }
                """;
        assertThat(report("item def X; item def Y; port def D { in item x : X; out item y : Y; }\n"
                        + side.formatted("L", "X", "D", "Y") + side.formatted("R", "Y", "~D", "X")
                        + "part p { part l : L; part r : R; connect l.d to r.d; }"))
                .containsExactly(
                        "circle: p.l.w.take waits for 'X' via p.l.d: 'p.r.w.give' was never started; before it, 'p.r.w.take' "
                                + "waits for 'Y' via p.r.d",
                        "circle: p.r.w.take waits for 'Y' via p.r.d: 'p.l.w.give' was never started; before it, 'p.l.w.take' "
                                + "waits for 'X' via p.l.d");
    }

    @Test
    void anAcceptThatNobodySendsToSaysSo() {
        assertThat(
                        report(
                                "item def X; part p { perform action w { first start; then action take accept X; then done; } }"))
                .containsExactly("p.w.take waits for 'X': nothing in what runs sends it there");
    }

    @Test
    void aJoinNamesWhatItWaitsFor() {
        assertThat(report(
                        "part p { attribute x : Real := 0; perform action w { first start; then fork f; then a; then d;"
                                + " action a; then both; decide d; if x > 1 then b; else c; action b; then both; action c; then done; join "
                                + "both; then done; } }"))
                .containsExactly("p.w waits at 'p.w.both' for 'p.w.b' to end: 'p.w.b' was never started");
    }

    @Test
    void aPoolIsHeldByOneThatItselfWaits() {
        assertThat(report("""
                item def X; part def Q :> Pool { attribute :>> capacity = 1; }
                part p { part q : Q; perform action w { first start; then fork f; then a; then b;
                    action a : TimedAction { item :>> claims : Claim { ref part :>> pool = q; } first start;
                        then action take accept X; then done; } then done;
                    action b : TimedAction { attribute :>> duration = 1 [s]; item :>> claims : Claim {
                        ref part :>> pool = q; } } then done; } }
                """))
                .containsExactly(
                        "p.w.b waits for 'p.q': 'p.w.a' holds 'p.q'",
                        "p.w.a.take waits for 'X': nothing in what runs sends it there");
    }
}
