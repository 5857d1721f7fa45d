package pyrite.core.verification;

import pyrite.core.expression.Dimension;
import pyrite.core.model.DisplayUnit;

/**
 * How far a comparison is from its limit: positive where it holds.
 *
 * @param si in the coherent SI unit
 * @param scale the size of what was compared, for weighing margins of different dimensions against each other; positive
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
