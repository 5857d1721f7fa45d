package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;

/** A person's way through Pyrite in a real browser, from signing in to a verdict and back. */
@NewProject
class OutcomeTest extends InBrowser {
    private static final By VERDICT = By.cssSelector(".verdict-line .verdict");
    private static final By WORK = By.id("work");

    private void follow(String link) {
        until(driver -> {
            driver.findElement(By.xpath("//main//a[normalize-space()='" + link + "']"))
                    .click();
            return true;
        });
    }

    private void heading(String text) {
        until(textToBePresentInElementLocated(By.tagName("h1"), text));
    }

    private void type(String field, String text) {
        click("[data-edit][data-label='" + field + "']");
        WebElement input =
                until(visibilityOfElementLocated(By.cssSelector(".editor:not(.standing) input, .editor textarea")));
        input.sendKeys(Keys.chord(Keys.CONTROL, "a"), text, Keys.ENTER);
    }

    private void verdict(String words) {
        until(textToBePresentInElementLocated(VERDICT, words));
    }

    private void openRequirement(String name) {
        ines.driver().get(merrow.address() + "/p/merrow/main/requirements");
        WebElement find = until(visibilityOfElementLocated(By.id("find")));
        find.sendKeys(name);
        until(textToBePresentInElementLocated(By.id("hits"), name));
        find.sendKeys(Keys.ENTER);
        heading(name);
    }

    private void openDrive() {
        openPart("drive");
    }

    private void openPart(String name) {
        openRequirement("closesInTime");
        follow("Barrier · gate");
        heading("gate");
        follow(name);
        heading(name);
    }

    private void faultless() {
        List<String> serious = ines.driver().manage().logs().get("browser").getAll().stream()
                .filter(entry -> entry.getLevel().intValue() >= java.util.logging.Level.SEVERE.intValue())
                .map(Object::toString)
                .filter(line -> !line.contains("422"))
                .toList();
        assertThat(serious).isEmpty();
    }

    @Test
    void anEngineerChangesADriveVerifiesAndReadsTheVerdict() throws IOException {
        openDrive();
        type("Value of fastSpeed", "0.5 [m]");
        until(textToBePresentInElementLocated(By.cssSelector(".fault"), "its value is a quantity in m"));
        ines.driver().switchTo().activeElement().sendKeys(Keys.chord(Keys.CONTROL, "a"), "0.5 [deg/s]", Keys.ENTER);
        until(textToBePresentInElementLocated(By.id("saved"), "Saved · r2"));
        until(textToBePresentInElementLocated(WORK, "0.5 [deg/s]"));

        openRequirement("closesInTime");
        assertThat(ines.driver().findElement(By.id("verdicts")).getText()).contains("No verdict yet");
        clickButton("Run");
        until(urlContains("/runs/1"));
        until(textToBePresentInElementLocated(By.id("run-status"), "done"));
        until(presenceOfElementLocated(By.cssSelector("#plot canvas")));
        assertThat(ines.driver().findElement(WORK).getText()).contains("closesInTime", "pass");

        openRequirement("closesInTime");
        verdict("pass");
        String margin = ines.driver().findElement(By.cssSelector(".margin")).getText();
        assertThat(margin).startsWith("+").endsWith("min");
        until(visibilityOfElementLocated(By.cssSelector("[data-verdict-plot] canvas")));

        openDrive();
        type("Value of cushionedSpeed", "0.05 [deg/s]");
        until(textToBePresentInElementLocated(By.id("saved"), "Saved · r3"));
        openRequirement("closesInTime");
        verdict("pass, stale");
        assertThat(ines.driver().findElement(By.cssSelector(".stale-note")).getText())
                .contains("drive", "r3", "cushionedSpeed of drive: 0.1 [deg/s] → 0.05 [deg/s]");

        ines.driver().findElement(By.id("undo")).click();
        until(textToBePresentInElementLocated(By.id("revision"), "r4"));
        until(driver -> driver.findElement(VERDICT).getText().equals("pass"));
        assertThat(ines.driver().findElements(By.cssSelector(".stale-note"))).isEmpty();
        faultless();

        merrow.restart();
        ines.signIn(merrow.address(), "ines");
        openRequirement("closesInTime");
        verdict("pass");
        assertThat(ines.driver().findElement(By.cssSelector(".margin")).getText())
                .isEqualTo(margin);
        until(visibilityOfElementLocated(By.cssSelector("[data-verdict-plot] canvas")));
    }

