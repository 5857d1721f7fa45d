package pyrite.core.dynamics;

import java.util.Arrays;

/** The values of all variables at the instants that a run keeps, coherent SI; made for millions of them. */
public final class Recording {
    private final double[] times;
    private final double[][] columns;

    private Recording(double[] times, double[][] columns) {
        this.times = times;
        this.columns = columns;
    }

    /** The instants, s, ascending; the same one twice where something switches. Not to be changed. */
    public double[] times() {
        return times;
    }

    /** One variable at all instants. Not to be changed. */
    public double[] column(int variable) {
        return columns[variable];
    }

    /** All variables at one of the instants. */
    public double[] row(int instant) {
        return Arrays.stream(columns).mapToDouble(column -> column[instant]).toArray();
    }

    /** Gathers a recording in the order of its instants. */
    static final class Builder {
        private static final int FIRST_CAPACITY = 64;

        private int count;
        private double[] times = new double[FIRST_CAPACITY];
        private final double[][] columns;

        Builder(int variables) {
            this.columns = new double[variables][FIRST_CAPACITY];
        }

        /** Whether everything so far is before an instant. */
        boolean isBefore(double t) {
            return count == 0 || times[count - 1] < t;
        }

        void add(double t, double[] row) {
            if (count == times.length) {
                resize(count + count / 2);
            }
            times[count] = t;
            for (int i = 0; i < columns.length; i++) {
                columns[i][count] = row[i];
            }
            count++;
        }

        Recording build() {
            resize(count);
            return new Recording(times, columns);
        }

        private void resize(int capacity) {
            times = Arrays.copyOf(times, capacity);
            for (int i = 0; i < columns.length; i++) {
                columns[i] = Arrays.copyOf(columns[i], capacity);
            }
        }
    }
}
