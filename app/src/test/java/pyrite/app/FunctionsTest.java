package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.function.ExchangeTable;
import pyrite.core.function.ExchangeTable.State;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;

/** A person gives functions to parts and wires what these must exchange. */
@NewProject
class FunctionsTest extends InBrowser {
    private ExchangeTable table() {
        return ExchangeTable.of(merrow.head().model(), merrow.named("ProtectTheTown"), merrow.named("SurgeGate"), 1);
    }

    @Test
    void theFunctionThatNobodyHasIsGivenToAPartAndTakenBack() {
        assertThat(table().count(State.NOBODY)).isEqualTo(1);
        open("functions");
        until(textToBePresentInElementLocated(By.id("work"), "Performed by nobody: commandGate.logEvents"));
        click("[aria-label='Give commandGate.logEvents to a part']");
        new Select(see("#question select")).selectByVisibleText("cabinet.controller");
        click("#question .primary");
        told("Controller performs LogEvents");
        assertThat(table().count(State.NOBODY)).isZero();
        click("[aria-label='cabinet.controller no longer performs commandGate.logEvents']");
        told("Controller no longer performs LogEvents");
        assertThat(table().count(State.NOBODY)).isEqualTo(1);
    }

    @Test
    void aFunctionIsGivenByDraggingItOntoThePart() {
        open("element/" + merrow.named("SurgeGate").id() + "/inside");
        click("[data-bring]");
        see("#bring input").sendKeys("LogEvents");
        WebElement offer = see("#bring [data-id='" + merrow.named("LogEvents").id() + "']");
        String hinge = merrow.head().model().children(merrow.named("SurgeGate").id()).stream()
                .filter(child -> "hinge".equals(child.name()))
                .map(child -> child.id().toString())
                .findFirst()
                .orElseThrow();
        WebElement part = see(".box[data-select='" + hinge + "'] .title");
        new Actions(ines.driver())
                .clickAndHold(offer)
                .moveByOffset(12, 12)
                .moveToElement(part)
                .release()
                .perform();
        told("Hinge performs LogEvents");
        assertThat(table().count(State.NOBODY)).isZero();
    }

    @Test
    void anExchangeThatNothingCarriesIsWiredInOneStep() {
        assertThat(table().count(State.UNWIRED)).isEqualTo(1);
        open("exchanges?state=UNWIRED");
        click("[data-wire=one]");
        until(textToBePresentInElementLocated(By.cssSelector(".wire-preview"), "port def ElectricPowerPort"));
        click("dialog[open] .primary");
        told("battery.electricPower connected to powerUnit.electricPower in SurgeGate");
        assertThat(table().count(State.UNWIRED)).isZero();
        click("#undo");
        told("undone");
        assertThat(table().count(State.UNWIRED)).isEqualTo(1);
    }

    @Test
    void whatSomebodyElseTakesAwayLeavesTheOpenTable() {
        open("exchanges?state=UNWIRED");
        see("[data-wire=one]");
        Element performed = merrow
                .head()
                .model()
                .children(merrow.named("Battery").id())
                .stream()
                .filter(child -> child.kind() == ElementKind.PERFORM)
                .findFirst()
                .orElseThrow();
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        merrow.head().number(),
                        Edit.remove(performed.id()),
                        merrow.person("odo"),
                        "the battery performs nothing");
        until(textToBePresentInElementLocated(By.id("work"), "performed by nobody 2"));
        assertThat(ines.driver().findElements(By.cssSelector("[data-wire=one]")))
                .isEmpty();
    }

    @Test
    void aFunctionIsGivenAndTakenInTheMatrix() {
        open("functions/matrix");
        click("[aria-label='Give commandGate.logEvents to cabinet.radio']");
        told("performs LogEvents");
        assertThat(table().count(State.NOBODY)).isZero();
        click("[aria-label='cabinet.radio no longer performs commandGate.logEvents']");
        told("no longer performs LogEvents");
    }

    @Test
    void aPathIsFoundNamedLimitedAndBreaksWhenAFunctionMoves() {
        open("paths");
        click("[data-path=make]");
        new Select(see("[aria-label='From function']")).selectByVisibleText("watchWater.measureOutside");
        new Select(see("[aria-label='To function']")).selectByVisibleText("warnEverybody.soundHorn");
        until(textToBePresentInElementLocated(By.cssSelector("[aria-label='Ways found']"), "(siren)"));
        see("dialog [aria-label=Name]").sendKeys("warning");
        click("dialog[open] .primary");
        told("function path warning made");
        String path = "[data-path-name=warning] ";
        click(path + "[data-path=combine]");
        click("#question .primary");
        told("warning: time adds up along the path");
        click(path + "[data-path=require]");
        see("#question [name=limit]").sendKeys("1 [s]");
        see("#question [name=text]").sendKeys("The siren shall sound within 1 s of a rising sea.");
        click("#question .primary");
        told("limits warning");
        // 0.2 s to measure, 0.05 s to compare, 0.3 s to decide, 0.6 s to sound.
        until(textToBePresentInElementLocated(By.cssSelector(path + ".path-limit"), "1.15 s"));
        assertThat(see(path + ".path-limit").getText()).contains("fail");

        open("functions");
        click("[aria-label='siren no longer performs warnEverybody.soundHorn']");
        told("no longer performs SoundHorn");
        open("findings?rule=broken-path");
        until(textToBePresentInElementLocated(By.id("work"), "SoundHorn is performed by nobody, not by siren"));
    }
}
