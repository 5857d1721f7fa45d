package pyrite.core.execution;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * What took the time between two events of a run: the chain of events in which each follows from the one before, from
 * the later event back to the earlier. Where several had to come about, it goes over the last of them; who waited for a
 * pool is led back to who held it. Its parts add up to the time between its ends.
 *
 * @param from s
 * @param to s
 * @param hasBegin whether the chain leads back to the earlier event; if not, what comes after it does not follow from
 *     it
 */
public record CriticalPath(double from, double to, boolean hasBegin, List<Part> parts) {
    /** What time passes for. */
    public enum What {
        /** A step or a state goes on. */
        ACTIVE,
        /** An item is on the way. */
        ON_THE_WAY,
        /** A state waits for its time, or something for a condition or an item from outside. */
        WAITING
    }

    /**
     * A stretch of time for which one thing is responsible.
     *
     * @param subject the index among the subjects of the log
     * @param begin s
     * @param end s
     */
    public record Part(int subject, What what, double begin, double end) {
        public double took() {
            return end - begin;
        }
    }

    /** One end of what is looked at: the first time that something happened to a subject. */
    public record End(EventLog.Kind kind, int subject) {}

    public CriticalPath {
        parts = List.copyOf(parts);
    }

    /** Nothing if one of the events did not come about, or the later one did not come later. */
    public static Optional<CriticalPath> between(EventLog log, End begin, End end) {
        int first = find(log, begin);
        int last = find(log, end);
        return first < 0 || last < first ? Optional.empty() : Optional.of(back(log, first, last));
    }

    /** From the beginning of the run. */
    public static Optional<CriticalPath> upTo(EventLog log, End end) {
        int last = find(log, end);
        return last < 0 ? Optional.empty() : Optional.of(back(log, -1, last));
    }

    private static int find(EventLog log, End end) {
        for (int i = 0; i < log.size(); i++) {
            EventLog.Event event = log.get(i);
            if (event.subject() == end.subject() && event.kind() == end.kind()) {
                return i;
            }
        }
        return -1;
    }

    private static CriticalPath back(EventLog log, int first, int last) {
        double from = first < 0 ? 0 : log.get(first).time();
        List<Part> parts = new ArrayList<>();
        int at = last;
        while (at > first) {
            EventLog.Event event = log.get(at);
            double begin = event.cause() < 0 ? from : log.get(event.cause()).time();
            if (event.time() > Math.max(begin, from)) {
                parts.add(part(log, event, Math.max(begin, from)));
            }
            at = event.cause();
        }
        Collections.reverse(parts);
        return new CriticalPath(from, log.get(last).time(), at == first, parts);
    }

    private static Part part(EventLog log, EventLog.Event event, double begin) {
        What what = switch (event.kind()) {
            case ACCEPTED, DROPPED, LOST ->
                event.cause() >= 0 && log.get(event.cause()).kind() == EventLog.Kind.SENT
                        ? What.ON_THE_WAY
                        : What.WAITING;
            case ENDED -> What.ACTIVE;
            default -> What.WAITING;
        };
        return new Part(event.subject(), what, begin, event.time());
    }
}
