package pyrite.core.expression;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.fraction.Fraction;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.BooleanLiteral;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Expression.UnitReference;

/**
 * Infers the type and dimension of an expression and reports every mismatch at its place. A subexpression of unknown
 * type is compatible with everything, so each fault is reported once.
 */
public final class TypeCheck {
    private final Environment environment;
    private final List<Fault> faults = new ArrayList<>();
    private final Map<String, Type> locals = new HashMap<>();
    private final CallCheck calls;

    private TypeCheck(Environment environment) {
        this.environment = environment;
        this.calls = new CallCheck(this, environment);
    }

    public record Result(Type type, List<Fault> faults) {}

    public static Result check(Expression expression, Environment environment) {
        TypeCheck check = new TypeCheck(environment);
        Type type = check.infer(expression);
        return new Result(type, List.copyOf(check.faults));
    }

    Type infer(Expression expression) {
        return switch (expression) {
            case NumberLiteral _ -> Type.NUMBER;
            case StringLiteral _ -> Type.TEXT;
            case BooleanLiteral _ -> Type.TRUTH;
            case FeatureReference reference
            when reference.last() instanceof Expression.Local(String name) -> locals.getOrDefault(name, Type.UNKNOWN);
            case FeatureReference reference -> environment.typeOf(reference);
            case UnitReference unit -> unit(unit);
            case Quantity quantity -> quantity(quantity);
            case Unary unary -> unary(unary);
            case Binary binary -> binary(binary);
            case Conditional conditional -> conditional(conditional);
            case Invocation invocation -> calls.type(invocation.function(), invocation.arguments(), invocation);
            case Expression.ArrowInvocation arrow ->
                calls.type(arrow.function(), arrow.asCall().arguments(), arrow);
            case Expression.Filtered filtered -> filtered(filtered);
            case Expression.NamedArgument named -> infer(named.value());
            case Expression.Body body -> infer(body.result());
            case Expression.Access access -> {
                infer(access.source());
                yield environment.typeOf(new FeatureReference(access.chain(), access.span()));
            }
            case Expression.Item item -> item(item);
            case Expression.Sequence sequence -> sequence(sequence);
            case Expression.Classification c -> classification(c);
            case Expression.Construction construction -> {
                construction.arguments().forEach(this::infer);
                yield environment.typeNamed(construction.type());
            }
            case Expression.Extent extent -> environment.typeNamed(extent.type());
            case Expression.MetadataAccess _, Expression.NullLiteral _ -> Type.UNKNOWN;
            case Expression.Unbounded _ -> Type.NUMBER;
        };
    }

    /** A sequence has the type of its items, because every value is a sequence of one (KerML 7.4.9). */
    private Type sequence(Expression.Sequence sequence) {
        Type first = infer(sequence.items().getFirst());
        for (Expression item : sequence.items().subList(1, sequence.items().size())) {
            Type type = infer(item);
            if (!(first instanceof Type.Unknown)
                    && !(type instanceof Type.Unknown)
                    && !(first instanceof Type.Thing)
                    && !type.equals(first)) {
                fault(
                        item,
                        "the items of a sequence are of one kind, but " + first + " comes first and this is " + type);
                return Type.UNKNOWN;
            }
        }
        return first;
    }

    private Type item(Expression.Item item) {
        if (item.index() instanceof Expression.Sequence places) {
            places.items().forEach(this::place);
        } else {
            place(item.index());
        }
        return infer(item.sequence());
    }

    void place(Expression index) {
        Type type = infer(index);
        if (!(type instanceof Type.Unknown) && !type.equals(Type.NUMBER)) {
            fault(index, "an index is a plain number, but this is " + type);
        }
    }

    private Type classification(Expression.Classification c) {
        Type operand = infer(c.operand());
        return switch (c.relation()) {
            case ISTYPE, HASTYPE, METADATA, METADATA_OF -> Type.TRUTH;
            case AS -> cast(c, operand, environment.typeNamed(c.type()));
            case META -> Type.UNKNOWN;
        };
    }

    /** Looking at a value as another type does not make another quantity of it. */
    private Type cast(Expression.Classification c, Type operand, Type to) {
        if (operand instanceof Type.Number && to instanceof Type.Number && !operand.equals(to)) {
            fault(c, "this is " + operand + " and cannot be taken as " + to);
        }
        return to instanceof Type.Unknown ? operand : to;
    }

    private Type filtered(Expression.Filtered filtered) {
        Type values = infer(filtered.receiver());
        Type given = within(filtered.body(), values);
        if (filtered.selects()) {
            expectBoolean(filtered.body().result(), given, "'.?'");
            return values;
        }
        return given;
    }

