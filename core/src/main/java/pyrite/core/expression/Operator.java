package pyrite.core.expression;

import java.util.Arrays;
import java.util.Optional;

/**
 * The operators, with their binding strength (a larger number binds tighter) in the order of KerML 8.2.5.8.1.
 * Power groups to the right, all others to the left.
 */
public enum Operator {
    IMPLIES("implies", 1, Family.LOGIC),
    OR("or", 2, Family.LOGIC),
    XOR("xor", 3, Family.LOGIC),
    AND("and", 4, Family.LOGIC),
    EQUAL("==", 5, Family.COMPARISON),
    NOT_EQUAL("!=", 5, Family.COMPARISON),
    LESS("<", 6, Family.COMPARISON),
    LESS_OR_EQUAL("<=", 6, Family.COMPARISON),
    GREATER(">", 6, Family.COMPARISON),
    GREATER_OR_EQUAL(">=", 6, Family.COMPARISON),
    ADD("+", 7, Family.ARITHMETIC),
    SUBTRACT("-", 7, Family.ARITHMETIC),
    MULTIPLY("*", 8, Family.ARITHMETIC),
    DIVIDE("/", 8, Family.ARITHMETIC),
    POWER("^", 9, Family.ARITHMETIC),
    NEGATE("-", 10, Family.UNARY),
    PLUS("+", 10, Family.UNARY),
    NOT("not", 10, Family.UNARY);

    /** What kinds of operands an operator takes and gives. */
    public enum Family { LOGIC, COMPARISON, ARITHMETIC, UNARY }

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

    public static Optional<Operator> binary(String symbol) {
        return Arrays.stream(values()).filter(o -> o.family != Family.UNARY && o.symbol.equals(symbol)).findFirst();
    }

    public static Optional<Operator> unary(String symbol) {
        return Arrays.stream(values()).filter(o -> o.family == Family.UNARY && o.symbol.equals(symbol)).findFirst();
    }
}
