package pyrite.core.dynamics;

import java.util.function.IntConsumer;
import pyrite.core.expression.MathFunction;

/**
 * A real-valued term over the variables of a flattened system, in coherent SI units. {@link Terms} creates them and
 * folds constants.
 */
public sealed interface Term {
    record Constant(double value) implements Term {}

    /** The variable at an index of the system's variables. */
    record Variable(int index) implements Term {}

    /** Simulated time, s. */
    record Time() implements Term {}

    record Arithmetic(Sign sign, Term left, Term right) implements Term {}

    /** A smooth function. Functions with a kink become a {@link Choice}. */
    record Call(MathFunction function, Term argument) implements Term {}

    record Choice(Condition condition, Term whenTrue, Term whenFalse) implements Term {
        /** Whether both alternatives are equal where the condition changes, as in min, max and abs. */
        public boolean isKink() {
            return condition instanceof Condition.Relation relation && relation.kink();
        }
    }

    /** An arithmetic operation on two terms. */
    enum Sign {
        PLUS,
        MINUS,
        TIMES,
        OVER,
        POWER;

        public double apply(double left, double right) {
            return switch (this) {
                case PLUS -> left + right;
                case MINUS -> left - right;
                case TIMES -> left * right;
                case OVER -> left / right;
                case POWER -> Math.pow(left, right);
            };
        }
    }

    default boolean isConstant(double value) {
        return this instanceof Constant(double own) && own == value;
    }

    /** Calls {@code visitor} with the index of every variable, also those in conditions. */
    default void variables(IntConsumer visitor) {
        switch (this) {
            case Constant _, Time _ -> {}
            case Variable v -> visitor.accept(v.index());
            case Arithmetic a -> {
                a.left().variables(visitor);
                a.right().variables(visitor);
            }
            case Call c -> c.argument().variables(visitor);
            case Choice c -> {
                c.condition().variables(visitor);
                c.whenTrue().variables(visitor);
                c.whenFalse().variables(visitor);
            }
        }
    }
}
