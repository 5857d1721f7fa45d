package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * When each step and state of a run was active or waited, as bars; found once from the events. For a picture, bars that
 * are narrower than a slice of it are drawn together, so that a row never has more than so many.
 */
public final class Timeline {
    private final EventLog log;
    private final double end;
    private final List<List<Bar>> rows = new ArrayList<>();

    /** What a bar says. */
    public enum State {
        ACTIVE,
        WAITS,
        QUEUED
    }

    /**
     * A stretch of time.
     *
     * @param from s
     * @param to s
     * @param count how many bars are drawn as this one
     */
    public record Bar(double from, double to, State state, int count) {}

    /** @param end the last instant of the run, s: what goes on there has no end yet */
    public Timeline(EventLog log, double end) {
        this.log = log;
        this.end = end;
        log.subjects().forEach(_ -> rows.add(new ArrayList<>()));
        read();
    }

    private record Open(double since, State state) {}

    private void read() {
        Map<Long, Open> open = new HashMap<>();
        for (int i = 0; i < log.size(); i++) {
            EventLog.Event event = log.get(i);
            long key = (long) event.subject() << 32 | event.occasion();
            switch (event.kind()) {
                case STARTED, ENTERED -> turn(open, key, event, State.ACTIVE);
                case WAITS -> turn(open, key, event, State.WAITS);
                case QUEUED -> turn(open, key, event, State.QUEUED);
                case ENDED, CUT, LEFT -> close(open.remove(key), event.subject(), event.time());
                default -> {}
            }
        }
        open.forEach((key, left) -> close(left, (int) (key >> 32), end));
        rows.forEach(row -> row.sort((a, b) -> Double.compare(a.from(), b.from())));
    }

    private void turn(Map<Long, Open> open, long key, EventLog.Event event, State state) {
        Open before = open.put(key, new Open(event.time(), state));
        if (before != null && before.since() < event.time()) {
            close(before, event.subject(), event.time());
        }
    }

    private void close(@org.jspecify.annotations.Nullable Open open, int subject, double time) {
        if (open != null) {
            rows.get(subject).add(new Bar(open.since(), time, open.state(), 1));
        }
    }

    /** All bars of a subject. */
    public List<Bar> bars(int subject) {
        return rows.get(subject);
    }

    /**
     * What can be seen of a subject between two instants in a picture of so many slices.
     *
     * @param from s
     * @param to s
     */
    public List<Bar> bars(int subject, double from, double to, int slices) {
        double slice = (to - from) / slices;
        List<Bar> seen = new ArrayList<>();
        for (Bar bar : rows.get(subject)) {
            if (bar.to() < from || bar.from() > to) {
                continue;
            }
            Bar last = seen.isEmpty() ? null : seen.getLast();
            boolean isNarrow = bar.to() - bar.from() < slice;
            boolean joins = last != null
                    && isNarrow
                    && (last.count() > 1 || last.to() - last.from() < slice)
                    && bar.from() - last.to() < slice;
            if (joins && last != null) {
                seen.set(
                        seen.size() - 1,
                        new Bar(
                                last.from(),
                                Math.max(last.to(), bar.to()),
                                last.state() == bar.state() ? last.state() : State.ACTIVE,
                                last.count() + 1));
            } else {
                seen.add(bar);
            }
        }
        return seen;
    }
}
