package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.Placement.Place;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;
import pyrite.core.view.Settling.Rectangle;

/** However parts are nested and connected, there is a layout in which no box overlaps another or leaves its whole. */
class NestedLayoutLawTest {
    private static final int DEEPEST = 3;

    private int names;

    @Property(tries = 120)
    void boxesStandApartAndInside(@ForAll long seed) {
        Model model = nest(new Random(seed));
        ShownView view = shown(model);
        Set<String> open = new HashSet<>();
        for (int level = 0; level <= DEEPEST; level++) {
            view.diagram(model, open).nodes().forEach(node -> open.add(node.key()));
        }
        DiagramLayout layout = DiagramLayout.of(view.diagram(model, open));
        standsApartAndInside(layout);
    }

    /**
     * As a page does it: what is shown stands, but for the size of the box that is opened or closed and of those around
     * it.
     */
    @Property(tries = 120)
    void boxesAndPortsStayApartWhateverIsOpenedAndClosed(@ForAll long seed) {
        Random random = new Random(seed);
        Model model = nest(random);
        ShownView view = shown(model);
        Set<String> open = new HashSet<>();
        DiagramLayout layout = DiagramLayout.of(view.diagram(model, open));
        for (int step = 0; step < 6; step++) {
            List<String> openable = layout.boxes().stream()
                    .filter(box -> box.node().openable() && !box.node().parent().isEmpty())
                    .map(box -> box.node().key())
                    .toList();
            if (openable.isEmpty()) {
                return;
            }
            String turned = openable.get(random.nextInt(openable.size()));
            if (!open.remove(turned)) {
                open.add(turned);
            }
            open.removeIf(key -> key.startsWith(turned + "."));
            layout = DiagramLayout.of(
                    view.diagram(model, open), Placement.NONE, seen(layout, turned), DiagramLayout::best);
            standsApartAndInside(layout);
            layout.boxes()
                    .forEach(box -> assertThat(box.ports())
                            .extracting(port -> Math.round(port.x()) + " " + Math.round(port.y()))
                            .doesNotHaveDuplicates());
        }
    }

    private Model nest(Random random) {
        names = 0;
        return Models.of("part root { port outside; " + inside(random, 0, new ArrayList<>()) + " }");
    }

    private static ShownView shown(Model model) {
        return ShownView.of(model, Models.element(model, "Test::root"), ShownView.Form.INTERCONNECTION);
    }

    private static Seen seen(DiagramLayout layout, String turned) {
        Map<String, Place> places = new HashMap<>();
        Set<String> resized = new HashSet<>();
        for (Box box : layout.boxes()) {
            String key = box.node().key();
            places.put(key, new Place(new Point(box.x(), box.y()), new Size(box.width(), box.height())));
            box.ports().forEach(port -> places.put(port.port().key(), new Place(new Point(port.x(), port.y()), null)));
            if (turned.startsWith(key) || box.node().parent().isEmpty()) {
                resized.add(key);
            }
        }
        return new Seen(places, resized);
    }

    private static void standsApartAndInside(DiagramLayout layout) {
        Map<String, List<Box>> siblings = layout.boxes().stream()
                .collect(Collectors.groupingBy(box -> box.node().parent()));
        for (Box box : layout.boxes()) {
            for (Box inner : siblings.getOrDefault(box.node().key(), List.of())) {
                assertThat(inner.x()).isNotNegative();
                assertThat(inner.y()).isGreaterThanOrEqualTo(BoxSizes.HEAD);
                assertThat(inner.x() + inner.width()).isLessThanOrEqualTo(box.width());
                assertThat(inner.y() + inner.height()).isLessThanOrEqualTo(box.height());
            }
        }
        siblings.values().forEach(NestedLayoutLawTest::standApart);
    }

    private static void standApart(List<Box> boxes) {
        for (int i = 0; i < boxes.size(); i++) {
            for (int k = 0; k < i; k++) {
                assertThat(rectangle(boxes.get(i)).overlaps(rectangle(boxes.get(k)), 0))
                        .isFalse();
            }
        }
    }

    private static Rectangle rectangle(Box box) {
        return new Rectangle(box.x(), box.y(), box.width(), box.height());
    }

    /** Parts with ports and parts of their own, and lines between any two of them, their own whole included. */
    private String inside(Random random, int depth, List<String> ends) {
        StringBuilder text = new StringBuilder();
        int count = 1 + random.nextInt(4);
        for (int i = 0; i < count; i++) {
            String part = "p" + names++;
            text.append("part ").append(part).append(" {");
            ends.add(part);
            for (int ports = random.nextInt(4); ports > 0; ports--) {
                String port = "q" + names++;
                text.append("port ").append(port).append(random.nextBoolean() ? " { in item o; }" : " { out item o; }");
                ends.add(part + "." + port);
            }
            List<String> inner = new ArrayList<>();
            if (depth < DEEPEST && random.nextInt(3) > 0) {
                text.append(inside(random, depth + 1, inner));
            }
            inner.forEach(end -> ends.add(part + "." + end));
            text.append("}");
        }
        for (int lines = random.nextInt(6); lines > 0; lines--) {
            String one = ends.get(random.nextInt(ends.size()));
            String other = ends.get(random.nextInt(ends.size()));
            if (!one.equals(other)) {
                text.append(
                        random.nextInt(4) == 0
                                ? "bind " + one + " = " + other + ";"
                                : "connect " + one + " to " + other + ";");
            }
        }
        return text.toString();
    }
}
