package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import pyrite.core.model.Element;
import pyrite.core.notation.NotationWriter;

/** What somebody does on the first day without the page for the notation. */
class FirstDayTest extends InBrowser {
    private String notation(Element element) {
        return NotationWriter.write(merrow.head().model(), java.util.List.of(element));
    }

    @Test
    void aNeedIsAddedWithWhoWantsItAndWhatAnswersIt() {
        open("needs");
        click("[data-need='add']");
        see("dialog textarea").sendKeys("The bridge stays passable.");
        see("dialog [name='wantedBy']").sendKeys("Cyclist");
        click("dialog .primary");
        atRevision(2);
        Element need = merrow.head().model().ownElements().stream()
                .filter(each -> "N-11".equals(each.shortName()))
                .findFirst()
                .orElseThrow();
        assertThat(notation(need)).contains("The bridge stays passable.", "stakeholder cyclist : Cyclist;");

        open("element/" + need.id());
        click("[data-need='stakeholder']");
        see("dialog [name='name']").sendKeys("Cyclist");
        click("dialog .primary");
        until(textToBePresentInElementLocated(
                By.cssSelector("dialog .fault-line"), "is a stakeholder of this need already"));
        see("dialog [name='name']").sendKeys(Keys.chord(Keys.CONTROL, "a"), "HarbourMaster");
        click("dialog .primary");
        atRevision(3);
        assertThat(see("#stakeholders").getText()).contains("Cyclist", "HarbourMaster");

        open("needs");
        click("[aria-label='Link requirements that answer N-11']");
        see(".picker[open] .picker-end");
        press("MG-2", Keys.ENTER);
        until(driver -> driver.findElements(By.cssSelector(".picker-end[aria-selected='true']"))
                        .size()
                == 1);
        click(".picker[open] .primary");
        atRevision(4);
        assertThat(notation(merrow.named("landsSoftly"))).contains("N-11");
    }

    @Test
    void theFormalSideOfARequirementIsWrittenOnItsPage() {
        open("element/" + merrow.named("isRepairedInAMorning").id());
        click("[data-formal='subject']");
        see("dialog [name='name']").sendKeys("HydraulicPowerUnit");
        click("dialog .primary");
        atRevision(2);
        click("[data-formal='value']");
        see("dialog [name='name']").sendKeys("most");
        see("dialog [name='value']").sendKeys("60 [t]");
        click("dialog .primary");
        atRevision(3);
        click("[data-formal='constraint']");
        see("dialog [name='condition']").sendKeys("gate.mass <= longest");
        click("dialog .primary");
        until(textToBePresentInElementLocated(By.cssSelector("dialog .fault-line"), "longest"));
        see("dialog [name='condition']").sendKeys(Keys.chord(Keys.CONTROL, "a"), "gate.mass <= most");
        click("dialog .primary");
        atRevision(4);
        assertThat(notation(merrow.named("isRepairedInAMorning")))
                .contains("HydraulicPowerUnit;", "attribute most = 60 [t];")
                .containsPattern("require constraint \\{\\s+gate.mass <= most\\s+}");

        click("[data-label='Constraint']");
        see("[aria-label='Constraint']").sendKeys(Keys.chord(Keys.CONTROL, "a"), "gate.mass < most", Keys.ENTER);
        atRevision(5);
        click("[aria-label='Remove most']");
        until(textToBePresentInElementLocated(By.id("saved"), "most"));
        assertThat(merrow.head().number()).isEqualTo(5);
        click("[aria-label='Remove this constraint']");
        atRevision(6);
        click("[aria-label='Remove most']");
        atRevision(7);
        assertThat(notation(merrow.named("isRepairedInAMorning"))).doesNotContain("constraint", "most");
    }
}
