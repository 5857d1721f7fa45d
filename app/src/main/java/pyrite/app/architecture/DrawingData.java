package pyrite.app.architecture;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.view.Diagram;
import pyrite.core.view.DiagramLayout;
import pyrite.core.view.Placement;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Seen;

/**
 * A drawing with its layout as a page receives it; lengths are px. What a person placed says so.
 *
 * @param view the id of the view that keeps what is placed; null if there is none
 * @param left so many elements are left out
 * @param hidden the keys of the boxes and ports that are taken out of the view
 * @param renewed the key that a box or port has now, where it is another than the page knew
 */
public record DrawingData(
        @Nullable String view,
        int revision,
        double width,
        double height,
        int left,
        List<Box> boxes,
        List<Line> lines,
        Set<String> hidden,
        Map<String, String> renewed) {

    /** @param x from the left of the box that has the key {@code parent} */
    public record Box(
            String key,
            String parent,
            String id,
            String keyword,
            String title,
            String family,
            String shape,
            boolean dashed,
            boolean inherited,
            boolean openable,
            boolean open,
            boolean placed,
            double x,
            double y,
            double width,
            double height,
            List<Part> parts,
            List<Port> ports) {}

    public record Part(String title, double y, List<Row> rows) {}

    public record Row(String id, String text, String full, double y, boolean prose) {}

    public record Port(
            String key, String id, String name, String declaration, String way, String side, double x, double y) {}

    /** @param points x and y of each corner in turn, ends included; empty where the page is to find the way */
    public record Line(
            String key,
            @Nullable String id,
            String from,
            String to,
            String relation,
            String label,
            String problem,
            double[] points,
            double[] via,
            double @Nullable [] at) {}

    /** A drawing that nobody can arrange. */
    public static DrawingData of(int revision, Diagram diagram) {
        return of(null, revision, diagram, DiagramLayout.of(diagram), Placement.NONE, Map.of());
    }

    static DrawingData of(
            @Nullable ElementId view,
            int revision,
            Diagram diagram,
            DiagramLayout layout,
            Placement placement,
            Map<String, String> renewed) {
        Set<String> placed = new HashSet<>();
        placement.places().forEach((key, place) -> {
            if (place.at() != null) {
                placed.add(key);
            }
        });
        return new DrawingData(
                view == null ? null : view.toString(),
                revision,
                tenths(layout.width()),
                tenths(layout.height()),
                diagram.left(),
                layout.boxes().stream()
                        .map(box -> box(box, placed.contains(box.node().key())))
                        .toList(),
                layout.lines().stream().map(DrawingData::line).toList(),
                placement.hidden(),
                renewed);
    }

    private static Box box(DiagramLayout.Box box, boolean isPlaced) {
        Diagram.Node node = box.node();
        ElementKind kind = node.element().kind();
        return new Box(
                node.key(),
                node.parent(),
                node.element().id().toString(),
                node.keyword(),
                node.title(),
                lower(kind.family()),
                shape(node),
                node.keyword().contains("ref "),
                node.isInherited(),
                node.openable(),
                node.open(),
                isPlaced,
                tenths(box.x()),
                tenths(box.y()),
                tenths(box.width()),
                tenths(box.height()),
                box.parts().stream().map(DrawingData::part).toList(),
                box.ports().stream().map(DrawingData::port).toList());
    }

    private static String shape(Diagram.Node node) {
        ElementKind kind = node.element().kind();
        return node.shape() != Diagram.Shape.BOX
                ? lower(node.shape())
                : kind.isPackage() ? "package" : kind.isDefinition() ? "definition" : "usage";
    }

    private static Part part(DiagramLayout.Part part) {
        return new Part(
                part.title(),
                part.y(),
                part.rows().stream()
                        .map(row -> new Row(
                                row.line().element().toString(),
                                row.text(),
                                row.line().text(),
                                row.y(),
                                row.line().prose()))
                        .toList());
    }

    private static Port port(DiagramLayout.Port port) {
        return new Port(
                port.port().key(),
                port.port().element().id().toString(),
                port.port().name(),
                port.port().declaration(),
                lower(port.port().way()),
                lower(port.side()),
                tenths(port.x()),
                tenths(port.y()));
    }

    private static Line line(DiagramLayout.Line line) {
        Diagram.Edge edge = line.edge();
        return new Line(
                edge.key(),
                edge.element() == null ? null : edge.element().toString(),
                edge.from(),
                edge.to(),
                lower(edge.relation()),
                edge.label(),
                edge.problem(),
                numbers(line.points()),
                numbers(line.via()),
                line.label() == null ? null : numbers(List.of(line.label())));
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private static double tenths(double px) {
        return Math.round(px * 10) / 10.0;
    }

    private static double[] numbers(List<Point> points) {
        return points.stream()
                .flatMapToDouble(point -> java.util.stream.DoubleStream.of(tenths(point.x()), tenths(point.y())))
                .toArray();
    }

    /** What a page says of what it shows: x, y, width and height by the keys of boxes, x and y by those of ports. */
    static Seen seen(Map<String, double[]> seen, List<String> resized, Map<String, String> renewed) {
        Map<String, Placement.Place> places = new java.util.HashMap<>();
        seen.forEach((key, numbers) -> {
            if (numbers.length >= 2 && java.util.Arrays.stream(numbers).allMatch(Double::isFinite)) {
                places.put(
                        renewed.getOrDefault(key, key),
                        new Placement.Place(
                                new Point(numbers[0], numbers[1]),
                                numbers.length == 4 ? new Placement.Size(numbers[2], numbers[3]) : null));
            }
        });
        return new Seen(
                places,
                resized.stream().map(key -> renewed.getOrDefault(key, key)).collect(Collectors.toSet()));
    }
}
