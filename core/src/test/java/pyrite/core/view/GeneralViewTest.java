package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

class GeneralViewTest {
    private static final Model MODEL = Models.read("""
            package Gate {
                part def Leaf { attribute mass = 3; part plate : Plate[4]; }
                part def LightLeaf :> Leaf;
                part def Plate;
                part leaf : LightLeaf { part bolt; }
                requirement def <'R-1'> Holds { doc /* It shall hold. */ subject s : Leaf; }
                requirement holds : Holds;
                satisfy holds by leaf;
                package Inner { part def A; part def B; }
            }
            """);

    private static Element element(String name) {
        return Models.element(MODEL, name);
    }

    private static Diagram general(Model model, Element element, Set<String> open) {
        return GeneralView.of(model, ShownView.of(model, element, ShownView.Form.GENERAL), open);
    }

    private static Diagram.Node node(Diagram diagram, String title) {
        return diagram.nodes().stream()
                .filter(node -> node.title().equals(title))
                .findFirst()
                .orElseThrow();
    }

    /** Edges as "from relation to" by the titles of their ends. */
    private static List<String> edges(Diagram diagram) {
        var titles = diagram.nodes().stream().collect(Collectors.toMap(Diagram.Node::key, Diagram.Node::title));
        return diagram.edges().stream()
                .map(edge -> titles.get(edge.from()) + " " + edge.relation() + " " + titles.get(edge.to())
                        + (edge.label().isEmpty() ? "" : " as " + edge.label()))
                .toList();
    }

    /** Owner with so many parts. */
    private static DiagramLayout fan(int parts) {
        return DiagramLayout.of(diagramOfFan(parts));
    }

    private static Diagram diagramOfFan(int parts) {
        StringBuilder text = new StringBuilder("package P { part def Owner {");
        for (int i = 0; i < parts; i++) {
            text.append(" part component").append(i).append(" : Component;");
        }
        Model model = Models.read(text + " } part def Component; }");
        return general(model, Models.element(model, "P::Owner"), Set.of());
    }

    @Test
    void veryManyPartsGoOnInFurtherColumns() {
        DiagramLayout layout = fan(60);
        // As many columns as leave each no higher than a screen and a third; in one they were 78 px · 60 high.
        assertThat(layout.height()).isLessThan(850);
        assertThat(layout.width()).isLessThan(2600);
        for (DiagramLayout.Box one : layout.boxes()) {
            assertThat(layout.boxes()).filteredOn(other -> other != one).noneMatch(other -> overlap(one, other));
            assertThat(layout.lines()).noneMatch(line -> passesThrough(line, one));
        }
        assertThat(layout.lines())
                .hasSize(60)
                .allMatch(line -> line.points().getLast().x() > 0
                        || line.points().getFirst().x() > 0);
    }

    /** Whether a piece of a line, which is level or upright, lies in the inside of a box. */
    private static boolean passesThrough(DiagramLayout.Line line, DiagramLayout.Box box) {
        for (int i = 1; i < line.points().size(); i++) {
            Placement.Point a = line.points().get(i - 1);
            Placement.Point b = line.points().get(i);
            if (Math.max(a.x(), b.x()) > box.x() + 1
                    && Math.min(a.x(), b.x()) < box.x() + box.width() - 1
                    && Math.max(a.y(), b.y()) > box.y() + 1
                    && Math.min(a.y(), b.y()) < box.y() + box.height() - 1) {
                return true;
            }
        }
        return false;
    }

    private static boolean overlap(DiagramLayout.Box one, DiagramLayout.Box other) {
        return one.x() < other.x() + other.width()
                && other.x() < one.x() + one.width()
                && one.y() < other.y() + other.height()
                && other.y() < one.y() + one.height();
    }

    /** More boxes come than stand there, and they go on in the direction in which the others stand. */
    @Test
    void nothingTurnsWhenMuchIsAdded() {
        Diagram more = diagramOfFan(14);
        DiagramLayout grown = DiagramLayout.of(
                more,
                Placement.NONE,
                new Seen(
                        Map.of(
                                more.nodes().get(0).key(),
                                at(100, 20),
                                more.nodes().get(1).key(),
                                at(60, 180)),
                        Set.of()),
                DiagramLayout::best);
        assertThat(grown.boxes().stream().skip(1))
                .allMatch(box -> box.y() > grown.boxes().getFirst().y());
    }

