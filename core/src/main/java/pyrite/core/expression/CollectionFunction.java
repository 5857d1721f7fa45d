package pyrite.core.expression;

/**
 * The functions over several values that the engine knows, each declared by its name in a library package of KerML 9.4.
 * The values are those of the first argument, or of what stands before the arrow.
 */
public enum CollectionFunction {
    COLLECT("collect", Library.CONTROL, Takes.BODY),
    SELECT("select", Library.CONTROL, Takes.BODY),
    REJECT("reject", Library.CONTROL, Takes.BODY),
    REDUCE("reduce", Library.CONTROL, Takes.BODY_OF_TWO),
    FOR_ALL("forAll", Library.CONTROL, Takes.BODY),
    EXISTS("exists", Library.CONTROL, Takes.BODY),
    ALL_TRUE("allTrue", Library.CONTROL, Takes.NOTHING),
    ANY_TRUE("anyTrue", Library.CONTROL, Takes.NOTHING),
    SUM("sum", Library.NUMERICAL, Takes.NOTHING),
    PRODUCT("product", Library.NUMERICAL, Takes.NOTHING),
    SMALLEST("min", Library.NUMERICAL, Takes.NOTHING),
    LARGEST("max", Library.NUMERICAL, Takes.NOTHING),
    SIZE("size", Library.SEQUENCE, Takes.NOTHING),
    IS_EMPTY("isEmpty", Library.SEQUENCE, Takes.NOTHING),
    NOT_EMPTY("notEmpty", Library.SEQUENCE, Takes.NOTHING),
    HEAD("head", Library.SEQUENCE, Takes.NOTHING),
    LAST("last", Library.SEQUENCE, Takes.NOTHING);

    /** What stands beside the values. */
    public enum Takes { NOTHING, BODY, BODY_OF_TWO }

    private static final class Library {
        static final String CONTROL = "ControlFunctions";
        static final String NUMERICAL = "NumericalFunctions";
        static final String SEQUENCE = "SequenceFunctions";
    }

    private final String name;
    private final String library;
    private final Takes takes;

    CollectionFunction(String name, String library, Takes takes) {
        this.name = name;
        this.library = library;
        this.takes = takes;
    }

    public String functionName() {
        return name;
    }

    /** The library package that declares the function. */
    public String library() {
        return library;
    }

    public Takes takes() {
        return takes;
    }
}
