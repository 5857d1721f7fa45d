package pyrite.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.view.BoxKey;
import pyrite.core.view.Diagram;
import pyrite.core.view.DiagramLayout;
import pyrite.core.view.ShownView;

/** What gestures on a sequence drawing write, and where its steps stand; the expected notation is written by hand. */
class SequenceEditingTest {
    private static final Model EMPTY = Models.of("""
            private import Execution::*;
            private import Recordings::*;
            item def Call { attribute length : LengthValue default 20 [m]; }
            item def Free;
            port def Horn { in item call : Call; out item free : Free; }
            part def Keeper {
                port bell;
                port horn : Horn;
                attribute patience : TimeValue := 5 [s];
                exhibit state mode { entry; then idle; state idle; accept call : Call via horn then busy; state busy; }
            }
            part def Boat { port horn : ~Horn; }
            part def Lock { part keeper : Keeper; part boat : Boat; connect keeper.horn to boat.horn; }
            part lock : Lock;
            verification passage : Recording { subject :>> system = lock; attribute :>> stopTime = 1 [min]; objective; }
            """);

    private static final List<ElementId> KEEPER = way("lock", "Lock::keeper");
    private static final List<ElementId> BOAT = way("lock", "Lock::boat");
    private static final List<ElementId> OUTSIDE = List.of(Sequence.OUTSIDE);

    private static List<ElementId> way(String... names) {
        return Stream.of(names).map(name -> Models.id(EMPTY, "Test::" + name)).toList();
    }

    private static Element passage(Model model) {
        return Models.element(model, "Test::passage");
    }

    private static Model after(Model model, Function<SequenceEditing, SequenceEditing.Made> act) {
        SequenceEditing.Made made = act.apply(new SequenceEditing(model, passage(model)));
        return ((EditResult.Applied) model.apply(made.edit())).model();
    }

    private static Model told() {
        Model called = after(
                EMPTY, editing -> editing.message(OUTSIDE, KEEPER, "Call(length = 30 [m])", SequenceEditing.LAST));
        Model busy = after(called, editing -> editing.event(KEEPER, "mode.busy", SequenceEditing.LAST));
        return after(busy, editing -> editing.message(KEEPER, BOAT, "Free", SequenceEditing.LAST));
    }

    private static List<String> steps(Model model) {
        return Sequence.written(model, passage(model)).stream()
                .map(step -> step.step().at() + " " + step.step().words())
                .toList();
    }

    private static Element step(Model model, int number) {
        return Sequence.written(model, passage(model)).get(number).member();
    }

    @Test
    void messagesAndEventsAreDrawnOneBehindTheOther() {
        Model model = told();
        assertThat(steps(model))
                .containsExactly(
                        "0.0 Call (length = 30 [m]) from outside to keeper.horn",
                        "1.0 keeper.mode.busy begins",
                        "2.0 Free from keeper to boat.horn");
        assertThat(NotationWriter.write(model, List.of(passage(model))))
                .contains(
                        "message : Told of content : Call = new Call(length = 30 [m]) from outside to lock.keeper.horn {",
                        "event lock.keeper.mode.busy : Begins {\n        attribute :>> at = 1 [s];",
                        "message : Told of Free from lock.keeper to lock.boat.horn {");
    }

    @Test
    void whatIsDroppedBetweenOthersGetsAnInstantBetweenTheirs() {
        Model between = after(told(), editing -> editing.event(KEEPER, "patience := 9 [s]", 1.4));
        assertThat(steps(between)).element(2).isEqualTo("1.5 keeper.patience set to 9 [s]");
        Model finer = after(between, editing -> editing.event(KEEPER, "mode.busy ends", 2.5));
        assertThat(steps(finer)).element(3).isEqualTo("1.8 keeper.mode.busy ends");
        Model first = after(finer, editing -> editing.place(step(finer, 3), SequenceEditing.LAST));
        assertThat(steps(first)).element(4).isEqualTo("3.0 keeper.mode.busy ends");
        // Nothing is before the start.
        Model start = after(first, editing -> editing.place(step(first, 4), -3));
        assertThat(steps(start).getFirst()).startsWith("0.0 ");
    }

