package pyrite.app.runs;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Subject;
import pyrite.core.execution.Timeline;

/**
 * What a page draws of a timeline: the rows in which something happened, with the bars that can be seen.
 *
 * @param begins the first instant there is, s
 * @param ends the last
 * @param from the first that is shown
 * @param to the last
 * @param cut whether there are more rows
 */
record TimelinePicture(double begins, double ends, double from, double to, boolean cut, List<Row> rows) {
    private static final int MOST_SLICES = 5_000;
    private static final int MOST_ROWS = 400;

    /**
     * @param part the part that performs it
     * @param depth how many steps and states are around it
     * @param bars each from, to, state, and how many are drawn as one; of a pool or queue also the greatest value in it
     */
    record Row(
            int subject,
            String kind,
            String name,
            String path,
            String part,
            int depth,
            String element,
            List<List<Object>> bars) {
        Row under(String heading) {
            return new Row(subject, kind, name, path, heading, depth, element, bars);
        }

        private Row leadingTo(UnaryOperator<String> elements) {
            return new Row(subject, kind, name, path, part, depth, elements.apply(element), bars);
        }
    }

    /** What is looked at: from and to in s, and how many points wide the picture is. */
    record Window(double from, double to, int slices) {}

    /**
     * Which rows are wanted, and how they stand.
     *
     * @param text what the paths of the rows have in them
     * @param kind of what rows there are: step, state, pool or item; empty for all
     * @param group whether rows stand by part or by kind
     */
    record Wanted(String text, String kind, String group) {
        private boolean isOf(String row) {
            return kind.isEmpty() || kind.equalsIgnoreCase(row) || kind.equals("pool") && row.equals("QUEUE");
        }

        private boolean isByKind() {
            return group.equals("kind");
        }

        private Row placed(Row row) {
            return isByKind() ? row.under(HEADINGS.getOrDefault(row.kind(), row.kind())) : row;
        }
    }

    /** With rows that lead to other elements than those that happened. */
    TimelinePicture leadingTo(UnaryOperator<String> elements) {
        List<Row> led = rows.stream().map(row -> row.leadingTo(elements)).toList();
        return new TimelinePicture(begins, ends, from, to, cut, led);
    }

    private static final Map<String, String> HEADINGS =
            Map.of("STEP", "Steps", "STATE", "States", "POOL", "Pools", "QUEUE", "Queues", "ITEM", "Items");

    static TimelinePicture of(EventLog log, double begins, double ends, Window window, Wanted wanted, ValueRows more) {
        Timeline timeline = new Timeline(log, ends);
        double from = Math.max(window.from(), begins);
        double to = Math.min(window.to(), ends);
        int slices = Math.clamp(window.slices(), 1, MOST_SLICES);
        String text = wanted.text().strip().toLowerCase(Locale.ROOT);
        SortedSet<Integer> shown = shown(log.subjects(), timeline, text);
        shown.removeIf(i -> !wanted.isOf(log.subjects().get(i).kind().name()));
        List<Row> rows = new ArrayList<>();
        shown.forEach(i -> rows.add(row(log.subjects(), i, shown, wanted, timeline.bars(i, from, to, slices))));
        more.of(from, to, slices).stream()
                .filter(row -> wanted.isOf(row.kind())
                        && (row.path() + " " + row.name())
                                .toLowerCase(Locale.ROOT)
                                .contains(text))
                .forEach(rows::add);
        List<Row> placed = rows.stream().map(wanted::placed).collect(Collectors.toCollection(ArrayList::new));
        // Rows of one heading stand together; within it in the order in which they were found.
        List<String> headings = placed.stream().map(Row::part).distinct().toList();
        placed.sort(Comparator.comparingInt(row -> headings.indexOf(row.part())));
        boolean isCut = placed.size() > MOST_ROWS;
        return new TimelinePicture(
                begins, ends, from, to, isCut, isCut ? List.copyOf(placed.subList(0, MOST_ROWS)) : placed);
    }

    /** Those in which something happened and whose path has the text in it, with what is around them. */
    private static SortedSet<Integer> shown(List<Subject> subjects, Timeline timeline, String text) {
        SortedSet<Integer> shown = new TreeSet<>();
        for (int i = 0; i < subjects.size(); i++) {
            if (!timeline.bars(i).isEmpty()
                    && subjects.get(i).path().toLowerCase(Locale.ROOT).contains(text)) {
                for (int at = i; at >= 0; at = subjects.get(at).parent()) {
                    shown.add(at);
                }
            }
        }
        return shown;
    }

    /** Named and set in by the rows that it stands below. */
    private static Row row(
            List<Subject> subjects, int index, Set<Integer> shown, Wanted wanted, List<Timeline.Bar> bars) {
        Subject subject = subjects.get(index);
        List<Subject> above = new ArrayList<>();
        for (int at = subject.parent(); at >= 0; at = subjects.get(at).parent()) {
            if (shown.contains(at) && (!wanted.isByKind() || subjects.get(at).kind() == subject.kind())) {
                above.add(subjects.get(at));
            }
        }
        return new Row(
                index,
                subject.kind().name(),
                name(subject.path(), around(subjects, index, above, wanted)),
                subject.path(),
                Subject.part(subjects, index),
                above.size(),
                subject.element().toString(),
                bars.stream()
                        .map(bar -> List.<Object>of(
                                bar.from(), bar.to(), bar.state().name(), bar.count()))
                        .toList());
    }

    /** What a row's name need not tell: the row above it, its part, or, among rows of many parts, all but the last. */
    private static String around(List<Subject> subjects, int index, List<Subject> above, Wanted wanted) {
        if (!above.isEmpty()) {
            return above.getFirst().path();
        }
        return wanted.isByKind()
                ? Subject.before(Subject.before(subjects.get(index).path()))
                : Subject.part(subjects, index);
    }

    private static String name(String path, String around) {
        return path.startsWith(around + ".") ? path.substring(around.length() + 1) : path;
    }
}
