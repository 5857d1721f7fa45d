package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.DiagramLayout.Line;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Settling.Rectangle;

/** A column that is folded stays readable: nothing overlaps, and lines lead around the boxes. */
class ColumnFoldingLawTest {
    private static final double MOST = 800;

    private static DiagramLayout rightward(String members) {
        Model model = Models.of(members);
        ShownView view = ShownView.of(model, Models.element(model, "Test"), ShownView.Form.GENERAL);
        return ElkLayout.rightward(view.diagram(model, Set.of()));
    }

    /** A whole with many parts of their own kinds, some of which have parts again. */
    private static String wholes(Random random) {
        StringBuilder text = new StringBuilder("part def Whole {");
        int count = 20 + random.nextInt(40);
        for (int i = 0; i < count; i++) {
            text.append("part p%d : P%d; ".formatted(i, i));
        }
        text.append("} ");
        for (int i = 0; i < count; i++) {
            text.append("part def P%d { ".formatted(i));
            for (int k = random.nextInt(4); k > 0; k--) {
                text.append("attribute a%d : Real; ".formatted(k));
            }
            text.append(
                    random.nextInt(6) == 0 ? "part inner%d : Inner%d; } part def Inner%d; ".formatted(i, i, i) : "} ");
        }
        return text.toString();
    }

    @Property(tries = 30)
    void boxesStandApartAndLinesLeadAroundThem(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        DiagramLayout before = rightward(wholes(new Random(seed)));
        DiagramLayout folded = ColumnFolding.of(before, MOST);
        assertThat(folded.boxes().stream().map(Box::node))
                .containsExactlyElementsOf(
                        before.boxes().stream().map(Box::node).toList());
        standApart(folded.boxes(), seed);
        for (Box box : folded.boxes()) {
            assertThat(box.x()).isNotNegative();
            assertThat(box.y()).isNotNegative();
            assertThat(box.x() + box.width()).isLessThanOrEqualTo(folded.width() + 0.001);
            assertThat(box.y() + box.height()).isLessThanOrEqualTo(folded.height() + 0.001);
        }
        Map<String, Box> byKey = folded.boxes().stream()
                .collect(Collectors.toMap(box -> box.node().key(), Function.identity()));
        for (Line line : folded.lines()) {
            leadsAround(line, byKey, seed);
        }
    }

    private static void standApart(List<Box> boxes, long seed) {
        for (int i = 0; i < boxes.size(); i++) {
            for (int k = 0; k < i; k++) {
                assertThat(rectangle(boxes.get(i)).overlaps(rectangle(boxes.get(k)), 0))
                        .as("seed %d", seed)
                        .isFalse();
            }
        }
    }

    private static Rectangle rectangle(Box box) {
        return new Rectangle(box.x(), box.y(), box.width(), box.height());
    }

    /** Upright and level, from border to border, through no box. */
    private static void leadsAround(Line line, Map<String, Box> boxes, long seed) {
        List<Point> points = line.points();
        for (int i = 1; i < points.size(); i++) {
            Point one = points.get(i - 1);
            Point other = points.get(i);
            assertThat(one.x() == other.x() || one.y() == other.y())
                    .as("seed %d: %s is level or upright", seed, points)
                    .isTrue();
            boxes.values()
                    .forEach(box -> assertThat(crosses(one, other, box))
                            .as(
                                    "seed %d: %s crosses %s",
                                    seed, points, box.node().title())
                            .isFalse());
        }
        if (!points.isEmpty()) {
            isOnBorder(points.getFirst(), boxes.get(line.edge().from()));
            isOnBorder(points.getLast(), boxes.get(line.edge().to()));
        }
    }

    private static boolean crosses(Point one, Point other, Box box) {
        return Math.max(one.x(), other.x()) > box.x()
                && Math.min(one.x(), other.x()) < box.x() + box.width()
                && Math.max(one.y(), other.y()) > box.y()
                && Math.min(one.y(), other.y()) < box.y() + box.height();
    }

    private static void isOnBorder(Point point, Box box) {
        assertThat(point.x() == box.x() || point.x() == box.x() + box.width()).isTrue();
        assertThat(point.y()).isBetween(box.y(), box.y() + box.height());
    }

    /** By hand: 40 like boxes need two columns, whose rows are level, and the lines share one trunk. */
    @Example
    void whatDoesNotFitGoesOnBesideItInRows() {
        StringBuilder text = new StringBuilder("part def Whole {");
        for (int i = 0; i < 40; i++) {
            text.append("part p%d : P%d; ".formatted(i, i));
        }
        text.append("} ");
        for (int i = 0; i < 40; i++) {
            text.append("part def P%d; ".formatted(i));
        }
        DiagramLayout before = rightward(text.toString());
        List<Box> column = before.boxes().stream()
                .filter(box -> !box.node().title().equals("Whole"))
                .toList();
        double height = column.stream().mapToDouble(box -> box.height() + 34).sum();
        DiagramLayout folded = ColumnFolding.of(before, height / 2 + 1);
        Map<Double, Long> columns = folded.boxes().stream()
                .filter(box -> !box.node().title().equals("Whole"))
                .collect(Collectors.groupingBy(Box::x, Collectors.counting()));
        assertThat(columns.values()).containsExactly(20L, 20L);
        assertThat(folded.boxes().stream()
                        .filter(box -> !box.node().title().equals("Whole"))
                        .map(Box::y)
                        .distinct())
                .hasSize(20);
        assertThat(folded.lines().stream().map(line -> line.points().get(1).x()).distinct())
                .hasSize(1);
    }

    @Example
    void aColumnThatFitsIsNotFolded() {
        DiagramLayout before = rightward("part def Whole { part p : P; part q : Q; } part def P; part def Q;");
        DiagramLayout after = ColumnFolding.of(before, MOST);
        assertThat(after.boxes().stream().map(Box::x).distinct()).hasSize(2);
    }
}
