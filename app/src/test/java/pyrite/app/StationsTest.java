package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;
import static org.openqa.selenium.support.ui.ExpectedConditions.elementToBeClickable;
import static org.openqa.selenium.support.ui.ExpectedConditions.numberOfElementsToBe;
import static org.openqa.selenium.support.ui.ExpectedConditions.numberOfElementsToBeMoreThan;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.WindowType;
import org.openqa.selenium.interactions.Actions;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;

/** A day's tasks at each station, as engineers do them: in real browsers, by mouse and by keyboard. */
class StationsTest extends InBrowser {
    private static By row(String name) {
        return By.xpath("//div[@role='row'][.//a[text()='" + name + "']]");
    }

    private Element owner(String name) {
        return merrow.head().model().get(merrow.named(name).owner());
    }

    private void drag(String what, String into) {
        until(numberOfElementsToBe(row(what), 1));
        drag(() -> ines.driver().findElement(row(what)), () -> ines.driver().findElement(row(into)));
    }

    @NewProject
    @Test
    void anElementIsFoundInTheOutlineAndMovedByKeyboardAlone() {
        open(ines, "architecture");
        see(ines, ".tree .line");
        see(ines, "#outline-text").sendKeys("siren");
        until(numberOfElementsToBe(row("Siren"), 1));
        press(Keys.ARROW_DOWN, "m");
        until(textToBePresentInElementLocated(By.id("outline-note"), "is picked up"));
        assertThat(ines.driver().findElement(By.id("outline-note")).getText()).startsWith("MerrowGate");
        press(Keys.ESCAPE, Keys.END, "m", Keys.HOME, "m");
        atRevision(ines, 2);
        assertThat(owner("Siren").name()).isEqualTo("MerrowGate");
    }

    @NewProject
    @Test
    void aRowIsDraggedIntoAnotherAndARefusedMoveSaysWhy() {
        // Both rows are in sight, as somebody who drags would see to.
        ines.driver().manage().window().setSize(new Dimension(1280, 2400));
        open(ines, "architecture");
        until(numberOfElementsToBe(row("MerrowNeeds"), 1));
        // Specifications stand closed for who comes for the design.
        ines.driver().findElement(row("MerrowNeeds")).click();
        press(Keys.ARROW_RIGHT);
        drag("N-7 isQuietAtNight", "MerrowRequirements");
        atRevision(ines, 2);
        assertThat(owner("isQuietAtNight").name()).isEqualTo("MerrowRequirements");
        drag("MerrowRequirements", "N-1 keepsTownDry");
        until(textToBePresentInElementLocated(By.id("saved"), "a need cannot own a package"));
        assertThat(merrow.head().number()).isEqualTo(2);
    }

    @Test
    void anOutlineOfThousandsShowsOnlyTheRowsInSight() {
        Model model = merrow.head().model();
        Element big = Element.of(ElementKind.PACKAGE, null, model.rankAtEnd(null), "Big");
        List<Rank> ranks = Rank.after(null, 5000);
        List<Element> all = new java.util.ArrayList<>(List.of(big));
        for (int i = 0; i < ranks.size(); i++) {
            all.add(Element.of(ElementKind.PART, big.id(), ranks.get(i), "unit" + i));
        }
        merrow.workspace().commit(merrow.branch(), 1, new Edit(all, java.util.Set.of()), merrow.person("ines"), "many");
        open(ines, "architecture");
        see(ines, ".tree .line");
        ines.driver().findElement(row("MerrowNeeds")).click();
        press(Keys.END);
        until(numberOfElementsToBe(row("unit4999"), 1));
        assertThat(ines.driver().findElements(By.cssSelector(".tree .line"))).hasSizeLessThan(100);
        new org.openqa.selenium.support.ui.Select(see(ines, "#outline-kind")).selectByValue("CONCERN");
        until(numberOfElementsToBe(row("unit4999"), 0));
        until(textToBePresentInElementLocated(By.id("outline-note"), "10 elements match"));
    }

