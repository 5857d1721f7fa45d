package pyrite.core.expression;

import java.util.List;

/** The meaning of a called function. */
public sealed interface ModelFunction {
    /**
     * The same function as a call with so many arguments means it: of several values of one argument, {@code min} and
     * {@code max} are those of all.
     */
    default ModelFunction with(int arguments) {
        return switch (this) {
            case Mathematical(MathFunction f)
            when arguments == 1 && f == MathFunction.MIN -> new OverCollection(CollectionFunction.SMALLEST);
            case Mathematical(MathFunction f)
            when arguments == 1 && f == MathFunction.MAX -> new OverCollection(CollectionFunction.LARGEST);
            case OverCollection(CollectionFunction f)
            when arguments == 2 && f == CollectionFunction.SMALLEST -> new Mathematical(MathFunction.MIN);
            case OverCollection(CollectionFunction f)
            when arguments == 2 && f == CollectionFunction.LARGEST -> new Mathematical(MathFunction.MAX);
            default -> this;
        };
    }

    record Mathematical(MathFunction function) implements ModelFunction {}

    record Observing(ObservationFunction observation) implements ModelFunction {}

    /** {@code sum(leaf.mass)}: over all values the first argument has. */
    record OverCollection(CollectionFunction function) implements ModelFunction {}

    /** {@code total(gate.mass)}: what an attribute adds up to over the tree of parts. */
    record Total() implements ModelFunction {}

    /** {@code der(x)}: the time derivative of a quantity that changes. */
    record Derivative() implements ModelFunction {}

    /** {@code exponential(3 [min])}: a value that a run draws. */
    record Random(Distribution distribution) implements ModelFunction {}

    /** {@code active(gate.modes.closing)}: what a run performs, or how a pool is used. */
    record OfPerformance(PerformanceFunction function) implements ModelFunction {}

    /** A user-defined calculation or constraint, with its parameters in order and its result type. */
    record Defined(String name, List<Parameter> parameters, Type result) implements ModelFunction {
        public Defined {
            parameters = List.copyOf(parameters);
        }
    }

    /** An input of a defined function. */
    record Parameter(Referent feature, String name, Type type, boolean optional) {}
}
