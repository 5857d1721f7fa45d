package pyrite.core.view;

import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;
import pyrite.core.view.Placement.Point;

/**
 * The layout of a sequence: what is later stands lower, so that only the order of the lifelines is a matter of
 * arrangement.
 */
public final class SequenceLayout {
    /** From the top of a lifeline to its first row, px. */
    public static final double FIRST = 76;
    /** From row to row, px. */
    public static final double ROW = 34;

    private static final double NARROWEST = 130;
    private static final double GAP = 60;
    private static final double LABEL = 7;
    private static final double EVENT_HEIGHT = 24;
    private static final double LOOP = 36;

    private final Diagram diagram;
    private final Map<ElementId, Integer> rows = new HashMap<>();

    private SequenceLayout(Diagram diagram) {
        this.diagram = diagram;
        diagram.rows().forEach(id -> rows.put(id, rows.size()));
    }

    /** Lifelines beside each other in the order in which a person put them, rows below each other. */
    static DiagramLayout of(Diagram diagram, Placement placement) {
        return new SequenceLayout(diagram).run(placement);
    }

    static boolean suits(Diagram diagram) {
        return diagram.nodes().stream().anyMatch(node -> node.shape() == Diagram.Shape.LIFELINE);
    }

    /** A lifeline with its place, px. */
    private record Column(Diagram.Node lifeline, double left, double width) {
        double middle() {
            return left + width / 2;
        }
    }

    private DiagramLayout run(Placement placement) {
        Map<String, Column> columns = columns(placement);
        double height = FIRST + rows.size() * ROW + ROW;
        List<DiagramLayout.Box> boxes = diagram.nodes().stream()
                .map(node -> {
                    Column column = of(columns, node.parent().isEmpty() ? node.key() : node.parent());
                    return node.parent().isEmpty()
                            ? box(node, column.left(), 0, column.width(), height)
                            : eventBox(node, column.width());
                })
                .toList();
        List<DiagramLayout.Line> lines = diagram.edges().stream()
                .map(edge -> line(
                        edge,
                        of(columns, edge.from()).middle(),
                        of(columns, edge.to()).middle()))
                .toList();
        double width = columns.values().stream()
                .mapToDouble(column -> column.left() + column.width())
                .max()
                .orElse(0);
        return new DiagramLayout(boxes, lines, width, height);
    }

    private static Column of(Map<String, Column> columns, String key) {
        return Objects.requireNonNull(columns.get(key));
    }

    private Map<String, Column> columns(Placement placement) {
        Map<String, Column> natural = besides(
                diagram.nodes().stream().filter(node -> node.parent().isEmpty()).toList());
        return besides(natural.values().stream()
                .sorted(Comparator.comparingDouble(column -> wanted(column, placement)))
                .map(Column::lifeline)
                .toList());
    }

    private static double wanted(Column natural, Placement placement) {
        return Optional.ofNullable(placement.places().get(natural.lifeline().key()))
                .map(Placement.Place::at)
                .map(Point::x)
                .orElse(natural.left());
    }

    private Map<String, Column> besides(List<Diagram.Node> lifelines) {
        Map<String, Column> columns = new LinkedHashMap<>();
        double x = 0;
        for (Diagram.Node lifeline : lifelines) {
            double width = width(lifeline);
            columns.put(lifeline.key(), new Column(lifeline, x, width));
            x += width + GAP;
        }
        return columns;
    }

    /** So wide that the texts of what happens on a lifeline have room. */
    private double width(Diagram.Node lifeline) {
        double events = diagram.nodes().stream()
                .filter(node -> node.parent().equals(lifeline.key()))
                .mapToDouble(SequenceLayout::eventWidth)
                .max()
                .orElse(0);
        double loops = diagram.edges().stream()
                .filter(edge -> edge.from().equals(lifeline.key()) && edge.to().equals(lifeline.key()))
                .mapToDouble(edge -> 2 * (LOOP + edge.label().length() * LABEL))
                .max()
                .orElse(0);
        return Math.max(Math.max(NARROWEST, BoxSizes.of(lifeline).width()), Math.max(events, loops));
    }

    private static double eventWidth(Diagram.Node event) {
        return TextWidths.text(event.title(), BoxSizes.TEXT, false) + 28;
    }

    private static DiagramLayout.Box box(Diagram.Node node, double x, double y, double width, double height) {
        return new DiagramLayout.Box(node, x, y, width, height, List.of(), List.of());
    }

    private DiagramLayout.Box eventBox(Diagram.Node event, double around) {
        double width = eventWidth(event);
        return box(event, (around - width) / 2, height(event.element().id()) - EVENT_HEIGHT / 2, width, EVENT_HEIGHT);
    }

    private double height(@Nullable ElementId member) {
        return FIRST + rows.getOrDefault(member, 0) * ROW;
    }

    private DiagramLayout.Line line(Diagram.Edge edge, double from, double to) {
        double y = height(edge.element());
        if (from == to) {
            List<Point> loop = List.of(
                    new Point(from, y - 8),
                    new Point(from + LOOP, y - 8),
                    new Point(from + LOOP, y + 8),
                    new Point(from, y + 8));
            return new DiagramLayout.Line(edge, loop, List.of(), new Point(from + LOOP + 6, y + 4));
        }
        double left = Math.min(from, to);
        double width = edge.label().length() * LABEL;
        double label = Math.max(left + 8, left + (Math.abs(to - from) - width) / 2);
        return new DiagramLayout.Line(
                edge, List.of(new Point(from, y), new Point(to, y)), List.of(), new Point(label, y - 5));
    }
}
