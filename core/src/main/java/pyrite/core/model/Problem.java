package pyrite.core.model;

import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;

/**
 * Something wrong with an element. {@code property} and {@code span} say where in it; the span counts in the text the
 * property was read from. The message says what is wrong and, where it can, what would be right.
 */
public record Problem(ElementId element, @Nullable Property<?> property, Span span, String message) {
    public static Problem of(Element element, String message) {
        return new Problem(element.id(), null, Span.NONE, message);
    }

    public static Problem at(Element element, Property<?> property, String message) {
        return new Problem(element.id(), property, Span.NONE, message);
    }
}
