package pyrite.core.notation;

import pyrite.core.expression.Span;

/**
 * A problem in a text: source, line and column (from 1), and a message that says what is wrong and what would be right.
 */
public record TextProblem(String source, int line, int column, Span span, String message) {

    /** {@code path:line:column: error: message}, as build tools expect it. */
    @Override
    public String toString() {
        return source + ":" + line + ":" + column + ": error: " + message;
    }
}
