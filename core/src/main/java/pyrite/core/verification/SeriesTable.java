package pyrite.core.verification;

import java.io.PrintWriter;
import java.util.List;

/** Recorded series as comma-separated values: {@code time [s]} first, then a column a series, in display units. */
public final class SeriesTable {
    private SeriesTable() {}

    public static void write(double[] times, List<CaseRun.Series> series, PrintWriter out) {
        StringBuilder line = new StringBuilder("time [s]");
        series.forEach(s -> line.append(',').append(quoted(s.heading())));
        out.print(line.append('\n'));
        for (int i = 0; i < times.length; i++) {
            line.setLength(0);
            line.append(times[i]);
            for (CaseRun.Series s : series) {
                line.append(',').append(s.values()[i]);
            }
            out.print(line.append('\n'));
        }
    }

    private static String quoted(String heading) {
        return heading.contains(",") || heading.contains("\"") ? "\"" + heading.replace("\"", "\"\"") + "\"" : heading;
    }
}
