package pyrite.core.dynamics;

import java.util.List;
import java.util.Map;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.ElementId;

/**
 * A part tree as variables and equations.
 *
 * @param rates for each state's index the index of its derivative
 * @param relations the comparisons that switch something, by their mode index
 * @param relationLabels for messages, where each relation stands
 * @param constants attributes that do not change, by path
 */
public record FlatSystem(List<Variable> variables, List<Equation> equations, Map<Integer, Integer> rates,
        List<Condition.Relation> relations, List<String> relationLabels, Map<String, ConstantValue> constants) {

    /** An attribute that does not change: its value in coherent SI units. */
    public record ConstantValue(ElementId feature, double value, DisplayUnit unit) {
    }

    public FlatSystem {
        variables = List.copyOf(variables);
        equations = List.copyOf(equations);
        rates = Map.copyOf(rates);
        relations = List.copyOf(relations);
        relationLabels = List.copyOf(relationLabels);
    }
}
