package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.DiagramLayout.Side;
import pyrite.core.view.Placement.Place;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;

/**
 * Puts boxes where a person placed them in a computed layout: what they placed stays exactly there, a box around grows
 * to hold it, and what nobody placed gives way. Lines that this touches lose their computed way.
 */
final class Settling {
    private static final double LANE = 10;
    private static final int MOST_LANES = 6;
    private static final double GAP = 24;
    private static final double INSET = 12;
    private static final int MOST_STEPS = 200;

    private final DiagramLayout computed;
    private final Placement placement;
    private final Map<String, Box> boxes = new HashMap<>();
    private final Map<String, Rectangle> rectangles = new HashMap<>();
    private final Map<String, List<String>> inside = new HashMap<>();
    /** The box that a box or port stands in or at; empty at the top. */
    private final Map<String, String> around = new HashMap<>();

    private Settling(DiagramLayout computed, Placement placement) {
        this.computed = computed;
        this.placement = placement;
    }

    /** An upper left corner and a size. */
    record Rectangle(double x, double y, double width, double height) {
        boolean overlaps(Rectangle other, double gap) {
            return x < other.x + other.width + gap
                    && other.x < x + width + gap
                    && y < other.y + other.height + gap
                    && other.y < y + height + gap;
        }

        Rectangle at(double newX, double newY) {
            return new Rectangle(newX, newY, width, height);
        }
    }

    static DiagramLayout of(DiagramLayout computed, Placement placement) {
        return new Settling(computed, placement).settled();
    }

    /** A port at the place of the border that is nearest to a point, both from the upper left corner of the box. */
    static DiagramLayout.Port atBorder(Diagram.Port port, Point at, Size box) {
        double x = Math.clamp(at.x(), 0, box.width());
        double y = Math.clamp(at.y(), 0, box.height());
        double left = x;
        double right = box.width() - x;
        double top = y;
        double bottom = box.height() - y;
        double nearest = Math.min(Math.min(left, right), Math.min(top, bottom));
        if (nearest == left) {
            return new DiagramLayout.Port(port, 0, y, Side.LEFT);
        }
        if (nearest == right) {
            return new DiagramLayout.Port(port, box.width(), y, Side.RIGHT);
        }
        return nearest == top
                ? new DiagramLayout.Port(port, x, 0, Side.TOP)
                : new DiagramLayout.Port(port, x, box.height(), Side.BOTTOM);
    }

    private DiagramLayout settled() {
        for (Box box : computed.boxes()) {
            boxes.put(box.node().key(), box);
            rectangles.put(box.node().key(), placed(box));
            around.put(box.node().key(), box.node().parent());
            box.node().ports().forEach(port -> around.put(port.key(), box.node().key()));
            inside.computeIfAbsent(box.node().parent(), _ -> new ArrayList<>())
                    .add(box.node().key());
        }
        settle("");
        Set<String> changed = changed();
        List<Box> settled = computed.boxes().stream().map(this::box).toList();
        double width = 0;
        double height = 0;
        for (String key : inside.getOrDefault("", List.of())) {
            Rectangle box = rectangle(key);
            width = Math.max(width, box.x + box.width + GAP);
            height = Math.max(height, box.y + box.height + GAP);
        }
        return new DiagramLayout(
                settled,
                computed.lines().stream().map(line -> line(line, changed)).toList(),
                Math.max(width, changed.isEmpty() ? computed.width() : 0),
                Math.max(height, changed.isEmpty() ? computed.height() : 0));
    }

    private Rectangle rectangle(String key) {
        return Objects.requireNonNull(rectangles.get(key));
    }

    private Rectangle placed(Box box) {
        Place place = placement.places().get(box.node().key());
        Point at = place == null || place.at() == null ? new Point(box.x(), box.y()) : place.at();
        Size size = place == null || place.size() == null ? new Size(box.width(), box.height()) : place.size();
        Size smallest = BoxSizes.of(box.node());
        boolean isInside = !box.node().parent().isEmpty();
        return new Rectangle(
                isInside ? Math.max(at.x(), INSET) : at.x(),
                isInside ? Math.max(at.y(), BoxSizes.HEAD) : at.y(),
                Math.max(size.width(), smallest.width()),
                Math.max(size.height(), smallest.height()));
    }

    /** From the inside out, because a box that grows moves others. */
    private void settle(String parent) {
        List<String> keys = inside.getOrDefault(parent, List.of());
        keys.forEach(this::settle);
        List<Rectangle> standing = new ArrayList<>();
        keys.stream().filter(this::isPlaced).map(this::rectangle).forEach(standing::add);
        // What has grown stays where it is, and the rest gives way.
        Stream.concat(keys.stream().filter(this::hasGrown), keys.stream().filter(key -> !hasGrown(key)))
                .filter(key -> !isPlaced(key))
                .forEach(key -> {
                    rectangles.put(key, apart(rectangle(key), standing));
                    standing.add(rectangle(key));
                });
        if (!parent.isEmpty() && !keys.isEmpty()) {
            Rectangle outer = rectangle(parent);
            double width = outer.width;
            double height = outer.height;
            for (Rectangle box : standing) {
                width = Math.max(width, box.x + box.width + GAP + room(parent, DiagramLayout.Side.RIGHT));
                height = Math.max(height, box.y + box.height + GAP + room(parent, DiagramLayout.Side.BOTTOM));
            }
            rectangles.put(parent, new Rectangle(outer.x, outer.y, width, height));
        }
    }

