package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.support.ui.WebDriverWait;
import pyrite.app.store.Person;
import pyrite.app.store.PersonMapper;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;

/** A person's way through Pyrite in a real browser, from signing in to a verdict and back. */
class OutcomeTest {
    private static final By VERDICT = By.cssSelector(".verdict-line .verdict");
    private static final By WORK = By.id("work");

    private Application application;
    private Browser chromium;
    private ChromeDriver browser;
    private WebDriverWait wait;

    @BeforeEach
    void open() throws IOException {
        application = Application.inNewFolder();
        chromium = new Browser();
        browser = chromium.driver();
        wait = chromium.until();
    }

    @AfterEach
    void close() {
        chromium.close();
        application.close();
    }

    private void signIn(String name) {
        chromium.signIn(application.address(), name);
    }

    private void follow(String link) {
        wait.until(driver -> {
            driver.findElement(By.xpath("//main//a[normalize-space()='" + link + "']")).click();
            return true;
        });
    }

    private void heading(String text) {
        wait.until(textToBePresentInElementLocated(By.tagName("h1"), text));
    }

    private void type(String field, String text) {
        wait.until(visibilityOfElementLocated(By.xpath("//*[@data-edit and @data-label='" + field + "']"))).click();
        WebElement input = wait.until(visibilityOfElementLocated(By.cssSelector(".editor:not(.standing) input, .editor textarea")));
        input.sendKeys(Keys.chord(Keys.CONTROL, "a"), text, Keys.ENTER);
    }

    private void verdict(String words) {
        wait.until(textToBePresentInElementLocated(VERDICT, words));
    }

    private void openRequirement(String name) {
        browser.get(application.address() + "/p/merrow/main/requirements");
        WebElement find = wait.until(visibilityOfElementLocated(By.id("find")));
        find.sendKeys(name);
        wait.until(textToBePresentInElementLocated(By.id("hits"), name));
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
        List<String> serious = browser.manage().logs().get("browser").getAll().stream()
                .filter(entry -> entry.getLevel().intValue() >= java.util.logging.Level.SEVERE.intValue())
                .map(Object::toString).filter(line -> !line.contains("422")).toList();
        assertThat(serious).isEmpty();
    }

    @Test
    void anEngineerChangesADriveVerifiesAndReadsTheVerdict() throws IOException {
        signIn("ines");
        openDrive();
        type("Value of fastSpeed", "0.5 [m]");
        wait.until(textToBePresentInElementLocated(By.cssSelector(".fault"), "its value is a quantity in m"));
        browser.switchTo().activeElement().sendKeys(Keys.chord(Keys.CONTROL, "a"), "0.5 [deg/s]", Keys.ENTER);
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved · r2"));
        wait.until(textToBePresentInElementLocated(WORK, "0.5 [deg/s]"));

        openRequirement("closesInTime");
        assertThat(browser.findElement(By.id("verdicts")).getText()).contains("No verdict yet");
        browser.findElement(By.xpath("//button[contains(., 'Run')]")).click();
        wait.until(urlContains("/runs/1"));
        wait.until(textToBePresentInElementLocated(By.id("run-status"), "done"));
        wait.until(presenceOfElementLocated(By.cssSelector("#plot canvas")));
        assertThat(browser.findElement(WORK).getText()).contains("closesInTime", "pass");

        openRequirement("closesInTime");
        verdict("pass");
        String margin = browser.findElement(By.cssSelector(".margin")).getText();
        assertThat(margin).startsWith("+").endsWith("min");
        wait.until(visibilityOfElementLocated(By.cssSelector("[data-exhibit] canvas")));

        openDrive();
        type("Value of cushionedSpeed", "0.05 [deg/s]");
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved · r3"));
        openRequirement("closesInTime");
        verdict("pass, stale");
        assertThat(browser.findElement(By.cssSelector(".stale-note")).getText())
                .contains("drive", "r3", "cushionedSpeed of drive: 0.1 [deg/s] → 0.05 [deg/s]");

        browser.findElement(By.id("undo")).click();
        wait.until(textToBePresentInElementLocated(By.id("revision"), "r4"));
        wait.until(driver -> driver.findElement(VERDICT).getText().equals("pass"));
        assertThat(browser.findElements(By.cssSelector(".stale-note"))).isEmpty();
        faultless();

        application.close();
        application.start();
        signIn("ines");
        openRequirement("closesInTime");
        verdict("pass");
        assertThat(browser.findElement(By.cssSelector(".margin")).getText()).isEqualTo(margin);
        wait.until(visibilityOfElementLocated(By.cssSelector("[data-exhibit] canvas")));
    }

