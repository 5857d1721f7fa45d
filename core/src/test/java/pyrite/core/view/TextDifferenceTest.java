package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import pyrite.core.view.TextDifference.Kind;
import pyrite.core.view.TextDifference.Piece;

class TextDifferenceTest {
    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.of("gate", "leaf", "shall", "10", "min", ",", ".", "(", "≤")
                .list()
                .ofMaxSize(14)
                .map(words -> String.join(" ", words));
    }

    /** Law: without what came it is the earlier text, without what went the later one. */
    @Property(tries = 300)
    void bothTextsCanBeReadFromThePieces(@ForAll("texts") String before, @ForAll("texts") String after) {
        List<Piece> pieces = TextDifference.of(before, after);
        assertThat(text(pieces, Kind.ADDED)).isEqualTo(before);
        assertThat(text(pieces, Kind.REMOVED)).isEqualTo(after);
        assertThat(before.equals(after)).isEqualTo(pieces.stream().allMatch(piece -> piece.kind() == Kind.SAME));
    }

    private static String text(List<Piece> pieces, Kind without) {
        return pieces.stream()
                .filter(piece -> piece.kind() != without)
                .map(Piece::text)
                .collect(Collectors.joining());
    }

    @Test
    void wordsThatChangeTogetherAreOnePiece() {
        assertThat(TextDifference.of("within ten long minutes of it", "within nine short minutes of it"))
                .containsExactly(
                        new Piece(Kind.SAME, "within "),
                        new Piece(Kind.REMOVED, "ten long"),
                        new Piece(Kind.ADDED, "nine short"),
                        new Piece(Kind.SAME, " minutes of it"));
    }
}
