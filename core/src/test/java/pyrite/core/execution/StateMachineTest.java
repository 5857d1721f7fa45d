package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.execution.EventLog.Kind;

/** What state machines do, case by case (SysML 2.0, 7.18). */
class StateMachineTest {
    private static final String TYPES = """
            item def A; item def B; item def C; item def Loud :> A; item def Num { attribute n : Real; }
            """;

    /** Signals come at 1 s, 2 s and so on, in the order in which they are named. */
    private static List<String> modes(String signals, String states, String more, Kind... kinds) {
        StringBuilder sending = new StringBuilder();
        for (String signal : signals.isEmpty() ? new String[0] : signals.split(" ")) {
            sending.append("then action : TimedAction { attribute :>> duration = 1 [s]; } then send new %s to m; "
                    .formatted(signal.contains("(") ? signal : signal + "()"));
        }
        return Played.of(
                        TYPES
                                + """
                part def M { attribute x : Real := 0; exhibit state modes %s }
                part def Sender { ref part m : M; perform action talk { first start; %s then done; } }
                part p { part m : M; part sender : Sender { ref part :>> m = p.m; } }
                %s
                """.formatted(
                                        states.startsWith("parallel") ? states : "{ " + states + " }", sending, more),
                        100)
                .lines(kinds)
                .stream()
                .filter(line -> !line.endsWith(" p.m.modes"))
                .map(line -> line.replace("p.m.modes.", "").replace("p.m.", ""))
                .toList();
    }

    private static List<String> states(String signals, String body) {
        return modes(signals, body, "", Kind.ENTERED, Kind.LEFT, Kind.DROPPED, Kind.ASSIGNED);
    }

