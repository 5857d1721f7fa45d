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
                part p { perform action w { first start; then action a : TimedAction { attribute :>> duration = uniform(0 [s], 10 [s]); } then done; } }
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
}
