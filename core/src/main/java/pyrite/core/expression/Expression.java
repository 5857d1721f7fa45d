package pyrite.core.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * An expression as a tree of immutable values. Equality is by structure; places in the text do not count. The syntax is
 * that of KerML 8.2.5.8.
 */
public sealed interface Expression {
    Span span();

    /** A number of dimension one with its spelling, so that {@code 0.40} is written back as {@code 0.40}. */
    record NumberLiteral(String spelling, Span span) implements Expression {
        public double value() {
            return Double.parseDouble(spelling);
        }
    }

    record StringLiteral(String text, Span span) implements Expression {}

    record BooleanLiteral(boolean value, Span span) implements Expression {}

    /**
     * {@code a.b.c}: the first referent is resolved where the expression stands, each further one in the one before.
     */
    record FeatureReference(List<Referent> chain, Span span) implements Expression {
        public FeatureReference {
            chain = List.copyOf(chain);
        }

        public Referent last() {
            return chain.getLast();
        }

        boolean isLocal() {
            return chain.getFirst() instanceof Local;
        }
    }

    /** What a question without an operand is asked of, as in {@code filter @Approved}: each element in turn. */
    static FeatureReference each() {
        // No constant: this interface and that record would each wait for the other to be initialised, on two threads.
        return new FeatureReference(List.of(new Local("each")), Span.NONE);
    }

    /** A unit inside brackets; {@code prefix} is an SI prefix such as {@code k}, or empty. */
    record UnitReference(String prefix, Referent unit, Span span) implements Expression {}

    /** {@code magnitude [unit]}. */
    record Quantity(Expression magnitude, Expression unit, Span span) implements Expression {}

    record Unary(Operator operator, Expression operand, Span span) implements Expression {}

    record Binary(Operator operator, Expression left, Expression right, Span span) implements Expression {}

    /** {@code if condition ? whenTrue else whenFalse}. */
    record Conditional(Expression condition, Expression whenTrue, Expression whenFalse, Span span)
            implements Expression {}

    record Invocation(Referent function, List<Expression> arguments, Span span) implements Expression {
        public Invocation {
            arguments = List.copyOf(arguments);
        }
    }

    /** {@code parameter = value} among the arguments of a call. */
    record NamedArgument(String parameter, Expression value, Span span) implements Expression {}

    /** {@code new Type(…)}. */
    record Construction(Referent type, List<Expression> arguments, Span span) implements Expression {
        public Construction {
            arguments = List.copyOf(arguments);
        }
    }

    /** {@code receiver->function(…)} or {@code receiver->function { in x; … }}: the receiver is the first argument. */
    record ArrowInvocation(Expression receiver, Referent function, List<Expression> arguments, Span span)
            implements Expression {
        public ArrowInvocation {
            arguments = List.copyOf(arguments);
        }

        /** The call that it stands for. */
        public Invocation asCall() {
            return new Invocation(function, joined(receiver, arguments), span);
        }
    }

    /** {@code receiver.{in x; …}} collects what the body gives, {@code receiver.?{in x; …}} selects where it holds. */
    record Filtered(Expression receiver, boolean selects, Body body, Span span) implements Expression {}

    /** {@code { in x : Type; … result }}: an expression with parameters of its own. */
    record Body(List<Parameter> parameters, Expression result, Span span) implements Expression {
        public Body {
            parameters = List.copyOf(parameters);
        }
    }

    /** A parameter of a body. */
    record Parameter(String name, @Nullable Referent type) {}

    /** A parameter of a body, where it is used. */
    record Local(String name) implements Referent {
        @Override
        public String toString() {
            return Name.quoted(name);
        }
    }

    /** {@code source.a.b}, where the source is more than a name. */
    record Access(Expression source, List<Referent> chain, Span span) implements Expression {
        public Access {
            chain = List.copyOf(chain);
        }
    }

    /** {@code sequence#(index)}, counted from 1. */
    record Item(Expression sequence, Expression index, Span span) implements Expression {}