    @Test
    void tooLittleCushioningLandsHard() {
        signIn("ines");
        openDrive();
        type("Value of cushionedSpeed", "0.4 [deg/s]");
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        openRequirement("landsSoftly");
        browser.findElement(By.xpath("//button[contains(., 'Run')]")).click();
        wait.until(textToBePresentInElementLocated(By.id("run-status"), "done"));
        openRequirement("landsSoftly");
        verdict("fail");
        assertThat(browser.findElement(By.cssSelector(".margin")).getText()).startsWith("−").endsWith("m/s");
    }

    @Test
    void aLongRunShowsItsProgressAndCanBeCancelled() {
        signIn("ines");
        openRequirement("keepsBasinLow");
        follow("surgeCheck");
        heading("surgeCheck");
        type("Value of stopTime", "500 [h]");
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        browser.findElement(By.xpath("//button[contains(., 'Run')]")).click();
        wait.until(urlContains("/runs/"));
        wait.until(driver -> !driver.findElement(By.id("run-progress-number")).getText().equals("0 %"));
        browser.findElement(By.cssSelector("[data-cancel]")).click();
        wait.until(textToBePresentInElementLocated(By.id("run-status"), "cancelled"));
        assertThat(browser.findElement(WORK).getText()).contains("cancelled at t =");
    }

    @Test
    void aRunThatCannotGoOnSaysWhichEquationAndWhy() {
        signIn("ines");
        openPart("leaf");
        type("Value of mass", "0 [t]");
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved · r2"));
        type("Value of addedInertia", "0 [kg*m^2]");
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved · r3"));
        openRequirement("closesInTime");
        browser.findElement(By.xpath("//button[contains(., 'Run')]")).click();
        wait.until(textToBePresentInElementLocated(By.id("run-status"), "failed"));
        assertThat(browser.findElement(By.cssSelector("main [role=alert]")).getText())
                .isEqualTo("the equation 'barrier.gate.leaf.turning' cannot determine 'der(barrier.gate.leaf.speed)', because its "
                        + "factor there, mass * height^2 / 3 + addedInertia, comes to zero with the values given");
        openRequirement("closesInTime");
        verdict("error");
    }

    @Test
    void theKeyboardAloneFindsEditsAndUndoes() {
        signIn("ines");
        WebElement page = browser.findElement(By.tagName("body"));
        page.sendKeys(Keys.chord(Keys.CONTROL, "k"));
        browser.switchTo().activeElement().sendKeys("MG-7");
        wait.until(textToBePresentInElementLocated(By.id("hits"), "agreesOnLevel"));
        browser.switchTo().activeElement().sendKeys(Keys.ENTER);
        heading("agreesOnLevel");
        browser.findElement(By.id("text")).sendKeys(Keys.ENTER);
        wait.until(visibilityOfElementLocated(By.cssSelector(".editor textarea"))).sendKeys(
                Keys.chord(Keys.CONTROL, "a"), "The sensors shall agree.", Keys.ENTER);
        wait.until(textToBePresentInElementLocated(By.id("text"), "The sensors shall agree."));
        browser.findElement(By.tagName("body")).sendKeys(Keys.chord(Keys.CONTROL, "z"));
        wait.until(textToBePresentInElementLocated(By.id("text"), "within 0.05 m"));
        boolean shown = browser.findElement(By.id("thread")).isDisplayed();
        browser.findElement(By.tagName("body")).sendKeys("t");
        wait.until(driver -> driver.findElement(By.id("thread")).isDisplayed() != shown);
    }

    @Test
    void aLineOfNotationAddsAPartAndAFaultyOneSaysWhy() {
        signIn("ines");
        openDrive();
        browser.findElement(By.tagName("body")).sendKeys("a");
        browser.switchTo().activeElement().sendKeys("part pump : Pomp", Keys.ENTER);
        wait.until(textToBePresentInElementLocated(By.cssSelector(".fault"), "there is no 'Pomp' here"));
        browser.switchTo().activeElement().sendKeys(Keys.chord(Keys.CONTROL, "a"), "part pump", Keys.ENTER);
        wait.until(textToBePresentInElementLocated(By.id("saved"), "Saved"));
        wait.until(textToBePresentInElementLocated(WORK, "pump"));
    }

    @Test
    void theOtherBrowserSeesASavedChangeAtOnce() {
        signIn("ines");
        openRequirement("closesInTime");
        Workspace workspace = application.bean(Workspace.class);
        Workspace.Head head = workspace.head("merrow", "main");
        Element gate = head.model().ownElements().stream().filter(e -> "gate".equals(e.name()) && e.kind() == ElementKind.PART).findFirst().orElseThrow();
        Person odo = application.bean(PersonMapper.class).bySignIn("odo").orElseThrow();
        workspace.commit(head.branch(), head.number(), Edit.put(gate.withName("surgeGate")), odo, "gate renamed");
        wait.until(textToBePresentInElementLocated(WORK, "Barrier · surgeGate"));
        wait.until(textToBePresentInElementLocated(By.id("saved"), "odo saved r2"));
    }
}
