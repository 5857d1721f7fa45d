package pyrite.core.verification;

import java.util.ArrayList;
import java.util.List;

/**
 * The plot that explains a verdict: the traces that were judged and the limits they were compared with, in display
 * units of the traces, times in s.
 */
public record VerdictPlot(List<Trace> traces, List<Line> lines) {
    public static final VerdictPlot NONE = new VerdictPlot(List.of(), List.of());

    /** A varying quantity, at the instants of the run's recording. */
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
        traces = List.copyOf(traces);
        lines = List.copyOf(lines);
    }

    VerdictPlot and(VerdictPlot other) {
        List<Trace> allTraces = new ArrayList<>(traces);
        other.traces.stream()
                .filter(t -> allTraces.stream().noneMatch(own -> own.label().equals(t.label())))
                .forEach(allTraces::add);
        List<Line> allLines = new ArrayList<>(lines);
        other.lines.stream().filter(line -> !allLines.contains(line)).forEach(allLines::add);
        return new VerdictPlot(allTraces, allLines);
    }
}
