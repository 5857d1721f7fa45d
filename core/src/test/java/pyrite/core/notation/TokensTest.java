package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.From;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.antlr.v4.runtime.CharStream;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.IntStream;
import org.antlr.v4.runtime.misc.Interval;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.notation.Tokens.Type;

/** Splitting texts into tokens (KerML 8.2.2). */
class TokensTest {
    private record Found(Type type, String text) {}

    private static List<Found> found(String text) {
        Tokens tokens = Tokens.of(text);
        return java.util.stream.IntStream.rangeClosed(0, tokens.last())
                .mapToObj(i -> new Found(tokens.type(i), tokens.text(i)))
                .toList();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            part                | KEYWORD | part
            pump                | NAME    | pump
            Größe_2             | UNKNOWN | Größe_2
            °C                  | UNKNOWN | °C
            'Größe 2'           | NAME    | Größe 2
            $                   | NAME    | $
            'two words'         | NAME    | two words
            'it\\'s'            | NAME    | it's
            'part'              | NAME    | part
            12                  | NUMBER  | 12
            1.5e-3              | NUMBER  | 1.5e-3
            .5                  | NUMBER  | .5
            "a \\"b\\" c"       | STRING  | a "b" c
            "tab\\tstop"        | STRING  | tab\tstop
            :>>                 | SIGN    | :>>
            ::>                 | SIGN    | ::>
            ..                  | SIGN    | ..
            /* kept */          | BLOCK   | /* kept */
            €                   | UNKNOWN | €
            """)
    void eachKindOfTokenIsFound(String text, Type type, String said) {
        assertThat(found(text)).containsExactly(new Found(type, said), new Found(Type.END, ""));
    }

    @Test
    void numbersAndRangesAreToldApart() {
        assertThat(found("1..5")).extracting(Found::text).containsExactly("1", "..", "5", "");
        assertThat(found("1.5.x")).extracting(Found::text).containsExactly("1.5", ".", "x", "");
        assertThat(found("2e")).extracting(Found::text).containsExactly("2", "e", "");
    }

    @Test
    void notesAreKeptApartByTheTokenTheyStandBefore() {
        Tokens tokens = Tokens.of("// above\npart a; // beside\n//* of two\nlines */ part b;");
        assertThat(tokens.notesBefore(0, tokens.last()))
                .extracting(Tokens.Note::text)
                .containsExactly("above", "beside", "of two\nlines");
        assertThat(tokens.notesBefore(0, tokens.last()))
                .extracting(Tokens.Note::token)
                .containsExactly(0, 3, 3);
        assertThat(tokens.notesBefore(1, 2)).isEmpty();
    }

    @Test
    void theSameWordIsTheSameString() {
        Tokens tokens = Tokens.of("pump valve pump");
        assertThat(tokens.text(0)).isSameAs(tokens.text(2));
    }

    /** More different words than there is room for at first, and more tokens than stand in one block. */
    @Test
    void alsoOfVeryManyWordsEachIsFoundAtItsPlace() {
        int many = 30_000;
        String text = java.util.stream.IntStream.range(0, many)
                .mapToObj(i -> "name" + i)
                .collect(Collectors.joining(" "));
        Tokens tokens = Tokens.of(text);
        assertThat(tokens.last()).isEqualTo(many);
        for (int i = 0; i < many; i++) {
            assertThat(tokens.text(i)).isEqualTo("name" + i);
            assertThat(text.substring(tokens.start(i), tokens.end(i))).isEqualTo("name" + i);
        }
    }

    private static final List<String> PIECES = List.of(
            "part",
            "pump",
            "'quoted name'",
            "3.25",
            "\"a text\"",
            ":>>",
            "{",
            "}",
            ";",
            "// note\n",
            "/* block */",
            " ",
            "\n",
            "😀",
            "'😀'",
            "\"😀\"",
            "é",
            "::",
            "=",
            "\t",
            "€");

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.of(PIECES).list().ofMaxSize(60).map(pieces -> String.join(" ", pieces));
    }

    /** Nothing but blanks and notes stands between tokens, which follow each other and end at the end of the text. */
    @Property(tries = 300)
    void tokensCoverTheText(@ForAll @From("texts") String text) {
        Tokens tokens = Tokens.of(text);
        int behind = 0;
        StringBuilder between = new StringBuilder();
        for (int i = 0; i <= tokens.last(); i++) {
            assertThat(tokens.start(i)).isGreaterThanOrEqualTo(behind);
            between.append(text, behind, tokens.start(i));
            behind = tokens.end(i);
        }
        assertThat(behind).isEqualTo(text.length());
        assertThat(between.toString().replace("// note\n", "")).isBlank();
    }

    /** A long text is split by another thread, ahead of who reads it. */
    @Property(tries = 10)
    void aLongTextHasTheTokensOfItsParts(@ForAll @From("texts") String part) {
        String padded = part + "\n" + "filling ".repeat(200);
        int times = 110_000 / padded.length() + 1;
        List<Found> once = found(padded);
        List<Found> expected = new ArrayList<>();
        for (int i = 0; i < times; i++) {
            expected.addAll(once.subList(0, once.size() - 1));
        }
        expected.add(once.getLast());
        assertThat(found(padded.repeat(times))).isEqualTo(expected);
    }

    /**
     * What the lexer is given goes through the code points of the text, as the usual streams do, but counts its chars.
     */
    @Property(tries = 300)
    void aTextIsGoneThroughByCodePoints(@ForAll @From("texts") String text) {
        CharStream expected = CharStreams.fromString(text);
        TextStream stream = new TextStream(text);
        while (expected.LA(1) != IntStream.EOF) {
            assertThat(stream.LA(1)).isEqualTo(expected.LA(1));
            assertThat(stream.LA(2)).isEqualTo(expected.LA(2));
            assertThat(stream.LA(3)).isEqualTo(expected.LA(3));
            assertThat(stream.LA(-1)).isEqualTo(expected.index() == 0 ? IntStream.EOF : expected.LA(-1));
            assertThat(stream.index()).isEqualTo(text.offsetByCodePoints(0, expected.index()));
            stream.consume();
            expected.consume();
        }
        assertThat(stream.LA(1)).isEqualTo(IntStream.EOF);
        assertThat(stream.index()).isEqualTo(stream.size()).isEqualTo(text.length());
        assertThatThrownBy(stream::consume).isInstanceOf(IllegalStateException.class);
    }

    @Test
    void aStreamGivesItsTextBetweenPlacesAndGoesBack() {
        TextStream stream = new TextStream("a😀b");
        assertThat(stream.getText(Interval.of(1, 2))).isEqualTo("😀");
        assertThat(stream.getText(Interval.of(3, 99))).isEqualTo("b");
        assertThat(stream.getText(Interval.of(9, 10))).isEmpty();
        stream.seek(3);
        assertThat(stream.LA(1)).isEqualTo('b');
        stream.seek(1);
        assertThat(stream.LA(1)).isEqualTo(0x1F600);
        assertThat(stream.LA(0)).isZero();
        assertThat(stream.LA(9)).isEqualTo(IntStream.EOF);
        assertThat(stream).hasToString("a😀b");
    }
}