    /** {@code (a, b, c)}: two or more. */
    record Sequence(List<Expression> items, Span span) implements Expression {
        public Sequence {
            items = List.copyOf(items);
            if (items.size() < 2) {
                throw new IllegalArgumentException("a sequence has two or more items; one alone stands for itself");
            }
        }
    }

    /** {@code operand istype Type} and the other classification expressions (KerML 8.2.5.8.1). */
    record Classification(Expression operand, Relation relation, Referent type, Span span) implements Expression {
        /** The relation of an operand to a type. */
        public enum Relation {
            ISTYPE("istype"),
            HASTYPE("hastype"),
            METADATA("@"),
            METADATA_OF("@@"),
            AS("as"),
            META("meta");

            private final String symbol;

            Relation(String symbol) {
                this.symbol = symbol;
            }

            public String symbol() {
                return symbol;
            }
        }
    }

    /** {@code all Type}. */
    record Extent(Referent type, Span span) implements Expression {}

    /** {@code element.metadata}. */
    record MetadataAccess(Referent element, Span span) implements Expression {}

    /** {@code null}, or {@code ()}. */
    record NullLiteral(Span span) implements Expression {}

    /** {@code *}: no upper bound. */
    record Unbounded(Span span) implements Expression {}

    /** The parts directly below, in the order they are written. */
    default List<Expression> parts() {
        return switch (this) {
            case NumberLiteral _,
                    StringLiteral _,
                    BooleanLiteral _,
                    FeatureReference _,
                    UnitReference _,
                    Extent _,
                    MetadataAccess _,
                    NullLiteral _,
                    Unbounded _ -> List.of();
            case Quantity q -> List.of(q.magnitude(), q.unit());
            case Unary u -> List.of(u.operand());
            case Binary b -> List.of(b.left(), b.right());
            case Conditional c -> List.of(c.condition(), c.whenTrue(), c.whenFalse());
            case Invocation i -> i.arguments();
            case NamedArgument n -> List.of(n.value());
            case Construction c -> c.arguments();
            case ArrowInvocation a -> joined(a.receiver(), a.arguments());
            case Filtered f -> List.of(f.receiver(), f.body());
            case Body b -> List.of(b.result());
            case Access a -> List.of(a.source());
            case Item e -> List.of(e.sequence(), e.index());
            case Sequence s -> s.items();
            case Classification c -> List.of(c.operand());
        };
    }

    private static List<Expression> joined(Expression first, List<Expression> others) {
        List<Expression> all = new ArrayList<>(others.size() + 1);
        all.add(first);
        all.addAll(others);
        return all;
    }

    /** This expression and everything in it, outermost first. */
    default void walk(Consumer<Expression> visitor) {
        visitor.accept(this);
        List<Expression> parts = parts();
        for (int i = 0; i < parts.size(); i++) {
            parts.get(i).walk(visitor);
        }
    }

    /** Every referent mentioned, in the order written, with repeats. */
    default List<Referent> referents() {
        List<Referent> found = new ArrayList<>();
        forEachReferent(found::add);
        return found;
    }

    /** Hands over every referent mentioned, in the order written, with repeats. */
    default void forEachReferent(Consumer<Referent> each) {
        walk(part -> {
            switch (part) {
                case FeatureReference reference -> reference.chain().forEach(each);
                case UnitReference unit -> each.accept(unit.unit());
                case Invocation call -> each.accept(call.function());
                case Construction construction -> each.accept(construction.type());
                case ArrowInvocation call -> each.accept(call.function());
                case Body body ->
                    body.parameters().stream()
                            .map(Parameter::type)
                            .filter(Objects::nonNull)
                            .forEach(each);
                case Access access -> access.chain().forEach(each);
                case Classification classification -> each.accept(classification.type());
                case Extent extent -> each.accept(extent.type());
                case MetadataAccess access -> each.accept(access.element());
                case NumberLiteral _,
                        StringLiteral _,
                        BooleanLiteral _,
                        NullLiteral _,
                        Unbounded _,
                        Quantity _,
                        Unary _,
                        Binary _,
                        Conditional _,
                        NamedArgument _,
                        Filtered _,
                        Item _,
                        Sequence _ -> {}
            }
        });
    }