    /** For the lines to the ports at a side of a box, which turn in it. */
    private double room(String key, DiagramLayout.Side side) {
        long ports = Objects.requireNonNull(boxes.get(key)).ports().stream()
                .filter(port -> port.side() == side)
                .count();
        return LANE * Math.min(ports, MOST_LANES);
    }

    private boolean hasGrown(String key) {
        Rectangle now = rectangle(key);
        Box before = Objects.requireNonNull(boxes.get(key));
        return now.width > before.width() || now.height > before.height();
    }

    private boolean isPlaced(String key) {
        Place place = placement.places().get(key);
        return place != null && place.at() != null;
    }

    /** Down or to the right, whichever is nearer, until it overlaps nothing. */
    private static Rectangle apart(Rectangle box, List<Rectangle> standing) {
        Rectangle down = box;
        Rectangle right = box;
        for (int step = 0; step < MOST_STEPS; step++) {
            Rectangle inWay = inTheWay(down, standing);
            if (inWay == null) {
                break;
            }
            down = down.at(down.x, inWay.y + inWay.height + GAP);
        }
        for (int step = 0; step < MOST_STEPS; step++) {
            Rectangle inWay = inTheWay(right, standing);
            if (inWay == null) {
                break;
            }
            right = right.at(inWay.x + inWay.width + GAP, right.y);
        }
        return down.y - box.y <= right.x - box.x ? down : right;
    }

    private static @Nullable Rectangle inTheWay(Rectangle box, List<Rectangle> standing) {
        // What the layout put close to another stands well; only what overlaps gives way.
        return standing.stream()
                .filter(other -> box.overlaps(other, 4))
                .findFirst()
                .orElse(null);
    }

    private Set<String> changed() {
        Set<String> changed = new HashSet<>();
        for (Box box : computed.boxes()) {
            Rectangle now = rectangle(box.node().key());
            boolean same =
                    now.x == box.x() && now.y == box.y() && now.width == box.width() && now.height == box.height();
            boolean portsMoved = box.node().ports().stream()
                    .anyMatch(port -> placement.places().containsKey(port.key()));
            if (!same || portsMoved || changed.contains(box.node().parent())) {
                changed.add(box.node().key());
            }
        }
        return changed;
    }

    private Box box(Box before) {
        Rectangle now = rectangle(before.node().key());
        Size size = new Size(now.width, now.height);
        return new Box(
                before.node(),
                now.x,
                now.y,
                now.width,
                now.height,
                now.width == before.width() ? before.parts() : BoxSizes.parts(before.node(), now.width),
                before.ports().stream().map(port -> port(port, before, size)).toList());
    }

    /** Where a person put it, else at the same share of its side. */
    private DiagramLayout.Port port(DiagramLayout.Port before, Box box, Size size) {
        Place place = placement.places().get(before.port().key());
        if (place != null && place.at() != null) {
            return atBorder(before.port(), place.at(), size);
        }
        boolean isAside = before.side() == Side.LEFT || before.side() == Side.RIGHT;
        return new DiagramLayout.Port(
                before.port(),
                isAside ? (before.side() == Side.LEFT ? 0 : size.width()) : before.x() * size.width() / box.width(),
                isAside ? Math.min(before.y(), size.height()) : (before.side() == Side.TOP ? 0 : size.height()),
                before.side());
    }

    private DiagramLayout.Line line(DiagramLayout.Line line, Set<String> changed) {
        List<Point> via = placement.bends().getOrDefault(line.edge().key(), List.of());
        Set<String> own = new HashSet<>();
        surroundings(line.edge().from(), own);
        surroundings(line.edge().to(), own);
        boolean holds = via.isEmpty()
                && own.stream().noneMatch(changed::contains)
                && changed.stream().filter(key -> !own.contains(key)).noneMatch(key -> crosses(line, absolute(key)));
        return holds ? line : new DiagramLayout.Line(line.edge(), List.of(), via, null);
    }

    /** An end and every box that it stands in. */
    private void surroundings(String end, Set<String> all) {
        for (String at = end; !at.isEmpty(); at = around.getOrDefault(at, "")) {
            all.add(at);
        }
    }

    private static boolean crosses(DiagramLayout.Line line, Rectangle box) {
        for (int i = 1; i < line.points().size(); i++) {
            Point a = line.points().get(i - 1);
            Point b = line.points().get(i);
            Rectangle piece = new Rectangle(
                    Math.min(a.x(), b.x()), Math.min(a.y(), b.y()), Math.abs(a.x() - b.x()), Math.abs(a.y() - b.y()));
            if (piece.overlaps(box, 2)) {
                return true;
            }
        }
        return false;
    }

    private Rectangle absolute(String key) {
        Rectangle box = rectangle(key);
        for (String at = around.getOrDefault(key, ""); !at.isEmpty(); at = around.getOrDefault(at, "")) {
            Rectangle outer = rectangle(at);
            box = box.at(box.x + outer.x, box.y + outer.y);
        }
        return box;
    }
}
