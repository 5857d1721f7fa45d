package pyrite.core.dynamics;

import java.util.List;

/**
 * A step may reach a little beyond the instant at which a condition switches. There the branch that is taken may have
 * no value, such as the root of a level just below nothing; then the branch that the condition asks for is taken.
 */
final class BranchGuard {
    private final Kernel kernel;
    private final List<Condition.Relation> relations;
    private final int[] computed;

    BranchGuard(SortedSystem system, Kernel kernel) {
        this.kernel = kernel;
        this.relations = system.flat().relations();
        this.computed = system.assignments().stream()
                .mapToInt(SortedSystem.Assignment::variable)
                .toArray();
    }

    /**
     * The modes in which each relation holds where its margin says so.
     *
     * @param v the variables, of which some may not be finite
     * @param modes the modes in which they were computed; they stay where a margin is not a number
     */
    boolean[] asked(double t, double[] v, boolean[] modes) {
        double[] margins = new double[modes.length];
        kernel.margins(t, v, modes, margins);
        boolean[] asked = modes.clone();
        for (int i = 0; i < modes.length; i++) {
            asked[i] = Double.isNaN(margins[i]) ? modes[i] : relations.get(i).holds(margins[i]);
        }
        return asked;
    }

    /** A computed variable without a finite value; -1 if there is none. */
    int notFinite(double[] v) {
        for (int variable : computed) {
            if (!Double.isFinite(v[variable])) {
                return variable;
            }
        }
        return -1;
    }
}
