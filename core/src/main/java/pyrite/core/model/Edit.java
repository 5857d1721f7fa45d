package pyrite.core.model;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** A requested change: elements to add or replace, and elements to remove with all they own. */
public record Edit(List<Element> put, Set<ElementId> remove) {
    public Edit {
        put = List.copyOf(put);
        remove = Set.copyOf(remove);
    }

    public static Edit put(Element... elements) {
        return new Edit(List.of(elements), Set.of());
    }

    public static Edit remove(ElementId id) {
        return new Edit(List.of(), Set.of(id));
    }

    /** The edit that brings about a difference; used to undo and redo. */
    public static Edit of(Difference difference) {
        List<Element> put = new ArrayList<>();
        Set<ElementId> remove = new HashSet<>();
        difference.changes().forEach(change -> {
            if (change.after() == null) {
                remove.add(change.id());
            } else {
                put.add(change.after());
            }
        });
        return new Edit(put, remove);
    }

    /** Several edits that touch different elements as one; of two for the same element the later counts. */
    public static Edit joined(List<Edit> edits) {
        Map<ElementId, Element> put = new LinkedHashMap<>();
        Set<ElementId> removed = new HashSet<>();
        edits.forEach(edit -> {
            edit.put().forEach(element -> put.put(element.id(), element));
            removed.addAll(edit.remove());
        });
        return new Edit(List.copyOf(put.values()), removed);
    }

    /** The elements named by this edit; a removal also takes what the element owns. */
    public Set<ElementId> touched() {
        Set<ElementId> touched = new HashSet<>(remove);
        put.forEach(element -> touched.add(element.id()));
        return touched;
    }
}
