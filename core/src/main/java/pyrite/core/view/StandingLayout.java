package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.structure.PortFace;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.DiagramLayout.Side;
import pyrite.core.view.Placement.Place;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;
import pyrite.core.view.Settling.Rectangle;

/**
 * The layout of a diagram of which most boxes stand somewhere already. They stay; a new box comes beside what it is
 * connected with, and a new port at the side that looks to its other end. Takes time in proportion to the diagram.
 */
final class StandingLayout {
    private static final double GAP = 52;
    private static final double INSET = 24;
    private static final double PITCH = 24;

    private final Diagram diagram;
    private final Map<String, Place> places;
    private final Map<String, Rectangle> rectangles = new HashMap<>();
    private final Map<String, Diagram.Node> boxes = new HashMap<>();
    /** The other ends of the lines at each box or port. */
    private final Map<String, List<String>> others = new HashMap<>();

    private StandingLayout(Diagram diagram, Map<String, Place> places) {
        this.diagram = diagram;
        this.places = places;
    }

    static DiagramLayout of(Diagram diagram, Placement placement) {
        return new StandingLayout(diagram, placement.places()).run();
    }

    /** Whether so much of a diagram stands somewhere that the rest can be put beside it. */
    static boolean suits(Diagram diagram, Placement placement) {
        long standing = diagram.nodes().stream()
                .filter(node -> at(placement.places(), node.key()) != null)
                .count();
        return standing > 0 && standing * 2 >= diagram.nodes().size();
    }

    private static @Nullable Point at(Map<String, Place> places, String key) {
        Place place = places.get(key);
        return place == null ? null : place.at();
    }

    private DiagramLayout run() {
        diagram.nodes().forEach(node -> {
            boxes.put(node.key(), node);
            node.ports().forEach(port -> boxes.put(port.key(), node));
        });
        diagram.edges().forEach(edge -> {
            others.computeIfAbsent(edge.from(), _ -> new ArrayList<>()).add(edge.to());
            others.computeIfAbsent(edge.to(), _ -> new ArrayList<>()).add(edge.from());
        });
        diagram.nodes().stream()
                .filter(node -> at(places, node.key()) != null)
                .forEach(node -> rectangles.put(node.key(), standing(node)));
        diagram.nodes().stream()
                .filter(node -> !rectangles.containsKey(node.key()))
                .forEach(node -> rectangles.put(node.key(), beside(node)));
        List<Box> laidOut = diagram.nodes().stream().map(this::box).toList();
        return new DiagramLayout(
                laidOut,
                diagram.edges().stream()
                        .map(edge -> new DiagramLayout.Line(edge, List.of(), List.of(), null))
                        .toList(),
                0,
                0);
    }

    private Rectangle standing(Diagram.Node node) {
        Place place = Objects.requireNonNull(places.get(node.key()));
        Point at = Objects.requireNonNull(place.at());
        Size size = place.size() == null ? smallest(node) : place.size();
        return new Rectangle(at.x(), at.y(), size.width(), size.height());
    }

    private static Size smallest(Diagram.Node node) {
        Size size = BoxSizes.of(node);
        double widest = node.ports().stream()
                .mapToDouble(port -> TextWidths.text(port.name(), BoxSizes.TEXT, false))
                .max()
                .orElse(0);
        int rows = (node.ports().size() + 1) / 2;
        return new Size(
                Math.max(size.width(), node.ports().isEmpty() ? 0 : 2 * widest + 40),
                size.height() + (rows == 0 ? 0 : rows * PITCH + 6));
    }

    /** To the right of a box that it is connected with, else below everything in the same box. */
    private Rectangle beside(Diagram.Node node) {
        Size size = smallest(node);
        Rectangle near = neighbours(node).stream()
                .filter(other -> other.parent().equals(node.parent()))
                .map(other -> rectangles.get(other.key()))
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
        if (near != null) {
            return new Rectangle(near.x() + near.width() + GAP, near.y(), size.width(), size.height());
        }
        double bottom = node.parent().isEmpty() ? 0 : BoxSizes.HEAD + INSET / 2 - INSET;
        double left = INSET;
        boolean isFirst = true;
        for (Diagram.Node sibling : diagram.nodes()) {
            Rectangle rectangle = sibling.parent().equals(node.parent()) ? rectangles.get(sibling.key()) : null;
            if (rectangle != null) {
                bottom = Math.max(bottom, rectangle.y() + rectangle.height());
                left = isFirst ? rectangle.x() : Math.min(left, rectangle.x());
                isFirst = false;
            }
        }
        return new Rectangle(left, bottom + INSET, size.width(), size.height());
    }

    private List<Diagram.Node> neighbours(Diagram.Node node) {
        List<Diagram.Node> found = new ArrayList<>();
        List<String> ends = new ArrayList<>(List.of(node.key()));
        node.ports().forEach(port -> ends.add(port.key()));
        ends.forEach(end -> others.getOrDefault(end, List.of())
                .forEach(other -> found.add(Objects.requireNonNull(boxes.get(other)))));
        return found;
    }

    private Box box(Diagram.Node node) {
        Rectangle at = Objects.requireNonNull(rectangles.get(node.key()));
        return new Box(
                node, at.x(), at.y(), at.width(), at.height(), BoxSizes.parts(node, at.width()), ports(node, at));
    }

    private record Looking(Diagram.Port port, double y) {}

    /** Each at the side that looks to its other end, in the order of these. */
    private List<DiagramLayout.Port> ports(Diagram.Node node, Rectangle box) {
        Map<Diagram.Port, DiagramLayout.Port> placed = new HashMap<>();
        Map<Side, List<Looking>> sides = new HashMap<>();
        for (Diagram.Port port : node.ports()) {
            Point at = at(places, port.key());
            if (at != null) {
                placed.put(port, Settling.atBorder(port, at, new Size(box.width(), box.height())));
                continue;
            }
            Point other = others.getOrDefault(port.key(), List.of()).stream()
                    .findFirst()
                    .map(key -> middle(Objects.requireNonNull(boxes.get(key))))
                    .orElse(null);
            Point own = middle(node);
            boolean isLeft = other == null ? port.way() != PortFace.Way.OUT : other.x() < own.x();
            sides.computeIfAbsent(isLeft ? Side.LEFT : Side.RIGHT, _ -> new ArrayList<>())
                    .add(new Looking(port, other == null ? Double.MAX_VALUE : other.y()));
        }
        sides.forEach((side, looking) -> {
            looking.sort(Comparator.comparingDouble(Looking::y));
            double room = box.height() - BoxSizes.HEAD;
            for (int i = 0; i < looking.size(); i++) {
                Diagram.Port port = looking.get(i).port();
                double y = BoxSizes.HEAD + room * (i + 0.5) / looking.size();
                placed.put(port, new DiagramLayout.Port(port, side == Side.LEFT ? 0 : box.width(), y, side));
            }
        });
        return node.ports().stream()
                .map(port -> Objects.requireNonNull(placed.get(port)))
                .toList();
    }

    /** From the upper left corner of the drawing. */
    private Point middle(Diagram.Node node) {
        Rectangle box = Objects.requireNonNull(rectangles.get(node.key()));
        double x = box.x() + box.width() / 2;
        double y = box.y() + box.height() / 2;
        for (Diagram.Node at = boxes.get(node.parent()); at != null; at = boxes.get(at.parent())) {
            Rectangle outer = Objects.requireNonNull(rectangles.get(at.key()));
            x += outer.x();
            y += outer.y();
        }
        return new Point(x, y);
    }
}
