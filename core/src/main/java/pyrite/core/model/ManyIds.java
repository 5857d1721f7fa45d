package pyrite.core.model;

import java.util.AbstractSet;
import java.util.Collection;
import java.util.Iterator;
import java.util.Set;

/** A large immutable set of ids of which an edit changes few: a {@link SnapshotMap} seen as a set. */
final class ManyIds extends AbstractSet<ElementId> {
    private final SnapshotMap<ElementId> ids;

    private ManyIds(SnapshotMap<ElementId> ids) {
        this.ids = ids;
    }

    /** The ids of a set without those gone and with those come; who is in both stays. */
    static ManyIds after(Set<ElementId> before, Collection<ElementId> gone, Collection<ElementId> come) {
        SnapshotMap<ElementId> known = before instanceof ManyIds many
                ? many.ids
                : SnapshotMap.<ElementId>empty().with(before.size(), each -> before.forEach(id -> each.accept(id, id)));
        return new ManyIds(known.with(gone.size() + come.size(), each -> {
            gone.forEach(id -> each.accept(id, null));
            come.forEach(id -> each.accept(id, id));
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
