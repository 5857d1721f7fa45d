package pyrite.core.trace;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * All links of a snapshot by their ends, for questions about many elements; made in one pass over the elements. For those
 * about one element ask {@link Links}.
 */
public final class TraceGraph {
    private final Model model;
    private final Map<ElementId, List<Link>> byEnd;
    private final int size;

    private TraceGraph(Model model, Map<ElementId, List<Link>> byEnd, int size) {
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
        int size = 0;
        for (Element element : model.ownElements()) {
            if (!Links.isCarrier(element) || element.kind() == ElementKind.CONNECTOR_END) {
                continue;
            }
            for (Link link : links.carriedBy(element)) {
                byEnd.computeIfAbsent(link.source(), _ -> new ArrayList<>(4)).add(link);
                if (!link.source().equals(link.target())) {
                    byEnd.computeIfAbsent(link.target(), _ -> new ArrayList<>(4)).add(link);
                }
                size++;
            }
        }
        return new TraceGraph(model, byEnd, size);
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
        return byEnd.getOrDefault(id, List.of());
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
            ElementId at = open.poll();
            int next = found.get(at) + 1;
            if (next > depth) {
                continue;
            }
            for (Link link : of(at)) {
                ElementId other = up ? link.above() : link.below();
                if ((up ? link.below() : link.above()).equals(at) && by.test(link) && found.putIfAbsent(other, next) == null) {
                    open.add(other);
                }
            }
        }
        from.forEach(found::remove);
        return found;
    }
}
