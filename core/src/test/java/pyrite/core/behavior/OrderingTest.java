package pyrite.core.behavior;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

class OrderingTest {
    private Model model = Models.of("""
            action def Close {
                first start; then action warn; then action raise; then done;
                action wait; action look;
                action inner { action deep; }
            }
            attribute def Level;""");

    private Element at(String name) {
        return Models.element(model, "Test::Close::" + name);
    }

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
    }

    /** {@code from → to} of every succession. */
    private List<String> order() {
        return StepGraph.of(model, Models.element(model, "Test::Close")).successions().stream()
                .map(each -> name(each.from()) + " → " + name(each.to()))
                .sorted()
                .toList();
    }

    private String name(ElementId step) {
        return model.names().effectiveName(model.get(step));
    }

    @Test
    void aLineMakesASuccession() {
        apply(Ordering.connect(model, at("wait"), at("look")));
        assertThat(order()).contains("wait → look");
    }

    @Test
    void whereAnotherLeadsAlreadyTheyMergeBefore() {
        apply(Ordering.connect(model, at("wait"), at("raise")));
        assertThat(order())
                .containsExactlyInAnyOrder(
                        "start → warn",
                        "warn → beforeRaise",
                        "beforeRaise → raise",
                        "raise → done",
                        "wait → beforeRaise");
    }

    @Test
    void whatIsFollowedOrStandsElsewhereIsRefused() {
        assertThatThrownBy(() -> Ordering.connect(model, at("warn"), at("look")))
                .hasMessageContaining("a decide or fork node parts the ways");
        assertThatThrownBy(() -> Ordering.connect(model, at("warn"), at("raise")))
                .hasMessageContaining("already");
        assertThatThrownBy(() -> Ordering.connect(model, at("wait"), at("inner::deep")))
                .hasMessageContaining("different behaviours");
    }

    @Test
    void stepsAreTakenAwayAndTheRestFollowsOn() {
        apply(Ordering.remove(model, List.of(at("warn"), at("look"))));
        assertThat(order()).containsExactly("raise → done", "start → raise");
        assertThat(Ordering.areSteps(model, List.of(at("raise")))).isTrue();
        assertThat(Ordering.areSteps(model, List.of(Models.element(model, "Test::Level"))))
                .isFalse();
    }

    @Test
    void statesOfAMachineAreNoSteps() {
        model = Models.of("state def Modes { state low; state high { state higher; } }");
        assertThat(Ordering.areSteps(model, List.of(Models.element(model, "Test::Modes::low"))))
                .isFalse();
        assertThat(Ordering.areSteps(model, List.of(Models.element(model, "Test::Modes::high::higher"))))
                .isFalse();
    }

    @Test
    void withAStepGoTheFlowsAndLinksThatLeadToIt() {
        model = Models.of("""
                item def Oil; requirement wish;
                action def Close {
                    first start; then action give { out item oil : Oil; } then action take { in item oil : Oil; } then done;
                    flow of Oil from give.oil to take.oil;
                }
                dependency wish to Close::take;
                dependency wish to Close::give;""");
        apply(Ordering.remove(model, List.of(at("take"))));
        assertThat(order()).containsExactly("give → done", "start → give");
        assertThat(model.ownElements(ElementKind.FLOW)).isEmpty();
        assertThat(model.ownElements(ElementKind.DEPENDENCY)).hasSize(1);
    }
}
