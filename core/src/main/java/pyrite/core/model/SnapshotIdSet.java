package pyrite.core.model;

import java.util.AbstractSet;
import java.util.Collection;
import java.util.Iterator;
import java.util.Set;

/** A large immutable set of ids of which an edit changes few: a {@link SnapshotMap} seen as a set. */
final class SnapshotIdSet extends AbstractSet<ElementId> {
    private final SnapshotMap<ElementId> ids;

    private SnapshotIdSet(SnapshotMap<ElementId> ids) {
        this.ids = ids;
    }

    /** The ids of a set without those gone and with those come; who is in both stays. */
    static SnapshotIdSet after(Set<ElementId> before, Collection<ElementId> removed, Collection<ElementId> added) {
        SnapshotMap<ElementId> known = before instanceof SnapshotIdSet many
                ? many.ids
                : SnapshotMap.<ElementId>empty().with(before.size(), each -> before.forEach(id -> each.accept(id, id)));
        return new SnapshotIdSet(known.with(removed.size() + added.size(), each -> {
            removed.forEach(id -> each.accept(id, null));
            added.forEach(id -> each.accept(id, id));
        }));
    }

    @Override
    public boolean contains(Object id) {
        return id instanceof ElementId known && ids.get(known) != null;
    }

    @Override
    public Iterator<ElementId> iterator() {
        return ids.values().iterator();
    }

    @Override
    public int size() {
        return ids.size();
    }
}
