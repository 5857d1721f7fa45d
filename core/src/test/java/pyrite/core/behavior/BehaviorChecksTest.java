package pyrite.core.behavior;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

/** Small behaviours with what is missing in each written down by hand. */
class BehaviorChecksTest {
    private static List<String> gaps(String body) {
        Model model = Models.of("private import ScalarValues::*;\n" + body);
        return BehaviorChecks.of(model, Models.element(model, "Test::B")).stream()
                .map(gap -> gap.kind() + " " + gap.sentence())
                .toList();
    }

    private static List<String> gaps(BehaviorChecks.Kind kind, String body) {
        return gaps(body).stream().filter(gap -> gap.startsWith(kind.name())).toList();
    }

    @Test
    void aSequenceWithForkAndJoinLacksNothing() {
        assertThat(gaps("""
                action def B { first start; then action a; then fork f; then b; then c;
                    action b; then both; action c; then both; join both; then action d; then done; }""")).isEmpty();
        assertThat(gaps("action def B { action a; action b; }")).isEmpty();
    }

    @Test
    void aJoinBehindADecisionWaitsWithoutEnd() {
        assertThat(gaps("""
                action def B { attribute x : Boolean; first start; then decide d; if x then b; else c;
                    action b; then both; action c; then both; join both; then action e; then done; }"""))
                .containsExactly(
                        "STANDSTILL 'both' may wait for 'c' and 'b' without end; a merge node lets either lead on");
        assertThat(gaps("""
                action def B { attribute x : Boolean; first start; then decide d; if x then b; else c;
                    action b; then one; action c; then one; merge one; then action e; then done; }""")).isEmpty();
    }

    @Test
    void aStepThatSeveralLeadToWaitsForAllOfThem() {
        assertThat(gaps("""
                action def B { attribute x : Boolean; first start; then action a; then decide d; if x then b; else c;
                    action b; then done; action c; then a; }"""))
                .containsExactly("STANDSTILL 'a' may wait for 'c' without end; a merge node lets either lead on");
        assertThat(gaps("""
                action def B { attribute x : Boolean; first start; then merge m; then action a; then decide d;
                    if x then b; else c; action b; then done; action c; then m; }""")).isEmpty();
    }

    @Test
    void aBranchThatIsTakenInOneWayOnlyStandsStillInTheOther() {
        assertThat(gaps("""
                action def B { attribute x : Boolean; first start; then fork f; then a; then d;
                    action a; then both; decide d; if x then b; else c;
                    action b; then both; action c; then done; join both; then done; }"""))
                .containsExactly("STANDSTILL 'both' may wait for 'b' without end; a merge node lets either lead on");
    }

    @Test
    void aCircleThatNothingLeadsIntoIsNotReached() {
        assertThat(gaps("""
                action def B { first start; then action a; then done;
                    merge m; then action b; then action c; then m; }"""))
                .containsExactly(
                        "UNREACHED no way leads from the start to 'm'",
                        "UNREACHED no way leads from the start to 'b'",
                        "UNREACHED no way leads from the start to 'c'");
    }

    @Test
    void aStepThatNothingLeadsToIsPerformedBesideTheOthers() {
        String steps = """
                item def Go;
                action def B { first start; then action a; then done; action hear accept Go; then later; action later;
                    calc twice { return : Real = 2; } %s }""";
        assertThat(gaps(steps.formatted(""))).isEmpty();
        assertThat(gaps(steps.formatted("join both; first a then both; first late then both; action late;")))
                .isEmpty();
        assertThat(gaps(steps.formatted("merge m; then action b; then m;")))
                .containsExactly(
                        "UNREACHED no way leads from the start to 'm'", "UNREACHED no way leads from the start to 'b'");
    }

    @Test
    void aTerminateEndsWhatElseWaits() {
        String body = """
                action def B { attribute x : Boolean; first start; then fork f; then a; then d;
                    action a; then both; decide d; if x then stop; else b;
                    action stop terminate; action b; then both; join both; then done; }""";
        assertThat(gaps(body)).isEmpty();
        assertThat(gaps(body.replace("action stop terminate;", "action stop;"))).hasSize(1);
    }

    @Test
    void whatCouldFillUpWithoutEndIsNotJudged() {
        assertThat(gaps(BehaviorChecks.Kind.STANDSTILL, """
                action def B { first start; then merge m; then fork f; then a; then m;
                    action a; then both; action z; then both; join both; }""")).isEmpty();
    }

    @Test
    void aStateThatNoTransitionLeadsToIsNotEntered() {
        String states = """
                item def Go;
                state def B { entry; then idle; state idle; state busy; state lost;
                    transition first idle accept Go then busy; transition first busy accept Go then idle;
                    transition first lost accept Go then idle; }""";
        assertThat(gaps(states)).containsExactly("UNENTERED no transition leads to state 'lost'");
        assertThat(gaps("state def B parallel { state one; state two; }")).isEmpty();
        assertThat(gaps(states.replace("state def B {", "state def A {")
                        + "state def B :> A { transition first busy accept Go then lost; }"))
                .noneMatch(gap -> gap.startsWith("UNENTERED"));
    }

    @Test
    void aStateOfAMachineThatNothingLeavesIsTold() {
        String trap = """
                item def Go;
                state def A { entry; then idle; state idle; state trap;
                    transition on first idle accept Go then trap; }
                """;
        assertThat(gaps(trap.replace("state def A", "state def B")))
                .containsExactly("UNLEFT no transition leaves state 'trap'");
        assertThat(gaps(trap.replace("state def A", "state def B").replace("state trap;", "state trap; then done;")))
                .isEmpty();
        // The general machine tells it, and a special one may mend it.
        assertThat(gaps(trap + "state def B :> A;")).isEmpty();
        assertThat(gaps(trap + "state def B :> A { state more; transition first trap accept Go then more; }"))
                .containsExactly("UNLEFT no transition leaves state 'more'");
        // Within another state it is left together with that one.
        assertThat(gaps(trap.replace("state def A", "state def B") + "state def Outer { state inner : B; }"))
                .isEmpty();
        assertThat(gaps(trap.replace("state def A", "state def B parallel { state region")
                        .replace("then trap; }", "then trap; } state other; }")))
                .containsExactly("UNLEFT no transition leaves state 'region.trap'");
    }

