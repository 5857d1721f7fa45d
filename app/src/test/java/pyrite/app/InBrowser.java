package pyrite.app;

import static org.openqa.selenium.support.ui.ExpectedConditions.elementToBeClickable;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.io.IOException;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import pyrite.core.model.Model;
import pyrite.core.trace.Links;

/** The demo's project, and Ines in front of it with a browser: what her hands do and what she waits to see. */
abstract class InBrowser extends InProject {
    static Browser ines;

    @BeforeAll
    static void openBrowser() throws IOException {
        ines = new Browser();
    }

    @AfterAll
    static void closeBrowser() {
        ines.close();
    }

    @BeforeEach
    void signIn() {
        ines.signIn(merrow.address(), "ines");
    }

    @AfterEach
    void leave() {
        ines.forget();
    }

    static <T> T until(Function<? super WebDriver, T> seen) {
        return ines.until().until(seen);
    }

    void open(Browser browser, String path) {
        browser.driver().get(merrow.address() + "/p/merrow/main/" + path);
    }

    void open(String path) {
        open(ines, path);
    }

    static WebElement see(Browser browser, String css) {
        reveal(browser, css);
        return browser.until().until(visibilityOfElementLocated(By.cssSelector(css)));
    }

    /** Opens the menu of a bar in which something stands. */
    private static void reveal(Browser browser, String css) {
        if (css.contains(":has(")) {
            // One such condition cannot stand in another.
            return;
        }
        browser.driver()
                .findElements(By.cssSelector("details.bar-menu:not([open]):has(" + css + ") > summary"))
                .forEach(WebElement::click);
    }

    WebElement see(String css) {
        return see(ines, css);
    }

    /**
     * Clicks once the scripts of the page have started, and tries again where the page has put a new element in the
     * place of the one that was found.
     */
    static void click(Browser browser, String css) {
        reveal(browser, css);
        click(browser, By.cssSelector(css));
    }

    private static void click(Browser browser, By place) {
        browser.until().until(_ -> "complete".equals(browser.driver().executeScript("return document.readyState")));
        browser.until().until(driver -> {
            WebElement found = elementToBeClickable(place).apply(driver);
            if (found != null) {
                found.click();
            }
            return found;
        });
    }

    void click(String css) {
        click(ines, css);
    }

    /** The button with a text; see {@link #click(Browser, String)}. */
    static void clickButton(String words) {
        click(ines, By.xpath("//button[contains(., '" + words + "')]"));
    }

    void told(String words) {
        ines.until().until(textToBePresentInElementLocated(By.id("saved"), words));
    }

    static void atRevision(Browser browser, int number) {
        browser.until().until(textToBePresentInElementLocated(By.id("revision"), "r" + number));
    }

    void atRevision(int number) {
        atRevision(ines, number);
    }

    void press(CharSequence... keys) {
        new Actions(ines.driver()).sendKeys(keys).perform();
    }

    void with(Keys held, CharSequence key) {
        new Actions(ines.driver()).keyDown(held).sendKeys(key).keyUp(held).perform();
    }

    void alt(Keys key) {
        with(Keys.ALT, key);
    }

    /** Tries again where the page has put new elements in the place of those that were found. */
    void drag(Supplier<WebElement> what, Supplier<WebElement> onto) {
        until(_ -> {
            ines.driver().resetInputState();
            WebElement goal = onto.get();
            new Actions(ines.driver())
                    .clickAndHold(what.get())
                    .moveToElement(goal, 0, 3)
                    .moveToElement(goal)
                    .release()
                    .perform();
            return true;
        });
    }

    /** The links of an element, as kind and name of the other end. */
    List<String> links(String name) {
        Model model = merrow.head().model();
        return Links.in(model).of(merrow.named(name)).stream()
                .map(link -> link.kind().key() + " "
                        + model.get(link.other(merrow.named(name).id())).name())
                .sorted()
                .toList();
    }
}
