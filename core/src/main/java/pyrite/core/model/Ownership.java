package pyrite.core.model;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The members of each owner in a snapshot, ordered by rank. An edit copies the list of the siblings it touches and
 * shares all others.
 *
 * @param roots elements without an owner
 */
record Ownership(SnapshotMap<List<Element>> byOwner, List<Element> roots) {
    static final Ownership NONE = new Ownership(SnapshotMap.empty(), List.of());

    private static int order(Element one, Element other) {
        int byRank = one.rank().compareTo(other.rank());
        return byRank == 0 ? one.id().compareTo(other.id()) : byRank;
    }

    List<Element> of(ElementId owner) {
        List<Element> members = byOwner.get(owner);
        return members == null ? List.of() : members;
    }

    Ownership after(List<ElementChange> changes) {
        Members top = new Members();
        Map<ElementId, Members> members = HashMap.newHashMap(changes.size() / 4);
        for (ElementChange change : changes) {
            if (change.before() != null) {
                at(change.before().owner(), members, top).remove(change.id());
            }
            if (change.after() != null) {
                at(change.after().owner(), members, top).added.add(change.after());
            }
        }
        return new Ownership(
                byOwner.with(
                        members.size(),
                        each -> members.forEach((owner, change) -> each.accept(owner, change.after(of(owner))))),
                top.after(roots));
    }

    private static Members at(@Nullable ElementId owner, Map<ElementId, Members> members, Members top) {
        return owner == null ? top : members.computeIfAbsent(owner, _ -> new Members());
    }

    /** The changes among the members of one owner. */
    private static final class Members {
        private Set<ElementId> removed = Set.of();
        private final List<Element> added = new ArrayList<>(4);

        void remove(ElementId id) {
            removed = removed.isEmpty() ? new HashSet<>() : removed;
            removed.add(id);
        }

        /** The members after the change, in their order. */
        List<Element> after(List<Element> before) {
            if (before.isEmpty()) {
                added.sort(Ownership::order);
                return Collections.unmodifiableList(added);
            }
            List<Element> all = new ArrayList<>(before.size() + added.size());
            before.stream().filter(element -> !removed.contains(element.id())).forEach(all::add);
            all.addAll(added);
            all.sort(Ownership::order);
            return Collections.unmodifiableList(all);
        }
    }
}
