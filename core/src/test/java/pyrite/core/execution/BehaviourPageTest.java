package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.VerdictKind;

/** What docs/behaviour.md shows runs as it says. */
class BehaviourPageTest {
    @Test
    void theExampleRuns() throws IOException {
        Matcher block = Pattern.compile("```sysml\n(.*?)```", Pattern.DOTALL)
                .matcher(Files.readString(Path.of("../docs/behaviour.md")));
        assertThat(block.find()).isTrue();
        Model model = Models.read(block.group(1));
        CaseRun run = CaseRun.of(model, Models.element(model, "Pier::calling"), RunControl.NONE);
        assertThat(run.failure()).isNull();
        assertThat(run.judgements())
                .extracting(judgement -> judgement.verdict() + " " + judgement.reason())
                .hasSize(2)
                .allMatch(said -> said.startsWith(VerdictKind.PASS.name()));
        assertThat(run.happened().standstill().entries()).isEmpty();
    }
}
