package pyrite.core.view;

import com.github.difflib.text.DiffRow;
import com.github.difflib.text.DiffRowGenerator;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;

/**
 * Compares two texts word by word and returns one sequence of pieces. Where very much differs it compares sentences,
 * and where that is too much as well, one replaces the other.
 */
public final class TextDifference {
    private static final Pattern WORDS = Pattern.compile("\\s+|[\\p{L}\\p{N}_.]+|[^\\s\\p{L}\\p{N}]");
    private static final Pattern SENTENCES = Pattern.compile("[^.!?;\\n]*+[.!?;\\n]*+\\s*+");
    /** So many pieces that differ are compared with each other, in some tenths of a second. */
    private static final int MOST = 3000;

    private TextDifference() {}

    /** Words that are in both texts, only in the earlier, or only in the later one. */
    public record Piece(Kind kind, String text) {}

    /** The texts that contain a piece. */
    public enum Kind {
        SAME,
        REMOVED,
        ADDED
    }

    public static List<Piece> of(String before, String after) {
        List<String> one = units(WORDS, before);
        List<String> other = units(WORDS, after);
        int start = alike(one, other);
        int end = alike(
                one.subList(start, one.size()).reversed(),
                other.subList(start, other.size()).reversed());
        List<Piece> pieces = new ArrayList<>();
        add(pieces, Kind.SAME, String.join("", one.subList(0, start)));
        compare(one.subList(start, one.size() - end), other.subList(start, other.size() - end), pieces);
        add(pieces, Kind.SAME, String.join("", one.subList(one.size() - end, one.size())));
        return joined(pieces);
    }

    /** How many units are the same at the beginning. */
    private static int alike(List<String> one, List<String> other) {
        int count = 0;
        while (count < one.size() && count < other.size() && one.get(count).equals(other.get(count))) {
            count++;
        }
        return count;
    }

    private static void compare(List<String> one, List<String> other, List<Piece> pieces) {
        if (Math.max(one.size(), other.size()) <= MOST) {
            rows(one, other, pieces);
            return;
        }
        List<String> sentences = units(SENTENCES, String.join("", one));
        List<String> others = units(SENTENCES, String.join("", other));
        if (Math.max(sentences.size(), others.size()) <= MOST) {
            rows(sentences, others, pieces);
        } else {
            add(pieces, Kind.REMOVED, String.join("", one));
            add(pieces, Kind.ADDED, String.join("", other));
        }
    }

    private static void rows(List<String> one, List<String> other, List<Piece> pieces) {
        for (DiffRow row : DiffRowGenerator.create()
                .columnWidth(0)
                .lineNormalizer(line -> line)
                .build()
                .generateDiffRows(one, other)) {
            switch (row.getTag()) {
                case EQUAL -> add(pieces, Kind.SAME, row.getNewLine());
                case DELETE -> add(pieces, Kind.REMOVED, row.getOldLine());
                case INSERT -> add(pieces, Kind.ADDED, row.getNewLine());
                case CHANGE -> {
                    add(pieces, Kind.REMOVED, row.getOldLine());
                    add(pieces, Kind.ADDED, row.getNewLine());
                }
            }
        }
    }

    private static List<String> units(Pattern pattern, String text) {
        return pattern.matcher(text)
                .results()
                .map(MatchResult::group)
                .filter(unit -> !unit.isEmpty())
                .toList();
    }

    private static void add(List<Piece> pieces, Kind kind, String text) {
        if (!text.isEmpty()) {
            pieces.add(new Piece(kind, text));
        }
    }

    /**
     * Neighbours of one kind as one; what goes and what comes in one place stand behind each other and do not alternate
     * word by word.
     */
    private static List<Piece> joined(List<Piece> pieces) {
        List<Piece> joined = new ArrayList<>();
        StringBuilder removed = new StringBuilder();
        StringBuilder added = new StringBuilder();
        for (int i = 0; i < pieces.size(); i++) {
            Piece piece = pieces.get(i);
            boolean bridge = piece.kind() == Kind.SAME
                    && piece.text().isBlank()
                    && (!removed.isEmpty() || !added.isEmpty())
                    && i + 1 < pieces.size()
                    && pieces.get(i + 1).kind() != Kind.SAME;
            switch (bridge ? Kind.SAME : piece.kind()) {
                case REMOVED -> removed.append(piece.text());
                case ADDED -> added.append(piece.text());
                case SAME -> {
                    if (bridge) {
                        removed.append(piece.text());
                        added.append(piece.text());
                    } else {
                        flush(joined, removed, added);
                        append(joined, piece);
                    }
                }
            }
        }
        flush(joined, removed, added);
        return joined;
    }

    private static void flush(List<Piece> joined, StringBuilder removed, StringBuilder added) {
        if (!removed.isEmpty()) {
            append(joined, new Piece(Kind.REMOVED, removed.toString()));
        }
        if (!added.isEmpty()) {
            append(joined, new Piece(Kind.ADDED, added.toString()));
        }
        removed.setLength(0);
        added.setLength(0);
    }

    private static void append(List<Piece> joined, Piece piece) {
        if (!joined.isEmpty() && joined.getLast().kind() == piece.kind()) {
            joined.set(
                    joined.size() - 1, new Piece(piece.kind(), joined.getLast().text() + piece.text()));
        } else {
            joined.add(piece);
        }
    }
}
