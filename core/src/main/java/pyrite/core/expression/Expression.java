package pyrite.core.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * An expression as a tree of immutable values. Equality is by structure; places in the text do not count.
 * The syntax is that of KerML 8.2.5.8 as far as this reader goes.
 */
public sealed interface Expression {
    Span span();

    /** A number as it was spelled, so that writing it back keeps {@code 0.40} as {@code 0.40}. Dimension one. */
    record NumberLiteral(String spelling, Span span) implements Expression {
        public double value() {
            return Double.parseDouble(spelling);
        }
    }

    record TextLiteral(String text, Span span) implements Expression {
    }

    record TruthLiteral(boolean value, Span span) implements Expression {
    }

    /** {@code a.b.c}: the first referent is found from where the expression stands, each further one in the one before. */
    record FeatureReference(List<Referent> chain, Span span) implements Expression {
        public FeatureReference {
            chain = List.copyOf(chain);
        }

        public Referent last() {
            return chain.getLast();
        }
    }

    /** A unit inside brackets; {@code prefix} is an SI prefix such as {@code k}, or empty. */
    record UnitReference(String prefix, Referent unit, Span span) implements Expression {
    }

    /** {@code magnitude [unit]}. */
    record Quantity(Expression magnitude, Expression unit, Span span) implements Expression {
    }

    record Unary(Operator operator, Expression operand, Span span) implements Expression {
    }

    record Binary(Operator operator, Expression left, Expression right, Span span) implements Expression {
    }

    /** {@code if condition ? whenTrue else whenFalse}. */
    record Conditional(Expression condition, Expression whenTrue, Expression whenFalse, Span span) implements Expression {
    }

    record Invocation(Referent function, List<Expression> arguments, Span span) implements Expression {
        public Invocation {
            arguments = List.copyOf(arguments);
        }
    }

    /** The parts directly below, in the order they are written. */
    default List<Expression> parts() {
        return switch (this) {
            case NumberLiteral _, TextLiteral _, TruthLiteral _, FeatureReference _, UnitReference _ -> List.of();
            case Quantity q -> List.of(q.magnitude(), q.unit());
            case Unary u -> List.of(u.operand());
            case Binary b -> List.of(b.left(), b.right());
            case Conditional c -> List.of(c.condition(), c.whenTrue(), c.whenFalse());
            case Invocation i -> i.arguments();
        };
    }

    /** This expression and everything in it, outermost first. */
    default void walk(Consumer<Expression> visitor) {
        visitor.accept(this);
        parts().forEach(part -> part.walk(visitor));
    }

    /** Every referent mentioned, in the order written, with repeats. */
    default List<Referent> referents() {
        List<Referent> found = new ArrayList<>();
        walk(part -> {
            switch (part) {
                case FeatureReference reference -> found.addAll(reference.chain());
                case UnitReference unit -> found.add(unit.unit());
                case Invocation call -> found.add(call.function());
                case NumberLiteral _, TextLiteral _, TruthLiteral _, Quantity _, Unary _, Binary _, Conditional _ -> {
                }
            }
        });
        return found;
    }

    /** Says what becomes of the references in an expression. */
    interface Rewriter {
        Expression feature(FeatureReference reference);

        /** A reference inside the brackets of a quantity. */
        Expression unit(FeatureReference reference);

        Referent function(Invocation call);
    }

    /** The same tree with its references replaced. */
    default Expression rewrite(Rewriter to) {
        return switch (this) {
            case FeatureReference r -> to.feature(r);
            case NumberLiteral _, TextLiteral _, TruthLiteral _, UnitReference _ -> this;
            case Quantity q -> new Quantity(q.magnitude().rewrite(to), q.unit().rewrite(new UnitRewriter(to)), q.span());
            case Unary u -> new Unary(u.operator(), u.operand().rewrite(to), u.span());
            case Binary b -> new Binary(b.operator(), b.left().rewrite(to), b.right().rewrite(to), b.span());
            case Conditional c -> new Conditional(c.condition().rewrite(to), c.whenTrue().rewrite(to),
                    c.whenFalse().rewrite(to), c.span());
            case Invocation i -> new Invocation(to.function(i),
                    i.arguments().stream().map(argument -> argument.rewrite(to)).toList(), i.span());
        };
    }

    /** Within the brackets every reference is one to a unit. */
    record UnitRewriter(Rewriter around) implements Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            return around.unit(reference);
        }

        @Override
        public Expression unit(FeatureReference reference) {
            return around.unit(reference);
        }

        @Override
        public Referent function(Invocation call) {
            return around.function(call);
        }
    }
}
