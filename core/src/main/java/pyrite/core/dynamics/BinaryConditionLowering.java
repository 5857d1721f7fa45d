package pyrite.core.dynamics;

import pyrite.core.expression.Environment;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;

/** Lowers conditions with two operands: logical connectives and comparisons. */
final class BinaryConditionLowering {
    private final Lowering lowering;
    private final Environment environment;

    BinaryConditionLowering(Lowering lowering, Environment environment) {
        this.lowering = lowering;
        this.environment = environment;
    }

    Condition logic(Binary b, Instance scope) {
        Condition left = lowering.condition(b.left(), scope);
        Condition right = lowering.condition(b.right(), scope);
        return switch (b.operator()) {
            case AND, AND_BOTH -> Terms.both(left, right);
            case OR, OR_BOTH -> Terms.either(left, right);
            case IMPLIES -> Terms.either(Terms.not(left), right);
            default -> Terms.either(Terms.both(left, Terms.not(right)), Terms.both(Terms.not(left), right));
        };
    }

    Condition comparison(Binary b, Instance scope) {
        if (!b.operator().isOrdering()) {
            return sameness(b, scope);
        }
        if (TypeCheck.check(b.left(), environment).type() instanceof Type.Text) {
            return textOrder(b, scope) ? Terms.TRUE : Terms.FALSE;
        }
        Term left = lowering.term(b.left(), scope);
        Term right = lowering.term(b.right(), scope);
        return switch (b.operator()) {
            case GREATER -> lowering.relation(left, right, true, false);
            case GREATER_OR_EQUAL -> lowering.relation(left, right, false, false);
            case LESS -> lowering.relation(right, left, true, false);
            default -> lowering.relation(right, left, false, false);
        };
    }

    /** Texts are ordered by their characters (KerML 9.4.7). */
    private boolean textOrder(Binary b, Instance scope) {
        String left = lowering.collections().symbol(b.left(), scope).toString();
        int order =
                left.compareTo(lowering.collections().symbol(b.right(), scope).toString());
        return switch (b.operator()) {
            case GREATER -> order > 0;
            case GREATER_OR_EQUAL -> order >= 0;
            case LESS -> order < 0;
            default -> order <= 0;
        };
    }

    private Condition sameness(Binary b, Instance scope) {
        boolean requested = b.operator() == Operator.EQUAL || b.operator() == Operator.IDENTICAL;
        Type type = TypeCheck.check(b.left(), environment).type();
        if (type instanceof Type.Enumerated || type instanceof Type.Text || type instanceof Type.Thing) {
            return lowering.collections()
                                    .symbol(b.left(), scope)
                                    .equals(lowering.collections().symbol(b.right(), scope))
                            == requested
                    ? Terms.TRUE
                    : Terms.FALSE;
        }
        if (type instanceof Type.Truth) {
            Condition left = lowering.condition(b.left(), scope);
            Condition right = lowering.condition(b.right(), scope);
            Condition same = Terms.either(Terms.both(left, right), Terms.both(Terms.not(left), Terms.not(right)));
            return requested ? same : Terms.not(same);
        }
        if (lowering.term(b.left(), scope) instanceof Term.Constant(double l)
                && lowering.term(b.right(), scope) instanceof Term.Constant(double r)) {
            return l == r == requested ? Terms.TRUE : Terms.FALSE;
        }
        throw new FaultException(
                b.span(), "quantities that vary are equal only for an instant; compare them with <= or >=");
    }
}
