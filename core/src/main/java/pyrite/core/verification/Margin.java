package pyrite.core.verification;

import pyrite.core.expression.Dimension;
import pyrite.core.model.DisplayUnit;

/**
 * The distance of a comparison from its limit; positive where it holds.
 *
 * @param si in the coherent SI unit
 * @param scale the size of the compared values, for comparing margins of different dimensions; positive
 */
public record Margin(double si, double scale, Dimension dimension, DisplayUnit unit) {

    /** The number in {@link #unit}. */
    public double shown() {
        return unit.unit().fromSi(si);
    }

    /** The margin as a part of the size of what was compared. */
    double relative() {
        return si / scale;
    }

    Margin negated() {
        return new Margin(-si, scale, dimension, unit);
    }
}
