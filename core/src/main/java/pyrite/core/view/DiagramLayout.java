package pyrite.core.view;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementKind;
import pyrite.core.view.Placement.Point;

/**
 * The position of everything in a {@link Diagram}, px, x to the right and y down. What a person placed stands where
 * they put it; everything else is laid out by ELK Layered (Sugiyama, Tagawa, Toda 1981, with the refinements of
 * Schulze, Spönemann, von Hanxleden 2014).
 *
 * @param boxes each behind the one it stands in
 */
public record DiagramLayout(List<Box> boxes, List<Line> lines, double width, double height) {
    private static final double USUAL_WIDTH = 880;
    private static final double USUAL_HEIGHT = 640;
    private static final double MOST_EXCESS = 1.3;
    private static final double LONGEST_COLUMN = 2;

    public DiagramLayout {
        boxes = List.copyOf(boxes);
        lines = List.copyOf(lines);
    }

    /**
     * A node at its place.
     *
     * @param x from the left border of the box it stands in, at the top from the left of the drawing
     */
    public record Box(
            Diagram.Node node, double x, double y, double width, double height, List<Part> parts, List<Port> ports) {}

    /** The side of a box at which a port stands. */
    public enum Side {
        LEFT,
        RIGHT,
        TOP,
        BOTTOM
    }

    /** A port with its middle, from the upper left corner of its box. */
    public record Port(Diagram.Port port, double x, double y, Side side) {}

    /** A compartment of a box, its texts cut to fit; {@code y} is its upper border, relative to the box. */
    public record Part(String title, double y, List<Row> rows) {}

    /** A line of text with its baseline, relative to the box. */
    public record Row(Diagram.Line line, String text, double y) {}

    /**
     * An edge with its corners.
     *
     * @param points from its own end to the other, ends included, from the upper left corner of the drawing; empty
     *     where a person has moved something, so that a way is to be found around the boxes as they stand
     * @param via the corners a person gave it
     * @param label the left end of its label's base line; null if there is no label or the way is to be found
     */
    public record Line(
            Diagram.Edge edge,
            List<Point> points,
            List<Point> via,
            @Nullable Point label) {}

    /** Lays out a diagram that nobody has arranged. */
    public static DiagramLayout of(Diagram diagram) {
        return of(diagram, Placement.NONE);
    }

    /** With what a person placed where they put it. */
    public static DiagramLayout of(Diagram diagram, Placement placement) {
        return of(diagram, placement, Seen.NOTHING, DiagramLayout::best);
    }

    /**
     * @param seen where boxes and ports stand on the page that asks: they stay there unless something grows into them
     * @param afresh lays out a diagram of which little or nothing stands anywhere, as {@link #best} does
     */
    public static DiagramLayout of(
            Diagram diagram, Placement placement, Seen seen, Function<Diagram, DiagramLayout> afresh) {
        if (SequenceLayout.suits(diagram)) {
            return SequenceLayout.of(diagram, placement);
        }
        // Steps that nobody placed follow each other: a new one between two makes room for itself.
        Placement standing = isFlow(diagram) && placement.isFree() ? placement : placement.orElse(seen.places());
        if (StandingLayout.suits(diagram, standing)) {
            return Settling.of(StandingLayout.of(diagram, standing, seen.resized()), placement);
        }
        Direction direction = hasChoice(diagram) ? direction(diagram, seen.places()) : Direction.OPEN;
        DiagramLayout computed = switch (direction) {
            case OPEN -> afresh.apply(diagram);
            case DOWN -> ElkLayout.downward(diagram);
            case RIGHT -> rightward(diagram);
        };
        return placement.isFree() ? computed : Settling.of(computed, placement);
    }

    private enum Direction {
        DOWN,
        RIGHT,
        /** Whichever is easier to read. */
        OPEN
    }

    /** The way in which most lines lead on the page that asks, so that nothing turns there. */
    private static Direction direction(Diagram diagram, Map<String, Placement.Place> seen) {
        int down = 0;
        int right = 0;
        for (Diagram.Edge edge : diagram.edges()) {
            Point from = at(seen, edge.from());
            Point to = at(seen, edge.to());
            if (from != null && to != null) {
                boolean isDown = Math.abs(from.y() - to.y()) > Math.abs(from.x() - to.x());
                down += isDown ? 1 : 0;
                right += isDown ? 0 : 1;
            }
        }
        return down + right == 0 ? Direction.OPEN : down > right ? Direction.DOWN : Direction.RIGHT;
    }

    private static @Nullable Point at(Map<String, Placement.Place> seen, String key) {
        Placement.Place place = seen.get(key);
        return place == null ? null : place.at();
    }

    private static boolean hasChoice(Diagram diagram) {
        return diagram.edges().stream().noneMatch(edge -> edge.relation() == Diagram.Relation.SUCCESSION)
                && diagram.nodes().stream().allMatch(node -> node.parent().isEmpty());
    }

    /**
     * From the top down, or, but for steps, from left to right where that is so wide that it would be hard to read as a
     * whole; what is too high then goes on in further columns.
     */
    public static DiagramLayout best(Diagram diagram) {
        if (!hasChoice(diagram)) {
            boolean isFlow = diagram.edges().stream().anyMatch(edge -> edge.relation() == Diagram.Relation.SUCCESSION);
            return isFlow ? ElkLayout.downward(diagram) : ElkLayout.rightward(diagram);
        }
        DiagramLayout down = ElkLayout.downward(diagram);
        if (down.excess() <= MOST_EXCESS) {
            return down;
        }
        DiagramLayout right = rightward(diagram);
        return right.excess() < down.excess() ? right : down;
    }

    private static DiagramLayout rightward(Diagram diagram) {
        DiagramLayout right = ElkLayout.rightward(diagram);
        if (right.height() <= LONGEST_COLUMN * USUAL_HEIGHT) {
            return right;
        }
        DiagramLayout folded = ColumnFolding.of(right, MOST_EXCESS * USUAL_HEIGHT);
        return folded.excess() < right.excess() ? folded : right;
    }

    private static boolean isFlow(Diagram diagram) {
        return diagram.nodes().stream()
                .anyMatch(node -> node.shape() == Diagram.Shape.STEP
                        || node.shape() == Diagram.Shape.START
                        || node.element().kind() == ElementKind.ACTION);
    }

    /** How many times larger it is than the canvas of a usual screen, in the direction in which it is more so. */
    private double excess() {
        return Math.max(width / USUAL_WIDTH, height / USUAL_HEIGHT);
    }
}
