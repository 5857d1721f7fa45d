package pyrite.app.runs;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.EventLog.Kind;

/**
 * Something in a run that nobody may have meant, though it is no error.
 *
 * @param kind the kind of its events
 * @param words how many there are, and of what
 */
public record Noticed(Kind kind, String words) {
    static List<Noticed> in(EventLog log) {
        Map<Kind, Integer> counts = log.counts();
        return Stream.of(
                        of(
                                counts,
                                Kind.LOST,
                                "item was sent to where nobody accepts it",
                                "items were sent to where nobody accepts them"),
                        of(
                                counts,
                                Kind.DROPPED,
                                "item came that no transition accepted",
                                "items came that no transition accepted"),
                        of(
                                counts,
                                Kind.OVERWRITTEN,
                                "value was assigned and replaced at the same instant by something else",
                                "values were assigned and replaced at the same instant by something else"))
                .flatMap(List::stream)
                .toList();
    }

    private static List<Noticed> of(Map<Kind, Integer> counts, Kind kind, String one, String many) {
        int count = counts.getOrDefault(kind, 0);
        return count == 0 ? List.of() : List.of(new Noticed(kind, count + " " + (count == 1 ? one : many)));
    }
}
