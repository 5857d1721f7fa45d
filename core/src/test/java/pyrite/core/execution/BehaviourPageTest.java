package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.VerdictKind;

/** What docs/behaviour.md shows runs as it says. */
class BehaviourPageTest {
    private static final List<String> BLOCKS = blocks();

    private static List<String> blocks() {
        try {
            return Pattern.compile("```sysml\n(.*?)```", Pattern.DOTALL)
                    .matcher(Files.readString(Path.of("../docs/behaviour.md")))
                    .results()
                    .map(result -> result.group(1))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static CaseRun run(String text, String name) {
        Model model = Models.read(text);
        CaseRun run = CaseRun.of(model, Models.element(model, name), RunControl.NONE);
        assertThat(run.failure()).isNull();
        return run;
    }

    @Test
    void theExampleRuns() {
        CaseRun run = run(BLOCKS.getFirst(), "Pier::calling");
        assertThat(run.judgements())
                .extracting(judgement -> judgement.verdict() + " " + judgement.reason())
                .hasSize(2)
                .allMatch(said -> said.startsWith(VerdictKind.PASS.name()));
        assertThat(run.happened().standstill().entries()).isEmpty();
    }

    @Test
    void theWaitThatFeedsBackIsTold() throws IOException {
        CaseRun run = run(BLOCKS.get(1), "Canal::passing");
        Standstill standstill = run.happened().standstill();
        assertThat(standstill.isComplete()).isTrue();
        assertThat(standstill.entries()).hasSize(2).allMatch(Standstill.Entry::isInCircle);
        Standstill.Entry first = standstill.entries().getFirst();
        assertThat(Files.readString(Path.of("../docs/behaviour.md")).replaceAll("\n>? ?", " "))
                .contains("`"
                        + run.happened().log().subjects().get(first.subject()).path() + "` " + first.what() + ": "
                        + first.givers().getFirst().why());
    }

    @Test
    void theRecordingHappensAsRecorded() {
        CaseRun run = run(BLOCKS.getFirst() + BLOCKS.get(2), "PierTests::heardAtOnce");
        assertThat(Objects.requireNonNull(run.comparison()).sentence()).isEqualTo("happens as recorded, all 3 steps");
    }
}
