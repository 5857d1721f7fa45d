package pyrite.core.dynamics;

import pyrite.core.expression.MathFunction;

/**
 * What a quantity is throughout a stretch of time: intervals that contain its value and its first and second time
 * derivatives (automatic differentiation with intervals; Hansen and Walster, Global Optimization Using Interval
 * Analysis, 2nd ed. 2004, chapter 7).
 *
 * @param value in the coherent SI unit
 * @param rate per s; all numbers where the quantity jumps
 * @param curvature per s²; all numbers where the quantity has a kink
 */
record Jet(Interval value, Interval rate, Interval curvature) {
    static Jet constant(double value) {
        return new Jet(Interval.of(value), Interval.ZERO, Interval.ZERO);
    }

    static Jet time(double from, double to) {
        return new Jet(Interval.of(from, to), Interval.of(1), Interval.ZERO);
    }

    /** Whether the quantity is continuous: its derivative is bounded and no domain is left. */
    boolean isLipschitz() {
        return !value.isPartial() && rate.isBounded();
    }

    Jet plus(Jet other) {
        return new Jet(value.plus(other.value), rate.plus(other.rate), curvature.plus(other.curvature));
    }

    Jet minus(Jet other) {
        return new Jet(value.minus(other.value), rate.minus(other.rate), curvature.minus(other.curvature));
    }

    /** Zero, wherever the quantity is defined. */
    Jet minusItself() {
        return value.isPartial() || !value.isBounded() ? minus(this) : constant(0);
    }

    Jet negated() {
        return new Jet(value.negated(), rate.negated(), curvature.negated());
    }

    /** The product with itself, which is never negative. */
    Jet squared() {
        return new Jet(
                value.squared(),
                value.times(rate).times(2),
                rate.squared().plus(value.times(curvature)).times(2));
    }

    Jet times(Jet other) {
        return new Jet(
                value.times(other.value),
                rate.times(other.value).plus(value.times(other.rate)),
                curvature
                        .times(other.value)
                        .plus(rate.times(other.rate).times(2))
                        .plus(value.times(other.curvature)));
    }

    Jet over(Jet other) {
        Interval quotient = value.over(other.value);
        Interval slope = rate.minus(quotient.times(other.rate)).over(other.value);
        Interval bend = curvature
                .minus(slope.times(other.rate).times(2))
                .minus(quotient.times(other.curvature))
                .over(other.value);
        return new Jet(quotient, slope, bend);
    }

    Jet power(Jet exponent) {
        boolean isConstant = exponent.value.width() == 0 && exponent.rate.equals(Interval.ZERO);
        if (!isConstant || exponent.value.isPartial()) {
            return exponent.times(apply(MathFunction.LN)).apply(MathFunction.EXP);
        }
        double p = exponent.value.low();
        return composed(
                value.power(p),
                value.power(p - 1).times(p),
                p == 1 ? Interval.ZERO : value.power(p - 2).times(p * (p - 1)));
    }

    Jet apply(MathFunction function) {
        Interval image = value.apply(function);
        return switch (function) {
            case SQRT -> {
                Interval slope = Interval.of(0.5).over(image);
                yield composed(image, slope, slope.over(value).times(-0.5));
            }
            case EXP -> composed(image, image, image);
            case LN -> {
                Interval slope = Interval.of(1).over(value);
                yield composed(image, slope, slope.squared().negated());
            }
            case SIN -> composed(image, value.apply(MathFunction.COS), image.negated());
            case COS -> composed(image, value.apply(MathFunction.SIN).negated(), image.negated());
            case TAN -> {
                Interval slope = image.squared().plus(Interval.of(1));
                yield composed(image, slope, slope.times(image).times(2));
            }
            case ARCTAN -> {
                Interval slope = Interval.of(1).over(value.squared().plus(Interval.of(1)));
                yield composed(image, slope, value.times(slope.squared()).times(-2));
            }
            case ARCSIN -> {
                Interval slope = Interval.of(1).over(cathetus());
                yield composed(image, slope, value.times(slope.power(3)));
            }
            case ARCCOS -> {
                Interval slope = Interval.of(-1).over(cathetus());
                yield composed(image, slope, value.times(slope.power(3)));
            }
            case ABS ->
                value.low() >= 0
                        ? this
                        : value.high() <= 0 ? negated() : hull(negated()).withValue(image);
            case FLOOR, ROUND ->
                image.width() == 0
                        ? new Jet(image, Interval.ZERO, Interval.ZERO)
                        : new Jet(image, Interval.ENTIRE, Interval.ENTIRE);
            case MIN, MAX -> throw new IllegalArgumentException(function + " has two arguments");
        };
    }

    /** √(1 − x²), which the slopes of the inverse circular functions have below the line. */
    private Interval cathetus() {
        return Interval.of(1).minus(value.squared()).apply(MathFunction.SQRT);
    }

    /** The chain rule for a function with this value, first and second derivative. */
    private Jet composed(Interval image, Interval first, Interval second) {
        return new Jet(image, first.times(rate), second.times(rate.squared()).plus(first.times(curvature)));
    }

    /** Either of two, which agree where one takes over from the other: a kink. */
    Jet hull(Jet other) {
        return new Jet(value.hull(other.value), rate.hull(other.rate), Interval.ENTIRE);
    }

    /** Either of two, with a jump where one takes over from the other. */
    Jet orJump(Jet other) {
        return new Jet(value.hull(other.value), Interval.ENTIRE, Interval.ENTIRE);
    }

    /** The smaller of two at each instant. */
    Jet smaller(Jet other) {
        boolean isPartial = value.isPartial() || other.value.isPartial();
        if (value.high() < other.value.low()) {
            return withValue(new Interval(value.low(), value.high(), isPartial));
        }
        if (other.value.high() < value.low()) {
            return other.withValue(new Interval(other.value.low(), other.value.high(), isPartial));
        }
        Interval least = new Interval(
                Math.min(value.low(), other.value.low()), Math.min(value.high(), other.value.high()), isPartial);
        return hull(other).withValue(least);
    }

    private Jet withValue(Interval other) {
        return new Jet(other, rate, curvature);
    }

    /**
     * This jet over an interval of time, made narrower by Taylor's formula around its middle, where the quantity is
     * known better: the error falls with the third power of the length instead of the first.
     *
     * @param middle the jet at the middle of the interval alone
     * @param radius half the length of the interval, s
     */
    Jet around(Jet middle, double radius) {
        if (!isLipschitz() || !middle.isLipschitz()) {
            return this;
        }
        Interval span = Interval.of(-radius, radius);
        Interval slope = middle.curvature.isBounded() && curvature.isBounded()
                ? rate.intersect(middle.rate.plus(curvature.times(span)))
                : rate;
        Interval linear = middle.value.plus(slope.times(span));
        Interval narrow = value.intersect(linear);
        if (curvature.isBounded()) {
            Interval quadratic = middle.value
                    .plus(middle.rate.times(span))
                    .plus(curvature.times(span.squared()).times(0.5));
            narrow = narrow.intersect(quadratic);
        }
        return new Jet(narrow, slope, curvature);
    }
}
