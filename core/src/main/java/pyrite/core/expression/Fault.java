package pyrite.core.expression;

/** A fault in an expression: its place, and a message that says what is wrong and what would be right. */
public record Fault(Span span, String message) {}
