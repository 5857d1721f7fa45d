package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;
import pyrite.core.model.Model;

/** The table of all constructs in docs/notation.md says what is so. */
class ConstructsTest {
    private static final Path PAGE = Path.of("../docs/notation.md");
    private static final Pattern ROW = Pattern.compile(
            "^\\| ([^|]+) \\| ([^|]+) \\| `((?:[^`|]|\\\\\\|)+)` \\| (read|checked|computed)(?: \\(`(\\w+)`\\))? \\|$",
            Pattern.MULTILINE);
    private static final Pattern AROUND =
            Pattern.compile("## Every construct.*?```text\npackage P \\{\n(.*?)\n}\n```", Pattern.DOTALL);
    private static final String IMPORTS = "private import P::*; private import ScalarValues::*; private import ISQ::*; "
            + "private import SI::*; private import Dynamics::*;\n";

    record Row(String clause, String of, String text, String state, String test) {
        static Row of(MatchResult match) {
            return new Row(
                    match.group(1), match.group(2), match.group(3).replace("\\|", "|"), match.group(4), match.group(5));
        }

        @Override
        public String toString() {
            return clause + " " + of + ": " + text;
        }
    }

    static List<Row> rows() throws IOException {
        return ROW.matcher(Files.readString(PAGE)).results().map(Row::of).toList();
    }

    private static String around(String text) {
        try {
            Matcher matcher = AROUND.matcher(Files.readString(PAGE));
            assertThat(matcher.find()).isTrue();
            return "package P {\n" + matcher.group(1) + "\npackage S {\n" + IMPORTS + text + "\n}\n}\n";
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @ParameterizedTest
    @MethodSource("rows")
    void isReadWrittenAndReadAgain(Row row) {
        Model model = Models.read(around(row.text()));
        assertThat(model.ownElements().size())
                .as("something is kept of it")
                .isGreaterThan(empty().ownElements().size() - (isNote(row) ? 1 : 0));
        String written = NotationWriter.write(model, model.ownRoots());
        Model again = Models.read(written);
        assertThat(NotationWriter.write(again, again.ownRoots())).isEqualTo(written);
    }

    private static boolean isNote(Row row) {
        return row.text().startsWith("//");
    }

    private static Model empty() {
        return Models.read(around(""));
    }

    /** A row that says that something is computed names a test. */
    @Test
    void whatIsComputedIsShownByATestThatIsThere() throws IOException {
        List<Row> rows = rows();
        assertThat(rows).hasSizeGreaterThan(280);
        assertThat(rows.stream().map(Row::text)).doesNotHaveDuplicates();
        for (Row row : rows) {
            assertThat(row.test() != null || !row.state().equals("computed"))
                    .as(row.toString())
                    .isTrue();
            if (row.test() != null) {
                try (Stream<Path> files = Files.walk(Path.of("src/test/java"))) {
                    assertThat(files.anyMatch(
                                    file -> file.getFileName().toString().equals(row.test() + ".java")))
                            .as(row.test())
                            .isTrue();
                }
            }
        }
    }
}
