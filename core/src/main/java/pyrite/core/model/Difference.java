package pyrite.core.model;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/** Exactly what changed between two snapshots: at most one change an element, none of them empty. */
public record Difference(List<ElementChange> changes) {
    public Difference {
        changes = changes.stream().filter(change -> !change.isEmpty()).toList();
    }

    public boolean isEmpty() {
        return changes.isEmpty();
    }

    /** The difference that takes the second snapshot back to the first. */
    public Difference inverse() {
        return new Difference(
                changes.reversed().stream().map(ElementChange::inverse).toList());
    }

    public Set<ElementId> touched() {
        return changes.stream().map(ElementChange::id).collect(Collectors.toUnmodifiableSet());
    }
}
