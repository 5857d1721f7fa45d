package pyrite.core.notation;

import pyrite.core.expression.Span;

/**
 * A problem in a text: source, line and column (from 1), and a message that says what is wrong and what would be right.
 */
public record TextProblem(String source, int line, int column, Span span, String message) {

    /** {@code path:line:column: error: message}, as build tools expect it. */
    @Override
    public String toString() {
        return place() + ": error: " + message;
    }

    /** The same of what is right and may be meant otherwise. */
    public String asNote() {
        return place() + ": note: " + message;
    }

    private String place() {
        return source + ":" + line + ":" + column;
    }
}
