package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

/** What the drawing of a state machine shows, written down by hand. */
class StateTransitionViewTest {
    private static final String MACHINE = """
            private import ScalarValues::*; item def Go; item def Halt;
            state def Modes { attribute x : Real := 0; entry; then off; state off;
                transition go first off accept Go if x > 1 do assign x := 2 then on;
                state on { entry assign x := 3; entry1; state slow; state fast; }
                transition back first on accept h : Halt then off; transition stop first on then done; }
            """.replace("entry1; ", "then slow; ");

    private static Diagram diagram(String text, String name) {
        Model model = Models.of(text);
        return ShownView.of(model, Models.element(model, name), ShownView.Form.STATE_TRANSITION)
                .diagram(model, Set.of());
    }

    private static List<String> lines(Diagram diagram) {
        Map<String, String> titles = diagram.nodes().stream()
                .collect(Collectors.toMap(
                        Diagram.Node::key, node -> node.title().isEmpty() ? node.keyword() : node.title()));
        return diagram.edges().stream()
                .map(edge -> titles.get(edge.from()) + " - " + edge.label() + " - " + titles.get(edge.to()))
                .toList();
    }

    @Test
    void statesStandWithinStatesAndTransitionsSayWhenAndWhat() {
        Diagram diagram = diagram(MACHINE, "Test::Modes");
        assertThat(diagram.nodes())
                .extracting(Diagram.Node::title)
                .filteredOn(title -> !title.isEmpty())
                .containsExactly("off", "on", "slow", "fast");
        assertThat(lines(diagram))
                .containsExactlyInAnyOrder(
                        "start -  - off",
                        "start -  - slow",
                        "off - Go [x > 1] / assign x := 2 - on",
                        "on - h : Halt - off",
                        "on -  - done");
        assertThat(diagram.nodes())
                .filteredOn(node -> node.title().equals("on"))
                .flatExtracting(Diagram.Node::compartments)
                .flatExtracting(Diagram.Compartment::lines)
                .extracting(Diagram.Line::text)
                .containsExactly("entry assign x := 3");
    }

    @Test
    void aSpecialMachineShowsWhatItInheritsAsSuch() {
        Diagram diagram = diagram(
                MACHINE + "state def Special :> Modes { state away; transition :>> go first off accept Go then away; }",
                "Test::Special");
        assertThat(diagram.nodes())
                .filteredOn(node -> List.of("off", "away").contains(node.title()))
                .extracting(node -> node.title() + " " + node.isInherited())
                .containsExactlyInAnyOrder("off true", "away false");
        assertThat(lines(diagram))
                .contains("off - Go [x > 1] / assign x := 2 - away")
                .noneMatch(line -> line.endsWith("- on"));
    }
}
