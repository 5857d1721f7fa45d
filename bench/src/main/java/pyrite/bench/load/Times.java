package pyrite.bench.load;

import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;

/** How long answers took, ms, by what was asked for. */
final class Times {
    private final Map<String, ConcurrentLinkedQueue<Double>> byKind = new ConcurrentHashMap<>();

    void add(String kind, long nanos) {
        byKind.computeIfAbsent(kind, _ -> new ConcurrentLinkedQueue<>()).add(nanos / 1e6);
    }

    /** A line for each kind and one for all whose name begins alike. */
    String table() {
        StringBuilder text =
                new StringBuilder("%-22s %7s %8s %8s %8s %n".formatted("ms", "number", "median", "p95", "most"));
        Map<String, double[]> rows = new TreeMap<>();
        byKind.forEach((kind, times) -> {
            rows.put(kind, sorted(times.stream().mapToDouble(each -> each).toArray()));
            rows.merge(kind.substring(0, kind.indexOf(' ')), rows.get(kind), Times::together);
        });
        rows.forEach((kind, times) -> text.append("%-22s %7d %8.0f %8.0f %8.0f %n"
                .formatted(kind, times.length, at(times, 0.5), at(times, 0.95), times[times.length - 1])));
        return text.toString();
    }

    private static double[] together(double[] one, double[] other) {
        double[] both = Arrays.copyOf(one, one.length + other.length);
        System.arraycopy(other, 0, both, one.length, other.length);
        return sorted(both);
    }

    private static double[] sorted(double[] times) {
        Arrays.sort(times);
        return times;
    }

    private static double at(double[] sorted, double share) {
        return sorted[(int) Math.min(sorted.length - 1L, Math.round(share * sorted.length))];
    }
}
