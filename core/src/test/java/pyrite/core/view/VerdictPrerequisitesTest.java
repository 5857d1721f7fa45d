package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.verification.CaseSetup;

class VerdictPrerequisitesTest {
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            ''                                          | ''                   | \
            ''                                                        | \
            No verdict yet. It needs a part that satisfies it, a constraint and a case that verifies it.
            require constraint { depth < 2 }            | ''                   | \
            ''                                                        | \
            No verdict yet. It needs a part that satisfies it and a case that verifies it.
            require constraint { depth < 2 }            | satisfy dry by dock; | \
            ''                                                        | \
            No verdict yet. It needs a case that verifies it.
            require constraint { depth < 2 }            | satisfy dry by dock; | \
            verification v : SimulatedCheck { objective { verify dry; } } | \
            No verdict yet: nothing that verifies it has run.
            require constraint { depth < 2 }            | satisfy dry by dock; | \
            verification v { objective { verify dry; } }               | \
            No verdict yet: the case that verifies it cannot be run; type it by SimulatedCheck.
            """)
    void whatIsMissingIsNamedAndNothingElse(String constraint, String satisfy, String verify, String sentence) {
        Model model = Models.of(
                "requirement dry { attribute depth : Real; " + constraint + " } part dock; " + satisfy + verify);
        VerdictPrerequisites lacking = VerdictPrerequisites.of(
                model, Models.element(model, "Test::dry"), each -> CaseSetup.isRunnable(model, each));
        assertThat(lacking.sentence()).isEqualTo(sentence);
        assertThat(lacking.runnable()).hasSize(verify.contains("SimulatedCheck") ? 1 : 0);
    }
}
