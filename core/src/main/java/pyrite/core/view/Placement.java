package pyrite.core.view;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/**
 * Where a person put the boxes, ports and lines of a drawing, and which boxes are open or hidden, by the keys of a
 * {@link Diagram}. Lengths are px.
 */
public record Placement(
        Map<String, Place> places, Map<String, List<Point>> bends, Set<String> open, Set<String> hidden) {
    static final ElementId PLACED = LibraryNames.id("Placement::Placed");
    static final ElementId BENT = LibraryNames.id("Placement::Bent");

    public static final Placement NONE = new Placement(Map.of(), Map.of(), Set.of(), Set.of());

    /** To the right and down. */
    public record Point(double x, double y) {}

    public record Size(double width, double height) {}

    /**
     * @param at the upper left corner within the surrounding box, of a port its middle; null if the layout may choose
     *     it
     * @param size null if the texts decide
     */
    public record Place(@Nullable Point at, @Nullable Size size) {}

    public Placement {
        places = Map.copyOf(places);
        bends = Map.copyOf(bends);
        open = Set.copyOf(open);
        hidden = Set.copyOf(hidden);
    }

    /** What the metadata of a view says. */
    static Placement of(Model model, Element view) {
        Map<String, Place> places = new HashMap<>();
        Map<String, List<Point>> bends = new HashMap<>();
        Set<String> open = new HashSet<>();
        Set<String> hidden = new HashSet<>();
        for (Element child : model.children(view.id())) {
            if (child.kind() != ElementKind.METADATA) {
                continue;
            }
            if (Metadata.isOf(model, child, PLACED)) {
                String key = key(model, child);
                double[] at = Metadata.numbers(model, child, "position");
                double[] size = Metadata.numbers(model, child, "size");
                places.put(
                        key,
                        new Place(
                                at.length == 2 ? new Point(at[0], at[1]) : null,
                                size.length == 2 ? new Size(size[0], size[1]) : null));
                if (Metadata.truth(model, child, "open")) {
                    open.add(key);
                }
                if (Metadata.truth(model, child, "hidden")) {
                    hidden.add(key);
                }
            } else if (Metadata.isOf(model, child, BENT)) {
                bends.put(edge(model, child), points(Metadata.numbers(model, child, "corners")));
            }
        }
        return new Placement(places, bends, open, hidden);
    }

    /** The key of the box or port that a placement is about. */
    static String key(Model model, Element placed) {
        return BoxKey.current(model, about(placed).collect(Collectors.joining(".")));
    }

    /** The key of the edge that corners are about. */
    static String edge(Model model, Element bent) {
        return Stream.concat(Stream.of(Metadata.text(model, bent, "relation")), about(bent))
                .collect(Collectors.joining(" "));
    }

    private static Stream<String> about(Element metadata) {
        return metadata.references(Property.ABOUT).stream()
                .map(Reference::target)
                .map(ElementId::toString);
    }

    private static List<Point> points(double[] via) {
        Point[] points = new Point[via.length / 2];
        Arrays.setAll(points, i -> new Point(via[2 * i], via[2 * i + 1]));
        return List.of(points);
    }

    /** Whether all is left to the layout. */
    boolean isFree() {
        return places.isEmpty() && bends.isEmpty();
    }

    /** The places under other keys. */
    Map<String, Place> places(UnaryOperator<String> rekeyed) {
        Map<String, Place> others = new HashMap<>();
        places.forEach((key, place) -> others.put(rekeyed.apply(key), place));
        return others;
    }

    /** With places for what a person has not placed: where it stood when it was looked at last. */
    public Placement orElse(Map<String, Place> others) {
        Map<String, Place> all = new HashMap<>(others);
        places.forEach((key, place) -> all.merge(
                key,
                place,
                (other, own) -> new Place(
                        own.at() == null ? other.at() : own.at(), own.size() == null ? other.size() : own.size())));
        return new Placement(all, bends, open, hidden);
    }
}