    private static final String STATES = "item def Go; state def B { entry; then a; state a; state b; state c; ";

    @Test
    void transitionsThatWaitForTheSameEventCompete() {
        assertThat(gaps(
                        BehaviorChecks.Kind.COMPETING,
                        STATES + "transition one first a accept Go then b; transition two first a accept Go then c; }"))
                .containsExactly(
                        "COMPETING 'two' is never taken: 'one' before it takes the same event without a condition");
        assertThat(gaps(
                        BehaviorChecks.Kind.COMPETING,
                        STATES + "attribute x : Real; transition first a accept Go if x > 3 then b;"
                                + " transition first a accept Go if x > 5 then c; }"))
                .containsExactly(
                        "COMPETING the conditions of the transition to 'b' and the transition to 'c' overlap; where both hold, "
                                + "the first is taken");
        assertThat(gaps(
                        BehaviorChecks.Kind.COMPETING,
                        STATES + "attribute x : Real; transition first a accept Go if x > 3 then b;"
                                + " transition first a accept Go if x <= 3 then c; }"))
                .isEmpty();
        assertThat(gaps(
                        BehaviorChecks.Kind.COMPETING,
                        STATES + "transition first a accept Go then b; transition first b accept Go then c; }"))
                .isEmpty();
    }

    @Test
    void aStateWhoseDoHasNoEndIsNeverCompleted() {
        String busy =
                "state def B { entry; then busy; state busy { do action work { first start; then loop { action turn; }%s then done; } }"
                        + " transition first busy %s then free; state free; }";
        assertThat(gaps(BehaviorChecks.Kind.UNENDING, busy.formatted("", "")))
                .singleElement()
                .asString()
                .startsWith("UNENDING 'busy' is never completed");
        assertThat(gaps(BehaviorChecks.Kind.UNENDING, busy.formatted(" until 1 > 2;", "")))
                .isEmpty();
        assertThat(gaps(BehaviorChecks.Kind.UNENDING, "item def Go; " + busy.formatted("", "accept Go")))
                .isEmpty();
    }

    @Test
    void aStateIsNeverCompletedHoweverItsStepsGoRound() {
        String busy = "state def B { entry; then busy; state busy { do action work { first start; then %s } }"
                + " transition first busy then free; state free; then busy; attribute x : Real; }";
        String round = "merge again; then action turn; then %s";
        assertThat(gaps(BehaviorChecks.Kind.UNENDING, busy.formatted(round.formatted("again;"))))
                .hasSize(1);
        assertThat(gaps(
                        BehaviorChecks.Kind.UNENDING,
                        busy.formatted(round.formatted("decide d; if x > 1 then again; else done;"))))
                .isEmpty();
        assertThat(gaps(
                        BehaviorChecks.Kind.UNENDING,
                        busy.formatted(round.formatted(
                                "decide d; if x > 1 then turn2; else again; action turn2; then again;"))))
                .hasSize(1);
        assertThat(gaps(
                        BehaviorChecks.Kind.UNENDING,
                        busy.formatted("fork f; then stop; then again; merge again; then action turn; then again;"
                                + " action stop terminate;")))
                .isEmpty();
        assertThat(gaps(
                        BehaviorChecks.Kind.UNENDING,
                        busy.formatted("action inner { first start; then while true { action turn; } } then done;")))
                .hasSize(1);
        assertThat(gaps(
                        BehaviorChecks.Kind.UNENDING,
                        busy.formatted(
                                "decide d; if x > 1 then round; else done; action round { loop { action turn; } }")))
                .isEmpty();
    }

    private static final String MODES = "item def Go; state def A { entry; then a; state a; state b; state c;"
            + " transition move first a accept Go then b; transition back first b accept Go then a;"
            + " transition on first b accept after 1 [SI::s] then c; } ";

    @Test
    void aTransitionOfASpecialMachineThatIsRedirectedFits() {
        assertThat(gaps(MODES + "state def B :> A { transition :>> move then c; }"))
                .noneMatch(gap -> gap.startsWith("UNFIT"));
        assertThat(gaps(MODES + "state def B :> A { transition :>> move first a then c; }"))
                .noneMatch(gap -> gap.startsWith("UNFIT"));
    }

    @Test
    void aRedirectedTransitionCompetesUnderTheEventItInherits() {
        assertThat(
                        gaps(
                                MODES
                                        + "state def B :> A { transition :>> move then c; transition again first a accept Go then b; }"))
                .contains(
                        "COMPETING 'again' is never taken: 'move' before it takes the same event without a condition");
    }

    @Test
    void aTransitionWhoseGeneralLeavesElsewhereNowDoesNotFit() {
        assertThat(gaps(MODES + "state def B :> A { transition :>> move first b then c; }"))
                .contains("UNFIT 'move' leaves 'b', and the transition it redefines leaves 'a'");
    }

    @Test
    void aTransitionToAStateOfAnotherMachineDoesNotFit() {
        assertThat(gaps(MODES
                        + "state def Other { state far; }"
                        + " state def B :> A { transition first a accept Go then Other::far; }"))
                .contains("UNFIT the transition to 'far' leads to 'far', which is no state of 'B'");
    }
}
