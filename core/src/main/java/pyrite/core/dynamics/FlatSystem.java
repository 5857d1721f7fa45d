package pyrite.core.dynamics;

import java.util.List;
import java.util.Map;

/**
 * A part tree as variables and equations.
 *
 * @param rates for each state's index the index of its derivative
 * @param relations the comparisons that switch something, by their mode index
 * @param relationLabels for messages, where each relation stands
 */
public record FlatSystem(
        List<Variable> variables,
        List<Equation> equations,
        Map<Integer, Integer> rates,
        List<Condition.Relation> relations,
        List<String> relationLabels) {

    public FlatSystem {
        variables = List.copyOf(variables);
        equations = List.copyOf(equations);
        rates = Map.copyOf(rates);
        relations = List.copyOf(relations);
        relationLabels = List.copyOf(relationLabels);
    }
}
