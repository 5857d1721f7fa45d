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
 * @param size the largest size of such a value, or of a term of them, that has the dimension of both sides, SI: what
 *     their difference is to be compared with
 */
public record Equation(
        Term left,
        Term right,
        ElementId source,
        String label,
        Map<Integer, String> lost,
        List<String> given,
        double size) {
    public Equation {
        lost = Map.copyOf(lost);
        given = List.copyOf(given);
    }

    public Equation(Term left, Term right, ElementId source, String label, Map<Integer, String> lost) {
        this(left, right, source, label, lost, List.of(), 0);
    }

    Term residual() {
        return Terms.minus(left, right);
    }
}
