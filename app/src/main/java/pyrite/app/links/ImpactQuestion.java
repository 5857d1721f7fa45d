package pyrite.app.links;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.trace.Impact;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceTable;

/**
 * A query about the impact of a change.
 *
 * @param of ids of elements or requirements, or names, separated by commas or spaces
 * @param way {@code up}, {@code down} or both
 * @param depth the greatest number of links
 * @param kind kinds to follow; empty for all except bare traces
 */
record ImpactQuestion(
        @Nullable String of,
        @Nullable String way,
        @Nullable Integer depth,
        @Nullable Set<String> kind) {
    private static final int USUAL_DEPTH = 3;

    // Spring binds what the address leaves out as null; the accessors give what holds then.

    @Override
    public String of() {
        return Objects.requireNonNullElse(of, "");
    }

    @Override
    public String way() {
        return Objects.requireNonNullElse(way, "both");
    }

    @Override
    public Integer depth() {
        return Math.clamp(Objects.requireNonNullElse(depth, USUAL_DEPTH), 1, TraceTable.FARTHEST);
    }

    @Override
    public Set<String> kind() {
        return kind == null ? Set.of() : kind;
    }

    /** The elements found, and the names that match nothing. */
    record Named(List<Element> elements, List<String> unknown) {}

    Named named(Workspace.Head head) {
        List<String> asked = Arrays.stream(of().split("[,\\s]+"))
                .filter(each -> !each.isEmpty())
                .distinct()
                .toList();
        Map<String, Element> found = asked.isEmpty() ? Map.of() : byName(head.model(), new HashSet<>(asked));
        asked.forEach(each ->
                ElementId.read(each).flatMap(head.model()::find).ifPresent(element -> found.put(each, element)));
        return new Named(
                asked.stream().filter(found::containsKey).map(found::get).toList(),
                asked.stream().filter(each -> !found.containsKey(each)).toList());
    }

    /** Elements by their short names, else by their names. */
    private static Map<String, Element> byName(Model model, Set<String> requested) {
        Map<String, Element> found = new HashMap<>();
        for (Element element : model.ownElements()) {
            if (element.shortName() != null && requested.contains(element.shortName())) {
                found.put(element.shortName(), element);
            } else if (element.name() != null && requested.contains(element.name())) {
                found.putIfAbsent(element.name(), element);
            }
        }
        return found;
    }

    Impact answer(TraceGraph graph, List<Element> from) {
        return Impact.of(graph, from, !way().equals("down"), !way().equals("up"), depth(), kind());
    }
}
