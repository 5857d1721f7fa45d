package pyrite.core.trace;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.IncrementalIndex;
import pyrite.core.model.Model;
import pyrite.core.model.SnapshotMap;

/**
 * All links of a snapshot by their ends, for queries over many elements. Built in one pass over all link carriers, then
 * updated from snapshot to snapshot where possible. For the links of one element use {@link Links}.
 */
public final class TraceGraph implements IncrementalIndex {
    /** Of more changes than these the links are found anew. */
    private static final int FEW = 500;

    private final Model model;
    private final SnapshotMap<List<Link>> byEnd;
    private final int size;

    private TraceGraph(Model model, SnapshotMap<List<Link>> byEnd, int size) {
        this.model = model;
        this.byEnd = byEnd;
        this.size = size;
    }

    /** All links of a snapshot, found once. */
    public static TraceGraph of(Model model) {
        return model.derived(TraceGraph.class, TraceGraph::find);
    }

    private static TraceGraph find(Model model) {
        Links links = Links.in(model);
        Map<ElementId, List<Link>> byEnd = new HashMap<>();
        List<Link> all = model.ownElements(ElementKind.LINK_CARRIERS)
                .flatMap(carrier -> links.carriedBy(carrier).stream())
                .toList();
        all.forEach(link -> ends(link)
                .forEach(end ->
                        byEnd.computeIfAbsent(end, _ -> new ArrayList<>(4)).add(link)));
        return new TraceGraph(model, SnapshotMap.<List<Link>>empty().with(byEnd.size(), byEnd::forEach), all.size());
    }

    private static List<ElementId> ends(Link link) {
        return link.source().equals(link.target()) ? List.of(link.source()) : List.of(link.source(), link.target());
    }

    @Override
    public @Nullable TraceGraph after(Model next, Difference difference) {
        if (mayChangeOtherLinks(next, difference)) {
            return null;
        }
        Set<ElementId> carriers = new LinkedHashSet<>();
        difference
                .changes()
                .forEach(change -> Stream.of(Optional.ofNullable(change.before()), Optional.ofNullable(change.after()))
                        .flatMap(Optional::stream)
                        .filter(Links::isCarrier)
                        .forEach(element -> carriers.add(Links.carrier(element))));
        List<Link> removed = carried(model, carriers);
        List<Link> added = carried(next, carriers);
        Map<ElementId, List<Link>> changed = new HashMap<>();
        Function<ElementId, List<Link>> at = end -> changed.computeIfAbsent(end, id -> new ArrayList<>(of(id)));
        removed.forEach(link -> ends(link).forEach(end -> at.apply(end).remove(link)));
        added.forEach(link -> ends(link).forEach(end -> at.apply(end).add(link)));
        return new TraceGraph(next, byEnd.with(changed.size(), changed::forEach), size - removed.size() + added.size());
    }

    /**
     * Whether links hang on what changed that it does not carry: the kinds there are, and what stands around a carrier.
     */
    private boolean mayChangeOtherLinks(Model next, Difference difference) {
        return difference.changes().size() > FEW
                || !LinkKind.all(model).equals(LinkKind.all(next))
                || difference.changes().stream()
                        .anyMatch(change -> change.before() != null
                                && change.after() != null
                                && (change.before().kind() != change.after().kind()
                                        || !Objects.equals(
                                                change.before().owner(),
                                                change.after().owner())));
    }

    private static List<Link> carried(Model model, Set<ElementId> carriers) {
        Links links = Links.in(model);
        return carriers.stream()
                .flatMap(id -> model.find(id).stream())
                .flatMap(carrier -> links.carriedBy(carrier).stream())
                .toList();
    }

    public Model model() {
        return model;
    }

    /** How many links there are. */
    public int size() {
        return size;
    }

    /** All links, each once. */
    public Set<Link> links() {
        return byEnd.values().stream().flatMap(List::stream).collect(Collectors.toCollection(LinkedHashSet::new));
    }

    public List<Link> of(ElementId id) {
        List<Link> known = byEnd.get(id);
        return known == null ? List.of() : known;
    }

    public List<Link> up(ElementId id) {
        return of(id).stream().filter(link -> link.below().equals(id)).toList();
    }

    public List<Link> down(ElementId id) {
        return of(id).stream().filter(link -> link.above().equals(id)).toList();
    }

    /**
     * What can be reached from some elements, nearest first, with the number of links on a shortest way; the elements
     * themselves are left out.
     *
     * @param up whether to go to what they come from, or else to what realises them
     * @param depth how many links at most
     */
    public Map<ElementId, Integer> reach(List<ElementId> from, boolean up, int depth, Predicate<Link> by) {
        Map<ElementId, Integer> found = new LinkedHashMap<>();
        Deque<ElementId> open = new ArrayDeque<>(from);
        from.forEach(id -> found.put(id, 0));
        while (!open.isEmpty()) {
            ElementId at = open.remove();
            int next = Objects.requireNonNull(found.get(at)) + 1;
            if (next > depth) {
                continue;
            }
            for (Link link : of(at)) {
                ElementId other = up ? link.above() : link.below();
                if ((up ? link.below() : link.above()).equals(at)
                        && by.test(link)
                        && found.putIfAbsent(other, next) == null) {
                    open.add(other);
                }
            }
        }
        from.forEach(found::remove);
        return found;
    }
}
