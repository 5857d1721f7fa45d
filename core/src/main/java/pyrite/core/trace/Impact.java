package pyrite.core.trace;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/**
 * The elements that a change of some elements could affect: everything reached along links, upward or downward, in
 * layers.
 *
 * @param reached the distance of each element in links, negative upward, 0 for the changed elements
 * @param links the links of the chosen kinds among the reached elements
 * @param recheck the links that would need recheck after a change of a watched property of the elements
 */
public record Impact(Map<ElementId, Integer> reached, List<Link> links, List<Link> recheck) {

    /** @param kinds keys of the kinds to follow; empty for all but bare traces */
    public static Impact of(
            TraceGraph graph, List<Element> from, boolean up, boolean down, int depth, Set<String> kinds) {
        Model model = graph.model();
        List<ElementId> start = from.stream().map(Element::id).toList();
        Map<ElementId, Integer> reached = new LinkedHashMap<>();
        if (up) {
            graph.reach(start, true, depth, link -> isFollowed(link, kinds))
                    .forEach((id, far) -> reached.put(id, -far));
        }
        start.forEach(id -> reached.put(id, 0));
        if (down) {
            graph.reach(start, false, depth, link -> isFollowed(link, kinds)).forEach(reached::putIfAbsent);
        }
        Set<Link> links = new LinkedHashSet<>();
        reached.keySet()
                .forEach(id -> graph.of(id).stream()
                        .filter(link -> isFollowed(link, kinds)
                                && reached.containsKey(link.other(id))
                                && !Objects.equals(reached.get(link.other(id)), reached.get(id)))
                        .forEach(links::add));
        LinkRules rules = LinkRules.in(model);
        List<Link> recheck = new ArrayList<>();
        start.forEach(id -> graph.of(id).stream()
                .filter(link -> !rules.watched(link).isEmpty())
                .forEach(recheck::add));
        return new Impact(
                reached, List.copyOf(links), recheck.stream().distinct().toList());
    }

    private static boolean isFollowed(Link link, Set<String> kinds) {
        return kinds.isEmpty()
                ? !link.kind().equals(LinkKind.TRACE)
                : kinds.contains(link.kind().key());
    }
}
