package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Optional;
import java.util.Random;
import net.jqwik.api.Assume;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** What is called linear in a variable is a straight line in it, and its root solves it. */
class LinearTest {
    private static final int X = 2;
    private static final Term VARIABLE = new Term.Variable(X);

    private static double at(Term term, double x) {
        return Terms.value(term, 0.7, new double[] {1.3, -2.1, x});
    }

    @Property(tries = 2000)
    void whatIsCalledLinearIsAStraightLine(@ForAll long seed) {
        Term term = new RandomTerms(new Random(seed), 3).term(3);
        Optional<Linear> linear = Linear.in(X, term);
        Assume.that(linear.isPresent());
        double slope = at(linear.get().slope(), Double.NaN);
        double rest = at(linear.get().rest(), Double.NaN);
        Assume.that(Double.isFinite(slope) && Double.isFinite(rest) && Math.abs(slope) < 1e6 && Math.abs(rest) < 1e6);
        for (double x : new double[] {-3, 0, 0.5, 7}) {
            double value = at(term, x);
            Assume.that(Double.isFinite(value));
            assertThat(value).isCloseTo(slope * x + rest, within(1e-6 * (1 + Math.abs(slope) + Math.abs(rest))));
        }
    }

    @Property(tries = 500)
    void theRootSolvesTheEquation(@ForAll long seed) {
        RandomTerms terms = new RandomTerms(new Random(seed), X);
        Term slope = terms.term(2);
        Term rest = terms.term(2);
        Assume.that(!slope.isConstant(0));
        Term term = Terms.minus(rest, Terms.times(VARIABLE, slope));
        double root =
                Linear.in(X, term).map(linear -> at(linear.root(), Double.NaN)).orElseThrow();
        Assume.that(Double.isFinite(at(slope, 0)) && Double.isFinite(root) && Math.abs(root) < 1e6);
        assertThat(at(term, root)).isCloseTo(0, within(1e-6 * (1 + Math.abs(at(rest, 0)))));
    }

    @Test
    void squaresFunctionsAndDivisorsAreNotLinear() {
        assertThat(Linear.in(X, Terms.times(VARIABLE, VARIABLE))).isEmpty();
        assertThat(Linear.in(X, Terms.over(Terms.ONE, VARIABLE))).isEmpty();
        assertThat(Linear.in(X, Terms.power(VARIABLE, Terms.constant(3)))).isEmpty();
        assertThat(Linear.in(X, Terms.call(pyrite.core.expression.MathFunction.SIN, VARIABLE)))
                .isEmpty();
    }

    @Test
    void aChoiceByTheVariableItselfIsNotLinearAndByAnotherOneIs() {
        Condition own = new Condition.Relation(0, VARIABLE, Terms.ZERO, false, false);
        Condition other = new Condition.Relation(1, new Term.Variable(0), Terms.ZERO, false, false);
        assertThat(Linear.in(X, new Term.Choice(own, VARIABLE, Terms.ZERO))).isEmpty();
        assertThat(Linear.in(X, new Term.Choice(other, VARIABLE, Terms.times(Terms.constant(2), VARIABLE))))
                .isPresent();
    }
}
