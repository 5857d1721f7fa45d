package pyrite.core.notation;

import pyrite.core.expression.Span;

/** A text to read and what to call it in messages, a file's path as a rule. */
public record Source(String name, String text) {

    /** Line and column, both counted from 1, of a character counted from 0. */
    public TextProblem problem(Span span, String message) {
        int line = 1;
        int lineStart = 0;
        int offset = Math.min(span.start(), text.length());
        for (int i = 0; i < offset; i++) {
            if (text.charAt(i) == '\n') {
                line++;
                lineStart = i + 1;
            }
        }
        return new TextProblem(name, line, offset - lineStart + 1, span, message);
    }
}
