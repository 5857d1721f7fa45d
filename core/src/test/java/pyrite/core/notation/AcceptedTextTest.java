package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;

/** Texts that the standard allows are read, written with the same meaning and read again. */
class AcceptedTextTest {
    static List<NamedText> texts() throws IOException {
        return NamedText.all("accepted.txt");
    }

    @ParameterizedTest
    @MethodSource("texts")
    void isReadAndKept(NamedText text) {
        ReadResult reading = Models.tryRead(text.text());
        assertThat(reading.problems()).isEmpty();
        String written = NotationWriter.write(reading.model(), reading.model().ownRoots());
        ReadResult again = Models.tryRead(written);
        assertThat(again.problems()).as(written).isEmpty();
        assertThat(NotationWriter.write(again.model(), again.model().ownRoots()))
                .isEqualTo(written);
    }
}
