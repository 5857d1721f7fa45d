package pyrite.core.expression;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.fraction.Fraction;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.TextLiteral;
import pyrite.core.expression.Expression.TruthLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Expression.UnitReference;

/**
 * Infers the type and dimension of an expression and reports every mismatch at its place. A part whose type is unknown
 * fits everything, so a fault is reported once and not again by everything around it.
 */
public final class TypeCheck {
    private final Environment environment;
    private final List<Fault> faults = new ArrayList<>();

    private TypeCheck(Environment environment) {
        this.environment = environment;
    }

    public record Result(Type type, List<Fault> faults) {
    }

    public static Result check(Expression expression, Environment environment) {
        TypeCheck check = new TypeCheck(environment);
        Type type = check.infer(expression);
        return new Result(type, List.copyOf(check.faults));
    }

    private Type infer(Expression expression) {
        return switch (expression) {
            case NumberLiteral _ -> Type.NUMBER;
            case TextLiteral _ -> Type.TEXT;
            case TruthLiteral _ -> Type.TRUTH;
            case FeatureReference reference -> environment.typeOf(reference);
            case UnitReference unit -> unit(unit);
            case Quantity quantity -> quantity(quantity);
            case Unary unary -> unary(unary);
            case Binary binary -> binary(binary);
            case Conditional conditional -> conditional(conditional);
            case Invocation invocation -> invocation(invocation);
        };
    }

    private Type unit(Expression expression) {
        try {
            return new Type.Number(Units.of(expression, environment).dimension());
        } catch (FaultException e) {
            faults.add(e.fault());
            return Type.UNKNOWN;
        }
    }

    private Type quantity(Quantity quantity) {
        Type magnitude = infer(quantity.magnitude());
        if (!(magnitude instanceof Type.Unknown) && !magnitude.equals(Type.NUMBER)) {
            fault(quantity.magnitude(), "a plain number stands before a unit, but this is " + magnitude);
        }
        return unit(quantity.unit());
    }

    private Type unary(Unary unary) {
        Type operand = infer(unary.operand());
        if (unary.operator() == Operator.NOT) {
            expectTruth(unary.operand(), operand, "'not'");
            return Type.TRUTH;
        }
        return number(unary.operand(), operand, "'" + unary.operator().symbol() + "'");
    }

    private Type binary(Binary binary) {
        Type left = infer(binary.left());
        Type right = infer(binary.right());
        String sign = "'" + binary.operator().symbol() + "'";
        return switch (binary.operator().family()) {
            case LOGIC -> {
                expectTruth(binary.left(), left, sign);
                expectTruth(binary.right(), right, sign);
                yield Type.TRUTH;
            }
            case COMPARISON -> {
                comparison(binary, left, right, sign);
                yield Type.TRUTH;
            }
            case ARITHMETIC -> arithmetic(binary, number(binary.left(), left, sign), number(binary.right(), right, sign));
            case UNARY -> throw new IllegalStateException("unary operator with two operands");
        };
    }

    private void comparison(Binary binary, Type left, Type right, String sign) {
        if (left instanceof Type.Unknown || right instanceof Type.Unknown) {
            return;
        }
        if (binary.operator().isOrdering()) {
            same(binary, number(binary.left(), left, sign), number(binary.right(), right, sign), "compared");
        } else if (left instanceof Type.Number && right instanceof Type.Number) {
            same(binary, left, right, "equated");
        } else if (!left.equals(right)) {
            fault(binary, left + " and " + right + " cannot be equated");
        }
    }

    private Type arithmetic(Binary binary, Type left, Type right) {
        if (!(left instanceof Type.Number(Dimension l)) || !(right instanceof Type.Number(Dimension r))) {
            return Type.UNKNOWN;
        }
        return switch (binary.operator()) {
            case MULTIPLY -> new Type.Number(l.times(r));
            case DIVIDE -> new Type.Number(l.per(r));
            case POWER -> power(binary, l, r);
            default -> same(binary, left, right, binary.operator() == Operator.ADD ? "added" : "subtracted");
        };
    }

    private Type power(Binary binary, Dimension base, Dimension exponent) {
        if (!exponent.isOne()) {
            fault(binary.right(), "an exponent is a plain number, but this is " + new Type.Number(exponent));
            return Type.UNKNOWN;
        }
        if (base.isOne()) {
            return Type.NUMBER;
        }
        Double value = literal(binary.right());
        if (value == null) {
            fault(binary.right(), "the exponent of a quantity with a unit is written as a number");
            return Type.UNKNOWN;
        }
        return new Type.Number(base.power(new Fraction(value, 1e-9, 1000)));
    }

    private static Double literal(Expression expression) {
        return switch (expression) {
            case NumberLiteral n -> n.value();
            case Unary u when u.operator() == Operator.NEGATE && literal(u.operand()) != null -> -literal(u.operand());
            case Binary b when b.operator() == Operator.DIVIDE && literal(b.left()) != null
                    && literal(b.right()) != null -> literal(b.left()) / literal(b.right());
            default -> null;
        };
    }

