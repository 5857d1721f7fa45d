package pyrite.core.model;

import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;

/**
 * A problem of an element. {@code property} and {@code span} locate it in the element; the span counts in the text that
 * the property was read from. The message says what is wrong and, where possible, what would be right.
 */
public record Problem(ElementId element, @Nullable Property<?> property, Span span, String message) {
    public static Problem of(Element element, String message) {
        return new Problem(element.id(), null, Span.NONE, message);
    }

    public static Problem at(Element element, Property<?> property, String message) {
        return new Problem(element.id(), property, Span.NONE, message);
    }
}
