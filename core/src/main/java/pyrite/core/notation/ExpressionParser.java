package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Access;
import pyrite.core.expression.Expression.ArrowInvocation;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.Body;
import pyrite.core.expression.Expression.BooleanLiteral;
import pyrite.core.expression.Expression.Classification;
import pyrite.core.expression.Expression.Classification.Relation;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Parameter;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Name;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;

/** Parses expressions (KerML 8.2.5.8) by precedence climbing. Referents are still names, and units plain references. */
final class ExpressionParser {
    /** More than people write; whatever walks an expression later goes as deep as it has operations. */
    private static final int MOST_OPERATIONS = 1000;

    /** KerML 8.2.5.8.1, unlike mathematics. */
    private static final String SIGNED_POWER =
            "'-x ^ n' is read as '(-x) ^ n', because a sign binds tighter than a power; "
                    + "write '-(x ^ n)' where the power comes first";

    private final Cursor cursor;
    private int open;
    private int operations;

    ExpressionParser(Cursor cursor) {
        this.cursor = cursor;
    }

    /** An expression that is the whole text. */
    static Expression whole(Tokens tokens) {
        Cursor cursor = new Cursor(tokens);
        Expression expression = new ExpressionParser(cursor).expression();
        if (!cursor.isAtEnd()) {
            throw cursor.expected("the end of the text");
        }
        return expression;
    }

    Expression expression() {
        return expression(0);
    }

    private Expression expression(int strength) {
        operations = open == 0 ? 0 : operations;
        open++;
        try {
            return operated(strength);
        } finally {
            open--;
        }
    }

    private void count() {
        if (++operations > MOST_OPERATIONS) {
            throw new Cursor.SyntaxFault(
                    cursor.tokens().span(cursor.at()),
                    "more than " + MOST_OPERATIONS
                            + " operations in one expression; give parts of it names of their own");
        }
    }

    private Expression operated(int strength) {
        cursor.enter();
        int first = cursor.at();
        int start = cursor.tokens().span(first).start();
        Expression left = prefixed();
        for (; ; ) {
            Operator operator = operator();
            Relation relation = operator == null ? relation() : null;
            if (operator != null && operator.strength() >= strength) {
                cursor.take();
                count();
                int binds = operator.strength();
                Expression right = expression(operator == Operator.POWER ? binds : binds + 1);
                if (operator == Operator.POWER && isSigned(left, start)) {
                    cursor.hint(new Cursor.Hint(cursor.spanFrom(first), SIGNED_POWER));
                }
                left = new Binary(operator, left, right, cursor.spanFrom(first));
            } else if (relation != null && Operator.CLASSIFICATION >= strength) {
                cursor.take();
                count();
                left = new Classification(left, relation, cursor.requireQualifiedName(), cursor.spanFrom(first));
            } else {
                cursor.leave();
                return left;
            }
        }
    }

    /** Whether an expression is a sign and its operand, not in parentheses. */
    private static boolean isSigned(Expression expression, int start) {
        return expression instanceof Unary unary
                && unary.operator() == Operator.NEGATE
                && unary.span().start() == start;
    }

    private @Nullable Operator operator() {
        return switch (cursor.type()) {
            case SIGN, KEYWORD -> Operator.binary(cursor.text());
            default -> null;
        };
    }

    private @Nullable Relation relation() {
        return switch (cursor.type()) {
            case SIGN, KEYWORD ->
                switch (cursor.text()) {
                    case "istype" -> Relation.ISTYPE;
                    case "hastype" -> Relation.HASTYPE;
                    case "@" -> Relation.METADATA;
                    case "@@" -> Relation.METADATA_OF;
                    case "as" -> Relation.AS;
                    case "meta" -> Relation.META;
                    default -> null;
                };
            default -> null;
        };
    }

    private Expression prefixed() {
        int first = cursor.at();
        if (cursor.takes("if")) {
            return conditional(first);
        }
        if (cursor.takes("all")) {
            return new Expression.Extent(cursor.requireQualifiedName(), cursor.spanFrom(first));
        }
        Relation relation = relation();
        if (relation != null) {
            cursor.take();
            return new Classification(
                    Expression.each(), relation, cursor.requireQualifiedName(), cursor.spanFrom(first));
        }
        boolean mark = cursor.type() == Tokens.Type.SIGN || cursor.type() == Tokens.Type.KEYWORD;
        Operator sign = mark ? Operator.unary(cursor.text()) : null;
        if (sign != null) {
            cursor.take();
            cursor.enter();
            Expression operand = prefixed();
            cursor.leave();
            return new Unary(sign, operand, cursor.spanFrom(first));
        }
        return postfixed();
    }

    private Expression conditional(int first) {
        Expression condition = expression();
        cursor.require("?");
        return conditional(first, condition);
    }

    /** The rest of {@code if condition ? … else …}, behind the question mark. */
    Expression conditional(int first, Expression condition) {
        Expression yes = expression();
        cursor.require("else");
        return new Conditional(condition, yes, expression(), cursor.spanFrom(first));
    }

