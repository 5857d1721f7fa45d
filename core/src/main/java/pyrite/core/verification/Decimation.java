package pyrite.core.verification;

import java.util.List;
import java.util.TreeSet;

/**
 * Chooses the instants at which series are drawn: few enough for a screen, without losing a peak. The instants are
 * divided into equal slices; each slice keeps the instants at which some series is lowest or highest, and the first and
 * last of all are kept. Linear in the number of values.
 */
public final class Decimation {
    private Decimation() {}

    /**
     * @param times in s, ascending
     * @param columns each as long as {@code times}
     * @param from in s, and {@code to}: instants outside are left out but for the next on either side
     * @param slices 1 or more; at most 2 · slices · columns + 2 instants are kept
     * @return indices into {@code times}, ascending
     */
    public static int[] indices(double[] times, List<double[]> columns, double from, double to, int slices) {
        if (slices < 1) {
            throw new IllegalArgumentException("at least one slice, not " + slices);
        }
        int first = Math.max(0, place(times, from) - 1);
        int end = Math.min(times.length, place(times, Math.nextUp(to)) + 1);
        if (first >= end) {
            return new int[0];
        }
        TreeSet<Integer> kept = new TreeSet<>(List.of(first, end - 1));
        int length = Math.max(1, Math.ceilDiv(end - first, slices));
        for (int start = first; start < end; start += length) {
            int stop = Math.min(end, start + length);
            if (length == 1 || columns.isEmpty()) {
                kept.add(start);
            }
            for (double[] column : columns) {
                kept.add(extreme(column, start, stop, 1));
                kept.add(extreme(column, start, stop, -1));
            }
        }
        return kept.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The first place whose instant is not before a time. */
    private static int place(double[] times, double time) {
        int found = java.util.Arrays.binarySearch(times, time);
        int at = found >= 0 ? found : -found - 1;
        while (at > 0 && at < times.length && times[at - 1] == time) {
            at--;
        }
        return at;
    }

    private static int extreme(double[] column, int start, int stop, int sign) {
        int best = start;
        for (int i = start + 1; i < stop; i++) {
            if (sign * column[i] > sign * column[best]) {
                best = i;
            }
        }
        return best;
    }
}
