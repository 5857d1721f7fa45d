package pyrite.core.expression;

/**
 * A unit of measurement: {@code si = number * factor + offset} takes a number in this unit to the coherent SI unit of
 * its dimension. Only interval-scale units (degree Celsius) have an offset.
 */
public record Unit(double factor, double offset, Dimension dimension) {
    public static final Unit ONE = new Unit(1, 0, Dimension.ONE);

    public Unit {
        if (!(factor > 0) || Double.isInfinite(factor) || !Double.isFinite(offset)) {
            throw new IllegalArgumentException("a unit's factor is a positive number, not " + factor);
        }
    }

    public static Unit coherent(Dimension dimension) {
        return new Unit(1, 0, dimension);
    }

    public double toSi(double number) {
        return number * factor + offset;
    }

    public double fromSi(double si) {
        return (si - offset) / factor;
    }

    /** The unit of a difference between two values in this one: the same step, no offset. */
    public Unit ofDifference() {
        return offset == 0 ? this : new Unit(factor, 0, dimension);
    }

    public Unit times(Unit other) {
        return new Unit(factor * other.factor, 0, dimension.times(other.dimension));
    }

    public Unit per(Unit other) {
        return new Unit(factor / other.factor, 0, dimension.per(other.dimension));
    }

    public Unit power(int exponent) {
        return new Unit(Math.pow(factor, exponent), 0, dimension.power(exponent));
    }
}
