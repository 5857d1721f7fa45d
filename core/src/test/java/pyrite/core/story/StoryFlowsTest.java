package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** The flows of small stories, written out by hand. */
class StoryFlowsTest {
    private Model model = Models.of("""
            private import ScalarValues::*;
            part def Master; part def Gate; item def Order; item def Level; item def Report; item def Fault;
            action def Check { in item level : Level; }
            action def Raise;
            use case def Close {
                subject gate : Gate; actor master : Master;
                attribute isBroken : Boolean { doc /* It is broken. */ }
                first start;
                then action order accept Order via master { doc /* The master orders. */ }
                then action measure accept Level { doc /* The level comes in. */ }
                then action check : Check { doc /* It is checked. */ }
                then decide;
                if isBroken then tell;
                else inside;
                action inside {
                    first start;
                    then action raise : Raise { doc /* The leaf rises. */ }
                    then done;
                }
                then action report send new Report() to master { doc /* It is told. */ }
                then done;
                action tell send new Fault() to master { doc /* The fault is told. */ }
                then done;
            }""");

    private Element useCase() {
        return Models.element(model, "Test::Close");
    }

    private void makeAll() {
        StoryFlows flows = new StoryFlows(model, useCase());
        switch (model.apply(flows.make(flows.proposals()))) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems()).as(text).isEmpty();
    }

    @Test
    void aFunctionTakesWhatCameBeforeItAndGivesWhatIsSentAfterIt() {
        assertThat(new StoryFlows(model, useCase())
                        .proposals().stream()
                                .map(each -> each.definition().name() + " " + each.direction() + " "
                                        + each.item().name() + (each.parameter() == null ? " new" : "")))
                .containsExactly("Check in Order new", "Check in Level", "Raise out Report new", "Check out Fault new");
    }

    @Test
    void flowsAreMadeWithTheParametersTheyNeedAndNotTwice() {
        makeAll();
        assertThat(NotationWriter.write(model, java.util.List.of(useCase())))
                .contains(
                        "accept order : Order via master",
                        "accept level : Level",
                        "flow of Order from order.order to check.order;",
                        "flow of Level from measure.level to check.level;",
                        "send inside.raise.report to master",
                        "send check.fault to master");
        assertThat(NotationWriter.write(model, java.util.List.of(Models.element(model, "Test::Raise"))))
                .contains("out item report : Report;");
        assertThat(new StoryFlows(model, useCase()).proposals()).isEmpty();
        assertThat(Story.of(model, useCase()).lines().stream().map(line -> Turning.inWords(model, line.step())))
                .contains("sends Report", "sends Fault", "receives Order");
    }
}
