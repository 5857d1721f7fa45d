package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** Requirements over several runs: by the share that holds, and what can be told of it. */
class ReplicationsTest {
    @Test
    void theIntervalIsThatOfClopperAndPearson() {
        // The exact 95 % interval of 10 of 100, as tables give it.
        Replications.Interval some = Replications.Interval.of(10, 100);
        assertThat(some.low()).isCloseTo(0.0490, within(1e-4));
        assertThat(some.high()).isCloseTo(0.1762, within(1e-4));
        // None of n: the upper end is 1 - 0.025^(1/n).
        assertThat(Replications.Interval.of(0, 20).low()).isZero();
        assertThat(Replications.Interval.of(0, 20).high()).isCloseTo(1 - Math.pow(0.025, 1.0 / 20), within(1e-8));
    }

    private static Judgement judged(String share, int runs, String limit) {
        Model model = Models.of("""
                private import Execution::*;
                part p { perform action w { first start; then action a : TimedAction {
                    attribute :>> duration = uniform(0 [s], 10 [s]); } then done; } }
                requirement r { subject s; require constraint { firstTime(done(p.w)) <= %s } }
                satisfy r by p;
                verification v : SimulatedCheck { subject :>> system = p; attribute :>> stopTime = 20 [s];
                    attribute :>> replications = %d; attribute :>> leastShare = %s; objective { verify r; } }
                """.formatted(limit, runs, share));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::v"), RunControl.NONE);
        return run.judgements().getFirst();
    }

    @Test
    void aShareIsEnoughTooLittleOrUndecided() {
        assertThat(judged("0.9", 200, "10 [s]").verdict()).isEqualTo(VerdictKind.PASS);
        assertThat(judged("0.9", 200, "5 [s]").verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(judged("0.5", 10, "5 [s]").verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
        assertThat(judged("1", 50, "10 [s]")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.PASS);
            assertThat(judgement.reason()).startsWith("holds in 50 of 50 runs, 100.0 %");
        });
        assertThat(judged("1", 50, "9 [s]").verdict()).isEqualTo(VerdictKind.FAIL);
    }

    /** Mean 3 and deviation 1.5811 of five numbers by hand: 1.5811 / sqrt(5) * 2.7764 to either side. */
    @Test
    void theMeanHasItsConfidenceIntervalAndThePercentilesLieBetween() {
        Statistic statistic = Statistic.of("x", "", new double[] {5, 1, 3, 2, 4});
        assertThat(statistic.mean()).isEqualTo(3);
        assertThat(statistic.high() - statistic.mean()).isCloseTo(1.96324, within(1e-4));
        assertThat(statistic.p5()).isCloseTo(1.2, within(1e-12));
        assertThat(statistic.median()).isEqualTo(3);
        assertThat(statistic.p95()).isCloseTo(4.8, within(1e-12));
    }

    /** A crane that is used for 4 to 8 of 10 s: the mean over time is known, and inside the interval. */
    @Test
    void theUseOfAPoolIsAMeanOverTime() {
        Model model = Models.of("""
                private import Execution::*;
                part def Crane :> Pool { attribute :>> capacity = 2; }
                part yard { part crane : Crane;
                    perform action lift { first start;
                        then action up : TimedAction { attribute :>> duration = uniform(4 [s], 8 [s]);
                            item :>> claims : Claim { ref part :>> pool = crane; attribute :>> amount = 1; } } then done; } }
                requirement quick { subject y; require constraint { firstTime(done(yard.lift)) <= 9 [s] } }
                satisfy quick by yard;
                verification often : SimulatedCheck { subject :>> system = yard; attribute :>> stopTime = 10 [s];
                    attribute :>> replications = 200; objective { verify quick; } }
                """);
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::often"), RunControl.NONE);
        Statistic used = run.statistics().stream()
                .filter(each -> each.what().equals("mean of used(yard.crane)"))
                .findFirst()
                .orElseThrow();
        assertThat(used.runs()).isEqualTo(200);
        assertThat(used.low()).isLessThan(0.6);
        assertThat(used.high()).isGreaterThan(0.6);
        // Uniform: of the means over time, a twentieth is below 0.4 + 0.4 / 20.
        assertThat(used.p5()).isCloseTo(0.42, within(0.02));
        assertThat(run.statistics()).anyMatch(each -> each.what().startsWith("margin of Test::quick"));
    }
}
