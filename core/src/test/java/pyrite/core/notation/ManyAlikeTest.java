package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Thousands that look alike keep their ids when their text is read back, and nobody waits for it. */
class ManyAlikeTest {
    private static final int MANY = 20_000;

    private static String members(String each) {
        return IntStream.range(0, MANY).mapToObj(i -> each.formatted(i)).collect(Collectors.joining("\n"));
    }

    private static ReadResult readBack(Model model, String text) {
        Element holder = Models.element(model, "Test::holder");
        return assertTimeoutPreemptively(
                Duration.ofSeconds(60), () -> NotationReader.readBack(model, List.of(holder), new Source("", text)));
    }

    @Test
    void thoseWithoutANameStayTheSame() {
        Model model = Models.of("part holder { " + members("ref : ScalarValues::Real;") + " }");
        ReadResult read = readBack(model, "part holder { " + members("ref : ScalarValues::Real;") + " }");
        assertThat(read.problems()).isEmpty();
        assertThat(read.edit().put()).isEmpty();
        assertThat(read.edit().remove()).isEmpty();
    }

    @Test
    void allThatAreRenamedAtOnceStayInTheirOrder() {
        Model model = Models.of("part holder { " + members("attribute a%d : ScalarValues::Real;") + " }");
        ReadResult read = readBack(model, "part holder { " + members("attribute b%d : ScalarValues::Real;") + " }");
        assertThat(read.problems()).isEmpty();
        assertThat(read.edit().remove()).isEmpty();
        assertThat(read.edit().put()).hasSize(MANY);
        assertThat(read.model().get(Models.id(model, "Test::holder::a7")).name())
                .isEqualTo("b7");
    }

    @Test
    void allThatAreMovedAtOnceAreFoundAgain() {
        Model model = Models.of(
                "part holder { part one { " + members("attribute a%d : ScalarValues::Real;") + " } part other; }");
        ReadResult read = readBack(
                model,
                "part holder { part one; part other { " + members("attribute a%d : ScalarValues::Real;") + " } }");
        assertThat(read.problems()).isEmpty();
        assertThat(read.edit().remove()).isEmpty();
        assertThat(read.model().get(Models.id(model, "Test::holder::one::a7")).owner())
                .isEqualTo(Models.id(model, "Test::holder::other"));
    }
}
