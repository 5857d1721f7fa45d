package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
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

    /** A line begins at the box it leaves, in nested states too, and the first state stands above what follows. */
    @Test
    void linesBeginAtTheirBoxesAndTheFirstStateIsOnTop() {
        Model model = Models.of("""
                item def A;
                part def V { exhibit state modes { entry; then shut;
                    state shut { entry; then x; state x; accept A then y; state y; }
                    accept A then on; state on; accept A then shut; } }
                """);
        Element modes = Models.element(model, "Test::V::modes");
        DiagramLayout layout = DiagramLayout.best(
                ShownView.of(model, modes, ShownView.Form.STATE_TRANSITION).diagram(model, Set.of()));
        Map<String, DiagramLayout.Box> boxes = layout.boxes().stream()
                .collect(Collectors.toMap(box -> box.node().key(), box -> box));
        layout.lines().forEach(line -> {
            assertThat(touches(boxes, line.edge().from(), line.points().getFirst()))
                    .isTrue();
            assertThat(touches(boxes, line.edge().to(), line.points().getLast()))
                    .isTrue();
        });
        assertThat(layout.boxes().stream()
                        .filter(box -> box.node().parent().isEmpty())
                        .sorted(Comparator.comparingDouble(DiagramLayout.Box::y))
                        .map(box -> box.node().title()))
                .containsExactly("", "shut", "on");
    }

    private static boolean touches(Map<String, DiagramLayout.Box> boxes, String key, Placement.Point point) {
        DiagramLayout.Box box = boxes.get(key);
        double x = 0;
        double y = 0;
        for (DiagramLayout.Box at = box; at != null; at = boxes.get(at.node().parent())) {
            x += at.x();
            y += at.y();
        }
        return point.x() >= x - 1
                && point.x() <= x + box.width() + 1
                && point.y() >= y - 1
                && point.y() <= y + box.height() + 1;
    }

    /** What a special machine inherits stands where it stands in the drawing of the general one. */
    @Test
    void aSpecialMachineStandsAsTheGeneralOneWasPlaced() {
        Model model = Models.of("""
                state def General { entry; then on; state on { state deep; } state off; }
                state def Special :> General { state :>> on { state more; } state extra; }
                """);
        Element general = Models.element(model, "Test::General");
        String on = general.id() + "." + Models.id(model, "Test::General::on");
        String deep = on + "." + Models.id(model, "Test::General::on::deep");
        Arranging.Arranged arranged = Arranging.arrange(
                model,
                general,
                ShownView.Form.STATE_TRANSITION,
                List.of(
                        new Arranging.Change(on, new Placement.Point(300, 40), null, null, null),
                        new Arranging.Change(deep, new Placement.Point(30, 70), null, null, null)),
                List.of());
        Model after = ((EditResult.Applied) model.apply(arranged.edit())).model();
        Element special = Models.element(after, "Test::Special");
        Map<String, Placement.Place> places = ShownView.of(after, special, ShownView.Form.STATE_TRANSITION)
                .placement()
                .places();
        String ownOn = special.id() + "." + Models.id(after, "Test::Special::on");
        assertThat(places.get(ownOn)).isEqualTo(new Placement.Place(new Placement.Point(300, 40), null));
        assertThat(places.get(ownOn + "." + Models.id(after, "Test::General::on::deep")))
                .isEqualTo(new Placement.Place(new Placement.Point(30, 70), null));
    }
}
