package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** The draining tank: sqrt(level) falls linearly, so every answer is known in closed form (Torricelli). */
class CaseRunTest {
    private static final double START = Math.sqrt(1.5);
    private static final double FALL = 0.004 / 2;

    private static Model tank() throws IOException {
        try (InputStream in = CaseRunTest.class.getResourceAsStream("/tank.sysml")) {
            return Models.read(new String(in.readAllBytes(), StandardCharsets.UTF_8));
        }
    }

    private static CaseRun run(Model model, String name) {
        CaseRun run = CaseRun.of(model, Models.element(model, name), RunControl.NONE);
        assertThat(run.failure()).isNull();
        return run;
    }

    @Test
    void levelFollowsTheClosedForm() throws IOException {
        CaseRun run = run(tank(), "Tank::drain");
        CaseRun.Series level = run.series().stream()
                .filter(s -> s.path().equals("smallTank.level"))
                .findFirst()
                .orElseThrow();
        assertThat(level.heading()).isEqualTo("smallTank.level [m]");
        assertThat(run.times()).hasSize(501);
        for (int i = 0; i < run.times().length; i++) {
            double root = START - FALL * run.times()[i];
            assertThat(level.values()[i]).isCloseTo(root * root, within(1e-6));
        }
    }

    @Test
    void marginWorstInstantAndFirstViolationAreThoseOfTheClosedForm() throws IOException {
        CaseRun run = run(tank(), "Tank::drainTest");
        Judgement judgement = run.judgements().getFirst();
        double last = Math.pow(START - FALL * 300, 2);
        assertThat(judgement.verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(judgement.subject()).isEqualTo("smallTank");
        assertThat(judgement.margin().shown()).isCloseTo(last - 0.4, within(1e-6));
        assertThat(judgement.margin().unit().symbol()).isEqualTo("m");
        assertThat(judgement.worstInstant()).isCloseTo(300, within(1e-6));
        assertThat(judgement.firstViolation()).isCloseTo((START - Math.sqrt(0.4)) / FALL, within(1e-3));
        assertThat(judgement.plot().traces().getFirst().label()).isEqualTo("smallTank.level");
        assertThat(judgement.plot().lines())
                .containsExactly(new VerdictPlot.Line(VerdictPlot.Sense.LOWER, "smallTank.level", 0.4));
    }
}
