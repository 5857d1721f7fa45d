package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.trace.Split;
import pyrite.core.view.TextDifference;
import pyrite.core.view.TextDifference.Kind;
import pyrite.core.view.TextDifference.Piece;

/** Texts as long as one may be, made to be looked at again and again: minutes where time grows with the square. */
class LongRequirementTextTest {
    private static final int LONGEST = 100_000;
    private static final Duration PATIENCE = Duration.ofSeconds(30);

    @ParameterizedTest
    @ValueSource(
            strings = {
                "a",
                " ",
                "a ",
                "shall ",
                "shall be ",
                ", and ",
                "within ",
                "within a ",
                "1.",
                "[",
                "a [",
                "a]",
                "{a",
                "{a}",
                "less than 1 ",
                ". ",
                "shall be quickly opened by ",
                "**",
                "*a ",
                "`",
                "> ",
                "- ",
                "![a](",
                "\t",
                "\n"
            })
    void aTextOfTheSameWordsIsReadInAMoment(String words) {
        String text = words.repeat(LONGEST / words.length());
        assertTimeoutPreemptively(PATIENCE, () -> {
            WordingCheck.of(text, false);
            Split.propose("It shall " + text);
            RichText.html(text, "/p/merrow/main");
            assertThatBothSidesAreWhole(text, "b" + text.substring(LONGEST / 3));
        });
    }

    @Test
    void textsThatDifferInEveryWordAreCompared() {
        Random random = new Random(1);
        assertTimeoutPreemptively(
                PATIENCE, () -> assertThatBothSidesAreWhole(words(random, 30_000), words(random, 30_000)));
    }

    private static String words(Random random, int count) {
        return random.ints(count, 0, 100).mapToObj(Integer::toString).collect(Collectors.joining(" "));
    }

    private static void assertThatBothSidesAreWhole(String before, String after) {
        var pieces = TextDifference.of(before, after);
        assertThat(pieces.stream()
                        .filter(piece -> piece.kind() != Kind.ADDED)
                        .map(Piece::text)
                        .collect(Collectors.joining())
                        .equals(before))
                .isTrue();
        assertThat(pieces.stream()
                        .filter(piece -> piece.kind() != Kind.REMOVED)
                        .map(Piece::text)
                        .collect(Collectors.joining())
                        .equals(after))
                .isTrue();
    }

    /** Its rows would be filled to a hundred million cells. */
    @Test
    void aTableOfAThousandColumnsStaysText() {
        String table = "|a".repeat(2000) + "\n" + "|-".repeat(2000) + "\n" + "|\n".repeat(45_000);
        assertThat(RichText.html(table, "/p/merrow/main"))
                .doesNotContain("<table")
                .hasSizeLessThan(10 * LONGEST);
        assertThat(RichText.html("|a|b|\n|-|-|\n|1|2|\n", "/p/merrow/main")).contains("<table", "<td>2</td>");
    }
}
