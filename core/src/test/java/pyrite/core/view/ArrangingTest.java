package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.Source;
import pyrite.core.view.Arranging.Bend;
import pyrite.core.view.Arranging.Change;
import pyrite.core.view.Placement.Place;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;
import pyrite.core.view.ShownView.Form;

class ArrangingTest {
    private static final Model MODEL = Models.of("""
            part def Pump; part def Tank;
            part def Unit { part pump : Pump; part tank : Tank; connection pipe connect pump to tank; }
            """);

    private static Element element(Model model, String name) {
        return Models.element(model, "Test::" + name);
    }

    private static String key(Model model, String part) {
        return element(model, "Unit").id() + "."
                + element(model, "Unit::" + part).id();
    }

    private static Model applied(Model model, Edit edit) {
        EditResult result = model.apply(edit);
        assertThat(result).isInstanceOf(EditResult.Applied.class);
        return ((EditResult.Applied) result).model();
    }

    private static Model arranged(Model model, Change... changes) {
        return applied(
                model,
                Arranging.arrange(model, element(model, "Unit"), Form.INTERCONNECTION, List.of(changes), List.of())
                        .edit());
    }

    private static ShownView shown(Model model) {
        return ShownView.of(model, element(model, "Unit"), Form.INTERCONNECTION);
    }

    private static final Change MOVED = new Change(key(MODEL, "pump"), new Point(30, -60.25), null, null, null);

    @Test
    void theFirstPlacementMakesTheViewThatKeepsIt() {
        Model next = arranged(MODEL, MOVED);
        assertThat(shown(next).placement().places())
                .isEqualTo(Map.of(key(MODEL, "pump"), new Place(new Point(30, -60.3), null)));
        assertThat(NotationWriter.write(next, List.of(element(next, "'Unit interconnection view'"))))
                .contains("view 'Unit interconnection view' : StandardViewDefinitions::InterconnectionView")
                .contains("expose Unit;")
                .contains("@Placement::Placed about Unit, Unit::pump")
                .contains("position = (30, -60.3)");
    }

    @Test
    void whatIsPlacedAgainReplacesWhatWasPlacedAndTheRestStays() {
        Model next = arranged(
                arranged(MODEL, MOVED),
                new Change(key(MODEL, "pump"), null, new Size(200, 90), null, null),
                new Change(key(MODEL, "tank"), null, null, true, null));
        assertThat(shown(next).placement().places().get(key(MODEL, "pump")))
                .isEqualTo(new Place(new Point(30, -60.3), new Size(200, 90)));
        assertThat(shown(next).placement().open()).containsExactly(key(MODEL, "tank"));
        assertThat(next.ownElements(ElementKind.VIEW)).hasSize(1);
    }

    @Test
    void aBoxTakenOutOfTheViewStaysInTheModelAndComesBack() {
        Model next = arranged(MODEL, new Change(key(MODEL, "pump"), null, null, null, true));
        Diagram without = InterconnectionView.of(next, shown(next), java.util.Set.of());
        assertThat(without.nodes()).extracting(Diagram.Node::title).containsExactly("Unit", "tank : Tank");
        Model back = arranged(next, new Change(key(MODEL, "pump"), null, null, null, false));
        assertThat(shown(back).placement()).isEqualTo(Placement.NONE);
    }

    @Test
    void aBentLineKeepsItsCorners() {
        Diagram.Edge pipe = InterconnectionView.of(MODEL, shown(MODEL), java.util.Set.of())
                .edges()
                .getFirst();
        List<Point> via = List.of(new Point(10, 20), new Point(10, 40));
        Model next = applied(
                MODEL,
                Arranging.arrange(
                                MODEL,
                                element(MODEL, "Unit"),
                                Form.INTERCONNECTION,
                                List.of(),
                                List.of(new Bend(pipe.key(), via)))
                        .edit());
        Diagram diagram = InterconnectionView.of(next, shown(next), java.util.Set.of());
        assertThat(DiagramLayout.of(diagram, shown(next).placement())
                        .lines()
                        .getFirst()
                        .via())
                .isEqualTo(via);
        Model freed = applied(next, Arranging.freed(next, shown(next).view()));
        assertThat(shown(freed).placement()).isEqualTo(Placement.NONE);
    }

    @Test
    void anArrangementReadsBackFromItsNotation() {
        Model next = arranged(MODEL, MOVED, new Change(key(MODEL, "tank"), null, null, true, true));
        Element top = next.owners(element(next, "Unit")).getLast();
        String text = NotationWriter.write(next, List.of(top));
        Model back = NotationReader.readBack(next, List.of(top), new Source("", text))
                .model();
        assertThat(shown(back).placement()).isEqualTo(shown(next).placement());
        assertThat(NotationWriter.write(back, List.of(top))).isEqualTo(text);
    }

    @Test
    void whatIsRemovedLeavesTheViewsThatShowIt() {
        Model next = arranged(MODEL, MOVED);
        Element pump = element(next, "Unit::pump");
        Element pipe = element(next, "Unit::pipe");
        Edit removal = new Edit(List.of(), java.util.Set.of(pump.id(), pipe.id()));
        Model without = applied(next, Withdrawal.completed(next, removal));
        assertThat(shown(without).placement()).isEqualTo(Placement.NONE);
        Edit whole = Edit.remove(element(without, "Unit").id());
        Model empty = applied(without, Withdrawal.completed(without, whole));
        Element view = empty.ownElements(ElementKind.VIEW).findFirst().orElseThrow();
        assertThat(ShownView.of(empty, view).orElseThrow().exposed()).isEmpty();
    }
}
