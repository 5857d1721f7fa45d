package pyrite.core.dynamics;

import java.util.List;

/**
 * A system ready to be computed: each assignment gives one variable from those before it, the states and time.
 *
 * @param assignments for all algebraic variables and rates, in order
 */
public record SortedSystem(FlatSystem flat, List<Assignment> assignments) {
    /** {@code variable = term}, from the equation it was solved from. */
    public record Assignment(int variable, Term term, Equation origin) {}

    public SortedSystem {
        assignments = List.copyOf(assignments);
    }
}
