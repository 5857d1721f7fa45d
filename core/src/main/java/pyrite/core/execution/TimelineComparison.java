package pyrite.core.execution;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;

/** Where the timelines of runs part: the steps and states that were not active, or waited, at other times in one. */
public final class TimelineComparison {
    /** Rounding of instants is no difference; relative to the time compared. */
    private static final double SAME = 1e-9;

    private TimelineComparison() {}

    /** @param end the last instant of the run, s */
    public record Ran(EventLog log, double end) {}

    /**
     * What one step or state did in one run, over the time that all runs have.
     *
     * @param times how often it was active
     * @param active s in all
     * @param waited s in all, for arrivals and for pools
     */
    public record Course(int times, double active, double waited) {
        static Course of(List<Timeline.Bar> bars) {
            int times = 0;
            double active = 0;
            double waited = 0;
            for (Timeline.Bar bar : bars) {
                if (bar.state() == Timeline.State.ACTIVE) {
                    times++;
                    active += bar.to() - bar.from();
                } else {
                    waited += bar.to() - bar.from();
                }
            }
            return new Course(times, active, waited);
        }
    }

    /**
     * @param element what it is in the first run that has it
     * @param at the instant at which two runs first differ in it, s
     * @param courses null where a run has no such step or state
     */
    public record Parted(String path, ElementId element, double at, List<@Nullable Course> courses) {}

    private record Row(ElementId element, List<Timeline.Bar> bars) {}

    /**
     * Those that differ, the first to differ first.
     *
     * @param within what a path is compared by
     */
    public static List<Parted> of(List<Ran> runs, UnaryOperator<String> within) {
        double end = runs.stream().mapToDouble(Ran::end).min().orElse(0);
        List<Map<String, Row>> rows =
                runs.stream().map(run -> rows(run, end, within)).toList();
        Set<String> paths = new LinkedHashSet<>();
        rows.forEach(run -> paths.addAll(run.keySet()));
        return paths.stream()
                .map(path -> parted(
                        path,
                        rows.stream().<@Nullable Row>map(run -> run.get(path)).toList(),
                        end))
                .filter(parted -> parted.at() < Double.POSITIVE_INFINITY)
                .sorted(Comparator.comparingDouble(Parted::at).thenComparing(Parted::path))
                .toList();
    }

    private static Map<String, Row> rows(Ran run, double end, UnaryOperator<String> within) {
        Timeline timeline = new Timeline(run.log(), run.end());
        List<Subject> subjects = run.log().subjects();
        Map<String, Row> rows = new LinkedHashMap<>();
        for (int i = 0; i < subjects.size(); i++) {
            List<Timeline.Bar> bars = timeline.bars(i).stream()
                    .filter(bar -> bar.from() <= end)
                    .map(bar -> new Timeline.Bar(bar.from(), Math.min(bar.to(), end), bar.state(), bar.count()))
                    .toList();
            if (!bars.isEmpty()) {
                rows.putIfAbsent(
                        within.apply(subjects.get(i).path()),
                        new Row(subjects.get(i).element(), bars));
            }
        }
        return rows;
    }

    private static Parted parted(String path, List<@Nullable Row> runs, double end) {
        double at = Double.POSITIVE_INFINITY;
        List<@Nullable Course> courses = new ArrayList<>();
        List<Timeline.Bar> first = bars(runs.getFirst());
        for (Row row : runs) {
            courses.add(row == null ? null : Course.of(row.bars()));
            at = Math.min(at, parting(first, bars(row), SAME * Math.max(end, 1)));
        }
        ElementId element =
                runs.stream().filter(Objects::nonNull).findFirst().orElseThrow().element();
        return new Parted(path, element, at, courses);
    }

    private static List<Timeline.Bar> bars(@Nullable Row row) {
        return row == null ? List.of() : row.bars();
    }

    private static double parting(List<Timeline.Bar> one, List<Timeline.Bar> other, double same) {
        int common = Math.min(one.size(), other.size());
        for (int i = 0; i < common; i++) {
            Timeline.Bar a = one.get(i);
            Timeline.Bar b = other.get(i);
            if (a.state() != b.state() || Math.abs(a.from() - b.from()) > same) {
                return Math.min(a.from(), b.from());
            }
            if (Math.abs(a.to() - b.to()) > same) {
                return Math.min(a.to(), b.to());
            }
        }
        List<Timeline.Bar> longer = one.size() > common ? one : other;
        return longer.size() > common ? longer.get(common).from() : Double.POSITIVE_INFINITY;
    }
}
