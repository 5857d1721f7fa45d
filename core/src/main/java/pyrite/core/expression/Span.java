package pyrite.core.expression;

/**
 * A place in the text that was read: characters {@code start} (inclusive) to {@code end} (exclusive), counted from 0. A
 * place is not part of an expression's meaning, so all spans are equal, and the same expression read from two layouts
 * compares as equal.
 */
public record Span(int start, int end) {
    public static final Span NONE = new Span(0, 0);

    public Span {
        if (start < 0 || end < start) {
            throw new IllegalArgumentException("a span runs forward from 0, not from " + start + " to " + end);
        }
    }

    public Span to(Span last) {
        return new Span(start, Math.max(end, last.end));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Span;
    }

    @Override
    public int hashCode() {
        return 0;
    }
}
