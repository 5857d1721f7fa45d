package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** A few lines may ask for more than there is time or memory; then they get a sentence, in a run and without one. */
class BudgetTest {
    private static final String CASE = """
            verification check : SimulatedCheck { subject :>> system = box; attribute :>> stopTime = 1 [s];
                objective { verify r; } }
            """;

    private static Judgement ofRun(Model model) {
        return CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE)
                .judgements()
                .getFirst();
    }

    private static Judgement withoutRun(Model model) {
        return StaticJudgement.of(model, Models.element(model, "Test::r"))
                .judgements()
                .getFirst();
    }

    /** Thirty lines that ask for 2^30 values. */
    @Test
    void sequencesThatDoubleEndWithASentence() {
        String doubling = IntStream.rangeClosed(1, 30)
                .mapToObj(i -> "attribute x%d : Real [0..*] = (x%d, x%d);".formatted(i, i - 1, i - 1))
                .collect(Collectors.joining("\n"));
        Model model = Models.of("part def Box { attribute x0 : Real = 1; " + doubling + " } part box : Box; "
                + "requirement r { subject b : Box; require constraint { sum(b.x30) <= 4 } } satisfy r by box; "
                + CASE);
        assertThat(ofRun(model)).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).contains("more calls and values than there is time for");
        });
        assertThat(withoutRun(model)).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason()).contains("too many parts or values");
        });
    }

    @Test
    void aThousandInAThousandInAThousandIsTooMuchForARun() {
        Model model = Models.of("part def Bolt; part def Row { part bolts : Bolt [1000]; } "
                + "part def Plate { part rows : Row [1000]; } part def Box { part plates : Plate [1000]; "
                + "attribute mass : MassValue = 1 [kg]; } part box : Box; "
                + "requirement r { subject b : Box; require constraint { b.mass <= 2 [kg] } } satisfy r by box; "
                + CASE);
        assertThat(ofRun(model).verdict()).isEqualTo(VerdictKind.ERROR);
        assertThat(ofRun(model).reason()).contains("more than 1000000 parts");
        assertThat(withoutRun(model).verdict()).isEqualTo(VerdictKind.PASS);
    }
}
