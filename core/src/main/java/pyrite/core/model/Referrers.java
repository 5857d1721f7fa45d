package pyrite.core.model;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The elements that refer to each element, in a property or an expression. Built in one pass on first use, because
 * reading a text or loading a branch does not need it; then updated from snapshot to snapshot at the cost of the edit.
 */
final class Referrers implements IncrementalIndex {
    private static final int FEW = 16;

    private final SnapshotMap<Set<ElementId>> byTarget;

    private Referrers(SnapshotMap<Set<ElementId>> byTarget) {
        this.byTarget = byTarget;
    }

    static Referrers in(Model model) {
        return model.derived(Referrers.class, Referrers::find);
    }

    private static Referrers find(Model model) {
        Referrers ofLibrary = model.library() == Model.EMPTY ? new Referrers(SnapshotMap.empty()) : in(model.library());
        return ofLibrary.after(model.ownElements().stream()
                .map(element -> new ElementChange(null, element))
                .toList());
    }

    /** The ids of the elements that refer to this one. */
    Set<ElementId> of(ElementId target) {
        Set<ElementId> found = byTarget.get(target);
        return found == null ? Set.of() : found;
    }

    @Override
    public @Nullable Referrers after(Model next, Difference difference) {
        return difference.changes().size() > next.size() / 2 ? null : after(difference.changes());
    }

    private Referrers after(List<ElementChange> changes) {
        Map<ElementId, Incoming> incoming = new HashMap<>();
        for (ElementChange change : changes) {
            if (change.before() != null) {
                change.before()
                        .outgoing()
                        .forEach(target -> incoming.computeIfAbsent(target, _ -> new Incoming())
                                .remove(change.id()));
            }
            if (change.after() != null) {
                change.after()
                        .outgoing()
                        .forEach(target -> incoming.computeIfAbsent(target, _ -> new Incoming())
                                .added
                                .add(change.id()));
            }
        }
        return new Referrers(byTarget.with(
                incoming.size(),
                each -> incoming.forEach((target, change) -> each.accept(target, change.after(of(target))))));
    }

    /** The elements that cease and begin to refer to an element. One that did before and still does is in both. */
    private static final class Incoming {
        private List<ElementId> removed = List.of();
        private final List<ElementId> added = new ArrayList<>(1);

        void remove(ElementId id) {
            removed = removed.isEmpty() ? new ArrayList<>(1) : removed;
            removed.add(id);
        }

        /** Few are copied at each change; many stand in a map that shares what stays. Null if there is none left. */
        @Nullable
        Set<ElementId> after(Set<ElementId> before) {
            if (before.isEmpty() && added.size() == 1) {
                return Set.of(added.getFirst());
            }
            if (before.size() + added.size() > FEW) {
                return SnapshotIdSet.after(before, removed, added);
            }
            Set<ElementId> users = new LinkedHashSet<>(before);
            removed.forEach(users::remove);
            users.addAll(added);
            return users.isEmpty() ? null : Collections.unmodifiableSet(users);
        }
    }
}