    private Expression postfixed() {
        int first = cursor.at();
        Expression source = base();
        for (; ; ) {
            if (cursor.takes("[")) {
                Expression unit = expression();
                cursor.require("]");
                source = new Expression.Quantity(source, unit, cursor.spanFrom(first));
            } else if (cursor.sees("#") && cursor.sees(1, "(")) {
                cursor.take();
                Expression index = parenthesized(cursor.at());
                source = new Expression.Item(source, index, cursor.spanFrom(first));
            } else if (cursor.sees("->")) {
                source = arrow(first, source);
            } else if (cursor.sees(".") && cursor.sees(1, "{") || cursor.sees(".?")) {
                boolean selects = cursor.take().equals(".?");
                source = new Expression.Filtered(source, selects, body(), cursor.spanFrom(first));
            } else if (cursor.sees(".") && cursor.seesName(1)) {
                source = accessed(first, source);
            } else {
                return source;
            }
            count();
        }
    }

    private Expression arrow(int first, Expression receiver) {
        cursor.require("->");
        Name function = cursor.requireQualifiedName();
        List<Expression> arguments = new ArrayList<>();
        if (cursor.sees("{")) {
            arguments.add(body());
        } else if (cursor.sees("(")) {
            arguments.addAll(arguments());
        } else {
            int at = cursor.at();
            arguments.add(new FeatureReference(List.of(cursor.requireQualifiedName()), cursor.spanFrom(at)));
        }
        return new ArrowInvocation(receiver, function, arguments, cursor.spanFrom(first));
    }

    private Expression accessed(int first, Expression source) {
        List<Referent> steps = steps();
        if (source instanceof FeatureReference reference) {
            List<Referent> chain = new ArrayList<>(reference.chain());
            chain.addAll(steps);
            return new FeatureReference(chain, cursor.spanFrom(first));
        }
        return new Access(source, steps, cursor.spanFrom(first));
    }

    private List<Referent> steps() {
        List<Referent> steps = new ArrayList<>();
        while (cursor.sees(".") && cursor.seesName(1)) {
            cursor.take();
            steps.add(Name.of(cursor.take()));
        }
        return steps;
    }

    private Expression base() {
        int first = cursor.at();
        return switch (cursor.type()) {
            case NUMBER -> new NumberLiteral(cursor.take(), cursor.spanFrom(first));
            case STRING -> new StringLiteral(cursor.take(), cursor.spanFrom(first));
            case NAME -> named(first);
            case KEYWORD -> keyword(first);
            case SIGN ->
                switch (cursor.text()) {
                    case "(" -> parenthesized(first);
                    case "{" -> body();
                    case "*" -> {
                        cursor.take();
                        yield new Expression.Unbounded(cursor.spanFrom(first));
                    }
                    default -> throw cursor.expected("an expression");
                };
            default -> throw cursor.expected("an expression");
        };
    }

    private Expression keyword(int first) {
        return switch (cursor.text()) {
            case "true", "false" -> new BooleanLiteral(cursor.take().equals("true"), cursor.spanFrom(first));
            case "null" -> {
                cursor.take();
                yield new Expression.NullLiteral(cursor.spanFrom(first));
            }
            case "new" -> {
                cursor.take();
                Name type = cursor.requireQualifiedName();
                yield new Expression.Construction(type, arguments(), cursor.spanFrom(first));
            }
            default -> throw cursor.expected("an expression");
        };
    }

    private Expression named(int first) {
        Name name = cursor.requireQualifiedName();
        if (cursor.sees("(")) {
            return new Invocation(name, arguments(), cursor.spanFrom(first));
        }
        if (cursor.sees(".") && cursor.sees(1, "metadata")) {
            cursor.take();
            cursor.take();
            return new Expression.MetadataAccess(name, cursor.spanFrom(first));
        }
        List<Referent> chain = new ArrayList<>(List.of(name));
        chain.addAll(steps());
        return new FeatureReference(chain, cursor.spanFrom(first));
    }

    private Expression parenthesized(int first) {
        cursor.require("(");
        if (cursor.takes(")")) {
            return new Expression.NullLiteral(cursor.spanFrom(first));
        }
        Expression only = expression();
        if (cursor.takes(")")) {
            return only;
        }
        List<Expression> items = new ArrayList<>(List.of(only));
        while (cursor.takes(",") && !cursor.sees(")")) {
            items.add(expression());
        }
        cursor.require(")");
        return items.size() == 1 ? only : new Expression.Sequence(items, cursor.spanFrom(first));
    }

    private List<Expression> arguments() {
        cursor.require("(");
        List<Expression> arguments = new ArrayList<>();
        if (!cursor.sees(")")) {
            do {
                arguments.add(argument());
            } while (cursor.takes(","));
        }
        cursor.require(")");
        return arguments;
    }

    private Expression argument() {
        int first = cursor.at();
        if (cursor.seesName() && cursor.sees(1, "=")) {
            String parameter = cursor.take();
            cursor.take();
            return new Expression.NamedArgument(parameter, expression(), cursor.spanFrom(first));
        }
        return expression();
    }

    /** {@code { in x : Type; … result }}. */
    private Body body() {
        int first = cursor.at();
        cursor.require("{");
        List<Parameter> parameters = new ArrayList<>();
        while (cursor.takes("in")) {
            String name = cursor.requireName();
            parameters.add(new Parameter(name, cursor.takes(":") ? cursor.requireQualifiedName() : null));
            cursor.require(";");
        }
        Expression result = expression();
        cursor.require("}");
        return new Body(parameters, result, cursor.spanFrom(first));
    }
}
