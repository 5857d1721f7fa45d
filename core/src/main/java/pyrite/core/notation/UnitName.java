package pyrite.core.notation;

import java.util.Optional;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads the names of derived units in the standard's library, such as {@code 'N⋅m'}, {@code 'W/(m²⋅K)'} and
 * {@code 's⁻¹'}: the name itself says how the unit is composed, so no derived unit has to be declared.
 */
final class UnitName {
    private static final String SUPERSCRIPTS = "⁰¹²³⁴⁵⁶⁷⁸⁹";
    private static final Pattern MADE_OF_OTHERS = Pattern.compile(".*[⋅·*/^⁻" + SUPERSCRIPTS + "].*");
    private static final Pattern FACTOR =
            Pattern.compile("([^⋅·*/()^⁻" + SUPERSCRIPTS + "]+)(?:(⁻?)([" + SUPERSCRIPTS + "]+))?");

    private UnitName() {}

    /** The unit as an expression of the notation; empty for a name that is not made of others. */
    static Optional<String> asExpression(String name) {
        if (!MADE_OF_OTHERS.matcher(name).matches()) {
            return Optional.empty();
        }
        return Optional.of(FACTOR.matcher(name)
                .replaceAll(factor -> Matcher.quoteReplacement(power(factor)))
                .replace('⋅', '*')
                .replace('·', '*'));
    }

    private static String power(MatchResult factor) {
        String unit =
                factor.group(1).chars().allMatch(Character::isDigit) ? factor.group(1) : "'" + factor.group(1) + "'";
        if (factor.group(3) == null) {
            return unit;
        }
        StringBuilder exponent = new StringBuilder("^").append(factor.group(2).isEmpty() ? "" : "-");
        factor.group(3).chars().map(SUPERSCRIPTS::indexOf).forEach(exponent::append);
        return unit + exponent;
    }
}
