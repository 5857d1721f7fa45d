package pyrite.core.dynamics;

import java.util.Arrays;

/**
 * The values of the variables that are constant between events, as they change from step to step of a trajectory; made
 * for millions of changes.
 */
final class HeldValues {
    private static final int FIRST_CAPACITY = 4;

    /** For each variable the steps from which it has another value; null for one that is not held. */
    private final int[][] steps;

    private final double[][] values;
    private final int[] counts;
    private final int[] held;

    /** @param isHeld for each variable of the system */
    HeldValues(boolean[] isHeld) {
        this.steps = new int[isHeld.length][];
        this.values = new double[isHeld.length][];
        this.counts = new int[isHeld.length];
        int count = 0;
        int[] found = new int[isHeld.length];
        for (int i = 0; i < isHeld.length; i++) {
            if (isHeld[i]) {
                steps[i] = new int[FIRST_CAPACITY];
                values[i] = new double[FIRST_CAPACITY];
                found[count++] = i;
            }
        }
        this.held = Arrays.copyOf(found, count);
    }

    boolean isHeld(int variable) {
        return steps[variable] != null;
    }

    /** From a step on, which is not before one that was given earlier. */
    void set(int variable, int step, double value) {
        int count = counts[variable];
        if (count > 0 && steps[variable][count - 1] == step) {
            values[variable][count - 1] = value;
            return;
        }
        if (count == steps[variable].length) {
            steps[variable] = Arrays.copyOf(steps[variable], count + count / 2);
            values[variable] = Arrays.copyOf(values[variable], count + count / 2);
        }
        steps[variable][count] = step;
        values[variable][count] = value;
        counts[variable] = count + 1;
    }

    /** During a step; not a number before the first value. */
    double at(int variable, int step) {
        int low = 0;
        int high = counts[variable];
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (steps[variable][middle] <= step) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low == 0 ? Double.NaN : values[variable][low - 1];
    }

    /** All of them during a step. */
    void into(int step, double[] v) {
        for (int variable : held) {
            v[variable] = at(variable, step);
        }
    }
}
