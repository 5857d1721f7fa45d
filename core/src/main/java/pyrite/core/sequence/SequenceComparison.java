package pyrite.core.sequence;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What was recorded beside what happens now, step by step. The order counts on each lifeline (SysML 2.0, 7.9: events
 * are ordered by the occurrence they happen in); between lifelines the instants do.
 *
 * @param tolerance so far, s, may instants be from each other
 */
public record SequenceComparison(List<Row> rows, double tolerance) {
    private static final double SAME_CONTENT = 1e-6;

    /** How a step differs. */
    public enum Difference {
        NONE,
        TIME,
        CONTENT,
        /** It was accepted and now is not, or the other way round. */
        OUTCOME,
        MISSING,
        ADDED
    }

    /** One step on both sides; null on the side where it does not happen. */
    public record Row(
            @Nullable SequenceStep recorded, @Nullable SequenceStep now, Difference difference) {
        /** Where it stands in time, s. */
        public double at() {
            return recorded != null && now != null
                    ? Math.min(recorded.at(), now.at())
                    : recorded != null ? recorded.at() : now == null ? Double.NaN : now.at();
        }
    }

    /** @param now all that was noted of the run */
    public static SequenceComparison of(Sequence recorded, List<SequenceStep> now) {
        Map<String, List<SequenceStep>> expected = byLifeline(recorded.steps());
        Map<String, List<SequenceStep>> happened = byLifeline(counted(recorded, now));
        Set<String> lifelines = new LinkedHashSet<>(expected.keySet());
        lifelines.addAll(happened.keySet());
        List<Row> rows = new ArrayList<>();
        for (String lifeline : lifelines) {
            List<SequenceStep> one = expected.getOrDefault(lifeline, List.of());
            List<SequenceStep> other = happened.getOrDefault(lifeline, List.of());
            rows.addAll(
                    recorded.isComplete()
                            ? aligned(one, other, recorded.tolerance())
                            : found(one, other, recorded.tolerance()));
        }
        rows.sort(Comparator.comparingDouble(Row::at));
        return new SequenceComparison(List.copyOf(rows), recorded.tolerance());
    }

    private static Map<String, List<SequenceStep>> byLifeline(List<SequenceStep> steps) {
        Map<String, List<SequenceStep>> byLifeline = new LinkedHashMap<>();
        steps.forEach(step ->
                byLifeline.computeIfAbsent(step.part(), _ -> new ArrayList<>()).add(step));
        return byLifeline;
    }

    /** What the recording is about: messages between its parts, and the steps and states of parts it has any of. */
    private static List<SequenceStep> counted(Sequence recorded, List<SequenceStep> now) {
        Set<String> parts = new HashSet<>();
        Set<String> turning = new HashSet<>();
        double last = 0;
        for (SequenceStep step : recorded.steps()) {
            parts.add(step.part());
            last = Math.max(last, step.at());
            if (step instanceof SequenceStep.Message message) {
                parts.add(message.from());
            } else if (step instanceof SequenceStep.Turn) {
                turning.add(step.part());
            }
        }
        parts.add("");
        return now.stream()
                .filter(step -> switch (step) {
                    case SequenceStep.Message message ->
                        parts.contains(message.from()) && parts.contains(message.part());
                    case SequenceStep.Turn turn -> turning.contains(turn.part());
                    case SequenceStep.Setting _ -> true;
                })
                .toList();
    }

    private static List<Row> aligned(List<SequenceStep> recorded, List<SequenceStep> now, double tolerance) {
        List<Row> rows = new ArrayList<>();
        int one = 0;
        int other = 0;
        List<AbstractDelta<String>> deltas =
                DiffUtils.diff(labels(recorded), labels(now)).getDeltas();
        for (AbstractDelta<String> delta : deltas) {
            while (one < delta.getSource().getPosition()) {
                rows.add(row(recorded.get(one++), now.get(other++), tolerance));
            }
            for (int i = 0; i < delta.getSource().size(); i++) {
                rows.add(new Row(recorded.get(one++), null, Difference.MISSING));
            }
            for (int i = 0; i < delta.getTarget().size(); i++) {
                rows.add(new Row(null, now.get(other++), Difference.ADDED));
            }
        }
        while (one < recorded.size()) {
            rows.add(row(recorded.get(one++), now.get(other++), tolerance));
        }
        return rows;
    }