    private Type conditional(Conditional conditional) {
        expectTruth(conditional.condition(), infer(conditional.condition()), "'if'");
        Type yes = infer(conditional.whenTrue());
        Type no = infer(conditional.whenFalse());
        if (yes instanceof Type.Unknown || no instanceof Type.Unknown) {
            return Type.UNKNOWN;
        }
        if (!yes.equals(no)) {
            fault(conditional, "both branches of an 'if' give the same kind of value, but one gives " + yes
                    + " and the other " + no);
            return Type.UNKNOWN;
        }
        return yes;
    }

    private Type invocation(Invocation call) {
        List<Type> arguments = call.arguments().stream().map(this::infer).toList();
        Function function = environment.function(call.function()).orElse(null);
        if (function == null) {
            fault(call, "'" + environment.nameOf(call.function()) + "' cannot be called");
            return Type.UNKNOWN;
        }
        return switch (function) {
            case Function.Mathematical(MathFunction f) -> mathematical(call, f, arguments);
            case Function.Observing(Observation o) -> observing(call, o, arguments);
            case Function.Derivative() -> derivative(call, arguments);
            case Function.Sum() -> sum(call, arguments);
        };
    }

    private Type mathematical(Invocation call, MathFunction function, List<Type> arguments) {
        String name = function.functionName();
        if (arguments.size() != function.arity()) {
            fault(call, name + " takes " + function.arity() + (function.arity() == 1 ? " argument" : " arguments")
                    + ", not " + arguments.size());
            return Type.UNKNOWN;
        }
        Type first = number(call.arguments().getFirst(), arguments.getFirst(), name);
        if (!(first instanceof Type.Number(Dimension dimension))) {
            return Type.UNKNOWN;
        }
        return switch (function.dimensions()) {
            case NONE -> {
                if (!dimension.isOne()) {
                    fault(call.arguments().getFirst(), name + " takes a plain number or an angle, but this is " + first);
                }
                yield Type.NUMBER;
            }
            case ROOT -> new Type.Number(dimension.power(new Fraction(1, 2)));
            case SAME -> function.arity() == 1 ? first
                    : same(call, first, number(call.arguments().get(1), arguments.get(1), name), "compared");
        };
    }

    private Type observing(Invocation call, Observation observation, List<Type> arguments) {
        String name = observation.functionName();
        if (!observation.accepts(arguments.size())) {
            fault(call, observation == Observation.AT ? "at takes a quantity and an instant: at(x, t)"
                    : name + " takes one argument" + (observation.times() == 2 ? ", or also a window: "
                            + name + "(…, from, to)" : ""));
            return Type.UNKNOWN;
        }
        for (int i = 1; i < arguments.size(); i++) {
            same(call.arguments().get(i), arguments.get(i), new Type.Number(Observation.TIME), "used as an instant");
        }
        Expression subject = call.arguments().getFirst();
        if (observation.of() == Observation.Of.CONDITION) {
            expectTruth(subject, arguments.getFirst(), name);
            return observation.result(Dimension.ONE);
        }
        Type quantity = number(subject, arguments.getFirst(), name);
        return quantity instanceof Type.Number(Dimension d) ? observation.result(d) : Type.UNKNOWN;
    }

    private Type derivative(Invocation call, List<Type> arguments) {
        if (arguments.size() != 1 || !(call.arguments().getFirst() instanceof FeatureReference)) {
            fault(call, "der takes the name of one quantity that changes: der(level)");
            return Type.UNKNOWN;
        }
        Type of = number(call.arguments().getFirst(), arguments.getFirst(), "der");
        return of instanceof Type.Number(Dimension d) ? new Type.Number(d.per(Observation.TIME)) : Type.UNKNOWN;
    }

    private Type sum(Invocation call, List<Type> arguments) {
        if (arguments.size() != 1 || !(call.arguments().getFirst() instanceof FeatureReference)) {
            fault(call, "sum takes the name of one quantity, over all its instances: sum(leaf.mass)");
            return Type.UNKNOWN;
        }
        return number(call.arguments().getFirst(), arguments.getFirst(), "sum");
    }

    private Type number(Expression at, Type type, String user) {
        if (type instanceof Type.Number || type instanceof Type.Unknown) {
            return type;
        }
        fault(at, user + " works on numbers, but this is " + type);
        return Type.UNKNOWN;
    }

    private void expectTruth(Expression at, Type type, String user) {
        if (!(type instanceof Type.Truth) && !(type instanceof Type.Unknown)) {
            fault(at, user + " works on conditions, but this is " + type);
        }
    }

    private Type same(Expression at, Type left, Type right, String verb) {
        if (left instanceof Type.Unknown || right instanceof Type.Unknown) {
            return Type.UNKNOWN;
        }
        if (!left.equals(right)) {
            fault(at, left + " and " + right + " cannot be " + verb);
            return Type.UNKNOWN;
        }
        return left;
    }

    private void fault(Expression at, String message) {
        faults.add(new Fault(at.span(), message));
    }
}
