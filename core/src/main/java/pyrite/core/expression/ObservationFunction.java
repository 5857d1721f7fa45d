package pyrite.core.expression;

/**
 * The functions of the library package Dynamics that evaluate a whole trajectory. The first argument is a varying
 * quantity or condition; a window {@code from, to} may follow (for {@code AT} the instant).
 */
public enum ObservationFunction {
    INITIAL("initial", Of.QUANTITY, 0),
    FINAL("final", Of.QUANTITY, 0),
    AT("at", Of.QUANTITY, 1),
    MAXIMUM("maximum", Of.QUANTITY, 2),
    MINIMUM("minimum", Of.QUANTITY, 2),
    MEAN("mean", Of.QUANTITY, 2),
    INTEGRAL("integral", Of.QUANTITY, 2),
    FIRST_TIME("firstTime", Of.CONDITION, 2),
    LAST_TIME("lastTime", Of.CONDITION, 2),
    DURATION("duration", Of.CONDITION, 2),
    ALWAYS("always", Of.CONDITION, 2),
    EVENTUALLY("eventually", Of.CONDITION, 2);

    /** The kind of the first argument. */
    public enum Of {
        QUANTITY,
        CONDITION
    }

    public static final Dimension TIME = Dimension.parse("T");

    private final String name;
    private final Of of;
    private final int times;

    ObservationFunction(String name, Of of, int times) {
        this.name = name;
        this.of = of;
        this.times = times;
    }

    public String functionName() {
        return name;
    }

    public Of of() {
        return of;
    }

    /** How many instants may follow the first argument: {@code AT} needs its one, a window is left out or complete. */
    public int times() {
        return times;
    }

    public boolean accepts(int arguments) {
        return arguments == 1 + times || arguments == 1 && this != AT;
    }

    /** The type of the result for a first argument of dimension {@code of}. */
    public Type result(Dimension of) {
        return switch (this) {
            case INITIAL, FINAL, AT, MAXIMUM, MINIMUM, MEAN -> new Type.Number(of);
            case INTEGRAL -> new Type.Number(of.times(TIME));
            case FIRST_TIME, LAST_TIME, DURATION -> new Type.Number(TIME);
            case ALWAYS, EVENTUALLY -> Type.TRUTH;
        };
    }
}
