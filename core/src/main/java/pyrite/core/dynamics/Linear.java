package pyrite.core.dynamics;

import java.util.Optional;
import pyrite.core.dynamics.Term.Arithmetic;
import pyrite.core.dynamics.Term.Choice;

/**
 * A term in the form {@code slope * x + rest}, where neither part contains x. The form is found symbolically; an
 * equation that has it can be solved for x without iteration.
 */
record Linear(Term slope, Term rest) {

    /** Empty if the term is not linear in the variable. */
    static Optional<Linear> in(int variable, Term term) {
        if (!contains(term, variable)) {
            return Optional.of(new Linear(Terms.ZERO, term));
        }
        return switch (term) {
            case Term.Variable _ -> Optional.of(new Linear(Terms.ONE, Terms.ZERO));
            case Arithmetic a -> arithmetic(variable, a);
            case Choice c -> choice(variable, c);
            case Term.Call _, Term.Constant _, Term.Time _ -> Optional.empty();
        };
    }

    private static Optional<Linear> arithmetic(int variable, Arithmetic a) {
        Linear left = in(variable, a.left()).orElse(null);
        Linear right = in(variable, a.right()).orElse(null);
        if (left == null || right == null) {
            return Optional.empty();
        }
        return switch (a.sign()) {
            case PLUS ->
                Optional.of(new Linear(Terms.plus(left.slope, right.slope), Terms.plus(left.rest, right.rest)));
            case MINUS ->
                Optional.of(new Linear(Terms.minus(left.slope, right.slope), Terms.minus(left.rest, right.rest)));
            case TIMES ->
                left.slope.isConstant(0)
                        ? Optional.of(right.scaled(left.rest))
                        : right.slope.isConstant(0) ? Optional.of(left.scaled(right.rest)) : Optional.empty();
            case OVER ->
                right.slope.isConstant(0)
                        ? Optional.of(new Linear(Terms.over(left.slope, right.rest), Terms.over(left.rest, right.rest)))
                        : Optional.empty();
            case POWER -> Optional.empty();
        };
    }

    private static Optional<Linear> choice(int variable, Choice c) {
        boolean[] inCondition = {false};
        c.condition().variables(index -> inCondition[0] |= index == variable);
        Linear yes = in(variable, c.whenTrue()).orElse(null);
        Linear no = in(variable, c.whenFalse()).orElse(null);
        return inCondition[0] || yes == null || no == null
                ? Optional.empty()
                : Optional.of(new Linear(
                        Terms.choice(c.condition(), yes.slope, no.slope),
                        Terms.choice(c.condition(), yes.rest, no.rest)));
    }

    private Linear scaled(Term factor) {
        return new Linear(Terms.times(slope, factor), Terms.times(rest, factor));
    }

    /** The x at which the term is zero. */
    Term root() {
        return Terms.over(Terms.negate(rest), slope);
    }

    static boolean contains(Term term, int variable) {
        boolean[] found = {false};
        term.variables(index -> found[0] |= index == variable);
        return found[0];
    }
}
