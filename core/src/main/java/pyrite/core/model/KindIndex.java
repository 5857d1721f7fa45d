package pyrite.core.model;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The project's own elements of a snapshot by kind. Built in one pass, then updated from snapshot to snapshot at the
 * cost of the edit.
 */
final class KindIndex implements IncrementalIndex {
    private final Map<ElementKind, SnapshotMap<Element>> byKind;

    private KindIndex(Map<ElementKind, SnapshotMap<Element>> byKind) {
        this.byKind = byKind;
    }

    static KindIndex of(Model model) {
        return new KindIndex(Map.of())
                .after(model.ownElements().stream()
                        .map(element -> new ElementChange(null, element))
                        .toList());
    }

    @Override
    public KindIndex after(Model next, Difference difference) {
        return after(difference.changes());
    }

    private KindIndex after(List<ElementChange> changes) {
        Map<ElementKind, Map<ElementId, @Nullable Element>> changed = new EnumMap<>(ElementKind.class);
        for (ElementChange change : changes) {
            if (change.before() != null) {
                changed.computeIfAbsent(change.before().kind(), _ -> new HashMap<>())
                        .put(change.id(), null);
            }
            if (change.after() != null) {
                changed.computeIfAbsent(change.after().kind(), _ -> new HashMap<>())
                        .put(change.id(), change.after());
            }
        }
        Map<ElementKind, SnapshotMap<Element>> next = new EnumMap<>(ElementKind.class);
        next.putAll(byKind);
        changed.forEach((kind, each) -> next.merge(
                kind,
                SnapshotMap.<Element>empty().with(each.size(), each::forEach),
                (before, _) -> before.with(each.size(), each::forEach)));
        return new KindIndex(next);
    }

    List<Element> of(ElementKind kind) {
        SnapshotMap<Element> known = byKind.get(kind);
        return known == null ? List.of() : known.values();
    }
}
