package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.execution.EventLog.Kind;

/** What state machines do, case by case (SysML 2.0, 7.18). */
class StateMachineTest {
    /** Signals come at 1 s, 2 s and so on, in the order in which they are named. */
    private static List<String> modes(String signals, String body) {
        StringBuilder sending = new StringBuilder();
        for (String signal : signals.split(" ")) {
            sending.append("then action : TimedAction { attribute :>> duration = 1 [s]; } then send new %s() to this0;"
                    .formatted(signal).replace("this0", "m"));
        }
        return Played.of("""
                item def A; item def B; item def Loud :> A; item def Num { attribute n : Real; }
                part def M { attribute x : Real := 0; exhibit state modes { %s } }
                part def Sender { ref part m : M; perform action talk { first start; %s then done; } }
                part p { part m : M; part sender : Sender { ref part :>> m = p.m; } }
                """.formatted(body, sending), 100)
                .lines(Kind.ENTERED, Kind.LEFT, Kind.DROPPED, Kind.ASSIGNED).stream()
                .map(line -> line.replace("p.m.modes.", "").replace("p.m.", ""))
                .toList();
    }

    @Test
    void aSignalLeadsFromOneStateToAnother() {
        assertThat(modes("A B", "entry; then off; state off; accept A then on; state on; accept B then off;"))
                .containsExactly(
                        "0.0 entered modes",
                        "0.0 entered off",
                        "1.0 left off",
                        "1.0 entered on",
                        "2.0 left on",
                        "2.0 entered off");
    }

    @Test
    void anInnerTransitionComesFirstAndExitGoesFromInsideOut() {
        assertThat(modes("A A", """
                entry; then outer;
                state outer { entry assign x := 1; exit assign x := 2;
                    entry; then one; state one { entry assign x := 3; exit assign x := 4; } accept A then two; state two; }
                accept A then last; state last { entry assign x := 5; }
                """).stream().filter(line -> !line.contains("modes")).toList())
                .containsSubsequence("1.0 left one", "1.0 entered two", "2.0 left two", "2.0 left outer", "2.0 entered last");
    }
}
