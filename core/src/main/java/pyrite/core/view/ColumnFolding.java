package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import pyrite.core.view.Placement.Point;

/**
 * Folds the columns of a layout from left to right that are too high to be read as a whole: what does not fit goes on
 * beside it, in rows. The lines from one box to all of a folded column branch off one trunk and lead between the rows;
 * others are left to the page, which finds ways between the boxes. Boxes do not stand in others here.
 */
final class ColumnFolding {
    /** Between boxes of a column, and between columns, px. */
    private static final double GAP = 34;

    private static final double AISLE = 64;

    private final DiagramLayout layout;
    private final double most;
    private final Map<DiagramLayout.Box, DiagramLayout.Box> moved = new HashMap<>();
    /** Where boxes stand that are in a folded column, by their keys. */
    private final Map<String, Fold> folds = new HashMap<>();

    private double height;

    /**
     * The place of a box in a folded column.
     *
     * @param trunk the middle of the aisle before the column, px
     * @param aisle the middle of the aisle before the part of it
     * @param above the middle of the gap above its row
     */
    private record Fold(int part, double trunk, double aisle, double above) {}

    private ColumnFolding(DiagramLayout layout, double most) {
        this.layout = layout;
        this.most = most;
    }

    /** @param most px, as high as a column may be */
    static DiagramLayout of(DiagramLayout layout, double most) {
        return new ColumnFolding(layout, most).fold();
    }

    private DiagramLayout fold() {
        List<List<DiagramLayout.Box>> columns = columns();
        columns.stream()
                .filter(this::isTooHigh)
                .forEach(column -> height = Math.max(height, height(column) / parts(column)));
        double x = 0;
        for (List<DiagramLayout.Box> column : columns) {
            x = isTooHigh(column) ? folded(column, x) : kept(column, x);
        }
        List<DiagramLayout.Box> boxes =
                layout.boxes().stream().map(box -> moved.getOrDefault(box, box)).toList();
        Map<String, DiagramLayout.Box> byKey = new HashMap<>();
        boxes.forEach(box -> byKey.put(box.node().key(), box));
        List<DiagramLayout.Line> lines = layout.lines().stream()
                .map(line -> new DiagramLayout.Line(line.edge(), way(line.edge(), byKey), List.of(), null))
                .toList();
        double bottom =
                boxes.stream().mapToDouble(box -> box.y() + box.height()).max().orElse(0);
        return new DiagramLayout(boxes, lines, x - AISLE, bottom);
    }

    /** Boxes whose extents from left to right meet, each from the top down. */
    private List<List<DiagramLayout.Box>> columns() {
        List<List<DiagramLayout.Box>> columns = new ArrayList<>();
        double right = Double.NEGATIVE_INFINITY;
        List<DiagramLayout.Box> across = layout.boxes().stream()
                .sorted(Comparator.comparingDouble(DiagramLayout.Box::x))
                .toList();
        for (DiagramLayout.Box box : across) {
            if (box.x() >= right) {
                columns.add(new ArrayList<>());
            }
            columns.getLast().add(box);
            right = Math.max(right, box.x() + box.width());
        }
        columns.forEach(column -> column.sort(Comparator.comparingDouble(DiagramLayout.Box::y)));
        return columns;
    }

    private boolean isTooHigh(List<DiagramLayout.Box> column) {
        return height(column) > most;
    }

    private static double height(List<DiagramLayout.Box> column) {
        return column.stream().mapToDouble(box -> box.height() + GAP).sum();
    }

    private int parts(List<DiagramLayout.Box> column) {
        return (int) Math.ceil(height(column) / most);
    }

    /** @return where the next column begins */
    private double folded(List<DiagramLayout.Box> column, double left) {
        int rows = Math.ceilDiv(column.size(), parts(column));
        double[] tops = tops(column, rows);
        double x = left;
        for (int first = 0; first < column.size(); first += rows) {
            List<DiagramLayout.Box> part = column.subList(first, Math.min(first + rows, column.size()));
            for (int row = 0; row < part.size(); row++) {
                move(part.get(row), x, tops[row]);
                folds.put(
                        part.get(row).node().key(),
                        new Fold(first / rows, left - AISLE / 2, x - AISLE / 2, tops[row] - GAP / 2));
            }
            x += width(part) + AISLE;
        }
        return x;
    }

