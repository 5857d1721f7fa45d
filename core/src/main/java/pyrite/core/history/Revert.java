package pyrite.core.history;

import java.util.List;
import java.util.Objects;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Applies a difference to a head that may have moved on. Undo applies the inverse of an edit's difference. */
public sealed interface Revert {
    record Possible(Edit edit) implements Revert {}

    /** The elements that are no longer in the state from which the difference starts. */
    record Overtaken(List<ElementId> elements) implements Revert {}

    static Revert on(Model head, Difference difference) {
        List<ElementId> overtaken = difference.changes().stream()
                .filter(change -> !Objects.equals(head.find(change.id()).orElse(null), change.before()))
                .map(ElementChange::id)
                .toList();
        return overtaken.isEmpty() ? new Possible(Edit.of(difference)) : new Overtaken(overtaken);
    }
}
