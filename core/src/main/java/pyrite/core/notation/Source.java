package pyrite.core.notation;

import pyrite.core.expression.Span;

/** A text to read and its name in messages, usually a file path. */
public record Source(String name, String text) {

    /** Line and column, both counted from 1, of a character counted from 0. */
    public TextProblem problem(Span span, String message) {
        return new LineIndex(this).problem(span, message);
    }
}
