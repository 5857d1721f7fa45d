package pyrite.core.dynamics;

import java.math.BigDecimal;
import java.math.MathContext;
import pyrite.core.expression.Dimension;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.ElementId;

/**
 * A variable of a flattened system.
 *
 * @param path names from the root: {@code gate.leaf.angle}; a derivative is {@code der(gate.leaf.angle)}
 * @param role what the simulation does with it
 * @param start the initial value of a state, in coherent SI units
 */
public record Variable(String path, ElementId feature, Dimension dimension, DisplayUnit unit, Role role, double start) {
    private static final MathContext DIGITS = new MathContext(5);

    /**
     * A value of it for people, in its unit.
     *
     * @param value in coherent SI units; – if it is not finite
     */
    public String inWords(double value) {
        if (!Double.isFinite(value)) {
            return "–";
        }
        String number = new BigDecimal(unit.unit().fromSi(value))
                .round(DIGITS)
                .stripTrailingZeros()
                .toPlainString();
        return unit.symbol().isEmpty() ? number : number + " " + unit.symbol();
    }

    /**
     * A state is integrated, a rate is its derivative, an algebraic variable is determined by an equation, a held one
     * is constant until something that happens gives it another value. A count is held, and is no attribute of the
     * model.
     */
    public enum Role {
        STATE,
        RATE,
        ALGEBRAIC,
        HELD,
        COUNT;

        /** Whether an equation determines it. */
        boolean isUnknown() {
            return this == RATE || this == ALGEBRAIC;
        }

        boolean isHeld() {
            return this == HELD || this == COUNT;
        }
    }
}
