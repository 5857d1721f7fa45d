package pyrite.core.expression;

import java.util.Arrays;
import java.util.Comparator;
import java.util.Map;
import java.util.stream.Collectors;
import javax.measure.MetricPrefix;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Expression.UnitReference;

/**
 * Evaluates units: the contents of the brackets in {@code x [unit]}, and definitions of units by others, as in
 * {@code kg*m/s^2} or {@code 3600 [s]}. Supports products, quotients and whole powers.
 */
public final class Units {
    /** SI prefixes by symbol, longest first, so that {@code da} is tried before {@code d}. */
    private static final Map<String, Double> PREFIXES = Arrays.stream(MetricPrefix.values())
            .sorted(Comparator.comparing((MetricPrefix p) -> p.getSymbol().length())
                    .reversed())
            .collect(Collectors.toMap(
                    MetricPrefix::getSymbol,
                    p -> Math.pow(10, p.getExponent()),
                    (a, _) -> a,
                    java.util.LinkedHashMap::new));

    private Units() {}

    /** The prefixes a symbol may begin with, longest first. */
    public static Iterable<String> prefixes() {
        return PREFIXES.keySet();
    }

    /**
     * The unit an expression of units means.
     *
     * @throws FaultException with the place of the part that is no unit
     */
    public static Unit of(Expression expression, Environment environment) {
        return switch (expression) {
            case UnitReference reference -> named(reference, environment);
            case FeatureReference reference ->
                named(new UnitReference("", reference.last(), reference.span()), environment);
            case NumberLiteral number when number.value() > 0 -> new Unit(number.value(), 0, Dimension.ONE);
            case Quantity quantity -> of(quantity.magnitude(), environment).times(of(quantity.unit(), environment));
            case Binary b
            when b.operator() == Operator.MULTIPLY -> of(b.left(), environment).times(of(b.right(), environment));
            case Binary b
            when b.operator() == Operator.DIVIDE -> of(b.left(), environment).per(of(b.right(), environment));
            case Binary b
            when b.operator() == Operator.POWER -> of(b.left(), environment).power(exponent(b.right()));
            default ->
                throw new FaultException(
                        expression.span(), "a unit is built of unit names with *, / and ^, as in [kN*m] or [m^3/s]");
        };
    }

    private static Unit named(UnitReference reference, Environment environment) {
        Unit unit = environment
                .unit(reference.unit())
                .orElseThrow(() -> new FaultException(
                        reference.span(), "'" + environment.nameOf(reference.unit()) + "' is not a unit"));
        Double prefix = reference.prefix().isEmpty() ? Double.valueOf(1) : PREFIXES.get(reference.prefix());
        if (prefix == null) {
            throw new FaultException(reference.span(), "'" + reference.prefix() + "' is not an SI prefix");
        }
        return prefix == 1 ? unit : new Unit(unit.factor() * prefix, unit.offset(), unit.dimension());
    }

    private static int exponent(Expression expression) {
        return switch (expression) {
            case NumberLiteral n when n.value() == Math.rint(n.value()) -> (int) n.value();
            case Unary u when u.operator() == Operator.NEGATE -> -exponent(u.operand());
            default -> throw new FaultException(expression.span(), "a unit's exponent is a whole number");
        };
    }
}
