package pyrite.core.notation;

import org.antlr.v4.runtime.CharStream;
import org.antlr.v4.runtime.IntStream;
import org.antlr.v4.runtime.misc.Interval;

/**
 * A lexer input that reads a string in place instead of copying it. It counts chars, not code points, so that token
 * positions are positions in the string. The lexer still sees one code point at a time, including surrogate pairs.
 */
final class TextStream implements CharStream {
    private final String text;
    private int at;

    TextStream(String text) {
        this.text = text;
    }

    @Override
    public void consume() {
        if (at == text.length()) {
            throw new IllegalStateException("cannot consume EOF");
        }
        at += Character.charCount(codePoint(at));
    }

    /** The code point {@code offset} places ahead, the next one being 1; behind, the last one being -1. */
    @Override
    public int LA(int offset) {
        if (offset == 1) {
            return at == text.length() ? IntStream.EOF : codePoint(at);
        }
        if (offset == 0) {
            return 0;
        }
        try {
            return codePoint(text.offsetByCodePoints(at, offset > 0 ? offset - 1 : offset));
        } catch (IndexOutOfBoundsException _) {
            return IntStream.EOF;
        }
    }

    private int codePoint(int place) {
        char first = text.charAt(place);
        return Character.isHighSurrogate(first) ? text.codePointAt(place) : first;
    }

    @Override
    public int mark() {
        return -1;
    }

    @Override
    public void release(int marker) {
        // Any place can be gone back to without being marked.
    }

    @Override
    public int index() {
        return at;
    }

    @Override
    public void seek(int index) {
        at = Math.min(index, text.length());
    }

    @Override
    public int size() {
        return text.length();
    }

    @Override
    public String getSourceName() {
        return UNKNOWN_SOURCE_NAME;
    }

    @Override
    public String getText(Interval places) {
        return places.a >= size() ? "" : text.substring(places.a, Math.min(places.b + 1, size()));
    }

    @Override
    public String toString() {
        return text;
    }
}
