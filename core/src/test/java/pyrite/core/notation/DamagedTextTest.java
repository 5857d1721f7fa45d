package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/**
 * Texts that somebody half typed, pasted into the wrong place or damaged: read with faults told, or read and written
 * for good.
 */
class DamagedTextTest {
    private static final List<String> TEXTS = texts();
    private static final List<String> WORDS = TEXTS.stream()
            .flatMap(text -> Stream.of(text.split("(?<=\\W)|(?=\\W)")))
            .filter(word -> !word.isBlank())
            .toList();

    /** The blocks of docs/notation.md and the files of the demo. */
    private static List<String> texts() {
        try (Stream<Path> files = Files.list(Path.of("../examples/merrow"))) {
            Stream<String> blocks = ManualTest.examples()
                    .map(ManualTest.Example::text)
                    .map(text -> text.startsWith("package")
                            ? text
                            : "package Test { private import ScalarValues::*; private import ISQ::*; "
                                    + "private import SI::*; private import Dynamics::*;\n"
                                    + text + "}");
            return Stream.concat(blocks, files.sorted().map(DamagedTextTest::text))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static ReadResult read(String text) {
        return NotationReader.read(Library.model(), List.of(new Source("damaged", text)));
    }

    private static String damaged(Random random) {
        return damaged(TEXTS.get(random.nextInt(TEXTS.size())), random);
    }

    private static String damaged(String whole, Random random) {
        StringBuilder text = new StringBuilder(whole);
        for (int left = 1 + random.nextInt(6); left > 0; left--) {
            int at = random.nextInt(text.length() + 1);
            switch (random.nextInt(5)) {
                case 0 -> text.insert(at, " " + word(random) + " ");
                case 1 -> text.delete(at, Math.min(text.length(), at + random.nextInt(40)));
                case 2 ->
                    text.insert(
                            random.nextInt(text.length() + 1),
                            text.substring(at, Math.min(text.length(), at + random.nextInt(200))));
                case 3 ->
                    text.insert(
                            at, (char) (random.nextInt(20) == 0 ? random.nextInt(0x3000) : ' ' + random.nextInt(95)));
                default -> swap(text, at, random);
            }
        }
        return text.toString();
    }

    private static void swap(StringBuilder text, int from, Random random) {
        String word = word(random);
        int at = text.indexOf(word, from);
        if (at >= 0) {
            text.replace(at, at + word.length(), word(random));
        }
    }

    private static String word(Random random) {
        return WORDS.get(random.nextInt(WORDS.size()));
    }

    @Property(tries = 1500)
    void whateverIsReadEndsInFaultsOrInAModelThatIsWrittenForGood(@ForAll long seed) {
        endsInFaultsOrInAModel(damaged(new Random(seed)));
    }

    @Test
    void aHundredDamagedVariantsOfEveryConstructDoToo() throws IOException {
        List<NamedText> constructs = Stream.concat(
                        NamedText.all("accepted.txt").stream(), NamedText.all("refused.txt").stream())
                .toList();
        Random random = new Random(20);
        for (NamedText construct : constructs) {
            for (int i = 0; i < 100; i++) {
                endsInFaultsOrInAModel(damaged(construct.text(), random));
            }
        }
    }

    private static void endsInFaultsOrInAModel(String text) {
        ReadResult reading = read(text);
        if (reading.isGood()) {
            String written =
                    NotationWriter.write(reading.model(), reading.model().ownRoots());
            ReadResult again = read(written);
            assertThat(again.problems()).as(written).isEmpty();
            assertThat(NotationWriter.write(again.model(), again.model().ownRoots()))
                    .isEqualTo(written);
        } else {
            long lines = text.lines().count() + 1;
            assertThat(reading.problems()).allSatisfy(problem -> {
                assertThat(problem.line()).isBetween(1, (int) lines);
                assertThat(problem.message()).isNotBlank();
            });
        }
    }
}
