package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import net.jqwik.api.Assume;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.dynamics.Term.Arithmetic;
import pyrite.core.dynamics.Term.Choice;

/** Terms made with folding are worth what the same terms are worth without. */
class TermsTest {
    private static final double[] V = {1.25, -0.5, 3};
    private static final double T = 0.7;

    /** The same term, made again through the folding constructors. */
    private static Term folded(Term term) {
        return switch (term) {
            case Arithmetic(Term.Sign sign, Term left, Term right) -> {
                Term l = folded(left);
                Term r = folded(right);
                yield switch (sign) {
                    case PLUS -> Terms.plus(l, r);
                    case MINUS -> Terms.minus(l, r);
                    case TIMES -> Terms.times(l, r);
                    case OVER -> Terms.over(l, r);
                    case POWER -> Terms.power(l, r);
                };
            }
            case Term.Call(var function, Term argument) -> Terms.call(function, folded(argument));
            case Choice(Condition condition, Term yes, Term no) ->
                Terms.choice(folded(condition), folded(yes), folded(no));
            case Term.Constant _, Term.Variable _, Term.Time _ -> term;
        };
    }

    private static Condition folded(Condition condition) {
        return switch (condition) {
            case Condition.Both(Condition left, Condition right) -> Terms.both(folded(left), folded(right));
            case Condition.Either(Condition left, Condition right) -> Terms.either(folded(left), folded(right));
            case Condition.Not(Condition operand) -> Terms.not(folded(operand));
            case Condition.Relation _, Condition.Fixed _ -> condition;
        };
    }

    @Property(tries = 1000)
    void foldingChangesNoValue(@ForAll long seed) {
        Term term = new RandomTerms(new Random(seed), 3).term(4);
        double plain = Terms.value(term, T, V);
        // Zero times infinity is the one thing folding settles otherwise: a factor of zero removes what it stands with.
        Assume.that(isFinite(term));
        assertThat(Terms.value(folded(term), T, V)).isEqualTo(plain);
    }

    private static boolean isFinite(Term term) {
        return Double.isFinite(Terms.value(term, T, V))
                && switch (term) {
                    case Arithmetic a -> isFinite(a.left()) && isFinite(a.right());
                    case Term.Call c -> isFinite(c.argument());
                    case Choice c -> isFinite(c.condition()) && isFinite(c.whenTrue()) && isFinite(c.whenFalse());
                    case Term.Constant _, Term.Variable _, Term.Time _ -> true;
                };
    }

    private static boolean isFinite(Condition condition) {
        return switch (condition) {
            case Condition.Relation r -> isFinite(r.left()) && isFinite(r.right());
            case Condition.Both b -> isFinite(b.left()) && isFinite(b.right());
            case Condition.Either e -> isFinite(e.left()) && isFinite(e.right());
            case Condition.Not n -> isFinite(n.operand());
            case Condition.Fixed _ -> true;
        };
    }

    @Test
    void whatIsConstantIsComputedOnce() {
        assertThat(Terms.plus(Terms.constant(2), Terms.times(Terms.constant(3), Terms.constant(4))))
                .isEqualTo(Terms.constant(14));
        assertThat(Terms.times(new Term.Time(), Terms.ZERO)).isEqualTo(Terms.ZERO);
        assertThat(Terms.power(new Term.Time(), Terms.ONE)).isEqualTo(new Term.Time());
        assertThat(Terms.negate(Terms.minus(new Term.Time(), Terms.ONE)))
                .isEqualTo(Terms.minus(Terms.ONE, new Term.Time()));
    }

    @Test
    void aMarginIsPositiveExactlyWhereTheConditionHoldsWithRoom() {
        Condition above = new Condition.Relation(0, new Term.Variable(0), Terms.ONE, false, false);
        Condition below = new Condition.Relation(1, Terms.constant(1.5), new Term.Variable(0), false, false);
        assertThat(Terms.margin(Terms.both(above, below), T, V)).isEqualTo(0.25);
        assertThat(Terms.margin(Terms.either(above, Terms.not(below)), T, V)).isEqualTo(0.25);
        assertThat(Terms.margin(Terms.not(above), T, V)).isEqualTo(-0.25);
        assertThat(Terms.margin(Terms.FALSE, T, V)).isEqualTo(Double.NEGATIVE_INFINITY);
    }
}
