package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.io.IOException;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.NoAlertPresentException;
import org.openqa.selenium.SearchContext;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import pyrite.core.model.Edit;

/** Drawing and text side by side, and commands, in a real browser. */
class WorkbenchTest {
    private static final By STATE = By.id("notation-state");

    private Merrow merrow;
    private Browser browser;

    @BeforeEach
    void open() throws IOException {
        merrow = new Merrow();
        browser = new Browser();
        browser.signIn(merrow.address(), "ines");
    }

    @AfterEach
    void close() {
        browser.close();
        merrow.close();
    }

    private void show(String element, String rest) {
        browser.driver().get(merrow.address() + "/p/merrow/main/element/" + merrow.named(element).id() + rest);
    }

    private WebElement content() {
        SearchContext shadow = browser.until().until(driver -> driver.findElement(By.id("notation")).getShadowRoot());
        return browser.until().until(_ -> shadow.findElement(By.cssSelector(".cm-content")));
    }

    private String text() {
        return (String) browser.driver().executeScript("return document.getElementById('notation').view.state.doc.toString()");
    }

    /** Puts the cursor behind some text, so that what is typed next stands there. */
    private void cursorBehind(String before) {
        content();
        browser.until().until(_ -> text().contains(before));
        browser.driver().executeScript("const v = document.getElementById('notation').view; const at = v.state.doc.toString().indexOf(arguments[0])"
                + " + arguments[0].length; v.dispatch({ selection: { anchor: at }, scrollIntoView: true }); v.focus();", before);
    }

    /** Types where the cursor stands. */
    private void type(CharSequence... keys) {
        new Actions(browser.driver()).sendKeys(keys).perform();
    }

    /** Puts text in at the cursor, as pasting does. */
    private void insert(String text) {
        browser.driver().executeScript("const v = document.getElementById('notation').view; v.dispatch(v.state.replaceSelection(arguments[0]));", text);
    }

    private void save() {
        new Actions(browser.driver()).keyDown(Keys.CONTROL).sendKeys("s").keyUp(Keys.CONTROL).perform();
    }

    private void box(String title) {
        browser.until().until(presenceOfElementLocated(By.cssSelector(".box[aria-label='" + title + "']")));
    }

    private List<String> boxes() {
        return browser.driver().findElements(By.cssSelector(".box")).stream().map(box -> box.getAttribute("aria-label")).toList();
    }

    @Test
    void boxesOpenAndAreReachedByKeyboard() {
        show("Barrier", "/general");
        box("part gate : SurgeGate");
        assertThat(boxes()).containsExactlyInAnyOrder("part def Barrier", "part sea : Sea", "part gate : SurgeGate", "part basin : Basin");
        WebElement barrier = browser.driver().findElement(By.cssSelector(".box[aria-label='part def Barrier']"));
        browser.driver().executeScript("arguments[0].focus()", barrier);
        barrier.sendKeys(Keys.ARROW_DOWN);
        assertThat(browser.driver().switchTo().activeElement().getAttribute("aria-label")).isIn("part sea : Sea", "part gate : SurgeGate", "part basin : Basin");
        // With the keyboard, because the box may lie outside what the canvas shows.
        WebElement toggle = browser.driver().findElement(By.cssSelector(".box[aria-label='part gate : SurgeGate'] .toggle"));
        browser.driver().executeScript("arguments[0].focus()", toggle);
        type(Keys.ENTER);
        box("part leaf : GateLeaf");
        WebElement leaf = browser.driver().findElement(By.cssSelector(".box[aria-label='part leaf : GateLeaf']"));
        browser.driver().executeScript("arguments[0].focus()", leaf);
        leaf.sendKeys(Keys.ENTER);
        browser.until().until(textToBePresentInElementLocated(By.tagName("h1"), "leaf"));
    }

    @Test
    void whatIsTypedIsCheckedProposedSavedAndDrawn() {
        show("MerrowGate", "/general?split=on");
        cursorBehind("part barrier : Barrier;");
        insert("\npart def Fan { attribute pressure : PressureValue = 3 [m]; }");
        type(Keys.ARROW_LEFT, Keys.ARROW_LEFT);
        browser.until().until(textToBePresentInElementLocated(STATE, "fault"));
        type(Keys.BACK_SPACE, Keys.BACK_SPACE, Keys.BACK_SPACE, "bar];");
        browser.until().until(textToBePresentInElementLocated(STATE, "Not saved yet"));
        save();
        box("part def Fan");
        assertThat(merrow.head().number()).isEqualTo(2);
        assertThat(merrow.named("Fan").owner()).isEqualTo(merrow.named("MerrowGate").id());
    }

    @Test
    void selectingABoxMarksItsTextAndTheCursorSelectsItsBox() {
        show("MerrowGate", "/general?split=on");
        box("part def SurgeGate");
        cursorBehind("part def SurgeGate");
        type(Keys.ARROW_LEFT);
        browser.until().until(presenceOfElementLocated(By.cssSelector(".box.selected[aria-label='part def SurgeGate']")));
        browser.driver().findElement(By.cssSelector(".box[aria-label='part def Barrier']")).click();
        SearchContext shadow = browser.driver().findElement(By.id("notation")).getShadowRoot();
        String marked = browser.until().until(_ -> shadow.findElement(By.cssSelector(".cm-marked"))).getText();
        assertThat(marked).contains("part def Barrier");
    }

    @Test
    void whatIsTypedOutlivesAReload() {
        show("MerrowGate", "/notation");
        cursorBehind("part barrier : Barrier;");
        insert("\npart spare : Barrier;");
        browser.until().until(textToBePresentInElementLocated(STATE, "Not saved yet"));
        browser.driver().navigate().refresh();
        acceptLeaving();
        content();
        cursorBehind("part spare : Barrier;");
        save();
        browser.until().until(textToBePresentInElementLocated(By.id("saved"), "r2"));
    }

    /** The browser may ask whether to leave a page with unsaved text. */
    private void acceptLeaving() {
        try {
            browser.driver().switchTo().alert().accept();
        } catch (NoAlertPresentException _) {
            // Then it has left already.
        }
    }

    @Test
    void whoeverComesSecondSeesBothVersionsAndDecides() {
        show("MerrowGate", "/notation");
        cursorBehind("part def SurgeGate");
        type("Two");
        merrow.workspace().commit(merrow.branch(), 1, Edit.put(merrow.named("SurgeGate").withName("StormGate")), merrow.person("odo"), "renamed");
        save();
        WebElement disputed = browser.until().until(visibilityOfElementLocated(By.id("disputed")));
        assertThat(disputed.getText()).contains("part def StormGate", "part def SurgeGateTwo");
        disputed.findElement(By.cssSelector("[data-keep='yours']")).click();
        browser.until().until(textToBePresentInElementLocated(By.id("saved"), "r3"));
        assertThat(merrow.named("SurgeGateTwo").kind()).isNotNull();
    }

    @Test
    void commandsAreFoundAndRunLikeElements() {
        browser.until().until(driver -> {
            new Actions(driver).keyDown(Keys.CONTROL).sendKeys("k").keyUp(Keys.CONTROL).perform();
            return "find".equals(driver.switchTo().activeElement().getAttribute("id"));
        });
        type("go to runs");
        browser.until().until(textToBePresentInElementLocated(By.cssSelector("#hits [aria-selected='true']"), "Go to Runs"));
        type(Keys.ENTER);
        browser.until().until(textToBePresentInElementLocated(By.tagName("h1"), "Runs"));
        type("?");
        browser.until().until(visibilityOfElementLocated(By.id("keys")));
    }
}
