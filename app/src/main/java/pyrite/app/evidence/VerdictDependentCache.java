package pyrite.app.evidence;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;

/**
 * Caches a value that is computed from a snapshot and the current verdicts on it. Keeps the most recent snapshots and
 * recomputes after a new verdict.
 */
public final class VerdictDependentCache<T> {
    private static final int MOST_KEPT = 4;

    private final Verdicts verdicts;
    private final BiFunction<Workspace.Head, Map<ElementId, List<VerdictView>>, T> make;
    private final Cache<Key, Kept<T>> kept =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    private record Key(long branch, int number) {}

    private record Kept<T>(Map<ElementId, List<VerdictView>> judged, T made) {}

    public VerdictDependentCache(
            Verdicts verdicts, BiFunction<Workspace.Head, Map<ElementId, List<VerdictView>>, T> make) {
        this.verdicts = verdicts;
        this.make = make;
    }

    public T of(Workspace.Head head) {
        Key key = new Key(head.branch().id(), head.number());
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        Kept<T> known = kept.getIfPresent(key);
        if (known == null || known.judged() != judged) {
            known = new Kept<>(judged, make.apply(head, judged));
            kept.put(key, known);
        }
        return known.made();
    }
}