    @Test
    void tooLittleCushioningLandsHard() {
        openDrive();
        type("Value of cushionedSpeed", "0.4 [deg/s]");
        until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        openRequirement("landsSoftly");
        clickButton("Run");
        until(textToBePresentInElementLocated(By.id("run-status"), "done"));
        openRequirement("landsSoftly");
        verdict("fail");
        assertThat(ines.driver().findElement(By.cssSelector(".margin")).getText())
                .startsWith("−")
                .endsWith("m/s");
    }

    @Test
    void aLongRunShowsItsProgressAndCanBeCancelled() {
        openRequirement("keepsBasinLow");
        follow("surgeCheck");
        heading("surgeCheck");
        type("Value of stopTime", "500 [h]");
        until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        clickButton("Run");
        until(urlContains("/runs/"));
        until(driver ->
                !driver.findElement(By.id("run-progress-number")).getText().equals("0 %"));
        ines.driver().findElement(By.cssSelector("[data-cancel]")).click();
        until(textToBePresentInElementLocated(By.id("run-status"), "cancelled"));
        assertThat(ines.driver().findElement(WORK).getText()).contains("cancelled at t =");
    }

    @Test
    void aRunThatCannotGoOnSaysWhichEquationAndWhy() {
        openPart("leaf");
        type("Value of mass", "0 [t]");
        until(textToBePresentInElementLocated(By.id("saved"), "Saved · r2"));
        type("Value of addedInertia", "0 [kg*m^2]");
        until(textToBePresentInElementLocated(By.id("saved"), "Saved · r3"));
        openRequirement("closesInTime");
        clickButton("Run");
        until(textToBePresentInElementLocated(By.id("run-status"), "failed"));
        assertThat(ines.driver()
                        .findElement(By.cssSelector("main [role=alert]"))
                        .getText())
                .isEqualTo(
                        "the equation 'barrier.gate.leaf.turning' cannot determine 'der(barrier.gate.leaf.speed)', because its "
                                + "factor there, mass * height^2 / 3 + addedInertia, comes to zero with the values given");
        openRequirement("closesInTime");
        verdict("error");
    }

    @Test
    void theKeyboardAloneFindsEditsAndUndoes() {
        WebElement page = ines.driver().findElement(By.tagName("body"));
        page.sendKeys(Keys.chord(Keys.CONTROL, "k"));
        ines.driver().switchTo().activeElement().sendKeys("MG-7");
        until(textToBePresentInElementLocated(By.id("hits"), "agreesOnLevel"));
        ines.driver().switchTo().activeElement().sendKeys(Keys.ENTER);
        heading("agreesOnLevel");
        ines.driver().findElement(By.id("text")).sendKeys(Keys.ENTER);
        until(visibilityOfElementLocated(By.cssSelector(".editor textarea")))
                .sendKeys(Keys.chord(Keys.CONTROL, "a"), "The sensors shall agree.", Keys.ENTER);
        until(textToBePresentInElementLocated(By.id("text"), "The sensors shall agree."));
        ines.driver().findElement(By.tagName("body")).sendKeys(Keys.chord(Keys.CONTROL, "z"));
        until(textToBePresentInElementLocated(By.id("text"), "within 0.05 m"));
        boolean shown = ines.driver().findElement(By.id("thread")).isDisplayed();
        ines.driver().findElement(By.tagName("body")).sendKeys("t");
        until(driver -> driver.findElement(By.id("thread")).isDisplayed() != shown);
    }

    @Test
    void aLineOfNotationAddsAPartAndAFaultyOneSaysWhy() {
        openDrive();
        ines.driver().findElement(By.tagName("body")).sendKeys("a");
        ines.driver().switchTo().activeElement().sendKeys("part pump : Pomp", Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".fault"), "there is no 'Pomp' here"));
        ines.driver().switchTo().activeElement().sendKeys(Keys.chord(Keys.CONTROL, "a"), "part pump", Keys.ENTER);
        until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        until(textToBePresentInElementLocated(WORK, "pump"));
    }

    @Test
    void theOtherBrowserSeesASavedChangeAtOnce() {
        openRequirement("closesInTime");
        Workspace workspace = merrow.bean(Workspace.class);
        Workspace.Head head = workspace.head("merrow", "main");
        Element gate = head.model().ownElements().stream()
                .filter(e -> "gate".equals(e.name()) && e.kind() == ElementKind.PART)
                .findFirst()
                .orElseThrow();
        Person odo = merrow.bean(PersonMapper.class).bySignIn("odo").orElseThrow();
        workspace.commit(head.branch(), head.number(), Edit.put(gate.withName("surgeGate")), odo, "gate renamed");
        until(textToBePresentInElementLocated(WORK, "Barrier · surgeGate"));
        until(textToBePresentInElementLocated(By.id("saved"), "odo saved r2"));
    }
}