    /** The upper borders of the rows, each as high as the highest box in it. */
    private static double[] tops(List<DiagramLayout.Box> column, int rows) {
        double[] tops = new double[rows];
        for (int row = 1; row < rows; row++) {
            double highest = 0;
            for (int at = row - 1; at < column.size(); at += rows) {
                highest = Math.max(highest, column.get(at).height());
            }
            tops[row] = tops[row - 1] + highest + GAP;
        }
        return tops;
    }

    /** The way of a line between a box and one of a folded column behind it; none where the page is to find it. */
    private List<Point> way(Diagram.Edge edge, Map<String, DiagramLayout.Box> boxes) {
        DiagramLayout.Box from = boxes.get(edge.from());
        DiagramLayout.Box to = boxes.get(edge.to());
        if (from == null || to == null || folds.containsKey(edge.from()) == folds.containsKey(edge.to())) {
            return List.of();
        }
        boolean isOutward = folds.containsKey(edge.to());
        DiagramLayout.Box root = isOutward ? from : to;
        DiagramLayout.Box leaf = isOutward ? to : from;
        Fold fold = Objects.requireNonNull(folds.get(leaf.node().key()));
        if (root.x() + root.width() > fold.trunk() || !isOnlyRoot(root, fold)) {
            return List.of();
        }
        List<Point> way = branch(root, leaf, fold);
        return isOutward ? way : way.reversed();
    }

    private static List<Point> branch(DiagramLayout.Box root, DiagramLayout.Box leaf, Fold fold) {
        double start = root.y() + root.height() / 2;
        double end = leaf.y() + leaf.height() / 2;
        List<Point> way = new ArrayList<>();
        way.add(new Point(root.x() + root.width(), start));
        if (fold.part() == 0) {
            way.add(new Point(fold.trunk(), start));
            way.add(new Point(fold.trunk(), end));
        } else {
            way.add(new Point(fold.trunk(), start));
            way.add(new Point(fold.trunk(), fold.above()));
            way.add(new Point(fold.aisle(), fold.above()));
            way.add(new Point(fold.aisle(), end));
        }
        way.add(new Point(leaf.x(), end));
        return way;
    }

    /** Whether no other box outside leads to that column, whose lines would lie on those of this one. */
    private boolean isOnlyRoot(DiagramLayout.Box root, Fold fold) {
        return layout.lines().stream()
                .map(DiagramLayout.Line::edge)
                .filter(edge -> isIn(edge.from(), fold) != isIn(edge.to(), fold))
                .map(edge -> isIn(edge.from(), fold) ? edge.to() : edge.from())
                .allMatch(root.node().key()::equals);
    }

    private boolean isIn(String key, Fold column) {
        Fold fold = folds.get(key);
        return fold != null && fold.trunk() == column.trunk();
    }

    /** Moved up or down with the rest, and as far as others of the column leave room. */
    private double kept(List<DiagramLayout.Box> column, double left) {
        double scale = layout.height() > 0 ? height / layout.height() : 1;
        double free = 0;
        for (DiagramLayout.Box box : column) {
            double y = Math.max(free, (box.y() + box.height() / 2) * scale - box.height() / 2);
            move(box, left, y);
            free = y + box.height() + GAP;
        }
        return left + width(column) + AISLE;
    }

    private static double width(List<DiagramLayout.Box> column) {
        return column.stream().mapToDouble(DiagramLayout.Box::width).max().orElse(0);
    }

    private void move(DiagramLayout.Box box, double x, double y) {
        moved.put(box, new DiagramLayout.Box(box.node(), x, y, box.width(), box.height(), box.parts(), box.ports()));
    }
}
