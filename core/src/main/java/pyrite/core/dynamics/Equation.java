package pyrite.core.dynamics;

import java.util.Map;
import pyrite.core.model.ElementId;

/**
 * {@code left == right}, with the element that states it and a label for messages.
 *
 * @param lost variables that the text mentions but that have no effect, because their factor is zero: for each index
 *     the text of that factor
 */
public record Equation(Term left, Term right, ElementId source, String label, Map<Integer, String> lost) {
    public Equation {
        lost = Map.copyOf(lost);
    }

    Term residual() {
        return Terms.minus(left, right);
    }
}