    private static Placement.Place at(double x, double y) {
        return new Placement.Place(new Placement.Point(x, y), null);
    }

    @Test
    void aFewPartsStandBelowTheirOwnerAndManyBesideIt() {
        assertThat(fan(3).boxes().stream().skip(1))
                .allSatisfy(box -> assertThat(box.y())
                        .isGreaterThan(fan(3).boxes().getFirst().y()));
        DiagramLayout wide = fan(14);
        assertThat(wide.boxes().stream().skip(1))
                .allSatisfy(box -> assertThat(box.x())
                        .isGreaterThan(wide.boxes().getFirst().x()));
        assertThat(wide.width()).isLessThan(wide.height());
    }

    @Test
    void noTwoBoxesLieOverEachOther() {
        List<DiagramLayout.Box> boxes =
                DiagramLayout.of(general(MODEL, element("Gate"), Set.of())).boxes();
        for (DiagramLayout.Box a : boxes) {
            assertThat(boxes.stream().filter(b -> b != a))
                    .allSatisfy(b -> assertThat(a.x() + a.width() <= b.x()
                                    || b.x() + b.width() <= a.x()
                                    || a.y() + a.height() <= b.y()
                                    || b.y() + b.height() <= a.y())
                            .isTrue());
        }
    }

    @Test
    void aPackageShowsItsMembersAndTheRelationsBetweenThem() {
        Diagram diagram = general(MODEL, element("Gate"), Set.of());
        assertThat(diagram.nodes())
                .extracting(Diagram.Node::title)
                .containsExactly(
                        "Leaf", "LightLeaf", "Plate", "leaf : LightLeaf", "<R-1> Holds", "holds : Holds", "Inner");
        assertThat(edges(diagram))
                .containsExactlyInAnyOrder(
                        "Leaf COMPOSITION Plate as plate [4]",
                        "LightLeaf SPECIALIZATION Leaf",
                        "leaf : LightLeaf TYPING LightLeaf",
                        "holds : Holds TYPING <R-1> Holds",
                        "leaf : LightLeaf SATISFACTION holds : Holds as «satisfy»");
    }

    @Test
    void compartmentsHoldWhatHasNoBox() {
        Diagram diagram = general(MODEL, element("Gate"), Set.of());
        assertThat(node(diagram, "Leaf").compartments())
                .extracting(Diagram.Compartment::title)
                .containsExactly("attributes");
        assertThat(node(diagram, "leaf : LightLeaf").compartments().getFirst().lines())
                .extracting(Diagram.Line::text)
                .containsExactlyInAnyOrder("bolt", "plate [4] : Plate");
        assertThat(node(diagram, "<R-1> Holds")
                        .compartments()
                        .getFirst()
                        .lines()
                        .getFirst()
                        .text())
                .isEqualTo("It shall hold.");
        assertThat(node(diagram, "Inner")
                        .compartments()
                        .getFirst()
                        .lines()
                        .getFirst()
                        .text())
                .isEqualTo("2 members");
    }

    @Test
    void anOpenBoxShowsItsPartsInheritedOnesIncluded() {
        String key = element("Gate::leaf").id().toString();
        Diagram diagram = general(MODEL, element("Gate"), Set.of(key));
        assertThat(node(diagram, "leaf : LightLeaf").open()).isTrue();
        assertThat(edges(diagram))
                .contains("leaf : LightLeaf COMPOSITION bolt", "leaf : LightLeaf COMPOSITION plate [4] : Plate");
    }

    @Test
    void whatIsTooMuchForAPictureIsCountedNotDrawn() {
        StringBuilder text = new StringBuilder("package Many {");
        for (int i = 0; i < 530; i++) {
            text.append("part def D").append(i).append(";");
        }
        Model many = Models.read(text + "}");
        Diagram diagram = general(many, Models.element(many, "Many"), Set.of());
        assertThat(diagram.nodes()).hasSize(500);
        assertThat(diagram.left()).isEqualTo(30);
    }

