package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.story.StoryFlows;

/** A person makes one definition of the system of what two use cases found under differing names. */
class ConsolidationPageTest extends InBrowser {
    private String qualified(String name) {
        return merrow.head().model().names().qualifiedName(merrow.named(name));
    }

    @Test
    void whatTwoUseCasesFoundBecomesOneAndStaysDecided() {
        open("consolidation");
        click("[aria-label='LowerLeaf: make one']");
        until(textToBePresentInElementLocated(By.cssSelector("dialog .united"), "in openingOrder : OpeningOrder"));
        see("dialog input[required]").clear();
        see("dialog input[required]").sendKeys("LayLeafDown");
        click("dialog[open] .primary");
        told("LowerLeaf, LowerToBed made one: LayLeafDown");
        assertThat(qualified("LayLeafDown")).isEqualTo("MerrowFunctions::LayLeafDown");
        until(textToBePresentInElementLocated(By.id("work"), "also LowerLeaf, LowerToBed"));
        assertThat(merrow.named("lowerToBed").references(Property.TYPES))
                .containsExactly(Reference.to(merrow.named("LayLeafDown").id()));

        // What stands alone is taken over in one step; then only the pair that was left is to decide.
        click(".primary[data-adopt]");
        told("features of use cases taken over");
        click("a.chip[href*='state=OPEN']");
        until(textToBePresentInElementLocated(By.id("work"), "WarnChannel"));

        // A further step that does the same is a new place.
        Element step = merrow.named("equaliseLevels");
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        merrow.head().number(),
                        Edit.put(step.with(
                                Property.TYPES,
                                List.of(Reference.to(merrow.named("LayLeafDown").id())))),
                        merrow.person("odo"),
                        "levels are equalised by the leaf");
        open("consolidation?state=CHANGED");
        until(textToBePresentInElementLocated(By.id("work"), "LayLeafDown"));
        click("[aria-label='Take over LayLeafDown']");
        told("LayLeafDown taken over");
    }

    @Test
    void whatIsDifferentIsKeptApartWithItsReason() {
        open("consolidation");
        click("[aria-label='SoundSignal: different things']");
        see("#question [name=reason]").sendKeys("one calls for leaving, one only announces" + Keys.ENTER);
        told("SoundSignal and WarnChannel are different things");
        until(driver -> driver.findElements(By.cssSelector("[aria-label='SoundSignal: make one']"))
                .isEmpty());
        click("#undo");
        see("[aria-label='SoundSignal: make one']");
    }

    @Test
    void aFunctionTakesWhatIsReceivedAndGivesWhatIsSent() {
        Element useCase = merrow.named("WorkInPowerCut");
        open("element/" + useCase.id() + "/story");
        clickButton("to turn");
        new Select(see("[aria-label='Kind of step 1']")).selectByVisibleText("something it receives");
        see("[aria-label='Name of step 1']").clear();
        see("[aria-label='Name of step 1']").sendKeys("GridLost");
        click("dialog[open] .primary");
        told("steps of WorkInPowerCut turned");
        clickButton("to make");
        until(textToBePresentInElementLocated(By.cssSelector("dialog[open]"), "takes GridLost"));
        click("dialog[open] .primary");
        told("of WorkInPowerCut made");
        assertThat(new StoryFlows(merrow.head().model(), merrow.named("WorkInPowerCut")).proposals())
                .isEmpty();
    }
}
