package pyrite.core.dynamics;

import pyrite.core.expression.MathFunction;

/**
 * A closed interval of real numbers; the ends may be infinite. Each operation returns an interval that contains its
 * result for all numbers in the operands, rounded outward (Moore, Interval Analysis, 1966; IEEE Std 1788-2015, which
 * also explains {@code isPartial}).
 *
 * @param low the lower end, at most {@code high}, never NaN
 * @param high the upper end, never NaN
 * @param isPartial whether some numbers in the operands may be outside the domain of an operation; the interval then
 *     contains the results for the others
 */
record Interval(double low, double high, boolean isPartial) {
    static final Interval ENTIRE = new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, false);
    static final Interval ZERO = new Interval(0, 0, false);
    private static final Interval OUTSIDE = new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, true);
    /** How near to an extreme of sine or a pole of tangent counts as at it: reducing large arguments is not exact. */
    private static final double NEAR = 1e-9;

    static Interval of(double value) {
        return of(value, value);
    }

    /** @return all real numbers if an end is NaN */
    static Interval of(double low, double high) {
        return Double.isNaN(low) || Double.isNaN(high) ? ENTIRE : new Interval(low, high, false);
    }

    /** With both ends a few of the smallest differences further out. */
    private static Interval outward(double low, double high, boolean isPartial) {
        if (Double.isNaN(low) || Double.isNaN(high)) {
            return isPartial ? OUTSIDE : ENTIRE;
        }
        return new Interval(Math.nextDown(low), Math.nextUp(high), isPartial);
    }

    double width() {
        return high - low;
    }

    /** The largest absolute value. */
    double magnitude() {
        return Math.max(Math.abs(low), Math.abs(high));
    }

    boolean contains(double value) {
        return low <= value && value <= high;
    }

    boolean isBounded() {
        return Double.isFinite(low) && Double.isFinite(high);
    }

    Interval hull(Interval other) {
        return new Interval(Math.min(low, other.low), Math.max(high, other.high), isPartial || other.isPartial);
    }

    /** The numbers in both; both are known to contain a common one, so an empty result is due to rounding. */
    Interval intersect(Interval other) {
        double l = Math.max(low, other.low);
        double h = Math.min(high, other.high);
        return l <= h ? new Interval(l, h, isPartial && other.isPartial) : this;
    }

    Interval plus(Interval other) {
        return outward(low + other.low, high + other.high, isPartial || other.isPartial);
    }

    Interval minus(Interval other) {
        return outward(low - other.high, high - other.low, isPartial || other.isPartial);
    }

    Interval negated() {
        return new Interval(-high, -low, isPartial);
    }

    Interval times(double factor) {
        return times(of(factor));
    }

    Interval times(Interval other) {
        double a = product(low, other.low);
        double b = product(low, other.high);
        double c = product(high, other.low);
        double d = product(high, other.high);
        return outward(
                Math.min(Math.min(a, b), Math.min(c, d)),
                Math.max(Math.max(a, b), Math.max(c, d)),
                isPartial || other.isPartial);
    }

    /** Zero times an infinite end is zero: the end itself is not in the interval. */
    private static double product(double a, double b) {
        return a == 0 || b == 0 ? 0 : a * b;
    }

    Interval squared() {
        double smallest = contains(0) ? 0 : Math.min(Math.abs(low), Math.abs(high));
        Interval square = outward(smallest * smallest, magnitude() * magnitude(), isPartial);
        return new Interval(Math.max(0, square.low), square.high, isPartial);
    }

    /** Partial where the divisor may be zero. */
    Interval over(Interval other) {
        if (other.low > 0 || other.high < 0) {
            Interval inverse = outward(1 / other.high, 1 / other.low, other.isPartial);
            return times(inverse);
        }
        if (other.low == 0 && other.high > 0) {
            return times(new Interval(Math.nextDown(1 / other.high), Double.POSITIVE_INFINITY, true));
        }
        if (other.high == 0 && other.low < 0) {
            return times(new Interval(Double.NEGATIVE_INFINITY, Math.nextUp(1 / other.low), true));
        }
        return OUTSIDE;
    }

    /** A power with a real exponent; for an exponent that is no integer, partial where the base may be negative. */
    Interval power(double exponent) {
        if (exponent == 0) {
            return new Interval(1, 1, isPartial);
        }
        if (exponent < 0) {
            return of(1).over(power(-exponent));
        }
        boolean isInteger = exponent == Math.rint(exponent);
        boolean isEven = isInteger && exponent % 2 == 0;
        if (!isInteger && low < 0) {
            return high < 0 ? OUTSIDE : new Interval(0, high, true).power(exponent);
        }
        if (isEven && contains(0)) {
            double most = Math.pow(magnitude(), exponent);
            return new Interval(0, wider(most, 1), isPartial);
        }
        double a = Math.pow(low, exponent);
        double b = Math.pow(high, exponent);
        Interval image = new Interval(wider(Math.min(a, b), -1), wider(Math.max(a, b), 1), isPartial);
        return low >= 0 ? new Interval(Math.max(0, image.low), image.high, isPartial) : image;
    }

    /** The image under a function; minimum and maximum are conditions elsewhere and never come here. */
    Interval apply(MathFunction function) {
        return switch (function) {
            case SQRT -> {
                if (high < 0) {
                    yield OUTSIDE;
                }
                boolean partial = isPartial || low < 0;
                double root = Math.sqrt(Math.max(0, low));
                yield new Interval(Math.max(0, Math.nextDown(root)), Math.nextUp(Math.sqrt(high)), partial);
            }
            case LN -> {
                if (high <= 0) {
                    yield OUTSIDE;
                }
                boolean partial = isPartial || low <= 0;
                double logarithm = low <= 0 ? Double.NEGATIVE_INFINITY : wider(Math.log(low), -1);
                yield new Interval(logarithm, wider(Math.log(high), 1), partial);
            }
            case ARCSIN -> clipped(Math.asin(Math.max(-1, low)), Math.asin(Math.min(1, high)));
            case ARCCOS -> clipped(Math.acos(Math.min(1, high)), Math.acos(Math.max(-1, low)));
            case EXP -> new Interval(Math.max(0, wider(Math.exp(low), -1)), wider(Math.exp(high), 1), isPartial);
            case ARCTAN -> rising(Math.atan(low), Math.atan(high));
            case FLOOR, ROUND -> new Interval(function.apply(low, 0), function.apply(high, 0), isPartial);
            case ABS ->
                contains(0)
                        ? new Interval(0, magnitude(), isPartial)
                        : new Interval(Math.min(Math.abs(low), Math.abs(high)), magnitude(), isPartial);
            case SIN -> wave(Math.PI / 2);
            case COS -> wave(0);
            case TAN -> reaches(Math.PI / 2, Math.PI) ? OUTSIDE : rising(Math.tan(low), Math.tan(high));
            case MIN, MAX -> throw new IllegalArgumentException(function + " has two arguments");
        };
    }

    private Interval clipped(double a, double b) {
        return high < -1 || low > 1
                ? OUTSIDE
                : new Interval(wider(a, -1), wider(b, 1), isPartial || low < -1 || high > 1);
    }

    private Interval rising(double a, double b) {
        return new Interval(wider(a, -1), wider(b, 1), isPartial);
    }

    /** The image under sine or cosine, whose maxima are at {@code crest} plus multiples of 2π. */
    private Interval wave(double crest) {
        if (!isBounded()) {
            return new Interval(-1, 1, true); // of what overflowed, a sine is not a number
        }
        double a = crest == 0 ? Math.cos(low) : Math.sin(low);
        double b = crest == 0 ? Math.cos(high) : Math.sin(high);
        double most = reaches(crest, 2 * Math.PI) ? 1 : Math.min(1, wider(Math.max(a, b), 1));
        double least = reaches(crest + Math.PI, 2 * Math.PI) ? -1 : Math.max(-1, wider(Math.min(a, b), -1));
        return new Interval(least, most, isPartial);
    }

    /** Whether a number {@code place + k * period} may be in the interval. */
    private boolean reaches(double place, double period) {
        if (!isBounded() || width() >= period) {
            return true;
        }
        double slack = NEAR * Math.max(1, magnitude() * 1e-6);
        double k = Math.ceil((low - slack - place) / period);
        return place + k * period <= high + slack;
    }

    /**
     * Library functions are exact to one unit in the last place; two are taken. What overflows is at least the largest.
     */
    private static double wider(double value, int direction) {
        if (Double.isNaN(value)) {
            return direction < 0 ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
        }
        if (Double.isInfinite(value)) {
            return direction * value > 0 ? value : Math.copySign(Double.MAX_VALUE, value);
        }
        return value + direction * 2 * Math.ulp(value);
    }
}
