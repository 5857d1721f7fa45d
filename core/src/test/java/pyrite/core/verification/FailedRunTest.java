package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** A run that ends with an error says so of each part in it that is to satisfy a requirement, and of no other. */
class FailedRunTest {
    private static final Model MODEL = Models.of("""
            part def Tank { attribute level : Real = 1 / (time / 1 [s]); }
            part def Plant { part left : Tank; part right : Tank; }
            part plant : Plant;
            part spare : Tank;
            requirement low { subject t : Tank; require constraint { always(t.level <= 1) } }
            requirement free { require constraint { 1 < 2 } }
            satisfy low by plant.left;
            satisfy low by plant.right;
            satisfy low by spare;
            verification check : SimulatedCheck {
                subject :>> system = plant; attribute :>> stopTime = 1 [s]; objective { verify low; verify free; }
            }
            """);

    @Test
    void eachPartOfItHasTheErrorWithItsReason() {
        CaseRun run = CaseRun.of(MODEL, element(MODEL, "Test::check"), RunControl.NONE);
        assertThat(run.failure()).contains("at t = 0");
        assertThat(run.judgements())
                .extracting(Judgement::subject)
                .containsExactlyInAnyOrder("plant.left", "plant.right", "");
        assertThat(run.judgements()).allSatisfy(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).isEqualTo(run.failure());
        });
    }
}
