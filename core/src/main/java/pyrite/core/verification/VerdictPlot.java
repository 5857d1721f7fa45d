package pyrite.core.verification;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The plot that explains a verdict: the traces that were judged and the limits they were compared with, in display
 * units of the traces.
 *
 * @param times the instants of the traces, s; those of the run's recording that a screen can show
 */
public record VerdictPlot(double[] times, List<Trace> traces, List<Line> lines) {
    public static final VerdictPlot NONE = new VerdictPlot(new double[0], List.of(), List.of());

    /** Twice as many as the points across a large plot. */
    private static final int SLICES = 2000;

    /** A varying quantity, at the instants of the plot. */
    public record Trace(String label, String unit, double[] values) {}

    /** A limit drawn over the trace of that label, or an instant ({@code DEADLINE}). */
    public record Line(Sense sense, String trace, double value) {}

    /**
     * The forbidden side of a line: at every instant, or with {@code ONCE} only at one instant or over the whole run.
     */
    public enum Sense {
        UPPER,
        LOWER,
        UPPER_ONCE,
        LOWER_ONCE,
        TARGET,
        DEADLINE
    }

    public VerdictPlot {
        // Plots stored by earlier versions have none of their own.
        times = times == null ? new double[0] : times;
        traces = List.copyOf(traces);
        lines = List.copyOf(lines);
    }

    static VerdictPlot of(double[] times, Trace trace) {
        return new VerdictPlot(times, List.of(trace), List.of());
    }

    static VerdictPlot of(Line line) {
        return new VerdictPlot(new double[0], List.of(), List.of(line));
    }

    /** Both; their instants are those of one recording. */
    VerdictPlot and(VerdictPlot other) {
        List<Trace> allTraces = new ArrayList<>(traces);
        other.traces.stream()
                .filter(t -> allTraces.stream().noneMatch(own -> own.label().equals(t.label())))
                .forEach(allTraces::add);
        List<Line> allLines = new ArrayList<>(lines);
        other.lines.stream().filter(line -> !allLines.contains(line)).forEach(allLines::add);
        return new VerdictPlot(times.length > 0 ? times : other.times, allTraces, allLines);
    }

    /** With as many instants as can be seen, no peak left out, and without those at which a trace has no value. */
    VerdictPlot thinned() {
        List<double[]> columns = traces.stream().map(Trace::values).toList();
        int[] kept = Arrays.stream(
                        Decimation.indices(times, columns, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, SLICES))
                .filter(i -> columns.stream().allMatch(column -> Double.isFinite(column[i])))
                .toArray();
        return new VerdictPlot(
                at(kept, times),
                traces.stream()
                        .map(trace -> new Trace(trace.label(), trace.unit(), at(kept, trace.values())))
                        .toList(),
                lines);
    }

    /** Over the instants of the run's recording where it has none of its own. */
    public VerdictPlot over(double[] recorded) {
        return times.length == 0 && !traces.isEmpty() ? new VerdictPlot(recorded, traces, lines) : this;
    }

    private static double[] at(int[] places, double[] values) {
        return Arrays.stream(places).mapToDouble(i -> values[i]).toArray();
    }
}
