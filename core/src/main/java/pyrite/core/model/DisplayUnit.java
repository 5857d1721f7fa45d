package pyrite.core.model;

import pyrite.core.expression.Dimension;
import pyrite.core.expression.Unit;

/** The unit numbers are shown in, with its symbol; the symbol of dimension one is empty. */
public record DisplayUnit(String symbol, Unit unit) {
    /** The coherent SI unit of a dimension as a product of base units. */
    public static DisplayUnit coherent(Dimension dimension) {
        return new DisplayUnit(dimension.unitSymbol(), Unit.coherent(dimension));
    }

    /** The same unit for differences and margins. */
    public DisplayUnit ofDifference() {
        return unit.offset() == 0 ? this : new DisplayUnit("K", unit.ofDifference());
    }
}
