package pyrite.core.dynamics;

import pyrite.core.dynamics.Condition.Both;
import pyrite.core.dynamics.Condition.Either;
import pyrite.core.dynamics.Condition.Fixed;
import pyrite.core.dynamics.Condition.Not;
import pyrite.core.dynamics.Term.Arithmetic;
import pyrite.core.dynamics.Term.Call;
import pyrite.core.dynamics.Term.Choice;
import pyrite.core.dynamics.Term.Constant;
import pyrite.core.dynamics.Term.Sign;
import pyrite.core.expression.MathFunction;

/** Creates terms and conditions, folds constants and drops operands without effect. */
public final class Terms {
    public static final Term ZERO = new Constant(0);
    public static final Term ONE = new Constant(1);
    public static final Condition TRUE = new Fixed(true);
    public static final Condition FALSE = new Fixed(false);

    private Terms() {}

    public static Term constant(double value) {
        return new Constant(value);
    }

    public static Term plus(Term left, Term right) {
        return left.isConstant(0) ? right : right.isConstant(0) ? left : arithmetic(Sign.PLUS, left, right);
    }

    public static Term minus(Term left, Term right) {
        return right.isConstant(0) ? left : arithmetic(Sign.MINUS, left, right);
    }

    public static Term negate(Term term) {
        return switch (term) {
            case Constant(double value) -> constant(-value);
            case Arithmetic(Sign sign, Term left, Term right) when sign == Sign.MINUS -> minus(right, left);
            default -> minus(ZERO, term);
        };
    }

    public static Term times(Term left, Term right) {
        if (left.isConstant(0) || right.isConstant(0)) {
            return ZERO;
        }
        return left.isConstant(1) ? right : right.isConstant(1) ? left : arithmetic(Sign.TIMES, left, right);
    }

    public static Term over(Term left, Term right) {
        return right.isConstant(1) ? left : arithmetic(Sign.OVER, left, right);
    }

    public static Term power(Term base, Term exponent) {
        return exponent.isConstant(1)
                ? base
                : exponent.isConstant(2) ? times(base, base) : arithmetic(Sign.POWER, base, exponent);
    }

    private static Term arithmetic(Sign sign, Term left, Term right) {
        return left instanceof Constant(double l) && right instanceof Constant(double r)
                ? constant(sign.apply(l, r))
                : new Arithmetic(sign, left, right);
    }

    public static Term call(MathFunction function, Term argument) {
        return argument instanceof Constant(double value)
                ? constant(function.apply(value, 0))
                : new Call(function, argument);
    }

    public static Term choice(Condition condition, Term whenTrue, Term whenFalse) {
        return switch (condition) {
            case Fixed(boolean holds) -> holds ? whenTrue : whenFalse;
            default -> whenTrue.equals(whenFalse) ? whenTrue : new Choice(condition, whenTrue, whenFalse);
        };
    }

    public static Condition both(Condition left, Condition right) {
        return left.equals(FALSE) || right.equals(FALSE)
                ? FALSE
                : left.equals(TRUE) ? right : right.equals(TRUE) ? left : new Both(left, right);
    }

    public static Condition either(Condition left, Condition right) {
        return left.equals(TRUE) || right.equals(TRUE)
                ? TRUE
                : left.equals(FALSE) ? right : right.equals(FALSE) ? left : new Either(left, right);
    }

    public static Condition not(Condition operand) {
        return switch (operand) {
            case Fixed(boolean holds) -> new Fixed(!holds);
            case Not(Condition inner) -> inner;
            default -> new Not(operand);
        };
    }

    /**
     * A term at given values, directly: the meaning that {@link Compiler} must reproduce. Conditions are taken from the
     * values, not from remembered modes.
     *
     * @param t time, s
     * @param v the variables
     */
    public static double value(Term term, double t, double[] v) {
        return switch (term) {
            case Constant c -> c.value();
            case Term.Variable x -> v[x.index()];
            case Term.Time _ -> t;
            case Arithmetic a -> a.sign().apply(value(a.left(), t, v), value(a.right(), t, v));
            case Call c -> c.function().apply(value(c.argument(), t, v), 0);
            case Choice c -> value(holds(c.condition(), t, v) ? c.whenTrue() : c.whenFalse(), t, v);
        };
    }

    public static boolean holds(Condition condition, double t, double[] v) {
        return switch (condition) {
            case Fixed f -> f.holds();
            case Condition.Relation r -> r.holds(value(r.left(), t, v) - value(r.right(), t, v));
            case Both b -> holds(b.left(), t, v) && holds(b.right(), t, v);
            case Either e -> holds(e.left(), t, v) || holds(e.right(), t, v);
            case Not n -> !holds(n.operand(), t, v);
        };
    }

    /**
     * The signed margin of a condition: positive where it holds with room to spare (the robustness of signal temporal
     * logic, Donzé and Maler 2010): the difference for a comparison, the smaller for and, the larger for or.
     */
    public static double margin(Condition condition, double t, double[] v) {
        return switch (condition) {
            case Fixed f -> f.holds() ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY;
            case Condition.Relation r -> value(r.left(), t, v) - value(r.right(), t, v);
            case Both b -> Math.min(margin(b.left(), t, v), margin(b.right(), t, v));
            case Either e -> Math.max(margin(e.left(), t, v), margin(e.right(), t, v));
            case Not n -> -margin(n.operand(), t, v);
        };
    }
}