    /** Replaces the references in an expression. */
    interface Rewriter {
        Expression feature(FeatureReference reference);

        /** A reference inside the brackets of a quantity. */
        Expression unit(FeatureReference reference);

        /** The function of a call or of an arrow. */
        Referent function(Referent function, Span span);

        Referent type(Referent type, Span span);

        /** The steps behind the source of an access, which is rewritten already. */
        List<Referent> steps(Expression source, List<Referent> chain, Span span);

        /** Rewrites what stands inside a body, where its parameters are known. */
        Rewriter inside(Body body);

        default NumberLiteral number(NumberLiteral literal) {
            return literal;
        }
    }

    /** The same tree with its references replaced. */
    default Expression rewrite(Rewriter to) {
        return switch (this) {
            case FeatureReference r when r.isLocal() -> this;
            case FeatureReference r -> to.feature(r);
            case NumberLiteral n -> to.number(n);
            case StringLiteral _, BooleanLiteral _, UnitReference _, NullLiteral _, Unbounded _ -> this;
            case Quantity q ->
                new Quantity(q.magnitude().rewrite(to), q.unit().rewrite(new UnitRewriter(to)), q.span());
            case Unary u -> new Unary(u.operator(), u.operand().rewrite(to), u.span());
            case Binary b ->
                new Binary(b.operator(), b.left().rewrite(to), b.right().rewrite(to), b.span());
            case Conditional c ->
                new Conditional(
                        c.condition().rewrite(to),
                        c.whenTrue().rewrite(to),
                        c.whenFalse().rewrite(to),
                        c.span());
            case Invocation i ->
                new Invocation(to.function(i.function(), i.span()), rewrite(i.arguments(), to), i.span());
            case NamedArgument n -> new NamedArgument(n.parameter(), n.value().rewrite(to), n.span());
            case Construction c -> new Construction(to.type(c.type(), c.span()), rewrite(c.arguments(), to), c.span());
            case ArrowInvocation a ->
                new ArrowInvocation(
                        a.receiver().rewrite(to),
                        to.function(a.function(), a.span()),
                        rewrite(a.arguments(), to),
                        a.span());
            case Filtered f ->
                new Filtered(
                        f.receiver().rewrite(to), f.selects(), (Body) f.body().rewrite(to), f.span());
            case Body b ->
                new Body(
                        b.parameters().stream()
                                .map(p ->
                                        new Parameter(p.name(), p.type() == null ? null : to.type(p.type(), b.span())))
                                .toList(),
                        b.result().rewrite(to.inside(b)),
                        b.span());
            case Access a -> {
                Expression source = a.source().rewrite(to);
                yield new Access(source, to.steps(source, a.chain(), a.span()), a.span());
            }
            case Item e -> new Item(e.sequence().rewrite(to), e.index().rewrite(to), e.span());
            case Sequence s -> new Sequence(rewrite(s.items(), to), s.span());
            case Classification c ->
                new Classification(c.operand().rewrite(to), c.relation(), to.type(c.type(), c.span()), c.span());
            case Extent e -> new Extent(to.type(e.type(), e.span()), e.span());
            case MetadataAccess m -> new MetadataAccess(to.type(m.element(), m.span()), m.span());
        };
    }

    private static List<Expression> rewrite(List<Expression> expressions, Rewriter to) {
        return expressions.stream().map(expression -> expression.rewrite(to)).toList();
    }

    /** Rewrites the contents of unit brackets, where every reference is to a unit. */
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
        public Referent function(Referent function, Span span) {
            return around.function(function, span);
        }

        @Override
        public Referent type(Referent type, Span span) {
            return around.type(type, span);
        }

        @Override
        public List<Referent> steps(Expression source, List<Referent> chain, Span span) {
            return around.steps(source, chain, span);
        }

        @Override
        public Rewriter inside(Body body) {
            return new UnitRewriter(around.inside(body));
        }

        @Override
        public NumberLiteral number(NumberLiteral literal) {
            return around.number(literal);
        }
    }
}