    @Test
    void whatWasRemovedIsReadAsItWasAndBroughtBack() {
        String leaf = merrow.named("leaf").id().toString();
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.remove(merrow.named("Battery").id()),
                        merrow.person("odo"),
                        "no battery");
        String hinge = merrow.named("Hinge").id().toString();
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("Hinge").withName("Pivot")),
                        merrow.person("odo"),
                        "renamed");
        open(ines, "element/" + hinge);
        click(ines, "details summary");
        int now = merrow.head().number();
        open(ines, "element/" + hinge + "?at=1");
        assertThat(see(ines, ".strip").getText()).contains("You are reading r1", "Odo Brack");
        assertThat(see(ines, "h1").getText()).contains("Hinge");
        assertThat(ines.driver().findElements(By.cssSelector("[data-edit]"))).isEmpty();
        click(ines, ".rail a:nth-child(3)");
        until(urlContains("at=1"));
        open(ines, "element/" + hinge + "?at=1");
        click(ines, "[data-restore=whole]");
        atRevision(now + 1);
        assertThat(see(ines, "h1").getText()).contains("Hinge");
        assertThat(merrow.named("Hinge").id().toString()).isEqualTo(hinge);
        assertThat(leaf).isNotEmpty();
    }

    @NewProject
    @Test
    void twoRunsAreComparedAndLookedAtClosely() {
        open(ines, "runs");
        click(ines, "button[aria-label='Run closingCheck']");
        until(numberOfElementsToBeMoreThan(By.cssSelector("#series label"), 10));
        merrow.change("drive", "cushionedSpeed", "0.2 [deg/s]");
        open(ines, "runs");
        click(ines, "button[aria-label='Run closingCheck']");
        until(numberOfElementsToBeMoreThan(By.cssSelector("#series label"), 10));
        see(ines, "#series-filter").sendKeys("tipspeed");
        until(driver -> driver.findElements(By.cssSelector("#series label")).stream()
                        .filter(WebElement::isDisplayed)
                        .count()
                == 1);
        WebElement canvas = see(ines, "#plot .u-over");
        new Actions(ines.driver())
                .moveToElement(canvas, -100, 0)
                .clickAndHold()
                .moveByOffset(160, 0)
                .release()
                .perform();
        // Each of the three quantities has its panel, and all show the stretch that was drawn.
        until(driver -> !see(ines, "#plot").getDomAttribute("data-range").isEmpty());
        assertThat(ines.driver().findElements(By.cssSelector("#plot canvas"))).hasSize(3);
        until(elementToBeClickable(By.xpath("//a[text()='Compare with run 1']")))
                .click();
        until(urlContains("runs/compare"));
        assertThat(see(ines, "#work").getText())
                .contains(
                        "Differences in the inputs",
                        "0.1 [deg/s]",
                        "0.2 [deg/s]",
                        "landsSoftly",
                        "pass, stale",
                        "fail");
    }

    /** Opens the cell of the grid that is clicked twice, once it is in sight. */
    private static void edit(Browser browser, String cell) {
        see(browser, "[data-filter]").sendKeys("limitsPower");
        browser.until()
                .ignoring(org.openqa.selenium.NoSuchElementException.class)
                .until(driver -> {
                    driver.findElement(By.cssSelector(cell)).click();
                    return !driver.findElements(By.cssSelector(".editor textarea"))
                            .isEmpty();
                });
    }

    @NewProject
    @Test
    void whoTypesWhileAnotherSavesIsToldAndSeesTheDifference() throws Exception {
        try (Browser odo = new Browser()) {
            odo.signIn(merrow.address(), "odo");
            open(odo, "requirements");
            open(ines, "requirements");
            String text = "#text-" + merrow.named("limitsPower").id();
            edit(ines, text);
            see(ines, ".editor textarea").sendKeys(Keys.chord(Keys.CONTROL, "a"), "Ines writes this.");
            edit(odo, text);
            see(odo, ".editor textarea").sendKeys(Keys.chord(Keys.CONTROL, "a"), "Odo was quicker.", Keys.ENTER);
            atRevision(odo, 2);
            assertThat(see(ines, "#behind").getText()).contains("odo saved r2", "What changed");
            see(ines, ".editor textarea").sendKeys(Keys.ENTER);
            assertThat(see(ines, ".editor .fault").getText()).contains("somebody has changed");
            assertThat(see(ines, ".editor textarea").getAttribute("value")).isEqualTo("Ines writes this.");
            see(ines, ".editor textarea").sendKeys(Keys.ENTER);
            atRevision(ines, 3);
            odo.until().until(textToBePresentInElementLocated(By.cssSelector(text), "Ines writes this."));
        }
    }

    @NewProject
    @Test
    void anEditOutlivesTheSessionAndIsSavedAfterSigningInAgain() {
        open(ines, "requirements");
        String text = "#text-" + merrow.named("limitsPower").id();
        edit(ines, text);
        see(ines, ".editor textarea").sendKeys(Keys.chord(Keys.CONTROL, "a"), "Kept through it all.");
        ines.driver().manage().deleteAllCookies();
        see(ines, ".editor textarea").sendKeys(Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".editor .fault"), "Your session has ended"));
        String page = ines.driver().getWindowHandle();
        ines.driver().switchTo().newWindow(WindowType.TAB);
        ines.signIn(merrow.address(), "ines");
        ines.driver().close();
        ines.driver().switchTo().window(page);
        see(ines, ".editor textarea").sendKeys(Keys.ENTER);
        atRevision(ines, 2);
        assertThat(merrow.head().model().inheritance().documentation(merrow.named("limitsPower")))
                .isEqualTo("Kept through it all.");
    }

    private void connection(boolean there) {
        ines.driver()
                .executeCdpCommand(
                        "Network.emulateNetworkConditions",
                        Map.of("offline", !there, "latency", 0, "downloadThroughput", -1, "uploadThroughput", -1));
    }

    @Test
    void aRunThatEndsWhileTheConnectionIsLostIsCaughtUpWith() {
        open(ines, "runs");
        ines.driver().executeCdpCommand("Network.enable", Map.of());
        click(ines, "button[aria-label='Run surgeCheck']");
        until(urlContains("/runs/1"));
        see(ines, "#run-status");
        connection(false);
        await().until(() -> merrow.bean(RunStore.class).get(1).status() == RunRecord.Status.DONE);
        connection(true);
        until(textToBePresentInElementLocated(By.id("run-status"), "done"));
        until(numberOfElementsToBeMoreThan(By.cssSelector("#series label"), 10));
    }

    @Test
    void anAdministratorLooksAfterPeopleInTheBrowser() throws Exception {
        try (Browser admin = new Browser()) {
            admin.signIn(merrow.address(), "admin");
            admin.driver().get(merrow.address() + "/people");
            see(admin, "form[action='/people'] input[name=name]").sendKeys("Ada Quill");
            see(admin, "form[action='/people'] input[name=signIn]").sendKeys("ada" + Keys.ENTER);
            assertThat(see(admin, "#secret").getText()).hasSizeGreaterThan(12);
            admin.driver().get(merrow.address() + "/audit?who=ada");
            assertThat(see(admin, "#work").getText()).contains("added engineer");
        }
    }
}
