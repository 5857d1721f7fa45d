package pyrite.core.trace;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * Two sets of elements against each other. A cell is direct where a link of the chosen kind joins row and column,
 * implied where only a chain of links of any kind does, all upward or all downward.
 */
public record Matrix(List<Element> rows, List<Element> columns, List<Cells> cells) {
    /**
     * The cells of a row that are not empty, by column index.
     *
     * @param out columns that the row links to
     * @param in columns that link to the row
     */
    public record Cells(List<Integer> out, List<Integer> in, List<Integer> implied) {}

    /** @param implied whether to look for implied relations too */
    public static Matrix of(TraceGraph graph, List<Element> rows, List<Element> columns, String kind, boolean implied) {
        Map<ElementId, Integer> places = new HashMap<>();
        for (int i = 0; i < columns.size(); i++) {
            places.put(columns.get(i).id(), i);
        }
        return new Matrix(
                rows,
                columns,
                rows.stream()
                        .map(row -> cells(graph, row.id(), places, kind, implied))
                        .toList());
    }

    private static Cells cells(
            TraceGraph graph, ElementId row, Map<ElementId, Integer> places, String kind, boolean implied) {
        List<Integer> out = new ArrayList<>();
        List<Integer> in = new ArrayList<>();
        for (Link link : graph.of(row)) {
            Integer place = places.get(link.other(row));
            if (place != null && link.kind().key().equals(kind)) {
                (link.source().equals(row) ? out : in).add(place);
            }
        }
        List<Integer> far = new ArrayList<>();
        if (implied) {
            for (boolean up : new boolean[] {true, false}) {
                graph.reach(
                                List.of(row),
                                up,
                                Integer.MAX_VALUE,
                                link -> !link.kind().equals(LinkKind.TRACE))
                        .forEach((id, steps) -> {
                            Integer place = places.get(id);
                            if (place != null && steps > 1 && !out.contains(place) && !in.contains(place)) {
                                far.add(place);
                            }
                        });
            }
        }
        return new Cells(out, in, far.stream().distinct().toList());
    }
}
