package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.structure.PortFace.Way;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.Placement.Place;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;

class InterconnectionViewTest {
    private static final Model MODEL = Models.of("""
            item def Oil;
            port def Hose { in item oil : Oil; }
            part def Pump { port outlet : ~Hose; part motor; }
            part def Valve { port inlet : Hose; port outlet : ~Hose; }
            part def Unit {
                part pumps : Pump[2];
                part valve : Valve;
                port line : ~Hose;
                attribute load = 1;
                interface hoses connect pumps.outlet to valve.inlet;
                bind valve.outlet = line;
            }
            part def Cylinder { port oil : Hose; attribute force = 2; attribute stroke = 3; }
            part def Plant {
                part unit : Unit;
                part cylinder : Cylinder { attribute travel = 4; attribute push = 5; }
                connect unit.line to cylinder.oil;
                bind unit.load = cylinder.force;
                bind cylinder.stroke = unit.load;
                connect unit.line to unit.valve.outlet;
            }
            part def Twin :> Plant { part :>> unit { part spare; } }
            view kept : StandardViewDefinitions::InterconnectionView {
                expose Plant;
                @Placement::Placed about Plant, Plant::cylinder { position = (40, 300); size = (200, 120); }
                @Placement::Placed about Plant, Plant::unit { open = true; }
            }
            """);

    private static Element element(String name) {
        return Models.element(MODEL, "Test::" + name);
    }

    private static String key(String... names) {
        return Stream.of(names).map(name -> element(name).id().toString()).collect(Collectors.joining("."));
    }

    private static Diagram of(String name, String... open) {
        ShownView view = ShownView.of(MODEL, element(name), ShownView.Form.INTERCONNECTION);
        return InterconnectionView.of(MODEL, view, Set.of(open));
    }

    private static List<String> edges(Diagram diagram) {
        Map<String, String> names = diagram.nodes().stream()
                .flatMap(node -> Stream.concat(
                        Stream.of(Map.entry(node.key(), node.title())),
                        node.ports().stream().map(port -> Map.entry(port.key(), node.title() + "/" + port.name()))))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        return diagram.edges().stream()
                .map(edge -> names.get(edge.from()) + " " + edge.relation() + " " + names.get(edge.to())
                        + (edge.label().isEmpty() ? "" : " as " + edge.label()))
                .toList();
    }

    @Test
    void partsStandInTheirWholeWithTheirPortsAndConnections() {
        Diagram diagram = of("Plant");
        assertThat(diagram.nodes())
                .extracting(Diagram.Node::title)
                .containsExactly("Plant", "unit : Unit", "cylinder : Cylinder");
        assertThat(diagram.nodes().get(1).ports())
                .extracting(Diagram.Port::name, Diagram.Port::declaration, Diagram.Port::way)
                .containsExactly(org.assertj.core.api.Assertions.tuple("line", "line : ~Hose", Way.OUT));
        assertThat(edges(diagram))
                .containsExactly(
                        "unit : Unit/line CONNECTION cylinder : Cylinder/oil as oil",
                        "unit : Unit/line CONNECTION unit : Unit as oil",
                        "unit : Unit BINDING cylinder : Cylinder as load = force, load = stroke");
    }

    @Test
    void anOpenPartShowsWhatItHasFromItsDefinition() {
        Diagram diagram = of("Plant", key("Plant", "Plant::unit"));
        assertThat(diagram.nodes())
                .filteredOn(Diagram.Node::isInherited)
                .extracting(Diagram.Node::title)
                .containsExactly("pumps [2] : Pump", "valve : Valve");
        assertThat(edges(diagram))
                .contains(
                        "pumps [2] : Pump/outlet INTERFACE valve : Valve/inlet as hoses: oil",
                        "valve : Valve/outlet BINDING unit : Unit/line as =",
                        "unit : Unit/line CONNECTION valve : Valve/outlet as oil");
    }

    @Test
    void aRedefinedPartTakesThePlaceOfTheInheritedOneInConnections() {
        Diagram diagram = of("Twin");
        assertThat(edges(diagram)).contains("unit : Unit/line CONNECTION cylinder : Cylinder/oil as oil");
        assertThat(diagram.nodes()).hasSize(3);
    }

