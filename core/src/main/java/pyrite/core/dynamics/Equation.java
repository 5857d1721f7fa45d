package pyrite.core.dynamics;

import java.util.List;
import java.util.Map;
import pyrite.core.model.ElementId;

/**
 * {@code left == right}, with the element that states it and a label for messages.
 *
 * @param lost variables that the text mentions but that have no effect, because their factor is zero: for each index
 *     the text of that factor
 * @param given the values that it was computed from, such as {@code area = 2 m^2}, where nothing is left in it that
 *     could vary
 */
public record Equation(
        Term left, Term right, ElementId source, String label, Map<Integer, String> lost, List<String> given) {
    public Equation {
        lost = Map.copyOf(lost);
        given = List.copyOf(given);
    }

    public Equation(Term left, Term right, ElementId source, String label, Map<Integer, String> lost) {
        this(left, right, source, label, lost, List.of());
    }

    Term residual() {
        return Terms.minus(left, right);
    }
}
