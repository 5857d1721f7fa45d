package pyrite.app.runs;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Subject;
import pyrite.core.verification.CaseRun;

/**
 * The rows of a timeline that no step or state has: how much of each pool is held, how many wait for it, and when items
 * were on the way.
 */
record ValueRows(EventLog log, double ends, double[] times, List<CaseRun.Series> series) {
    private static final Pattern OBSERVED = Pattern.compile("(used|queue)\\((.+)\\)");
    private static final Pattern ITEM = Pattern.compile("^(\\S+) (\\d+)");

    /** Of a log alone: items, but no pools. */
    static ValueRows ofItems(EventLog log, double ends) {
        return new ValueRows(log, ends, new double[0], List.of());
    }

    /** Whether a series is drawn as a row. */
    static boolean isRow(String path) {
        return OBSERVED.matcher(path).matches();
    }

    List<TimelinePicture.Row> of(double from, double to, int slices) {
        List<TimelinePicture.Row> rows = new ArrayList<>();
        for (CaseRun.Series each : series) {
            Matcher observed = OBSERVED.matcher(each.path());
            if (observed.matches()) {
                boolean isQueue = observed.group(1).equals("queue");
                String pool = observed.group(2);
                rows.add(new TimelinePicture.Row(
                        -1,
                        isQueue ? "QUEUE" : "POOL",
                        pool.substring(pool.lastIndexOf('.') + 1)
                                + (isQueue
                                        ? ", waiting"
                                        : ", held" + (each.unit().isEmpty() ? "" : " [" + each.unit() + "]")),
                        pool,
                        Subject.before(pool),
                        0,
                        each.feature().toString(),
                        bars(each.values(), from, to, (to - from) / slices)));
            }
        }
        rows.addAll(items(from, to));
        return rows;
    }

    /** The stretches over which a value is more than nothing; what is too narrow to be seen is drawn with the next. */
    private List<List<Object>> bars(double[] values, double from, double to, double slice) {
        List<List<Object>> bars = new ArrayList<>();
        double begin = 0;
        double end = 0;
        double most = 0;
        int count = 0;
        for (int i = 0; i + 1 < times.length; i++) {
            double value = values[i];
            boolean isSeen = times[i + 1] >= from && times[i] <= to && value > 0 && times[i + 1] > times[i];
            boolean joins = count > 0 && times[i] <= end && (value == most || end - begin < slice);
            if (isSeen && joins) {
                end = times[i + 1];
                count += value == most ? 0 : 1;
                most = Math.max(most, value);
            } else {
                if (count > 0 && (isSeen || times[i + 1] > end)) {
                    bars.add(List.of(begin, end, "HELD", count, most));
                    count = 0;
                }
                if (isSeen) {
                    begin = times[i];
                    end = times[i + 1];
                    most = value;
                    count = 1;
                }
            }
        }
        if (count > 0) {
            bars.add(List.of(begin, end, "HELD", count, most));
        }
        return bars;
    }

    /** For each kind of item, from when one was sent to when it was accepted. */
    private List<TimelinePicture.Row> items(double from, double to) {
        Map<String, Double> sent = new HashMap<>();
        Map<String, List<List<Object>>> byType = new LinkedHashMap<>();
        Map<String, String> elements = new HashMap<>();
        for (int i = 0; i < log.size(); i++) {
            EventLog.Event event = log.get(i);
            Matcher item = ITEM.matcher(event.detail());
            if (!item.find()) {
                continue;
            }
            if (event.kind() == EventLog.Kind.SENT) {
                sent.put(item.group(), event.time());
                elements.putIfAbsent(
                        item.group(1),
                        log.subjects().get(event.subject()).element().toString());
            } else if (event.kind() == EventLog.Kind.ACCEPTED || event.kind() == EventLog.Kind.DROPPED) {
                Double begun = sent.remove(item.group());
                add(byType, item.group(1), begun == null ? event.time() : begun, event.time(), from, to);
            }
        }
        sent.forEach((item, begun) -> add(byType, item.substring(0, item.indexOf(' ')), begun, ends, from, to));
        return byType.entrySet().stream()
                .map(entry -> new TimelinePicture.Row(
                        -1,
                        "ITEM",
                        entry.getKey(),
                        entry.getKey(),
                        "Items on the way",
                        0,
                        elements.getOrDefault(entry.getKey(), ""),
                        entry.getValue()))
                .toList();
    }

    private static void add(
            Map<String, List<List<Object>>> byType, String type, double begin, double end, double from, double to) {
        List<List<Object>> bars = byType.computeIfAbsent(type, _ -> new ArrayList<>());
        if (end >= from && begin <= to && bars.size() < MOST_ITEMS) {
            bars.add(List.of(begin, end, "WAITS", 1));
        }
    }

    private static final int MOST_ITEMS = 2_000;
}
