package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.exchange.Spreadsheet;
import pyrite.core.model.Element;
import pyrite.core.notation.NotationWriter;

/** What somebody does on the first day without the page for the notation. */
@NewProject
class FirstDayTest extends InBrowser {
    private String notation(Element element) {
        return NotationWriter.write(merrow.head().model(), List.of(element));
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

    @Test
    void aSpreadsheetIsReadAndImported(@TempDir Path folder) throws IOException {
        Path file = folder.resolve("wishes.xlsx");
        try (OutputStream out = Files.newOutputStream(file)) {
            Spreadsheet.write(
                    out,
                    "Wishes",
                    List.of(
                            List.of("Id", "Requirement", "priority"),
                            List.of("", "The gate shall be painted green.", "should"),
                            List.of("MG-2", "The leaf shall land softly.", "must")));
        }
        open("requirements/import");
        new Select(see("#import [name='spec']")).selectByVisibleText("MerrowRequirements");
        ines.driver().findElement(By.cssSelector("#import [name='file']")).sendKeys(file.toString());
        until(textToBePresentInElementLocated(By.id("import-count"), "2 rows: 1 new, 1 to change"));
        click("#import-go");
        atRevision(2);
        assertThat(notation(merrow.named("landsSoftly"))).contains("The leaf shall land softly.");
    }

    @Test
    void phrasesOfTextsAreFound() {
        open("overview");
        with(Keys.CONTROL, "k");
        see("#find").sendKeys("hears and sees");
        until(textToBePresentInElementLocated(By.id("hits"), "Whoever is in the channel hears and sees"));
        press(Keys.ENTER);
        until(textToBePresentInElementLocated(By.id("work"), "warnsInTime"));
    }

    @Test
    void theListsShowWhatIsLinkedAlready() {
        open("links");
        new Select(see("[data-side='left'] select")).selectByVisibleText("MerrowRequirements");
        new Select(see("[data-side='right'] select")).selectByVisibleText("MerrowNeeds");
        until(textToBePresentInElementLocated(By.cssSelector("[data-side='left'] .picker-list"), "closesInTime"));
        until(textToBePresentInElementLocated(By.cssSelector("[data-side='right'] .picker-list"), "keepsTownDry"));
        click("[data-side='left'] [data-id='" + merrow.named("closesInTime").id() + "']");
        until(textToBePresentInElementLocated(
                By.cssSelector("[data-side='right'] [data-id='"
                        + merrow.named("keepsTownDry").id() + "']"),
                "answers"));
        assertThat(see("#link-count").getText()).startsWith("It has 8 links");
    }

    @Test
    void aDocumentShowsTheChosenAttributes() {
        open("requirements?as=document&attribute=priority");
        assertThat(see("#line-" + merrow.named("closesInTime").id()).getText())
                .contains("priority: must")
                .doesNotContain("approved");
        open("requirements?as=document");
        assertThat(see("#line-" + merrow.named("closesInTime").id()).getText()).contains("approved");
    }

    @Test
    void aBarIsOneStopOfTheTabKey() {
        open("requirements");
        see(".grid-body .line");
        press(Keys.TAB);
        assertThat(ines.driver().switchTo().activeElement().getText()).isEqualTo("Skip to the content");
        Object stops = ines.driver()
                .executeScript("return document.querySelectorAll('nav.views [tabindex=\"0\"]').length + ' '"
                        + " + document.querySelectorAll('.grid-bar [tabindex=\"0\"]').length");
        assertThat(stops).isEqualTo("1 1");
        see("nav.views [tabindex='0']").sendKeys(Keys.ARROW_RIGHT);
        assertThat(ines.driver().switchTo().activeElement().getText()).isEqualTo("Document");
    }
}
