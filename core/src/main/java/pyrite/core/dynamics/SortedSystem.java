package pyrite.core.dynamics;

import java.util.List;

/**
 * A system in order of computation: each assignment computes one variable from earlier ones, the states and time.
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
