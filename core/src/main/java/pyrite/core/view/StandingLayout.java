package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
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
 * connected with, a new port at the side that looks to its other end, and the inside of a box that was opened is laid
 * out by itself.
 */
final class StandingLayout {
    private static final double GAP = 52;
    private static final double INSET = 24;
    private static final double PITCH = 24;

    private final Diagram diagram;
    private final Map<String, Place> places;
    private final Set<String> resized;
    private final Map<String, Rectangle> rectangles = new HashMap<>();
    private final Map<String, Diagram.Node> boxes = new HashMap<>();
    private final Map<String, List<Diagram.Node>> inside = new HashMap<>();
    /** The ports in boxes whose inside was laid out by itself. */
    private final Map<String, DiagramLayout.Port> laidOutPorts = new HashMap<>();
    /** The other ends of the lines at each box or port. */
    private final Map<String, List<String>> others = new HashMap<>();

    private StandingLayout(Diagram diagram, Map<String, Place> places, Set<String> resized) {
        this.diagram = diagram;
        this.places = places;
        this.resized = resized;
    }

    static DiagramLayout of(Diagram diagram, Placement placement, Set<String> resized) {
        return new StandingLayout(diagram, placement.places(), resized).run();
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
            inside.computeIfAbsent(node.parent(), _ -> new ArrayList<>()).add(node);
        });
        diagram.edges().forEach(edge -> {
            others.computeIfAbsent(edge.from(), _ -> new ArrayList<>()).add(edge.to());
            others.computeIfAbsent(edge.to(), _ -> new ArrayList<>()).add(edge.from());
        });
        diagram.nodes().stream()
                .filter(node -> at(places, node.key()) != null)
                .forEach(node -> rectangles.put(node.key(), standing(node)));
        diagram.nodes().stream().filter(this::isJustOpened).forEach(this::layOutInside);
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
        Size size = place.size() == null || resized.contains(node.key()) ? holding(node) : place.size();
        return new Rectangle(at.x(), at.y(), size.width(), size.height());
    }

    /** Large enough for what stands in it already. */
    private Size holding(Diagram.Node node) {
        Size size = smallest(node);
        for (Diagram.Node inner : inside.getOrDefault(node.key(), List.of())) {
            if (at(places, inner.key()) != null) {
                Rectangle held = standing(inner);
                size = new Size(
                        Math.max(size.width(), held.x() + held.width() + INSET),
                        Math.max(size.height(), held.y() + held.height() + INSET));
            }
        }
        return size;
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

    private boolean isJustOpened(Diagram.Node node) {
        List<Diagram.Node> held = inside.getOrDefault(node.key(), List.of());
        return !held.isEmpty()
                && held.stream()
                        .allMatch(each -> at(places, each.key()) == null && !rectangles.containsKey(each.key()));
    }

    /** Nothing of it stands anywhere yet, so it is laid out as a diagram of its own. */
    private void layOutInside(Diagram.Node opened) {
        List<Diagram.Node> nodes = new ArrayList<>(List.of(opened.within("")));
        for (int i = 0; i < nodes.size(); i++) {
            nodes.addAll(inside.getOrDefault(nodes.get(i).key(), List.of()));
        }
        Set<String> keys = nodes.stream().map(Diagram.Node::key).collect(Collectors.toSet());
        List<Diagram.Edge> edges = diagram.edges().stream()
                .filter(edge -> isAmong(keys, edge.from()) && isAmong(keys, edge.to()))
                .toList();
        DiagramLayout.best(new Diagram(nodes, edges, 0)).boxes().stream()
                .filter(box -> !box.node().key().equals(opened.key()))
                .forEach(box -> {
                    rectangles.put(box.node().key(), new Rectangle(box.x(), box.y(), box.width(), box.height()));
                    box.ports().forEach(port -> laidOutPorts.put(port.port().key(), port));
                });
    }

    private boolean isAmong(Set<String> keys, String end) {
        return keys.contains(Objects.requireNonNull(boxes.get(end)).key());
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

    /** @param rank orders the ports of one side */
    private record Looking(Diagram.Port port, double rank) {}

    private List<DiagramLayout.Port> ports(Diagram.Node node, Rectangle box) {
        Size size = new Size(box.width(), box.height());
        Map<Diagram.Port, DiagramLayout.Port> placed = new HashMap<>();
        List<DiagramLayout.Port> standing = new ArrayList<>();
        Map<Side, List<Looking>> sides = new HashMap<>();
        Place place = places.get(node.key());
        Size before = place == null || place.size() == null ? size : place.size();
        for (Diagram.Port port : node.ports()) {
            Point at = at(places, port.key());
            if (at != null) {
                standing.add(Settling.atBorder(port, at, before));
            } else if (laidOutPorts.containsKey(port.key())) {
                placed.put(port, laidOutPorts.get(port.key()));
            } else {
                look(node, port, sides);
            }
        }
        keep(standing, size, placed);
        sides.forEach((side, looking) -> spread(side, looking, size, placed));
        return node.ports().stream()
                .map(port -> Objects.requireNonNull(placed.get(port)))
                .toList();
    }

    /** To the side that looks to its other end. */
    private void look(Diagram.Node node, Diagram.Port port, Map<Side, List<Looking>> sides) {
        Point other = others.getOrDefault(port.key(), List.of()).stream()
                .findFirst()
                .map(key -> middle(Objects.requireNonNull(boxes.get(key))))
                .orElse(null);
        boolean isLeft = other == null
                ? port.way() != PortFace.Way.OUT
                : other.x() < middle(node).x();
        sides.computeIfAbsent(isLeft ? Side.LEFT : Side.RIGHT, _ -> new ArrayList<>())
                .add(new Looking(port, other == null ? Double.MAX_VALUE : other.y()));
    }

    /** Each where it stands at its side; where a side is now too short for that, in the same order along it. */
    private static void keep(
            List<DiagramLayout.Port> standing, Size size, Map<Diagram.Port, DiagramLayout.Port> placed) {
        Map<Side, List<DiagramLayout.Port>> sides =
                standing.stream().collect(Collectors.groupingBy(DiagramLayout.Port::side));
        sides.forEach((side, ports) -> {
            boolean isUpright = side == Side.LEFT || side == Side.RIGHT;
            double length = isUpright ? size.height() : size.width();
            if (ports.stream().anyMatch(port -> (isUpright ? port.y() : port.x()) > length)) {
                List<Looking> looking = ports.stream()
                        .map(port -> new Looking(port.port(), isUpright ? port.y() : port.x()))
                        .collect(Collectors.toCollection(ArrayList::new));
                spread(side, looking, size, placed);
            } else {
                ports.forEach(port -> placed.put(port.port(), at(side, port.port(), port.x(), port.y(), size)));
            }
        });
    }

    private static void spread(
            Side side, List<Looking> looking, Size size, Map<Diagram.Port, DiagramLayout.Port> placed) {
        looking.sort(Comparator.comparingDouble(Looking::rank));
        for (int i = 0; i < looking.size(); i++) {
            double share = (i + 0.5) / looking.size();
            Diagram.Port port = looking.get(i).port();
            double y = BoxSizes.HEAD + (size.height() - BoxSizes.HEAD) * share;
            placed.put(port, at(side, port, size.width() * share, y, size));
        }
    }

    private static DiagramLayout.Port at(Side side, Diagram.Port port, double x, double y, Size size) {
        return switch (side) {
            case LEFT -> new DiagramLayout.Port(port, 0, y, side);
            case RIGHT -> new DiagramLayout.Port(port, size.width(), y, side);
            case TOP -> new DiagramLayout.Port(port, x, 0, side);
            case BOTTOM -> new DiagramLayout.Port(port, x, size.height(), side);
        };
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
