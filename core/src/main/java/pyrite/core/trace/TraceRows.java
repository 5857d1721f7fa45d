package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.RequirementIds;

/**
 * The rows of a trace table for one element, so nested that every way can be read: a column whose path goes on from
 * that of a column before it shows, beside each element of that, only what is found from there.
 */
public final class TraceRows {
    /** So many ways to one element are told. */
    private static final int MOST_WAYS = 4;

    private final TraceTable table;
    private final TraceGraph graph;
    private final int most;
    private int left;
    private final List<List<Cell>> rows = new ArrayList<>();

    private TraceRows(TraceTable table, TraceGraph graph, int most, int mostInAll) {
        this.table = table;
        this.graph = graph;
        this.most = most;
        this.left = mostInAll;
    }

    /** What is found at one place of the table, with what goes on from it. */
    private record Branch(Element found, List<List<Element>> through, List<Column> further, int height) {}

    /** What a column finds from one place; {@code more} are left out. */
    private record Column(int index, List<Branch> found, int more, int height) {}

    /**
     * A cell that begins in a row.
     *
     * @param column the index of the column
     * @param span over so many rows
     * @param found what is found; null where nothing is, or no more
     * @param through the ways to it, each by what lies between it and what it is found from; one that is empty where
     *     nothing does
     * @param more so many found are not shown
     */
    public record Cell(int column, int span, @Nullable Element found, List<List<Element>> through, int more) {}

    /**
     * The rows for an element, one at least; each has the cells that begin in it, by column. There may be as many ways
     * as the product of what each step finds, so their number is limited.
     *
     * @param most so many are shown of what a column finds from one place
     * @param mostInAll so many are shown of what all columns find
     */
    public static List<List<Cell>> of(TraceTable table, TraceGraph graph, ElementId start, int most, int mostInAll) {
        TraceRows made = new TraceRows(table, graph, most, mostInAll);
        List<Column> columns = made.further(-1, start);
        int height = height(columns);
        IntStream.range(0, height).forEach(_ -> made.rows.add(new ArrayList<>()));
        made.place(columns, 0, height);
        made.rows.forEach(row -> row.sort(Comparator.comparingInt(Cell::column)));
        return made.rows;
    }

    /** How many found elements some rows do not show. */
    public static int leftOut(List<List<Cell>> rows) {
        return rows.stream().flatMap(List::stream).mapToInt(Cell::more).sum();
    }

    /** In each row what every column shows there, that of a cell over several rows in each of them. */
    public static List<List<@Nullable Element>> filled(List<List<Cell>> rows, int columns) {
        List<List<@Nullable Element>> filled = new ArrayList<>();
        rows.forEach(_ -> filled.add(new ArrayList<>(java.util.Collections.nCopies(columns, null))));
        for (int at = 0; at < rows.size(); at++) {
            for (Cell cell : rows.get(at)) {
                for (int row = at; row < at + cell.span(); row++) {
                    filled.get(row).set(cell.column(), cell.found());
                }
            }
        }
        return filled;
    }

    /** The column that another one goes on from: the last one before it with the beginning of its path; else -1. */
    private int before(int column) {
        List<TraceTable.Step> steps = table.columns().get(column).steps();
        for (int other = column - 1; other >= 0; other--) {
            List<TraceTable.Step> beginning = table.columns().get(other).steps();
            if (beginning.size() < steps.size()
                    && steps.subList(0, beginning.size()).equals(beginning)) {
                return other;
            }
        }
        return -1;
    }

    private List<Integer> nested(int column) {
        return IntStream.range(0, table.columns().size())
                .filter(each -> before(each) == column)
                .boxed()
                .toList();
    }

    /** What a column finds from an element of the column it goes on from, with the ways there, in the order of ids. */
    private Map<Element, List<List<Element>>> found(int column, ElementId from) {
        int before = before(column);
        List<TraceTable.Step> steps = table.columns().get(column).steps();
        int known = before < 0 ? 0 : table.columns().get(before).steps().size();
        Map<ElementId, List<List<ElementId>>> at = Map.of(from, List.of(List.of()));
        for (TraceTable.Step step : steps.subList(known, steps.size())) {
            at = onward(step, at, from);
        }
        Map<Element, List<List<Element>>> inOrder = new LinkedHashMap<>();
        Map<ElementId, List<List<ElementId>>> all = at;
        RequirementIds.sorted(graph.model(), all.keySet().stream().map(graph.model()::get))
                .forEach(element -> inOrder.put(
                        element,
                        all.getOrDefault(element.id(), List.of()).stream()
                                .map(way -> way.stream().map(graph.model()::get).toList())
                                .toList()));
        return inOrder;
    }

    /** Goes one step on from each element, with what the ways lead through. */
    private Map<ElementId, List<List<ElementId>>> onward(
            TraceTable.Step step, Map<ElementId, List<List<ElementId>>> ways, ElementId start) {
        Map<ElementId, List<List<ElementId>>> found = new LinkedHashMap<>();
        ways.forEach((at, until) -> step.from(graph, at).forEach((next, between) -> {
            List<List<ElementId>> all = found.computeIfAbsent(next, _ -> new ArrayList<>(1));
            for (List<ElementId> way : until) {
                List<ElementId> whole = new ArrayList<>(way);
                if (!at.equals(start)) {
                    whole.add(at);
                }
                whole.addAll(between);
                if (all.size() < MOST_WAYS) {
                    all.add(List.copyOf(whole));
                }
            }
        }));
        return found;
    }

    private List<Column> further(int column, ElementId from) {
        return nested(column).stream().map(each -> column(each, from)).toList();
    }

    private Column column(int index, ElementId from) {
        Map<Element, List<List<Element>>> found = found(index, from);
        List<Branch> shown = new ArrayList<>();
        found.forEach((element, through) -> {
            if (shown.size() < most && left > 0) {
                left--;
                List<Column> further = further(index, element.id());
                shown.add(new Branch(element, through, further, height(further)));
            }
        });
        int more = found.size() - shown.size();
        return new Column(
                index, shown, more, shown.stream().mapToInt(Branch::height).sum() + (more > 0 ? 1 : 0));
    }

    private static int height(List<Column> columns) {
        return columns.stream().mapToInt(Column::height).reduce(1, Math::max);
    }

    private void place(List<Column> columns, int top, int height) {
        for (Column column : columns) {
            int row = top;
            for (Branch branch : column.found()) {
                rows.get(row).add(new Cell(column.index(), branch.height(), branch.found(), branch.through(), 0));
                place(branch.further(), row, branch.height());
                row += branch.height();
            }
            if (row < top + height) {
                fill(column.index(), row, top + height - row, column.more());
            }
        }
    }

    /** Leaves the rest of a column empty, with all that go on from it. */
    private void fill(int column, int row, int span, int more) {
        rows.get(row).add(new Cell(column, span, null, List.of(), more));
        nested(column).forEach(each -> fill(each, row, span, 0));
    }
}
