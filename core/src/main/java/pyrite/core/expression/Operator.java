package pyrite.core.expression;

import java.util.Arrays;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The operators with their precedence (a larger number binds tighter), in the order of KerML 8.2.5.8.1. Power
 * associates to the right, all others to the left.
 */
public enum Operator {
    COALESCE("??", 1, Family.CHOICE),
    IMPLIES("implies", 2, Family.LOGIC),
    OR("or", 3, Family.LOGIC),
    OR_BOTH("|", 3, Family.LOGIC),
    XOR("xor", 4, Family.LOGIC),
    AND("and", 5, Family.LOGIC),
    AND_BOTH("&", 5, Family.LOGIC),
    EQUAL("==", 6, Family.COMPARISON),
    NOT_EQUAL("!=", 6, Family.COMPARISON),
    IDENTICAL("===", 6, Family.COMPARISON),
    NOT_IDENTICAL("!==", 6, Family.COMPARISON),
    LESS("<", 8, Family.COMPARISON),
    LESS_OR_EQUAL("<=", 8, Family.COMPARISON),
    GREATER(">", 8, Family.COMPARISON),
    GREATER_OR_EQUAL(">=", 8, Family.COMPARISON),
    RANGE("..", 9, Family.CHOICE),
    ADD("+", 10, Family.ARITHMETIC),
    SUBTRACT("-", 10, Family.ARITHMETIC),
    MULTIPLY("*", 11, Family.ARITHMETIC),
    DIVIDE("/", 11, Family.ARITHMETIC),
    MODULO("%", 11, Family.ARITHMETIC),
    POWER("^", 12, Family.ARITHMETIC),
    NEGATE("-", 13, Family.UNARY),
    PLUS("+", 13, Family.UNARY),
    COMPLEMENT("~", 13, Family.UNARY),
    NOT("not", 13, Family.UNARY);

    /** How tight {@code istype} and its kin bind, between comparing for equality and for size. */
    public static final int CLASSIFICATION = 7;

    /** The kinds of operands an operator takes and returns. */
    public enum Family {
        LOGIC,
        COMPARISON,
        ARITHMETIC,
        CHOICE,
        UNARY
    }

    private static final Map<String, Operator> BINARY = named(false);
    private static final Map<String, Operator> UNARY = named(true);

    private final String symbol;
    private final int strength;
    private final Family family;

    Operator(String symbol, int strength, Family family) {
        this.symbol = symbol;
        this.strength = strength;
        this.family = family;
    }

    public String symbol() {
        return symbol;
    }

    public int strength() {
        return strength;
    }

    public Family family() {
        return family;
    }

    /** Whether the two operands are asked which is larger, not merely whether they are the same. */
    public boolean isOrdering() {
        return this == LESS || this == LESS_OR_EQUAL || this == GREATER || this == GREATER_OR_EQUAL;
    }

    private static Map<String, Operator> named(boolean unary) {
        return Arrays.stream(values())
                .filter(o -> o.family == Family.UNARY == unary)
                .collect(Collectors.toUnmodifiableMap(Operator::symbol, Function.identity()));
    }

    /**
     * The operator between two operands with this sign, null if there is none. {@code **} is another sign for power.
     */
    public static @Nullable Operator binary(String symbol) {
        return symbol.equals("**") ? POWER : BINARY.get(symbol);
    }

    /** The operator before an operand with this sign, null if there is none. */
    public static @Nullable Operator unary(String symbol) {
        return UNARY.get(symbol);
    }
}
