package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.execution.EventLog.Kind;

/** What makes no sense ends with a sentence that says what and where. */
class BadBehaviourTest {
    private static final String TIMED = "then action a : TimedAction { attribute :>> duration = %s; } then done; ";

    private static void fails(String model, Class<? extends Exception> with, String... words) {
        assertThatThrownBy(() -> Played.of(model, 100)).isInstanceOf(with).hasMessageContainingAll(words);
    }

    @Test
    void anEventStormAtOneInstantEnds() {
        fails(
                "part p { perform action w { first start; then loop { action turn; } then done; } }",
                RunFailure.class,
                "at t = 0.0 s more than",
                "give something in the circle a duration");
        fails(
                "part p { exhibit state m { entry; then a; state a; transition first a then b; state b; transition first b then a; } }",
                RunFailure.class,
                "happen at one instant");
    }

    @Test
    void aNegativeDurationIsRefused() {
        fails(
                "part p { perform action w { first start; " + TIMED.formatted("-3 [s]") + "} }",
                RunFailure.class,
                "'p.w.a' would take -3.0 s; a duration is not negative");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            uniform(3, 1)                    | low is at most high
            exponential(-1)                  | the mean is positive
            triangular(1, 5, 2)              | come in this order
            erlang(1.5, 2)                   | whole number
            discrete((1, 2), (0.5, 0.6))     | the shares add up to 1
            empirical((1, 2), (0.5, 0.6))    | the last share is 1
            binomial(3, 1.2)                 | from 0 to 1
            """)
    void aDistributionWithImpossibleParametersIsRefused(String draw, String words) {
        fails(
                "part p { attribute x : Real := 0; perform action w { first start; then assign x := " + draw
                        + "; then done; } }",
                RunFailure.class,
                draw.substring(0, draw.indexOf('(')) + " cannot be drawn with",
                words);
    }

    @Test
    void whatAnEquationDeterminesCannotBeAssigned() {
        fails(
                "part p { attribute x : Real := 0; assert constraint { der(x) == 1 / 1 [s] } perform action w { first "
                        + "start; then assign x := 3; then done; } }",
                ModelFault.class,
                "'p.x' is assigned by an action",
                "derivative");
        fails(
                "part p { attribute x : Real = 2; perform action w { first start; then assign x := 3; then done; } }",
                ModelFault.class,
                "'p.x' is fixed with '='");
        fails(
                "part p { attribute x : Real := 0; assert constraint { x == 3 } perform action w { first start; then "
                        + "assign x := 4; then done; } }",
                ModelFault.class,
                "'p.x' is assigned by an action and determined by the equation");
    }

    @Test
    void whatHasNoValueYetIsNamed() {
        fails(
                "part p { attribute x : Real; attribute y : Real := 0; perform action w { first start; then decide; if y "
                        + "< x then a; else b; action a assign x := 1; then done; action b; then done; } }",
                RunFailure.class,
                "'p.x' is asked for at t = 0.0 s and has no value yet");
    }

    @Test
    void twoRegionsThatAssignOneAttributeAreTold() {
        String region =
                "state %s { entry; then %s1; state %s1; accept after 2 [s] then %s2; state %s2 { entry assign x := %d; } }";
        Played played = Played.of(
                "part p { attribute x : Real := 0; exhibit state m parallel { "
                        + region.replace("%s", "a").formatted(1)
                        + region.replace("%s", "b").formatted(2) + " } }",
                10);
        assertThat(played.lines(Kind.ASSIGNED))
                .containsExactly("2.0 assigned p.m.a.a2.entry: p.x := 1.0", "2.0 assigned p.m.b.b2.entry: p.x := 2.0");
        assertThat(played.lines(Kind.OVERWRITTEN))
                .containsExactly(
                        "2.0 overwritten p.m.b.b2.entry: p.x was 1.0 at this instant, assigned by 'p.m.a.a2.entry'");
    }

    @Test
    void tenThousandItemsWait() {
        Played played = Played.of("""
                item def Go; port def D { in item g : Go; }
                part def R { port d : D; attribute n : Real := 0;
                    perform action w { first start; then accept after 50 [s];
                        then while n < 10000 { first start; then accept Go via d; then assign n := n + 1; then done; } then done; } }
                part p { part r : R; port out1 : ~D; connect out1 to r.d; attribute k : Real := 0;
                    perform action s { first start;
                        then while k < 10000 { first start; then send new Go() via out1; then assign k := k + 1; then done; } then done; } }
                """, 100);
        assertThat(played.at("p.r.n", 49)).isZero();
        assertThat(played.at("p.r.n", 51)).isEqualTo(10_000);
    }

    @Test
    void moreThanAPoolEverHasIsRefused() {
        fails(
                "part def P :> Pool { attribute :>> capacity = 2; } part p { part q : P; perform action w { first start; "
                        + "then action a : TimedAction { attribute :>> duration = 1 [s]; item :>> claims : Claim { ref part :>> "
                        + "pool = q; attribute :>> amount = 3; } } then done; } }",
                RunFailure.class,
                "'p.w.a' claims 3.0 of 'p.q', which never has more than 2.0");
    }
}
