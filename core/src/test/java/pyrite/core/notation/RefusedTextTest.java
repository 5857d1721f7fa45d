package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;

/** Texts that the standard forbids are refused at their place, whole and damaged. */
class RefusedTextTest {
    static List<NamedText> texts() throws IOException {
        return NamedText.all("refused.txt");
    }

    @ParameterizedTest
    @MethodSource("texts")
    void isRefusedAtItsPlace(NamedText text) {
        List<TextProblem> problems = Models.tryRead(text.text()).problems();
        assertThat(problems).isNotEmpty().allSatisfy(problem -> {
            assertThat(problem.span().end()).isPositive();
            assertThat(problem.message()).doesNotContain("null").hasSizeGreaterThan(15);
        });
    }
}
