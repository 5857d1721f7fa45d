package pyrite.core.expression;

/** Something wrong in an expression: where, and in words what is wrong and what would be right. */
public record Fault(Span span, String message) {}
