package pyrite.core.expression;

import java.util.List;
import java.util.Optional;
import pyrite.core.expression.Expression.Body;
import pyrite.core.expression.Expression.FeatureReference;

/**
 * The functions over several values that the engine computes, each declared by its name in a library package of KerML
 * 9.4. The values are those of the first argument, or of the expression before the arrow.
 */
public enum CollectionFunction {
    COLLECT("collect", Library.CONTROL, Takes.BODY),
    SELECT("select", Library.CONTROL, Takes.BODY),
    REJECT("reject", Library.CONTROL, Takes.BODY),
    REDUCE("reduce", Library.CONTROL, Takes.BODY_OF_TWO),
    SELECT_ONE("selectOne", Library.CONTROL, Takes.BODY),
    MINIMIZE("minimize", Library.CONTROL, Takes.BODY),
    MAXIMIZE("maximize", Library.CONTROL, Takes.BODY),
    FOR_ALL("forAll", Library.CONTROL, Takes.BODY),
    EXISTS("exists", Library.CONTROL, Takes.BODY),
    ALL_TRUE("allTrue", Library.CONTROL, Takes.NOTHING),
    ANY_TRUE("anyTrue", Library.CONTROL, Takes.NOTHING),
    SUM("sum", Library.NUMERICAL, Takes.NOTHING),
    PRODUCT("product", Library.NUMERICAL, Takes.NOTHING),
    SMALLEST("min", Library.NUMERICAL, Takes.NOTHING),
    LARGEST("max", Library.NUMERICAL, Takes.NOTHING),
    INCLUDES("includes", Library.SEQUENCE, Takes.VALUE),
    EXCLUDES("excludes", Library.SEQUENCE, Takes.VALUE),
    SIZE("size", Library.SEQUENCE, Takes.NOTHING),
    IS_EMPTY("isEmpty", Library.SEQUENCE, Takes.NOTHING),
    NOT_EMPTY("notEmpty", Library.SEQUENCE, Takes.NOTHING),
    HEAD("head", Library.SEQUENCE, Takes.NOTHING),
    LAST("last", Library.SEQUENCE, Takes.NOTHING),
    TAIL("tail", Library.SEQUENCE, Takes.NOTHING),
    INCLUDING("including", Library.SEQUENCE, Takes.VALUE),
    EXCLUDING("excluding", Library.SEQUENCE, Takes.VALUE),
    UNION("union", Library.SEQUENCE, Takes.VALUE),
    INTERSECTION("intersection", Library.SEQUENCE, Takes.VALUE),
    SUBSEQUENCE("subsequence", Library.SEQUENCE, Takes.PLACES);

    /** What the function takes beside the values. */
    public enum Takes {
        NOTHING,
        VALUE,
        /** The first and the last place, counted from 1; without the last all that follow. */
        PLACES,
        BODY,
        BODY_OF_TWO
    }

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

    /**
     * What is done with the values: the given body, or a call of the function that is named in its place, as in
     * {@code x->reduce '+'}; empty if neither fits.
     */
    public Optional<Body> body(Expression argument) {
        List<String> parameters = takes == Takes.BODY_OF_TWO ? List.of("first", "second") : List.of("each");
        return switch (argument) {
            case Body body when body.parameters().size() == parameters.size() -> Optional.of(body);
            case FeatureReference function
            when function.chain().size() == 1 -> {
                List<Expression> arguments = parameters.stream()
                        .<Expression>map(
                                name -> new FeatureReference(List.of(new Expression.Local(name)), function.span()))
                        .toList();
                yield Optional.of(new Body(
                        parameters.stream()
                                .map(name -> new Expression.Parameter(name, null))
                                .toList(),
                        new Expression.Invocation(function.last(), arguments, function.span()),
                        function.span()));
            }
            default -> Optional.empty();
        };
    }
}
