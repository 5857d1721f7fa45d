package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.view.DiagramLayout.Box;
import pyrite.core.view.DiagramLayout.Line;
import pyrite.core.view.Placement.Point;

/** A sequence stands as it happens: later is lower, and nothing but the order of lifelines can be arranged. */
class SequenceLayoutTest {
    private static final Model MODEL = Models.of("""
            private import Execution::*;
            private import Recordings::*;
            item def Call;
            item def 'a report on all that was seen in the channel';
            port def Horn { in item call : Call; out item report : 'a report on all that was seen in the channel'; }
            part def Keeper {
                port horn : Horn;
                exhibit state mode { entry; then idle; state idle; state 'waiting for the boats of the whole harbour'; }
            }
            part def Boat { port horn : ~Horn; }
            part def Lock { part boat : Boat; part keeper : Keeper; connect keeper.horn to boat.horn; }
            part lock : Lock;
            verification passage : Recording {
                subject :>> system = lock;
                attribute :>> stopTime = 1 [min];
                objective;
                message : Told of content : Call from lock.boat to lock.keeper.horn { attribute :>> at = 1 [s]; }
                event lock.keeper.mode.'waiting for the boats of the whole harbour' : Begins { attribute :>> at = 2 [s]; }
                message : Told of content : Call from outside to lock.keeper.horn { attribute :>> at = 3 [s]; }
                message : Told of content : Call from lock.keeper to lock.keeper.horn { attribute :>> at = 3 [s]; }
            }
            """);

    private static Diagram diagram() {
        return ShownView.of(MODEL, Models.element(MODEL, "Test::passage"), ShownView.Form.SEQUENCE)
                .diagram(MODEL, Set.of());
    }

    private static List<String> acrossTitles(DiagramLayout layout) {
        return lifelines(layout).stream().map(box -> box.node().title()).toList();
    }

    private static List<Box> lifelines(DiagramLayout layout) {
        return layout.boxes().stream()
                .filter(box -> box.node().shape() == Diagram.Shape.LIFELINE)
                .sorted(Comparator.comparingDouble(Box::x))
                .toList();
    }

    @Test
    void eachStepHasItsRow() {
        DiagramLayout layout = DiagramLayout.of(diagram());
        List<Double> heights = layout.lines().stream()
                .map(line ->
                        line.points().stream().mapToDouble(Point::y).average().orElseThrow())
                .toList();
        // The event has the second row.
        assertThat(heights)
                .containsExactly(
                        SequenceLayout.FIRST,
                        SequenceLayout.FIRST + 2 * SequenceLayout.ROW,
                        SequenceLayout.FIRST + 3 * SequenceLayout.ROW);
        Box event = layout.boxes().stream()
                .filter(box -> box.node().shape() == Diagram.Shape.EVENT)
                .findFirst()
                .orElseThrow();
        assertThat(event.y() + event.height() / 2).isEqualTo(SequenceLayout.FIRST + SequenceLayout.ROW);
    }

    @Test
    void lifelinesHaveRoomForWhatHappensOnThem() {
        DiagramLayout layout = DiagramLayout.of(diagram());
        List<Box> lifelines = lifelines(layout);
        for (int i = 1; i < lifelines.size(); i++) {
            assertThat(lifelines.get(i).x())
                    .isGreaterThan(
                            lifelines.get(i - 1).x() + lifelines.get(i - 1).width());
        }
        Box event = layout.boxes().stream()
                .filter(box -> box.node().shape() == Diagram.Shape.EVENT)
                .findFirst()
                .orElseThrow();
        Box around = lifelines.stream()
                .filter(box -> box.node().key().equals(event.node().parent()))
                .findFirst()
                .orElseThrow();
        assertThat(event.x()).isNotNegative();
        assertThat(event.x() + event.width()).isLessThanOrEqualTo(around.width());
    }

    @Test
    void aMessageLeadsFromMiddleToMiddleAndOneToItselfIsALoop() {
        DiagramLayout layout = DiagramLayout.of(diagram());
        Line first = layout.lines().getFirst();
        assertThat(first.points())
                .containsExactly(
                        new Point(middle(layout, first.edge().from()), SequenceLayout.FIRST),
                        new Point(middle(layout, first.edge().to()), SequenceLayout.FIRST));
        Line loop = layout.lines().getLast();
        assertThat(loop.edge().from()).isEqualTo(loop.edge().to());
        assertThat(loop.points()).hasSize(4);
        assertThat(loop.points().getFirst().x())
                .isEqualTo(loop.points().getLast().x());
    }

    private static double middle(DiagramLayout layout, String key) {
        Box box = lifelines(layout).stream()
                .filter(lifeline -> lifeline.node().key().equals(key))
                .findFirst()
                .orElseThrow();
        return box.x() + box.width() / 2;
    }

    @Test
    void whatAPersonMovedAsideChangesTheOrderOnly() {
        DiagramLayout natural = DiagramLayout.of(diagram());
        List<String> titles = acrossTitles(natural);
        Box last = lifelines(natural).getLast();
        Placement placement = new Placement(
                Map.of(last.node().key(), new Placement.Place(new Point(-500, 300), null)),
                Map.of(),
                Set.of(),
                Set.of());
        DiagramLayout arranged = DiagramLayout.of(diagram(), placement, Seen.NOTHING, DiagramLayout::best);
        List<String> expected = new ArrayList<>(titles.subList(0, titles.size() - 1));
        expected.addFirst(titles.getLast());
        assertThat(acrossTitles(arranged)).isEqualTo(expected);
        assertThat(lifelines(arranged)).allMatch(box -> box.y() == 0);
        assertThat(lifelines(arranged).getFirst().x()).isZero();
    }
}
