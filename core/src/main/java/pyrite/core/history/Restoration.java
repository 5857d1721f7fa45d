package pyrite.core.history;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Restores an element to its state in an earlier snapshot, alone or with everything it owned. */
public sealed interface Restoration {
    record Possible(Edit edit) implements Restoration {}

    /** Its owner is removed too and has to be restored first. */
    record WithoutOwner(Element owner) implements Restoration {}

    /** The element as it was; what it owns stays as it is now. */
    static Restoration alone(Model now, Model then, ElementId id) {
        return withOwner(now, then, id, Edit.put(then.get(id)));
    }

    /**
     * The element as it was with all it owned, and nothing else below it: what was added since goes, but what was moved
     * in from elsewhere goes back to where it came from, as it is now.
     */
    static Restoration withAllItOwned(Model now, Model then, ElementId id) {
        List<Element> put = new ArrayList<>(then.subtree(id));
        Set<ElementId> requested = put.stream().map(Element::id).collect(Collectors.toSet());
        Set<ElementId> removed = new HashSet<>();
        now.subtree(id).stream()
                .filter(element -> !requested.contains(element.id()))
                .forEach(element -> {
                    Element before = then.find(element.id()).orElse(null);
                    if (before != null && (before.owner() == null || now.has(before.owner()))) {
                        put.add(element.withOwner(before.owner(), before.rank()));
                    } else {
                        removed.add(element.id());
                    }
                });
        return withOwner(now, then, id, new Edit(put, removed));
    }

    private static Restoration withOwner(Model now, Model then, ElementId id, Edit edit) {
        ElementId owner = then.get(id).owner();
        return owner == null || now.has(owner) ? new Possible(edit) : new WithoutOwner(then.get(owner));
    }
}
