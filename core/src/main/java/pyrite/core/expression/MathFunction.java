package pyrite.core.expression;

/**
 * The mathematical functions that the engine computes, each declared by its name in the library packages RealFunctions
 * and TrigFunctions. A row gives the number of arguments, the dimensions, and whether the function has a kink that a
 * simulation must locate.
 */
public enum MathFunction {
    SQRT("sqrt", Library.REAL, 1, Dimensions.ROOT),
    ABS("abs", Library.REAL, 1, Dimensions.SAME),
    MIN("min", Library.REAL, 2, Dimensions.SAME),
    MAX("max", Library.REAL, 2, Dimensions.SAME),
    SIN("sin", Library.TRIG, 1, Dimensions.NONE),
    COS("cos", Library.TRIG, 1, Dimensions.NONE),
    TAN("tan", Library.TRIG, 1, Dimensions.NONE),
    ARCSIN("arcsin", Library.TRIG, 1, Dimensions.NONE),
    ARCCOS("arccos", Library.TRIG, 1, Dimensions.NONE),
    ARCTAN("arctan", Library.TRIG, 1, Dimensions.NONE),
    EXP("exp", Library.REAL, 1, Dimensions.NONE),
    LN("ln", Library.REAL, 1, Dimensions.NONE),
    FLOOR("floor", Library.REAL, 1, Dimensions.NONE),
    ROUND("round", Library.REAL, 1, Dimensions.NONE);

    /** How the dimensions of arguments and result are related. */
    public enum Dimensions {
        /** All arguments and the result have the same dimension. */
        SAME,
        /** Arguments and result have dimension one. */
        NONE,
        /** The result is the square root of the argument's dimension. */
        ROOT
    }

    /** The library packages that declare the functions. */
    private static final class Library {
        static final String REAL = "RealFunctions";
        static final String TRIG = "TrigFunctions";
    }

    private final String name;
    private final String library;
    private final int arity;
    private final Dimensions dimensions;

    MathFunction(String name, String library, int arity, Dimensions dimensions) {
        this.name = name;
        this.library = library;
        this.arity = arity;
        this.dimensions = dimensions;
    }

    public String functionName() {
        return name;
    }

    /** The library package that declares the function. */
    public String library() {
        return library;
    }

    public int arity() {
        return arity;
    }

    public Dimensions dimensions() {
        return dimensions;
    }

    /** Whether the function changes its formula somewhere, so that a simulation locates the place. */
    public boolean switches() {
        return this == ABS || this == MIN || this == MAX;
    }

    /** Whether the function jumps again and again, which a run cannot follow. */
    public boolean jumps() {
        return this == FLOOR || this == ROUND;
    }

    /** The value at the arguments {@code x} and, for functions of two, {@code y}. */
    public double apply(double x, double y) {
        return switch (this) {
            case SQRT -> Math.sqrt(x);
            case ABS -> Math.abs(x);
            case MIN -> Math.min(x, y);
            case MAX -> Math.max(x, y);
            case SIN -> Math.sin(x);
            case COS -> Math.cos(x);
            case TAN -> Math.tan(x);
            case ARCSIN -> Math.asin(x);
            case ARCCOS -> Math.acos(x);
            case ARCTAN -> Math.atan(x);
            case EXP -> Math.exp(x);
            case LN -> Math.log(x);
            case FLOOR -> Math.floor(x);
            case ROUND -> Math.rint(x);
        };
    }
}
