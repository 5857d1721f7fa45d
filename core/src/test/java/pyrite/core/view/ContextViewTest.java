package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class ContextViewTest {
    private static final Model MODEL = Models.of("""
            part def Master; part def Crew;
            part def Gate { port grid; part leaf; attribute age; }
            part def Grid { port feeder; }
            part def Harbour {
                part gate : Gate;
                part grid : Grid;
                part sea;
                part quay;
                connect grid.feeder to gate.grid;
                bind gate.leaf = sea;
            }
            part def Museum { part model : Gate; part room; attribute age; bind model.age = age; }
            part def Quarry { part crane : Crane; } part def Crane;
            part lonely : Gate;
            use case def Close { subject gate : Gate; actor master : Master; actor crew : Crew; }
            use case def Drill { subject gate : Gate; actor master : Master; }
            use case def Sail { subject grid : Grid; actor crew : Crew; }
            """);

    private static Diagram of(String name) {
        return ShownView.of(MODEL, Models.element(MODEL, "Test::" + name), ShownView.Form.CONTEXT)
                .diagram(MODEL, Set.of());
    }

    private static List<String> titles(Diagram diagram) {
        return diagram.nodes().stream().map(Diagram.Node::title).toList();
    }

    @Test
    void aDefinitionIsShownWithItsNeighboursInTheWholesThatHaveIt() {
        Diagram diagram = of("Gate");
        assertThat(titles(diagram))
                .containsExactly("Harbour", "gate : Gate", "grid : Grid", "sea", "master : Master", "crew : Crew");
        Map<String, String> names = diagram.nodes().stream()
                .flatMap(node -> Stream.concat(
                        Stream.of(Map.entry(node.key(), node.title())),
                        node.ports().stream().map(port -> Map.entry(port.key(), port.name()))))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        assertThat(diagram.edges())
                .filteredOn(edge -> edge.relation() == Diagram.Relation.PARTICIPATION)
                .extracting(edge -> names.get(edge.from()) + " in " + edge.label() + " of " + names.get(edge.to()))
                .containsExactly(
                        "master : Master in Close, Drill of gate : Gate", "crew : Crew in Close of gate : Gate");
    }

    @Test
    void aUsageIsShownInItsOwnWhole() {
        assertThat(titles(of("Harbour::grid"))).containsExactly("Harbour", "gate : Gate", "grid : Grid", "crew : Crew");
    }

    @Test
    void whatNothingHasStandsAlone() {
        assertThat(titles(of("lonely"))).startsWith("lonely : Gate").contains("master : Master");
        assertThat(titles(of("Harbour"))).contains("Harbour");
        assertThat(titles(of("Crane"))).containsExactly("Quarry", "crane : Crane");
    }
}
