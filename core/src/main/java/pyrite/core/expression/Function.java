package pyrite.core.expression;

/** What a call means. */
public sealed interface Function {
    record Mathematical(MathFunction function) implements Function {
    }

    record Observing(Observation observation) implements Function {
    }

    /** {@code sum(leaf.mass)}: over all instances the reference reaches. */
    record Sum() implements Function {
    }

    /** {@code der(x)}: the time derivative of a quantity that changes. */
    record Derivative() implements Function {
    }
}