    static List<Arguments> cases() {
        return List.of(
                // 7.18.3: a transition is taken on its trigger; 7.18.2: the entry succession says where it begins.
                Arguments.of(
                        "A B",
                        "entry; then off; state off; accept A then on; state on; accept B then off;",
                        List.of("0.0 entered off", "1.0 left off", "1.0 entered on", "2.0 left on", "2.0 entered off")),
                // An event of a special kind is an event of the general one.
                Arguments.of(
                        "Loud",
                        "entry; then off; state off; accept A then on; state on;",
                        List.of("0.0 entered off", "1.0 left off", "1.0 entered on")),
                // 7.18.2: exit innermost first, then the effect, then entry outermost first.
                Arguments.of(
                        "A",
                        """
                        entry; then outer;
                        state outer { entry assign x := 1; then one; exit assign x := 2;
                            state one { entry assign x := 3; exit assign x := 4; } }
                        transition first outer accept A do assign x := 9 then other;
                        state other { entry assign x := 5; then two; state two { entry assign x := 6; } }
                        """,
                        List.of(
                                "0.0 entered outer",
                                "0.0 assigned outer.entry: x := 1.0",
                                "0.0 entered outer.one",
                                "0.0 assigned outer.one.entry: x := 3.0",
                                "1.0 assigned outer.one.exit: x := 4.0",
                                "1.0 left outer.one",
                                "1.0 assigned outer.exit: x := 2.0",
                                "1.0 left outer",
                                "1.0 assigned effect: x := 9.0",
                                "1.0 entered other",
                                "1.0 assigned other.entry: x := 5.0",
                                "1.0 entered other.two",
                                "1.0 assigned other.two.entry: x := 6.0")),
                // A transition of an inner state comes before one of an outer.
                Arguments.of(
                        "A A",
                        """
                        entry; then outer;
                        state outer { entry; then one; state one; accept A then two; state two; }
                        accept A then last; state last;
                        """,
                        List.of(
                                "0.0 entered outer",
                                "0.0 entered outer.one",
                                "1.0 left outer.one",
                                "1.0 entered outer.two",
                                "2.0 left outer.two",
                                "2.0 left outer",
                                "2.0 entered last")),
                // Parallel states each take the event, in the order in which they are declared.
                Arguments.of(
                        "A",
                        """
                        entry; then both; state both parallel {
                            state left { entry; then l1; state l1; accept A then l2; state l2; }
                            state right { entry; then r1; state r1; accept A then r2; state r2; } }
                        """,
                        List.of(
                                "0.0 entered both",
                                "0.0 entered both.left",
                                "0.0 entered both.left.l1",
                                "0.0 entered both.right",
                                "0.0 entered both.right.r1",
                                "1.0 left both.left.l1",
                                "1.0 entered both.left.l2",
                                "1.0 left both.right.r1",
                                "1.0 entered both.right.r2")),
                // An event that no transition accepts is dropped.
                Arguments.of(
                        "B A",
                        "entry; then off; state off; accept A then on; state on; accept B then off;",
                        List.of(
                                "0.0 entered off",
                                "1.0 dropped modes: B 1: no transition accepts it now",
                                "2.0 left off",
                                "2.0 entered on")),
                // A guard decides; the first transition in the order of declaration is taken.
                Arguments.of("Num(5)", """
                        entry; then off; state off; accept n : Num if n.n > 9 then high; accept n : Num if n.n > 3 then middle;
                        accept n : Num then low; state high; state middle; state low;
                        """, List.of("0.0 entered off", "1.0 left off", "1.0 entered middle")),
                // After a time, counted from the entry of the state.
                Arguments.of(
                        "",
                        "entry; then off; state off; accept after 5 [s] then on; state on; accept at 20 [s] then off;",
                        List.of(
                                "0.0 entered off",
                                "5.0 left off",
                                "5.0 entered on",
                                "20.0 left on",
                                "20.0 entered off",
                                "25.0 left off",
                                "25.0 entered on")),
                // A time that is left before it has passed means nothing.
                Arguments.of(
                        "A",
                        "entry; then off; state off; accept after 5 [s] then on; accept A then other; state on; state other;",
                        List.of("0.0 entered off", "1.0 left off", "1.0 entered other")),
                // A completed state takes its transition without trigger: when its do action has ended.
                Arguments.of("", """
                        entry; then busy; state busy { do action work : TimedAction { attribute :>> duration = 4 [s]; } }
                        transition first busy then free; state free;
                        """, List.of("0.0 entered busy", "4.0 left busy", "4.0 entered free")),
                // A composite state is completed by what leads to its done.
                Arguments.of(
                        "A",
                        """
                        entry; then whole; state whole { entry; then one; state one; accept A then done; }
                        transition first whole then after1; state after1;
                        """,
                        List.of(
                                "0.0 entered whole",
                                "0.0 entered whole.one",
                                "1.0 left whole.one",
                                "1.0 left whole",
                                "1.0 entered after1")),
                // A transition may lead into the middle of another state.
                Arguments.of(
                        "A", """
                        entry; then off; state off; transition first off accept A then on.fast;
                        state on { entry; then slow; state slow; state fast; }
                        """, List.of("0.0 entered off", "1.0 left off", "1.0 entered on", "1.0 entered on.fast")),
                // A transition to the state itself leaves and enters it.
                Arguments.of(
                        "A",
                        "entry; then off; state off; accept A then off;",
                        List.of("0.0 entered off", "1.0 left off", "1.0 entered off")),
                // What begins depends on a condition.
                Arguments.of(
                        "",
                        "entry; transition if x > 1 then high; transition if x < 1 then low; state high; state low;",
                        List.of("0.0 entered low")),
                // A change is noticed when it comes about, and at once if it is there.
                Arguments.of(
                        "A",
                        """
                        entry; then off; state off; transition first off accept A do assign x := 7 then on;
                        state on; accept when x > 5 then hot; state hot;
                        """,
                        List.of(
                                "0.0 entered off",
                                "1.0 left off",
                                "1.0 assigned effect: x := 7.0",
                                "1.0 entered on",
                                "1.0 left on",
                                "1.0 entered hot")));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void statesFollowTheStandard(String signals, String body, List<String> expected) {
        assertThat(states(signals, body).stream()
                        .map(line -> line.replaceAll("assigned transition[^.]*\\.effect", "assigned effect"))
                        .toList())
                .containsExactlyElementsOf(expected);
    }

    @Test
    void doIsCutOffWhenItsStateIsLeft() {
        assertThat(modes("A", """
                        entry; then busy; state busy { do action work : TimedAction { attribute :>> duration = 10 [s]; } }
                        transition first busy accept A then free; state free;
                        """, "", Kind.STARTED, Kind.ENDED, Kind.CUT).stream()
                        .filter(line -> line.contains("work"))
                        .toList())
                .containsExactly("0.0 started busy.work", "1.0 cut busy.work");
    }

    @Test
    void anEventWaitsForTheOneBeforeIt() {
        assertThat(states("A B", """
                        entry; then off; state off;
                        transition first off accept A do action slow : TimedAction { attribute :>> duration = 3 [s]; } then on;
                        state on; accept B then off;
                        """))
                .containsExactly("0.0 entered off", "1.0 left off", "4.0 entered on", "4.0 left on", "4.0 entered off");
    }

    @Test
    void aSpecialMachineAddsAndRedirects() {
        String base = """
                state def Modes { entry; then off; state off; state on;
                    transition go first off accept A then on; transition back first on accept B then off; }
                state def Remote :> Modes { state away; transition :>> go then away; transition first away accept B then on; }
                part def N { exhibit state m : Remote; }
                """;
        List<String> lines = Played.of(TYPES + base + """
                part def Sender { ref part n : N; perform action talk { first start;
                    then action : TimedAction { attribute :>> duration = 1 [s]; } then send new A() to n;
                    then action : TimedAction { attribute :>> duration = 1 [s]; } then send new B() to n;
                    then action : TimedAction { attribute :>> duration = 1 [s]; } then send new B() to n; then done; } }
                part p { part n : N; part sender : Sender { ref part :>> n = p.n; } }
                """, 10).lines(Kind.ENTERED);
        assertThat(lines)
                .containsExactly(
                        "0.0 entered p.n.m",
                        "0.0 entered p.n.m.off",
                        "1.0 entered p.n.m.away",
                        "2.0 entered p.n.m.on",
                        "3.0 entered p.n.m.off");
    }

    @Test
    void anEventOfItsOwnTakesThePlaceOfAnInheritedOneWithItsPort() {
        List<String> lines = Played.of(TYPES + """
                part def N { port desk;
                    exhibit state m { entry; then off; state off; state on;
                        transition go first off accept A via desk then on; } }
                part def Special :> N { exhibit state :>> m { transition :>> go accept B then on; } }
                part def Sender { ref part n : Special; perform action talk { first start;
                    then action : TimedAction { attribute :>> duration = 1 [s]; } then send new B() to n; then done; } }
                part p { part n : Special; part sender : Sender { ref part :>> n = p.n; } }
                """, 10).lines(Kind.ENTERED);
        assertThat(lines).containsExactly("0.0 entered p.n.m", "0.0 entered p.n.m.off", "1.0 entered p.n.m.on");
    }
}
