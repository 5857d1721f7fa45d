package pyrite.core.specification;

import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import pyrite.core.model.Element;

/**
 * A condition on the value of an attribute.
 *
 * @param value in the text form of {@link Attributes}; empty with {@link How#IS} for "nothing is given"
 */
public record AttributeCondition(String attribute, How how, String value) {
    /** How a value is compared. */
    public enum How {
        IS(':'),
        IS_NOT('!'),
        CONTAINS('~'),
        AT_LEAST('>'),
        AT_MOST('<');

        private final char sign;

        How(char sign) {
            this.sign = sign;
        }

        static How of(char sign) {
            return Arrays.stream(values())
                    .filter(each -> each.sign == sign)
                    .findFirst()
                    .orElseThrow();
        }
    }

    private static final String SIGNS =
            Arrays.stream(How.values()).map(how -> String.valueOf(how.sign)).collect(Collectors.joining());

    /**
     * As it stands in an address: {@code status:approved}, {@code status!draft}, {@code owner~marl}, {@code mass<2
     * [t]}, {@code due>2026-03-31}; {@code owner:} where none is given, {@code owner!} where one is.
     *
     * @throws IllegalArgumentException if no sign or no name is there
     */
    public static AttributeCondition parse(String text) {
        int at = 0;
        while (at < text.length() && SIGNS.indexOf(text.charAt(at)) < 0) {
            at++;
        }
        if (at == 0 || at == text.length()) {
            throw new IllegalArgumentException("'" + text + "' is no condition; an attribute, one of "
                    + String.join(" ", SIGNS.split("")) + " and a value are, for instance status:approved");
        }
        return new AttributeCondition(
                text.substring(0, at),
                How.of(text.charAt(at)),
                text.substring(at + 1).strip());
    }

    /**
     * All conditions hold; of those that ask one attribute to be something, one suffices.
     *
     * @throws Attributes.ValueFault if a number to compare with is none
     */
    static Predicate<Element> all(Collection<AttributeCondition> conditions, Attributes attributes) {
        Map<String, List<AttributeCondition>> alternatives = conditions.stream()
                .filter(each -> each.how == How.IS)
                .collect(Collectors.groupingBy(AttributeCondition::attribute));
        List<Predicate<Element>> tests = conditions.stream()
                .filter(each -> each.how != How.IS)
                .map(each -> each.test(attributes))
                .collect(Collectors.toList());
        alternatives
                .values()
                .forEach(either -> tests.add(either.stream()
                        .map(each -> each.test(attributes))
                        .reduce(Predicate::or)
                        .orElseThrow()));
        return element -> tests.stream().allMatch(test -> test.test(element));
    }

    private Predicate<Element> test(Attributes attributes) {
        return switch (how) {
            case IS -> element -> attributes.value(element, attribute).equals(value);
            case IS_NOT -> element -> !attributes.value(element, attribute).equals(value);
            case CONTAINS -> {
                String requested = value.toLowerCase(Locale.ROOT);
                yield element -> attributes
                        .value(element, attribute)
                        .toLowerCase(Locale.ROOT)
                        .contains(requested);
            }
            case AT_LEAST -> compared(attributes, order -> order >= 0);
            case AT_MOST -> compared(attributes, order -> order <= 0);
        };
    }

    /**
     * Numbers by what they are in SI, other values as they are written, which is in order of time for dates; what is
     * not given fits never.
     */
    private Predicate<Element> compared(Attributes attributes, Predicate<Integer> fits) {
        Attribute known = attributes.all().stream()
                .filter(each -> each.name().equals(attribute))
                .findFirst()
                .orElse(null);
        if (known == null) {
            return _ -> false;
        }
        if (known.type() != Attribute.Type.NUMBER) {
            return element -> !attributes.value(element, attribute).isEmpty()
                    && fits.test(
                            Comparator.<String>naturalOrder().compare(attributes.value(element, attribute), value));
        }
        double limit = attributes.limit(known, value);
        return element -> {
            OptionalDouble number = attributes.magnitude(element, attribute);
            return number.isPresent() && fits.test(Double.compare(number.getAsDouble(), limit));
        };
    }
}