    /** The type of a body's result, its first parameter being one of some values. */
    Type within(Expression.Body body, Type values) {
        Map<String, Type> before = new HashMap<>(locals);
        body.parameters()
                .forEach(parameter -> locals.put(
                        parameter.name(), parameter.type() == null ? values : environment.typeNamed(parameter.type())));
        Type type = infer(body.result());
        locals.clear();
        locals.putAll(before);
        return type;
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
            expectBoolean(unary.operand(), operand, "'not'");
            return Type.TRUTH;
        }
        if (unary.operator() == Operator.NEGATE && isReading(unary.operand())) {
            fault(
                    unary,
                    "a sign before a reading on a scale with its own zero would turn that reading around; write the sign"
                            + " with the number: (-"
                            + ExpressionText.of(
                                    ((Quantity) unary.operand()).magnitude(),
                                    ExpressionText.byName(environment::nameOf))
                            + ") […]");
        }
        return number(unary.operand(), operand, "'" + unary.operator().symbol() + "'");
    }

    private Type binary(Binary binary) {
        Type left = infer(binary.left());
        Type right = infer(binary.right());
        String sign = "'" + binary.operator().symbol() + "'";
        return switch (binary.operator().family()) {
            case LOGIC -> {
                expectBoolean(binary.left(), left, sign);
                expectBoolean(binary.right(), right, sign);
                yield Type.TRUTH;
            }
            case COMPARISON -> {
                comparison(binary, left, right, sign);
                yield Type.TRUTH;
            }
            case ARITHMETIC ->
                binary.operator() == Operator.ADD && left instanceof Type.Text && right instanceof Type.Text
                        ? Type.TEXT
                        : arithmetic(binary, number(binary.left(), left, sign), number(binary.right(), right, sign));
            case CHOICE ->
                binary.operator() == Operator.RANGE
                        ? same(
                                binary,
                                number(binary.left(), left, sign),
                                number(binary.right(), right, sign),
                                "the ends of a range")
                        : left instanceof Type.Unknown ? right : left;
            case UNARY -> throw new IllegalStateException("unary operator with two operands");
        };
    }

    private void comparison(Binary binary, Type left, Type right, String sign) {
        if (left instanceof Type.Unknown || right instanceof Type.Unknown) {
            return;
        }
        if (binary.operator().isOrdering() && left instanceof Type.Text && right instanceof Type.Text) {
            return;
        }
        if (binary.operator().isOrdering()) {
            same(binary, number(binary.left(), left, sign), number(binary.right(), right, sign), "compared");
        } else if (left instanceof Type.Number && right instanceof Type.Number) {
            same(binary, left, right, "equated");
        } else if (!left.equals(right) && !(left instanceof Type.Thing && right instanceof Type.Thing)) {
            fault(binary, left + " and " + right + " cannot be equated");
        }
    }

    private Type arithmetic(Binary binary, Type left, Type right) {
        if (!(left instanceof Type.Number(Dimension l)) || !(right instanceof Type.Number(Dimension r))) {
            return Type.UNKNOWN;
        }
        readingsAreOnlySubtracted(binary);
        return switch (binary.operator()) {
            case MULTIPLY -> new Type.Number(l.times(r));
            case DIVIDE -> new Type.Number(l.per(r));
            case POWER -> power(binary, l, r);
            case MODULO -> same(binary, left, right, "divided with a rest");
            default -> same(binary, left, right, binary.operator() == Operator.ADD ? "added" : "subtracted");
        };
    }

    /**
     * A point on a scale with a zero of its own, as 20 °C, is no amount: it has a distance to another, but no sum and
     * no multiple.
     */
    private void readingsAreOnlySubtracted(Binary binary) {
        boolean left = isReading(binary.left());
        boolean right = isReading(binary.right());
        boolean allowed = switch (binary.operator()) {
            case ADD -> !(left && right);
            case SUBTRACT -> left || !right;
            default -> !left && !right;
        };
        if (!allowed) {
            Quantity reading = (Quantity) (left ? binary.left() : binary.right());
            fault(
                    binary,
                    "a reading on a scale with its own zero cannot be "
                            + (binary.operator() == Operator.ADD
                                    ? "added to another"
                                    : binary.operator() == Operator.SUBTRACT
                                            ? "taken from an amount"
                                            : "multiplied or divided")
                            + "; write "
                            + ExpressionText.of(reading.magnitude(), ExpressionText.byName(environment::nameOf))
                            + " as a difference, in [K]");
        }
    }

    private boolean isReading(Expression expression) {
        try {
            return expression instanceof Quantity quantity
                    && Units.of(quantity.unit(), environment).offset() != 0;
        } catch (FaultException _) {
            return false;
        }
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

    private static @Nullable Double literal(Expression expression) {
        return switch (expression) {
            case NumberLiteral n -> n.value();
            case Unary u
            when u.operator() == Operator.NEGATE -> {
                Double operand = literal(u.operand());
                yield operand == null ? null : Double.valueOf(-operand);
            }
            case Binary b
            when b.operator() == Operator.DIVIDE -> {
                Double left = literal(b.left());
                Double right = literal(b.right());
                yield left == null || right == null ? null : Double.valueOf(left / right);
            }
            default -> null;
        };
    }

    private Type conditional(Conditional conditional) {
        expectBoolean(conditional.condition(), infer(conditional.condition()), "'if'");
        Type yes = infer(conditional.whenTrue());
        Type no = infer(conditional.whenFalse());
        if (yes instanceof Type.Unknown || no instanceof Type.Unknown) {
            return Type.UNKNOWN;
        }
        if (!yes.equals(no)) {
            fault(
                    conditional,
                    "both branches of an 'if' give the same kind of value, but one gives " + yes + " and the other "
                            + no);
            return Type.UNKNOWN;
        }
        return yes;
    }

    Type number(Expression at, Type type, String user) {
        if (type instanceof Type.Number || type instanceof Type.Unknown) {
            return type;
        }
        fault(at, user + " works on numbers, but this is " + type);
        return Type.UNKNOWN;
    }

    void expectBoolean(Expression at, Type type, String user) {
        if (!(type instanceof Type.Truth) && !(type instanceof Type.Unknown)) {
            fault(at, user + " works on conditions, but this is " + type);
        }
    }

    Type same(Expression at, Type left, Type right, String verb) {
        if (left instanceof Type.Unknown || right instanceof Type.Unknown) {
            return Type.UNKNOWN;
        }
        if (!left.equals(right)) {
            fault(at, left + " and " + right + " cannot be " + verb);
            return Type.UNKNOWN;
        }
        return left;
    }

    void fault(Expression at, String message) {
        faults.add(new Fault(at.span(), message));
    }
}
