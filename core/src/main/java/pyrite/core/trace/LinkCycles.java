package pyrite.core.trace;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Detects requirements that derive from or refine each other in a cycle, so that each would be its own reason. */
final class LinkCycles {
    private static final Set<String> WITHOUT = Set.of(LinkKind.DERIVE, "refinement");

    private LinkCycles() {}

    /**
     * Says so if a link closes a circle, with the circle; empty if it does not. Breadth first, so the circle is a
     * shortest.
     */
    static String violation(Model model, Links links, Link link) {
        if (!WITHOUT.contains(link.kind().key())) {
            return "";
        }
        Map<ElementId, ElementId> cameFrom = new HashMap<>();
        Deque<ElementId> open = new ArrayDeque<>(List.of(link.target()));
        cameFrom.put(link.target(), link.source());
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            if (at.equals(link.source())) {
                return inWords(model, link, cameFrom);
            }
            links.of(at).stream()
                    .filter(each ->
                            each.kind().equals(link.kind()) && each.source().equals(at))
                    .map(Link::target)
                    .filter(next -> cameFrom.putIfAbsent(next, at) == null)
                    .forEach(open::add);
        }
        return "";
    }

    private static String inWords(Model model, Link link, Map<ElementId, ElementId> cameFrom) {
        List<ElementId> way = new ArrayList<>(List.of(link.source()));
        for (ElementId at = cameFrom.get(link.source());
                at != null && !at.equals(link.source());
                at = cameFrom.get(at)) {
            way.addFirst(at);
        }
        way.addFirst(link.source());
        LinkRules.Labelled names = new LinkRules.Labelled(model);
        return "this would close a circle: "
                + way.stream()
                        .map(model::get)
                        .map(names::of)
                        .collect(Collectors.joining(" " + link.kind().forward() + " "));
    }
}
