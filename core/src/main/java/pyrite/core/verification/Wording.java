package pyrite.core.verification;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import pyrite.core.expression.Operator;
import pyrite.core.model.DisplayUnit;

/** Formats numbers and comparisons for people. */
public final class Wording {
    private static final int DIGITS = 4;
    private static final double TEN_MINUTES = 600;
    private static final double TWO_HOURS = 7200;

    private Wording() {}

    /** A number with four significant digits and no exponent unless it is very large or small. */
    public static String number(double value) {
        return number(value, DIGITS);
    }

    public static String number(double value, int digits) {
        if (!Double.isFinite(value)) {
            return Double.isNaN(value) ? "no value" : value > 0 ? "∞" : "−∞";
        }
        if (value == 0) {
            return "0";
        }
        BigDecimal rounded = new BigDecimal(value)
                .round(new MathContext(digits, RoundingMode.HALF_EVEN))
                .stripTrailingZeros();
        double size = Math.abs(value);
        return size >= 1e-4 && size < 1e7 ? rounded.toPlainString() : rounded.toString();
    }

    /** A number in coherent SI units, shown in a unit. */
    public static String quantity(double si, DisplayUnit unit) {
        String number = number(unit.unit().fromSi(si));
        return unit.symbol().isEmpty() ? number : number + " " + unit.symbol();
    }

    /**
     * An instant of a run, given in s, in the unit it would be said in: from ten minutes on in minutes, from two hours
     * on in hours.
     */
    public static String instant(double t) {
        return span(t, t);
    }

    /** A time, given in s, in the unit a whole would be said in that it is a part of. */
    public static String span(double t, double whole) {
        double size = Math.abs(whole);
        return size < TEN_MINUTES
                ? number(t, 6) + " s"
                : size < TWO_HOURS ? number(t / 60, 6) + " min" : number(t / 3600, 6) + " h";
    }

    /** {@code 8.3 min ≤ 10 min}, or what is required where that is not so. */
    static String comparison(double left, Operator operator, double right, DisplayUnit unit, boolean holds) {
        String sign = switch (operator) {
            case LESS_OR_EQUAL -> "≤";
            case GREATER_OR_EQUAL -> "≥";
            case EQUAL, IDENTICAL -> "=";
            case NOT_EQUAL, NOT_IDENTICAL -> "≠";
            default -> operator.symbol();
        };
        return holds
                ? quantity(left, unit) + " " + sign + " " + quantity(right, unit)
                : quantity(left, unit) + ", but " + sign + " " + quantity(right, unit) + " is required";
    }
}
