package pyrite.core.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jgrapht.Graph;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DefaultDirectedGraph;
import org.jgrapht.graph.DefaultEdge;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.expression.Referent;

/**
 * Finds fixed values that depend on each other in a cycle. The dependencies of a value are searched once for all values
 * that share them, so the time is linear in the length of chains and cycles.
 */
final class ValueCycles {
    /** Among more values than these that all rest on each other, one circle is told and not one for each. */
    private static final int MANY = 50;

    private final Model model;
    private final Comparator<Element> byName;
    /** Elements that are in no circle. */
    private final Set<ElementId> free = new HashSet<>();
    /** Of elements that rest on each other, the circles among them. */
    private final Map<ElementId, List<List<Element>>> rings = new HashMap<>();

    ValueCycles(Model model) {
        this.model = model;
        this.byName = Comparator.comparing(model.names()::qualifiedName).thenComparing(Element::id);
    }

    /** The circles whose first element by name this is, each from it on along the shortest way back to it. */
    List<List<Element>> reportedAt(Element element) {
        List<Element> named = isSettled(element) ? List.of() : namedIn(element);
        if (!named.isEmpty() && !comesToAnEnd(element, named)) {
            settleAllFrom(element);
        }
        List<List<Element>> around = rings.isEmpty() ? List.of() : rings.getOrDefault(element.id(), List.of());
        return around.isEmpty()
                ? around
                : around.stream()
                        .filter(circle -> isSame(circle.getFirst(), element))
                        .toList();
    }

    private boolean isSettled(Element element) {
        return free.contains(element.id()) || !rings.isEmpty() && rings.containsKey(element.id());
    }

    /** A value on the current path, with the dependencies still to be searched. */
    private record Step(Element at, Iterator<Element> ahead) {}

    /** Whether nothing that a value rests on, step by step, goes in a circle that is not known yet. */
    private boolean comesToAnEnd(Element start, List<Element> namedInIt) {
        Set<ElementId> onTheWay = new HashSet<>();
        ArrayDeque<Step> way = new ArrayDeque<>();
        enter(start, namedInIt, way, onTheWay);
        while (!way.isEmpty()) {
            Step step = way.peek();
            Element next = step.ahead().hasNext() ? step.ahead().next() : null;
            if (next == null) {
                free.add(way.pop().at().id());
            } else if (!isSettled(next)) {
                if (onTheWay.contains(next.id())) {
                    return false;
                }
                enter(next, namedIn(next), way, onTheWay);
            }
        }
        return true;
    }

    private void enter(Element at, List<Element> named, ArrayDeque<Step> way, Set<ElementId> onTheWay) {
        if (named.isEmpty()) {
            free.add(at.id());
        } else {
            onTheWay.add(at.id());
            way.push(new Step(at, named.iterator()));
        }
    }

    /** Finds for an element and all that its value rests on which of them rest on each other. */
    private void settleAllFrom(Element start) {
        Graph<Element, DefaultEdge> graph = new DefaultDirectedGraph<>(DefaultEdge.class);
        ArrayDeque<Element> open = new ArrayDeque<>(List.of(start));
        graph.addVertex(start);
        while (!open.isEmpty()) {
            Element at = open.poll();
            namedIn(at).stream().filter(next -> !isSettled(next)).forEach(next -> {
                if (graph.addVertex(next)) {
                    open.add(next);
                }
                graph.addEdge(at, next);
            });
        }
        for (Set<Element> together : new KosarajuStrongConnectivityInspector<>(graph).stronglyConnectedSets()) {
            Element one = together.iterator().next();
            if (together.size() > 1 || graph.containsEdge(one, one)) {
                List<List<Element>> circles = circlesAmong(together);
                together.forEach(each -> rings.put(each.id(), circles));
            } else {
                free.add(one.id());
            }
        }
    }

    private List<List<Element>> circlesAmong(Set<Element> together) {
        List<Element> starts = together.stream()
                .sorted(byName)
                .limit(together.size() > MANY ? 1 : MANY)
                .toList();
        Map<Set<Element>, List<Element>> found = new LinkedHashMap<>();
        for (Element start : starts) {
            List<Element> circle = shortest(start, together);
            Collections.rotate(circle, -circle.indexOf(Collections.min(circle, byName)));
            found.putIfAbsent(Set.copyOf(circle), circle);
        }
        return List.copyOf(found.values());
    }

    private static boolean isSame(Element one, Element other) {
        return one.id().equals(other.id());
    }

    private List<Element> shortest(Element start, Set<Element> among) {
        Map<ElementId, Element> cameFrom = new HashMap<>();
        ArrayDeque<Element> open = new ArrayDeque<>(List.of(start));
        while (!open.isEmpty()) {
            Element at = open.poll();
            for (Element next : namedIn(at)) {
                if (isSame(next, start)) {
                    List<Element> circle = new ArrayList<>();
                    for (Element step = at; step != null; step = cameFrom.get(step.id())) {
                        circle.addFirst(step);
                    }
                    return circle;
                }
                if (among.contains(next) && cameFrom.putIfAbsent(next.id(), at) == null) {
                    open.add(next);
                }
            }
        }
        throw new IllegalStateException("who rests on each other does so in circles");
    }

    /** The usages and units that a fixed value names directly. */
    private List<Element> namedIn(Element element) {
        FeatureValue value = element.get(Property.VALUE).orElse(null);
        if (value == null || value.kind().isInitial()) {
            return List.of();
        }
        List<Element> named = new ArrayList<>(0);
        value.expression().walk(part -> {
            Referent referent = switch (part) {
                case FeatureReference r when r.chain().size() == 1 -> r.last();
                case UnitReference unit -> unit.unit();
                default -> null;
            };
            if (referent instanceof ElementId id && !model.isLibrary(id)) {
                model.find(id).filter(e -> e.kind().isUsage()).ifPresent(named::add);
            }
        });
        return named;
    }
}
