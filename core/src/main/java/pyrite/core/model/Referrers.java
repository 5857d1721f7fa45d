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
 * Who refers to each element, in a property or an expression. Made in one pass over all when somebody first asks, for
 * reading a text or loading a branch needs none of it; then taken from snapshot to snapshot at the cost of what an edit
 * changes.
 */
final class Referrers implements Following {
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
                                .goes(change.id()));
            }
            if (change.after() != null) {
                change.after()
                        .outgoing()
                        .forEach(target -> incoming.computeIfAbsent(target, _ -> new Incoming())
                                .come
                                .add(change.id()));
            }
        }
        return new Referrers(byTarget.with(
                incoming.size(),
                each -> incoming.forEach((target, change) -> each.accept(target, change.after(of(target))))));
    }

    /**
     * Who ceases and who begins to refer to an element; one that referred to it before and still does stands in both.
     */
    private static final class Incoming {
        private List<ElementId> gone = List.of();
        private final List<ElementId> come = new ArrayList<>(1);

        void goes(ElementId id) {
            gone = gone.isEmpty() ? new ArrayList<>(1) : gone;
            gone.add(id);
        }

        /** Few are copied at each change; many stand in a map that shares what stays. Null if there is none left. */
        @Nullable
        Set<ElementId> after(Set<ElementId> before) {
            if (before.isEmpty() && come.size() == 1) {
                return Set.of(come.getFirst());
            }
            if (before.size() + come.size() > FEW) {
                return ManyIds.after(before, gone, come);
            }
            Set<ElementId> users = new LinkedHashSet<>(before);
            gone.forEach(users::remove);
            users.addAll(come);
            return users.isEmpty() ? null : Collections.unmodifiableSet(users);
        }
    }
}
