package pyrite.core.model;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;

/**
 * Which characters names and texts may hold: those of XML 1.0 (clause 2.2, Char), because models are exchanged as XML,
 * and others cannot be seen, typed or stored as text.
 */
public final class TextRules {
    private TextRules() {}

    /** What is wrong with the names and texts of an element; the first of it. */
    static Optional<Problem> check(Element element) {
        String fault = fault(element.name());
        fault = fault == null ? fault(element.shortName()) : fault;
        if (fault != null) {
            return Optional.of(Problem.of(element, "its name " + fault));
        }
        PropertyMap properties = (PropertyMap) element.properties();
        for (int i = 0; i < properties.size(); i++) {
            String inText = fault(properties.value(i));
            if (inText != null) {
                return Optional.of(Problem.at(
                        element, properties.key(i), "its " + properties.key(i).key() + " " + inText));
            }
        }
        return Optional.empty();
    }

    private static @Nullable String fault(@Nullable Object value) {
        return switch (value) {
            case String text -> {
                OptionalInt at = firstForbidden(text);
                yield at.isEmpty() ? null : sentence(text, at.getAsInt());
            }
            case List<?> list -> {
                for (Object each : list) {
                    String inOne = fault(each);
                    if (inOne != null) {
                        yield inOne;
                    }
                }
                yield null;
            }
            case FeatureValue featureValue -> fault(featureValue.expression());
            case Expression expression -> inLiterals(expression);
            case null, default -> null;
        };
    }

    private static @Nullable String inLiterals(Expression expression) {
        @Nullable String[] found = {null};
        expression.walk(part -> {
            if (found[0] == null && part instanceof Expression.StringLiteral literal) {
                found[0] = fault(literal.text());
            }
        });
        return found[0];
    }

    /** The index of the first character that no text may hold. */
    public static OptionalInt firstForbidden(String text) {
        for (int i = 0; i < text.length(); i++) {
            char one = text.charAt(i);
            boolean isPair = Character.isHighSurrogate(one)
                    && i + 1 < text.length()
                    && Character.isLowSurrogate(text.charAt(i + 1));
            if (isPair) {
                i++;
            } else if (one < ' ' && one != '\t' && one != '\n' && one != '\r'
                    || Character.isSurrogate(one)
                    || one >= '\uFFFE') {
                return OptionalInt.of(i);
            }
        }
        return OptionalInt.empty();
    }

    private static String sentence(String text, int at) {
        return "has a character that no text may hold, U+%04X behind '%s'; remove it"
                .formatted((int) text.charAt(at), text.substring(Math.max(0, at - 20), at));
    }
}