    @Test
    void noBoxOverlapsAnotherAndWhatIsInsideStaysInside() {
        List<Box> boxes =
                DiagramLayout.of(of("Plant", key("Plant", "Plant::unit"))).boxes();
        Map<String, Box> byKey =
                boxes.stream().collect(Collectors.toMap(box -> box.node().key(), box -> box));
        for (Box box : boxes) {
            Box around = byKey.get(box.node().parent());
            if (around != null) {
                assertThat(box.x()).isPositive();
                assertThat(box.y()).isGreaterThanOrEqualTo(BoxSizes.HEAD);
                assertThat(box.x() + box.width()).isLessThan(around.width());
                assertThat(box.y() + box.height()).isLessThan(around.height());
            }
            boxes.stream()
                    .filter(other -> other != box
                            && other.node().parent().equals(box.node().parent()))
                    .forEach(other -> assertThat(new Settling.Rectangle(box.x(), box.y(), box.width(), box.height())
                                    .overlaps(
                                            new Settling.Rectangle(other.x(), other.y(), other.width(), other.height()),
                                            0))
                            .isFalse());
        }
    }

    @Test
    void aLineBeginsAndEndsAtItsPorts() {
        DiagramLayout layout = DiagramLayout.of(of("Plant"));
        Box plant = layout.boxes().getFirst();
        Box unit = layout.boxes().get(1);
        DiagramLayout.Port port = unit.ports().getFirst();
        assertThat(layout.lines().getFirst().points().getFirst()).satisfies(start -> {
            assertThat(start.x())
                    .isCloseTo(plant.x() + unit.x() + port.x(), org.assertj.core.api.Assertions.within(7.0));
            assertThat(start.y())
                    .isCloseTo(plant.y() + unit.y() + port.y(), org.assertj.core.api.Assertions.within(0.1));
        });
    }

    @Test
    void aViewKeepsWhereAPersonPutABox() {
        ShownView view = ShownView.of(MODEL, element("kept")).orElseThrow();
        assertThat(view.placement().open()).containsExactly(key("Plant", "Plant::unit"));
        Diagram diagram = InterconnectionView.of(MODEL, view, view.placement().open());
        DiagramLayout layout = DiagramLayout.of(diagram, view.placement());
        Box cylinder = layout.boxes().stream()
                .filter(box -> box.node().title().startsWith("cylinder"))
                .findFirst()
                .orElseThrow();
        assertThat(List.of(cylinder.x(), cylinder.y(), cylinder.width(), cylinder.height()))
                .containsExactly(40.0, 300.0, 200.0, 120.0);
        assertThat(layout.boxes().getFirst().height()).isGreaterThanOrEqualTo(300 + 120);
        assertThat(layout.lines().getFirst().points()).isEmpty();
    }

    @Test
    void theDrawingOfAnElementUsesTheViewThatKeepsItsArrangement() {
        assertThat(ShownView.of(MODEL, element("Plant"), ShownView.Form.INTERCONNECTION)
                        .view())
                .isEqualTo(element("kept"));
        assertThat(ShownView.of(MODEL, element("Plant"), ShownView.Form.GENERAL).view())
                .isNull();
        assertThat(ShownView.of(MODEL, element("Unit"), ShownView.Form.INTERCONNECTION)
                        .view())
                .isNull();
    }

    @Test
    void whatNobodyPlacedGivesWayToWhatSomebodyPlaced() {
        Diagram diagram = of("Plant");
        DiagramLayout first = DiagramLayout.of(diagram);
        Box unit = first.boxes().get(1);
        Placement onTop = new Placement(
                Map.of(key("Plant", "Plant::cylinder"), new Place(new Point(unit.x() + 10, unit.y() + 10), null)),
                Map.of(),
                Set.of(),
                Set.of());
        DiagramLayout second = DiagramLayout.of(diagram, onTop);
        Box moved = second.boxes().get(1);
        Box placed = second.boxes().get(2);
        assertThat(placed.x()).isEqualTo(unit.x() + 10);
        assertThat(new Settling.Rectangle(moved.x(), moved.y(), moved.width(), moved.height())
                        .overlaps(new Settling.Rectangle(placed.x(), placed.y(), placed.width(), placed.height()), 0))
                .isFalse();
    }

    @Test
    void aPortStandsAtTheNearestBorder() {
        Diagram.Port port = of("Unit").nodes().getFirst().ports().getFirst();
        assertThat(List.of(new Point(3, 50), new Point(95, 50), new Point(40, 2), new Point(40, 99)))
                .extracting(
                        at -> Settling.atBorder(port, at, new Size(100, 100)).side())
                .containsExactly(
                        DiagramLayout.Side.LEFT,
                        DiagramLayout.Side.RIGHT,
                        DiagramLayout.Side.TOP,
                        DiagramLayout.Side.BOTTOM);
    }
}