    @Test
    void noBoxesOverlapAndEveryLineBeginsAndEndsAtItsBoxes() {
        DiagramLayout layout = DiagramLayout.of(general(
                MODEL, element("Gate"), Set.of(element("Gate::leaf").id().toString())));
        List<DiagramLayout.Box> boxes = layout.boxes();
        for (DiagramLayout.Box a : boxes) {
            assertThat(a.x()).isNotNegative();
            assertThat(a.x() + a.width()).isLessThanOrEqualTo(layout.width());
            assertThat(a.y() + a.height()).isLessThanOrEqualTo(layout.height());
            for (DiagramLayout.Box b : boxes) {
                boolean apart = a == b
                        || a.x() + a.width() <= b.x()
                        || b.x() + b.width() <= a.x()
                        || a.y() + a.height() <= b.y()
                        || b.y() + b.height() <= a.y();
                assertThat(apart)
                        .as(a.node().title() + " and " + b.node().title())
                        .isTrue();
            }
        }
        for (DiagramLayout.Line line : layout.lines()) {
            assertThat(touches(box(boxes, line.edge().from()), line.points().getFirst()))
                    .isTrue();
            assertThat(touches(box(boxes, line.edge().to()), line.points().getLast()))
                    .isTrue();
        }
    }

    private static DiagramLayout.Box box(List<DiagramLayout.Box> boxes, String key) {
        return boxes.stream()
                .filter(box -> box.node().key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private static boolean touches(DiagramLayout.Box box, Placement.Point end) {
        double px = end.x();
        double py = end.y();
        return px >= box.x() - 0.1
                && px <= box.x() + box.width() + 0.1
                && (Math.abs(py - box.y()) < 0.1 || Math.abs(py - box.y() - box.height()) < 0.1);
    }

    private static List<String> lines(Diagram.Node node) {
        return node.compartments().stream()
                .flatMap(compartment -> compartment.lines().stream())
                .map(Diagram.Line::text)
                .toList();
    }

    @Test
    void aBoxWithVeryManyAttributesShowsTheFirstAndSaysHowManyMore() {
        StringBuilder text = new StringBuilder("package P { part def Board {");
        for (int i = 0; i < 40; i++) {
            text.append(" attribute reading").append(i).append(";");
        }
        Model model = Models.read(text + " } }");
        List<String> lines = lines(node(general(model, Models.element(model, "P"), Set.of()), "Board"));
        assertThat(lines.getFirst()).isEqualTo("reading0");
        assertThat(lines.getLast()).isEqualTo("and " + (40 - lines.size() + 1) + " more");
        assertThat(lines).hasSizeLessThan(20);
    }

    @Test
    void aLongTextIsBrokenIntoLinesAndCutAtItsEnd() {
        String said = "The leaf shall hold the water of the upper pool back while the lower pool is being emptied. ";
        Model model = Models.read("package P { requirement def Holds { doc /* " + said.repeat(8) + "*/ } }");
        List<String> lines = lines(node(general(model, Models.element(model, "P"), Set.of()), "Holds"));
        assertThat(lines)
                .hasSizeGreaterThan(2)
                .allSatisfy(line -> assertThat(line).hasSizeLessThanOrEqualTo(43));
        assertThat(String.join(" ", lines))
                .startsWith("The leaf shall hold the water")
                .endsWith("…");
    }

    @Test
    void whatDependsOnWhatIsDrawn() {
        Model model = Models.read("package P { part def Leaf; part def Plate; dependency from Leaf to Plate; }");
        assertThat(edges(general(model, Models.element(model, "P"), Set.of())))
                .containsExactly("Leaf DEPENDENCY Plate as «dependency»");
    }

    @Test
    void whatIsAbstractVariesOrIsOnlyReferredToIsMarked() {
        Model model = Models.read("""
                package P {
                    abstract part def Leaf;
                    variation part def Drive { variant part electric; }
                    part gate { part leaf : Leaf; ref part keeper : Keeper; assert constraint c { 1 < 2 } }
                    part def Keeper;
                }
                """);
        Diagram diagram = general(model, Models.element(model, "P::gate"), Set.of());
        assertThat(diagram.edges())
                .extracting(Diagram.Edge::relation)
                .contains(Diagram.Relation.COMPOSITION, Diagram.Relation.REFERENCE);
        assertThat(lines(diagram.nodes().getFirst())).contains("c { 1 < 2 }");
        assertThat(general(model, Models.element(model, "P"), Set.of()).nodes())
                .extracting(Diagram.Node::keyword)
                .contains("abstract part def", "variation part def");
    }
}