    private static List<String> labels(List<SequenceStep> steps) {
        return steps.stream().map(SequenceStep::label).toList();
    }

    /** Each recorded step in what happens, in this order, whatever happens between. */
    private static List<Row> found(List<SequenceStep> recorded, List<SequenceStep> now, double tolerance) {
        List<Row> rows = new ArrayList<>();
        int from = 0;
        for (SequenceStep step : recorded) {
            int place = place(step, now, from, tolerance);
            rows.add(place < 0 ? new Row(step, null, Difference.MISSING) : row(step, now.get(place), tolerance));
            from = Math.max(from, place + 1);
        }
        return rows;
    }

    /** The first that is the same in everything, else the first with the same label; -1 if there is none. */
    private static int place(SequenceStep step, List<SequenceStep> now, int from, double tolerance) {
        int similar = -1;
        for (int i = from; i < now.size(); i++) {
            if (now.get(i).label().equals(step.label())) {
                if (row(step, now.get(i), tolerance).difference() == Difference.NONE) {
                    return i;
                }
                similar = similar < 0 ? i : similar;
            }
        }
        return similar;
    }

    private static Row row(SequenceStep recorded, SequenceStep now, double tolerance) {
        return new Row(recorded, now, difference(recorded, now, tolerance));
    }

    private static Difference difference(SequenceStep recorded, SequenceStep now, double tolerance) {
        if (recorded instanceof SequenceStep.Message one && now instanceof SequenceStep.Message other) {
            if (!isSame(one.content(), other.content())) {
                return Difference.CONTENT;
            }
            if (one.isAccepted() != other.isAccepted()) {
                return Difference.OUTCOME;
            }
        }
        // What is written in decimals is not exactly what was computed.
        double rounding = 1e-9 * Math.max(1, Math.abs(recorded.at()));
        return Math.abs(recorded.at() - now.at()) <= tolerance + rounding ? Difference.NONE : Difference.TIME;
    }

    private static boolean isSame(List<SequenceStep.Content> one, List<SequenceStep.Content> other) {
        if (one.size() != other.size()) {
            return false;
        }
        for (int i = 0; i < one.size(); i++) {
            double a = one.get(i).value();
            double b = other.get(i).value();
            double far = Math.abs(a - b);
            if (!one.get(i).name().equals(other.get(i).name())
                    || !(far <= SAME_CONTENT * Math.max(Math.abs(a), Math.abs(b)) || Double.compare(a, b) == 0)) {
                return false;
            }
        }
        return true;
    }

    public boolean follows() {
        return first().isEmpty();
    }

    /** The earliest difference. */
    public Optional<Row> first() {
        return rows.stream().filter(row -> row.difference() != Difference.NONE).findFirst();
    }

    /** How it stands, in one sentence with both sides of the first difference. */
    public String sentence() {
        return first().map(this::sentence).orElseGet(() -> "happens as recorded, all " + rows.size() + " steps");
    }

    private String sentence(Row row) {
        String instant = "differs from the recording at t = " + SequenceNotes.number(row.at()) + " s: ";
        SequenceStep recorded = row.recorded();
        SequenceStep now = row.now();
        if (recorded == null) {
            return instant + "now " + (now == null ? "" : now.words()) + ", which was not recorded";
        }
        String was = "recorded is " + recorded.words();
        if (now == null) {
            return instant + was + ", which does not happen now" + instead(recorded);
        }
        return instant
                + switch (row.difference()) {
                    case TIME ->
                        was + " at " + SequenceNotes.number(recorded.at()) + " s, now it is at "
                                + SequenceNotes.number(now.at()) + " s, more than " + SequenceNotes.number(tolerance)
                                + " s away";
                    default -> was + ", now " + now.words();
                };
    }

    /** What the part does at about that time that was not recorded. */
    private String instead(SequenceStep missing) {
        return rows.stream()
                .filter(row -> row.difference() == Difference.ADDED)
                .flatMap(row -> Optional.ofNullable(row.now()).stream())
                .filter(step -> step.part().equals(missing.part()))
                .min(Comparator.comparingDouble(step -> Math.abs(step.at() - missing.at())))
                .map(step -> "; instead " + step.words() + " at " + SequenceNotes.number(step.at()) + " s")
                .orElse("");
    }
}
