package pyrite.core.history;

import java.util.List;
import java.util.Objects;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Brings about a difference on a head that may have moved on: undoing is bringing about the inverse. */
public sealed interface Revert {
    record Possible(Edit edit) implements Revert {}

    /** Elements that are no longer what the difference starts from. */
    record Overtaken(List<ElementId> elements) implements Revert {}

    static Revert on(Model head, Difference difference) {
        List<ElementId> overtaken = difference.changes().stream()
                .filter(change -> !Objects.equals(head.find(change.id()).orElse(null), change.before()))
                .map(ElementChange::id)
                .toList();
        return overtaken.isEmpty() ? new Possible(Edit.of(difference)) : new Overtaken(overtaken);
    }
}
