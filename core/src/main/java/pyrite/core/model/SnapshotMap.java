package pyrite.core.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import org.organicdesign.fp.collections.ImMap;
import org.organicdesign.fp.collections.MutMap;
import org.organicdesign.fp.collections.PersistentHashMap;

/**
 * An immutable map by element: a plain hash map as the base, shared by many snapshots and never modified, and a
 * persistent hash trie of the changes since. Lookups are as fast as in a hash map while there are few changes. When the
 * changes reach a quarter of the base, both are merged into a new base, which adds a constant amortised cost to each
 * change.
 */
public final class SnapshotMap<V> {
    private static final Object REMOVED = new Object();
    private static final int FEW = 256;

    /** Always of one class, so that looking up in it is compiled into who asks. */
    private final HashMap<ElementId, V> ground;

    private final ImMap<ElementId, Object> since;
    /** Whether nothing has changed since; asked before each look into it. */
    private final boolean isGround;

    private final int size;

    private SnapshotMap(HashMap<ElementId, V> ground, ImMap<ElementId, Object> since, int size) {
        this.ground = ground;
        this.since = since;
        this.isGround = since.isEmpty();
        this.size = size;
    }

    public static <V> SnapshotMap<V> empty() {
        return new SnapshotMap<>(new HashMap<>(0), PersistentHashMap.empty(), 0);
    }

    @SuppressWarnings("unchecked")
    public @Nullable V get(ElementId id) {
        if (isGround) {
            return ground.get(id);
        }
        Object changed = since.get(id);
        return changed == null ? ground.get(id) : changed == REMOVED ? null : (V) changed;
    }

    public int size() {
        return size;
    }

    /** All values, in no particular order. */
    public List<V> values() {
        if (isGround) {
            return new ArrayList<>(ground.values());
        }
        List<V> all = new ArrayList<>(size);
        // Asked once for each of the ground: a plain set answers quicker than the trie.
        Set<ElementId> changed = HashSet.newHashSet(since.size());
        since.forEach(entry -> changed.add(entry.getKey()));
        ground.forEach((id, value) -> {
            if (!changed.contains(id)) {
                all.add(value);
            }
        });
        addChanged(all);
        return all;
    }

    @SuppressWarnings("unchecked")
    private void addChanged(List<V> all) {
        since.values().stream().filter(value -> value != REMOVED).forEach(value -> all.add((V) value));
    }

    /**
     * The changes of a map: passes each id with its new value, or null to remove it. If an id occurs twice, the later
     * entry wins.
     */
    public interface Changes<V> {
        void forEach(BiConsumer<ElementId, @Nullable V> each);
    }

    /** This map after changes, of which there are {@code count}. */
    public SnapshotMap<V> with(int count, Changes<V> changes) {
        if (count == 0) {
            return this;
        }
        return since.size() + count > FEW + ground.size() / 4 ? newGround(count, changes) : onTop(changes);
    }

    private SnapshotMap<V> onTop(Changes<V> changes) {
        MutMap<ElementId, Object> changed = since.mutable();
        int[] grown = {size};
        changes.forEach((id, value) -> {
            grown[0] += (value == null ? 0 : 1) - (isIn(changed, id) ? 1 : 0);
            changed.assoc(id, value == null ? REMOVED : value);
        });
        return new SnapshotMap<>(ground, changed.immutable(), grown[0]);
    }

    private boolean isIn(MutMap<ElementId, Object> changed, ElementId id) {
        Object now = changed.get(id);
        return now == null ? ground.containsKey(id) : now != REMOVED;
    }

    @SuppressWarnings("unchecked")
    private SnapshotMap<V> newGround(int count, Changes<V> changes) {
        HashMap<ElementId, V> all = HashMap.newHashMap(size + count);
        all.putAll(ground);
        since.forEach(entry -> {
            if (entry.getValue() == REMOVED) {
                all.remove(entry.getKey());
            } else {
                all.put(entry.getKey(), (V) entry.getValue());
            }
        });
        changes.forEach((id, value) -> {
            if (value == null) {
                all.remove(id);
            } else {
                all.put(id, value);
            }
        });
        return new SnapshotMap<>(all, PersistentHashMap.empty(), all.size());
    }
}
