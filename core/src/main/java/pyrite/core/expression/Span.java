package pyrite.core.expression;

/**
 * Where something stood in the text it was read from: characters {@code start} (inclusive) to {@code end} (exclusive),
 * counted from 0. A place is no part of what an expression means, so all spans are equal: two expressions read from
 * differently laid out texts compare as the same.
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
