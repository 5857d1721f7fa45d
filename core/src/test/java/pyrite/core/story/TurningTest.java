package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.trace.Links;

class TurningTest {
    private Model model = Models.of("""
            part def HarbourMaster; part def TideService; part def Gate;
            action def RaiseLeaf { doc /* Moves the leaf from the bed to its stop. */ }
            requirement wish { doc /* A wish */ }
            use case def Close {
                subject gate : Gate; actor master : HarbourMaster; actor service : TideService;
                first start;
                then action hear { doc /* The tide service sends a surge warning with height and time. */ }
                then action show { doc /* The gate shows the warning to the harbour master. */ }
                then action order { doc /* The harbour master orders the closing. */ }
                then action raise { doc /* The gate raises the leaf to its stop. */ }
                then action hold { doc /* The gate presses the leaf on its stop. */ }
                then done;
            }
            #Tracing::derive dependency from wish to Close::hear;""");

    private Element useCase() {
        return Models.element(model, "Test::Close");
    }

    private Element step(String name) {
        return Models.element(model, "Test::Close::" + name);
    }

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems()).as(text).isEmpty();
    }

    private void turnAll() {
        Turning turning = new Turning(model, useCase());
        apply(turning.turn(turning.proposals().stream()
                .map(each -> new Turning.Choice(each.step(), each.kind(), each.name(), each.actor()))
                .toList()));
    }

    @Test
    void whatAnActorDoesIsReceivedWhatIsToldIsSentAndTheRestIsDone() {
        assertThat(new Turning(model, useCase())
                        .proposals().stream()
                                .map(each -> each.step().name() + " " + each.kind() + " " + each.name()
                                        + (each.actor() == null
                                                ? ""
                                                : " " + each.actor().name()))
                                .toList())
                .containsExactly(
                        "hear RECEIVE SurgeWarning service",
                        "show SEND Warning master",
                        "order RECEIVE Closing master",
                        "raise FUNCTION RaiseLeaf",
                        "hold FUNCTION PressLeaf");
        assertThat(new Turning(model, useCase()).proposals().get(3).functions())
                .containsExactly(Models.element(model, "Test::RaiseLeaf"));
    }

    @Test
    void aTurnedStepIsTheSameElementWithItsTextAndLinks() {
        Element before = step("hear");
        turnAll();
        assertThat(step("hear").id()).isEqualTo(before.id());
        assertThat(Story.of(model, useCase()).lines().getFirst().text()).startsWith("The tide service sends");
        assertThat(Links.in(model).of(step("hear"))).hasSize(1);
        assertThat(NotationWriter.write(model, List.of(useCase())))
                .contains(
                        "then action hear accept SurgeWarning via service {",
                        "then action show send new Warning() to master {",
                        "then action raise : RaiseLeaf {",
                        "then action hold : PressLeaf {");
        assertThat(Story.of(model, useCase()).lines().stream().map(line -> Turning.inWords(model, line.step())))
                .containsExactly(
                        "receives SurgeWarning",
                        "sends Warning",
                        "receives Closing",
                        "does RaiseLeaf",
                        "does PressLeaf");
        assertThat(new Turning(model, useCase()).proposals()).isEmpty();
        assertThat(StoryChecks.of(model, useCase())).isEmpty();
    }

    @Test
    void twoStepsOfOneNameShareTheDefinition() {
        Turning turning = new Turning(model, useCase());
        apply(turning.turn(List.of(
                new Turning.Choice(step("raise"), Turning.Kind.FUNCTION, "Drive", null),
                new Turning.Choice(step("hold"), Turning.Kind.FUNCTION, "Drive", null))));
        assertThat(Turning.definition(model, step("raise"))).isEqualTo(Turning.definition(model, step("hold")));
    }

    @Test
    void aStepIsNotTurnedTwiceAndNeedsAName() {
        turnAll();
        assertThatThrownBy(() -> new Turning(model, useCase())
                        .turn(List.of(new Turning.Choice(step("hear"), Turning.Kind.SEND, "X", null))))
                .hasMessage("step 'hear' is turned already: it receives SurgeWarning");
    }

    @Test
    void aBlankNameIsRefused() {
        assertThatThrownBy(() -> new Turning(model, useCase())
                        .turn(List.of(new Turning.Choice(step("hear"), Turning.Kind.RECEIVE, " ", null))))
                .hasMessage("give what step 'hear' receives a name");
    }

    @Test
    void statesLieBetweenWhatIsReceived() {
        turnAll();
        apply(StateSketch.of(model, useCase()).edit());
        assertThat(NotationWriter.write(model, List.of(Models.element(model, "Test::CloseStates")))
                        .replace("\n\n", "\n"))
                .isEqualTo("""
                        state def CloseStates {
                            entry;
                            then idle;
                            state idle;
                            state afterSurgeWarning;
                            transition first idle accept SurgeWarning then afterSurgeWarning;
                            state raiseLeaf {
                                do action work {
                                    action raiseLeaf : RaiseLeaf;
                                    then action pressLeaf : PressLeaf;
                                }
                            }
                            transition first afterSurgeWarning accept Closing then raiseLeaf;
                        }
                        """);
        assertThat(StateSketch.of(model, useCase()).edit().put()).isEmpty();
    }

    @Test
    void whatTheStoryGrowsByIsAddedOnce() {
        turnAll();
        apply(StateSketch.of(model, useCase()).edit());
        apply(new StoryEditing(model, useCase())
                .add(step("hold").id(), "The harbour master orders the opening.")
                .edit());
        turnAll();
        apply(StateSketch.of(model, useCase()).edit());
        assertThat(NotationWriter.write(model, List.of(Models.element(model, "Test::CloseStates"))))
                .contains("transition first raiseLeaf accept Opening then afterOpening;")
                .containsOnlyOnce("accept SurgeWarning");
    }

    @Test
    void aStoryInWhichNothingIsReceivedHasNoStates() {
        assertThatThrownBy(() -> StateSketch.of(model, useCase()))
                .hasMessageContaining("turn the steps of actors into events first");
    }
}
