package pyrite.core.expression;

import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
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

/** Writes expressions in canonical text, with parentheses only where reading back needs them. */
public final class ExpressionText {
    private static final int CONDITIONAL = 0;
    private static final int ATOM = 99;

    private final Naming naming;

    /** How referents are spelled. */
    public interface Naming {
        /** A chain such as {@code gate.leaf.angle}, quoted as the notation needs. */
        String chain(FeatureReference reference);

        /**
         * A single name: a function, a type or a unit; {@code prefix} is an SI prefix to be joined to a unit's symbol.
         */
        String name(String prefix, Referent referent);

        /** One step of a chain, behind a dot. */
        String step(Referent referent);
    }

    private ExpressionText(Naming naming) {
        this.naming = naming;
    }

    public static String of(Expression expression, Naming naming) {
        return new ExpressionText(naming).write(expression);
    }

    /** The text of a unit, without blanks: {@code m^3/s}. */
    public static String compact(Expression unit, Naming naming) {
        return new ExpressionText(naming).compact(unit);
    }

    private String write(Expression expression) {
        return write(expression, true);
    }

    /** {@code last}: nothing follows that the branches of an open {@code if … else …} could swallow. */
    private String write(Expression expression, boolean last) {
        return switch (expression) {
            case NumberLiteral n -> n.spelling();
            case StringLiteral t ->
                "\"" + t.text().replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n") + "\"";
            case BooleanLiteral t -> Boolean.toString(t.value());
            case FeatureReference r -> naming.chain(r);
            case UnitReference u -> naming.name(u.prefix(), u.unit());
            case Quantity q -> within(q.magnitude(), ATOM, false) + " [" + compact(q.unit()) + "]";
            case Unary u ->
                u.operator().symbol()
                        + (u.operator() == Operator.NOT ? " " : "")
                        + within(u.operand(), Operator.NEGATE.strength(), false);
            case Binary b -> binary(b, last);
            case Conditional c ->
                "if " + within(c.condition(), 1, false) + " ? " + within(c.whenTrue(), 1, false) + " else "
                        + write(c.whenFalse(), last);
            case Invocation i -> naming.name("", i.function()) + arguments(i.arguments());
            case Expression.NamedArgument n -> Name.quoted(n.parameter()) + " = " + write(n.value());
            case Expression.Construction c -> "new " + naming.name("", c.type()) + arguments(c.arguments());
            case Expression.ArrowInvocation a ->
                source(a.receiver()) + "->" + naming.name("", a.function()) + behindArrow(a.arguments());
            case Expression.Filtered f -> source(f.receiver()) + (f.selects() ? ".?" : ".") + write(f.body());
            case Expression.Body b -> body(b);
            case Expression.Access a ->
                source(a.source())
                        + a.chain().stream()
                                .map(step -> "." + naming.step(step))
                                .collect(Collectors.joining());
            case Expression.Item i ->
                source(i.sequence()) + "#"
                        + (i.index() instanceof Expression.Sequence ? write(i.index()) : "(" + write(i.index()) + ")");
            case Expression.Sequence s -> arguments(s.items());
            case Expression.Classification c
            when c.operand().equals(Expression.each()) ->
                c.relation().symbol() + (c.relation().symbol().startsWith("@") ? "" : " ") + naming.name("", c.type());
            case Expression.Classification c ->
                within(c.operand(), Operator.CLASSIFICATION, false) + " "
                        + c.relation().symbol() + " " + naming.name("", c.type());
            case Expression.Extent e -> "all " + naming.name("", e.type());
            case Expression.MetadataAccess m -> naming.name("", m.element()) + ".metadata";
            case Expression.NullLiteral _ -> "null";
            case Expression.Unbounded _ -> "*";
        };
    }

    private String arguments(List<Expression> arguments) {
        return arguments.stream().map(this::write).collect(Collectors.joining(", ", "(", ")"));
    }

    /** A body or the name of a function stands there without parentheses. */
    private String behindArrow(List<Expression> arguments) {
        return arguments.size() == 1 && arguments.getFirst() instanceof Expression.Body body
                ? " " + write(body)
                : arguments.size() == 1
                                && arguments.getFirst() instanceof FeatureReference r
                                && r.chain().size() == 1
                        ? " " + write(r)
                        : arguments(arguments);
    }

    private String body(Expression.Body body) {
        String parameters = body.parameters().stream()
                .map(p -> "in " + Name.quoted(p.name()) + (p.type() == null ? "" : " : " + naming.name("", p.type()))
                        + "; ")
                .collect(Collectors.joining());
        return "{ " + parameters + write(body.result()) + " }";
    }

    /**
     * What stands before a dot, an arrow or an index: a name would swallow the step behind it, so it is set in
     * parentheses.
     */
    private String source(Expression source) {
        return within(source, ATOM, false);
    }

    private String binary(Binary b, boolean last) {
        int strength = b.operator().strength();
        boolean rightward = b.operator() == Operator.POWER;
        String sign = rightward
                ? "^"
                : b.operator() == Operator.RANGE ? ".." : " " + b.operator().symbol() + " ";
        // A sign binds tighter than a power (KerML 8.2.5.8.1), unlike in mathematics: (-x)^2 is written so that it
        // shows.
        String left = rightward && b.left() instanceof Unary
                ? "(" + write(b.left()) + ")"
                : within(b.left(), rightward ? strength + 1 : strength, false);
        return left + sign + within(b.right(), rightward ? strength : strength + 1, last);
    }

    private String compact(Expression unit) {
        return write(unit).replace(" * ", "*").replace(" / ", "/");
    }

    private String within(Expression part, int atLeast, boolean last) {
        boolean open = part instanceof Conditional && last;
        String text = write(part, last);
        return strength(part) < atLeast && !open ? "(" + write(part, true) + ")" : text;
    }

    private static int strength(Expression expression) {
        return switch (expression) {
            case Conditional _ -> CONDITIONAL;
            case Expression.Classification _ -> Operator.CLASSIFICATION;
            case Expression.Extent _ -> Operator.NEGATE.strength();
            case Binary b -> b.operator().strength();
            case Unary u -> u.operator().strength();
            default -> ATOM;
        };
    }

    /** A naming by single names, for messages and tests: the last name of each referent. */
    public static Naming byName(Function<Referent, String> name) {
        return new Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return reference.chain().stream().map(name).collect(Collectors.joining("."));
            }

            @Override
            public String name(String prefix, Referent referent) {
                return prefix + name.apply(referent);
            }

            @Override
            public String step(Referent referent) {
                return name.apply(referent);
            }
        };
    }
}
