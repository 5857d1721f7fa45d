package pyrite.core.verification;

import java.util.ArrayList;
import java.util.List;

/**
 * What to show with a verdict: the traces it looked at and the lines it held them against. All in display units of the
 * traces, times in s.
 */
public record VerdictPlot(List<Trace> traces, List<Line> lines) {
    public static final VerdictPlot NONE = new VerdictPlot(List.of(), List.of());

    /** A varying quantity, at the instants of the run's recording. */
    public record Trace(String label, String unit, double[] values) {}

    /** A value drawn over the trace of that label, or an instant ({@code DEADLINE}). */
    public record Line(Sense sense, String trace, double value) {}

    /**
     * Which side of a line is wrong: throughout, or {@code ONCE}, at an instant or on the whole, which says nothing of
     * the others.
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
