package pyrite.core.dynamics;

import java.util.Arrays;

/** How often each relation of a run has switched, and whether one does so without time passing. */
final class SwitchCounts {
    private static final int MOST_AT_ONCE = 50;

    /** Switches so little apart, s, count as at one instant. */
    private final double instant;

    private final int[] here;
    private final int[] inAll;
    private final double[] lastSwitches;
    private final double[] lastTurns;

    SwitchCounts(int relations, double instant) {
        this.instant = instant;
        this.here = new int[relations];
        this.inAll = new int[relations];
        this.lastSwitches = new double[relations];
        this.lastTurns = new double[relations];
        Arrays.fill(lastTurns, Double.NEGATIVE_INFINITY);
    }

    /** Counts a switch at t, s; false if there were too many of it at this instant. */
    boolean isProgress(int relation, double t) {
        boolean again = here[relation] > 0 && t - lastSwitches[relation] <= instant;
        here[relation] = again ? here[relation] + 1 : 1;
        lastSwitches[relation] = t;
        inAll[relation]++;
        return here[relation] <= MOST_AT_ONCE;
    }

    /**
     * Whether a relation that has just switched at t, s, may go back at once. What is at rest at a switch crosses it
     * with the noise of the integration and goes back; what switches without end does so again before any time has
     * passed.
     */
    boolean mayTurnBack(int relation, double t) {
        boolean first = t - lastTurns[relation] > instant;
        lastTurns[relation] = t;
        return first;
    }

    /** By relation, since the beginning of the run. */
    int[] inAll() {
        return inAll;
    }
}
