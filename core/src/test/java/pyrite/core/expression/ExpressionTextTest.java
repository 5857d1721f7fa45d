package pyrite.core.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.model.ElementId;
import pyrite.core.notation.StoredExpression;

/** Writing an expression and reading it again gives the same tree, whatever binds tighter than what. */
class ExpressionTextTest {
    private static final ElementId SOMETHING = ElementId.ofLibrary("something");

    @Property(tries = 400)
    void whatIsWrittenIsReadAgain(@ForAll("expressions") Expression expression) {
        assertThat(StoredExpression.read(StoredExpression.write(expression))).isEqualTo(expression);
    }

    @Property(tries = 400)
    void whatIsTakenApartIsPutTogetherAgain(@ForAll("expressions") Expression expression) {
        StoredExpression.Parts parts = StoredExpression.Parts.of(expression);
        assertThat(new StoredExpression.Form(parts.form()).with(parts.ids(), parts.numbers()))
                .isEqualTo(expression);
    }

    /**
     * Two that differ in nothing but names and numbers have one form; a parameter called 0 is not taken for the first
     * id.
     */
    @Test
    void idsAndNumbersAreNoPartOfTheForm() {
        String first = "'" + SOMETHING + "'({ in '0'; '0' * '" + SOMETHING + "' + 2.50 ['k|" + SOMETHING + "'^2] })";
        ElementId other = ElementId.fresh();
        StoredExpression.Parts parts = StoredExpression.Parts.of(StoredExpression.read(first));
        assertThat(parts.numbers()).containsExactly("2.50", "2");
        StoredExpression.Parts similar = StoredExpression.Parts.of(StoredExpression.read(
                first.replace(SOMETHING.toString(), other.toString()).replace("2.50", "7")));
        assertThat(similar.form()).isEqualTo(parts.form());
        assertThat(new StoredExpression.Form(parts.form()).with(similar.ids(), similar.numbers()))
                .isEqualTo(StoredExpression.read(
                        first.replace(SOMETHING.toString(), other.toString()).replace("2.50", "7")));
    }

    @Provide
    Arbitrary<Expression> expressions() {
        return expressions(4);
    }

    private static Arbitrary<Expression> expressions(int depth) {
        Arbitrary<Expression> leaves = Arbitraries.oneOf(
                Arbitraries.of("0", "1.5", "2e-3", "0.40").map(n -> new NumberLiteral(n, Span.NONE)),
                Arbitraries.of("plain", "a \"quoted\" one", "back\\slash").map(t -> new StringLiteral(t, Span.NONE)),
                Arbitraries.just(new FeatureReference(List.of(SOMETHING, ElementId.ofLibrary("other")), Span.NONE)),
                Arbitraries.of("", "k", "da")
                        .map(prefix -> new Quantity(
                                new NumberLiteral("3", Span.NONE),
                                new UnitReference(prefix, SOMETHING, Span.NONE),
                                Span.NONE)));
        if (depth == 0) {
            return leaves;
        }
        Arbitrary<Expression> part = expressions(depth - 1);
        return Arbitraries.oneOf(
                leaves,
                Combinators.combine(
                                Arbitraries.of(Operator.values()).filter(o -> o.family() != Operator.Family.UNARY),
                                part,
                                part)
                        .as((o, l, r) -> new Binary(o, l, r, Span.NONE)),
                Combinators.combine(Arbitraries.of(Operator.NEGATE, Operator.NOT), part)
                        .as((o, e) -> new Unary(o, e, Span.NONE)),
                Combinators.combine(part, part, part).as((c, a, b) -> new Conditional(c, a, b, Span.NONE)),
                part.list().ofMaxSize(3).map(arguments -> new Invocation(SOMETHING, arguments, Span.NONE)),
                part.map(value -> new Invocation(
                        SOMETHING, List.of(new Expression.NamedArgument("a b", value, Span.NONE)), Span.NONE)),
                part.map(value -> new Expression.Construction(SOMETHING, List.of(value), Span.NONE)),
                part.list().ofMinSize(2).ofMaxSize(3).map(items -> new Expression.Sequence(items, Span.NONE)),
                Combinators.combine(part, part)
                        .as((sequence, index) -> new Expression.Item(sequence, index, Span.NONE)),
                Combinators.combine(part, part)
                        .as((receiver, result) ->
                                new Expression.ArrowInvocation(receiver, SOMETHING, List.of(body(result)), Span.NONE)),
                Combinators.combine(part, part)
                        .as((receiver, argument) -> new Expression.ArrowInvocation(
                                receiver, SOMETHING, List.of(argument, argument), Span.NONE)),
                Combinators.combine(part, part, Arbitraries.of(true, false))
                        .as((receiver, result, selects) ->
                                new Expression.Filtered(receiver, selects, body(result), Span.NONE)),
                Combinators.combine(part, Arbitraries.of(Expression.Classification.Relation.values()))
                        .as((operand, relation) ->
                                new Expression.Classification(operand, relation, SOMETHING, Span.NONE)),
                part.map(source -> new Expression.Access(
                        new Expression.Item(source, new NumberLiteral("1", Span.NONE), Span.NONE),
                        List.of(SOMETHING),
                        Span.NONE)),
                Arbitraries.of(
                        new Expression.Extent(SOMETHING, Span.NONE),
                        new Expression.NullLiteral(Span.NONE),
                        new Expression.MetadataAccess(SOMETHING, Span.NONE),
                        new Expression.Unbounded(Span.NONE),
                        new Expression.Classification(
                                Expression.each(), Expression.Classification.Relation.METADATA, SOMETHING, Span.NONE)));
    }

    /** A body with a parameter that its result uses. */
    private static Expression.Body body(Expression result) {
        Expression parameter = new FeatureReference(List.of(new Expression.Local("x y")), Span.NONE);
        return new Expression.Body(
                List.of(new Expression.Parameter("x y", SOMETHING)),
                new Conditional(new Binary(Operator.LESS, parameter, result, Span.NONE), parameter, result, Span.NONE),
                Span.NONE);
    }

    @Test
    void aSignBindsTighterThanAPowerAndIsWrittenSo() {
        Expression read = StoredExpression.read("-'" + SOMETHING + "'^2");
        assertThat(read).isInstanceOf(Binary.class);
        assertThat(StoredExpression.write(read)).isEqualTo("(-'" + SOMETHING + "')^2");
    }
}
