package pyrite.core.dynamics;

import java.util.Map;
import pyrite.core.model.ElementId;

/**
 * {@code left == right}, with the element it was written in and a label for messages.
 *
 * @param lost the variables that were written in it but have no effect, because the factor they stand with is zero: for
 *     each index the text of that factor
 */
public record Equation(Term left, Term right, ElementId source, String label, Map<Integer, String> lost) {
    public Equation {
        lost = Map.copyOf(lost);
    }

    Term residual() {
        return Terms.minus(left, right);
    }
}