    @Test
    void aStepIsSaidAnewAndLedElsewhereAndStaysAtItsInstant() {
        Model model = told();
        SequenceEditing editing = new SequenceEditing(model, passage(model));
        assertThat(editing.says(step(model, 0))).isEqualTo("Call(length = 30 [m])");
        assertThat(editing.says(step(model, 1))).isEqualTo("mode.busy");
        Model longer = after(model, each -> each.say(step(model, 0), "Call(length = 42 [m])"));
        assertThat(steps(longer).getFirst()).isEqualTo("0.0 Call (length = 42 [m]) from outside to keeper.horn");
        Model idle = after(longer, each -> each.say(step(longer, 1), "mode.idle ends"));
        assertThat(steps(idle).get(1)).isEqualTo("1.0 keeper.mode.idle ends");
        Model other = after(idle, each -> each.reend(step(idle, 0), true, BOAT));
        assertThat(steps(other).getFirst()).startsWith("0.0 Call (length = 42 [m]) from boat to keeper.horn");
        Model back = after(other, each -> each.reend(step(other, 2), false, OUTSIDE));
        assertThat(steps(back).get(2)).startsWith("2.0 Free from keeper");
    }

    @Test
    void whatTheModelDoesNotKnowIsRefused() {
        SequenceEditing editing = new SequenceEditing(EMPTY, passage(EMPTY));
        assertThatThrownBy(() -> editing.message(OUTSIDE, KEEPER, "Cal", 0))
                .hasMessageStartingWith("there is no item definition 'Cal'");
        assertThatThrownBy(() -> editing.message(OUTSIDE, KEEPER, "Call(size = 3 [m])", 0))
                .hasMessageContaining("size");
        assertThatThrownBy(() -> editing.event(KEEPER, "mode.asleep", 0)).hasMessageContaining("asleep");
        assertThatThrownBy(() -> editing.event(OUTSIDE, "mode.busy", 0)).hasMessageStartingWith("nothing is known");
        assertThatThrownBy(() -> editing.event(KEEPER, " ", 0)).hasMessageStartingWith("say what happens");
    }

    @Test
    void theDrawingHasALifelineForEachPartAndARowForEachStep() {
        Model model = told();
        ShownView shown = ShownView.of(model, passage(model), ShownView.Form.SEQUENCE);
        Diagram diagram = shown.diagram(model, java.util.Set.of());
        assertThat(diagram.nodes())
                .extracting(Diagram.Node::title)
                .containsExactly("outside", "keeper : Keeper", "boat : Boat", "1 s  busy");
        DiagramLayout layout = DiagramLayout.of(diagram, shown.placement());
        DiagramLayout.Box keeper = layout.boxes().get(1);
        assertThat(keeper.node().key()).isEqualTo(BoxKey.of(KEEPER));
        DiagramLayout.Line call = layout.lines().getFirst();
        DiagramLayout.Line free = layout.lines().getLast();
        // The message arrives in the middle of the lifeline; what is later stands lower.
        assertThat(call.points().getLast().x()).isEqualTo(keeper.x() + keeper.width() / 2);
        assertThat(call.points())
                .extracting(point -> point.y())
                .containsOnly(call.points().getFirst().y());
        assertThat(free.points().getFirst().y())
                .isGreaterThan(keeper.y() + layout.boxes().get(3).y())
                .isLessThan(layout.height());
        for (int i = 1; i < 3; i++) {
            DiagramLayout.Box before = layout.boxes().get(i - 1);
            assertThat(layout.boxes().get(i).x()).isGreaterThan(before.x() + before.width());
        }
    }
}
