package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** The first verdict of a run of the case {@code check}. */
final class Judged {
    private Judged() {}

    static Judgement byRunning(String declarations) {
        Model model = Models.of(declarations);
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE);
        assertThat(run.failure()).isNull();
        return run.judgements().getFirst();
    }
}
