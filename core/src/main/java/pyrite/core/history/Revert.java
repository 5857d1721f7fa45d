package pyrite.core.history;

import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Applies a difference to a head that may have moved on. Undo applies the inverse of an edit's difference. */
public sealed interface Revert {
    record Possible(Edit edit) implements Revert {}

    /**
     * The elements that are no longer in the state from which the difference starts, or were put below what it removes.
     */
    record Overtaken(List<ElementId> elements) implements Revert {}

    /** @param since what changed since the difference came about */
    static Revert on(Model head, Difference difference, Collection<ElementId> since) {
        Edit edit = Edit.of(difference);
        Set<ElementId> own =
                difference.changes().stream().map(ElementChange::id).collect(Collectors.toSet());
        List<ElementId> overtaken = difference.changes().stream()
                .flatMap(change -> Stream.concat(
                        isAsBefore(head, change) ? Stream.empty() : Stream.of(change.id()),
                        change.after() == null
                                ? head.children(change.id()).stream()
                                        .map(Element::id)
                                        .filter(child -> !own.contains(child))
                                : Stream.empty()))
                .toList();
        List<ElementId> inTheWay = Stream.concat(overtaken.stream(), Collision.saidAlready(head, since, edit).stream())
                .distinct()
                .toList();
        return inTheWay.isEmpty() ? new Possible(edit) : new Overtaken(inTheWay);
    }

    /** Its place among its siblings may be another: two cannot have the same, and the later one gave way. */
    private static boolean isAsBefore(Model head, ElementChange change) {
        Element now = head.find(change.id()).orElse(null);
        Element before = change.before();
        return now == null || before == null
                ? now == before
                : now.withOwner(now.owner(), before.rank()).equals(before);
    }
}
