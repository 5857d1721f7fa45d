package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.invisibilityOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.NoAlertPresentException;
import org.openqa.selenium.SearchContext;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import pyrite.core.model.Edit;

/** Drawing and text side by side, and commands, in a real browser. */
@NewProject
class WorkbenchTest extends InBrowser {
    private static final By STATE = By.id("notation-state");

    private void show(String element, String rest) {
        ines.driver()
                .get(merrow.address() + "/p/merrow/main/element/"
                        + merrow.named(element).id() + rest);
    }

    private WebElement content() {
        SearchContext shadow =
                until(driver -> driver.findElement(By.id("notation")).getShadowRoot());
        return until(_ -> shadow.findElement(By.cssSelector(".cm-content")));
    }

    private String text() {
        return (String)
                ines.driver().executeScript("return document.getElementById('notation').view.state.doc.toString()");
    }

    /** Puts the cursor behind some text, so that what is typed next stands there. */
    private void cursorBehind(String before) {
        content();
        until(_ -> text().contains(before));
        ines.driver()
                .executeScript(
                        "const v = document.getElementById('notation').view; const at = v.state.doc.toString().indexOf(arguments[0])"
                                + " + arguments[0].length; v.dispatch({ selection: { anchor: at }, scrollIntoView: true }); v.focus();",
                        before);
    }

    /** Puts text in at the cursor, as pasting does. */
    private void insert(String text) {
        ines.driver()
                .executeScript(
                        "const v = document.getElementById('notation').view; v.dispatch(v.state.replaceSelection(arguments[0]));",
                        text);
    }

    private void save() {
        with(Keys.CONTROL, "s");
    }

    private void box(String title) {
        until(presenceOfElementLocated(By.cssSelector(".box[aria-label='" + title + "']")));
    }

    private List<String> boxes() {
        return ines.driver().findElements(By.cssSelector(".box")).stream()
                .map(box -> box.getAttribute("aria-label"))
                .toList();
    }

    @Test
    void boxesOpenAndAreReachedByKeyboard() {
        show("Barrier", "/general");
        box("part gate : SurgeGate");
        assertThat(boxes())
                .containsExactlyInAnyOrder(
                        "part def Barrier", "part sea : Sea", "part gate : SurgeGate", "part basin : Basin");
        WebElement barrier = ines.driver().findElement(By.cssSelector(".box[aria-label='part def Barrier']"));
        ines.driver().executeScript("arguments[0].focus()", barrier);
        barrier.sendKeys(Keys.ARROW_DOWN);
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .isIn("part sea : Sea", "part gate : SurgeGate", "part basin : Basin");
        WebElement gate = ines.driver().findElement(By.cssSelector(".box[aria-label='part gate : SurgeGate']"));
        ines.driver().executeScript("arguments[0].focus()", gate);
        gate.sendKeys(Keys.SPACE);
        box("part leaf : GateLeaf");
        WebElement leaf = ines.driver().findElement(By.cssSelector(".box[aria-label='part leaf : GateLeaf']"));
        ines.driver().executeScript("arguments[0].focus()", leaf);
        leaf.sendKeys(Keys.ENTER);
        until(textToBePresentInElementLocated(By.tagName("h1"), "leaf"));
    }

    @Test
    void aBoxKeepsTheFocusWhenSomebodyElseSaves() {
        show("Barrier", "/general");
        box("part gate : SurgeGate");
        ines.driver()
                .executeScript(
                        "arguments[0].focus()",
                        ines.driver().findElement(By.cssSelector(".box[aria-label='part gate : SurgeGate']")));
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("basin").withName("harbourBasin")),
                        merrow.person("odo"),
                        "basin renamed");
        box("part harbourBasin : Basin");
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .isEqualTo("part gate : SurgeGate");
    }

    @Test
    void whatIsTypedIsCheckedProposedSavedAndDrawn() {
        show("MerrowGate", "/general?split=on");
        cursorBehind("part barrier : Barrier;");
        insert("\npart def Fan { attribute pressure : PressureValue = 3 [m]; }");
        press(Keys.ARROW_LEFT, Keys.ARROW_LEFT);
        until(textToBePresentInElementLocated(STATE, "fault"));
        press(Keys.BACK_SPACE, Keys.BACK_SPACE, Keys.BACK_SPACE, "bar];");
        until(textToBePresentInElementLocated(STATE, "Not saved yet"));
        save();
        box("part def Fan");
        assertThat(merrow.head().number()).isEqualTo(2);
        assertThat(merrow.named("Fan").owner())
                .isEqualTo(merrow.named("MerrowGate").id());
    }

    @Test
    void selectingABoxMarksItsTextAndTheCursorSelectsItsBox() {
        show("MerrowGate", "/general?split=on");
        box("part def SurgeGate");
        cursorBehind("part def SurgeGate");
        press(Keys.ARROW_LEFT);
        until(presenceOfElementLocated(By.cssSelector(".box.selected[aria-label='part def SurgeGate']")));
        ines.driver()
                .findElement(By.cssSelector(".box[aria-label='part def Barrier']"))
                .click();
        SearchContext shadow = ines.driver().findElement(By.id("notation")).getShadowRoot();
        String marked =
                until(_ -> shadow.findElement(By.cssSelector(".cm-marked"))).getText();
        assertThat(marked).contains("part def Barrier");
    }

    @Test
    void whatIsTypedOutlivesAReload() {
        show("MerrowGate", "/notation");
        cursorBehind("part barrier : Barrier;");
        insert("\npart spare : Barrier;");
        until(textToBePresentInElementLocated(STATE, "Not saved yet"));
        ines.driver().navigate().refresh();
        acceptLeaving();
        content();
        assertThat(until(visibilityOfElementLocated(By.id("unsaved"))).getText())
                .contains("You wrote this text on", "did not save it");
        cursorBehind("part spare : Barrier;");
        save();
        until(textToBePresentInElementLocated(By.id("saved"), "r2"));
    }

    @Test
    void textFromBeforeCanBeDropped() {
        show("MerrowGate", "/notation");
        cursorBehind("part barrier : Barrier;");
        insert("\npart never : Barrier;");
        until(textToBePresentInElementLocated(STATE, "Not saved yet"));
        ines.driver().navigate().refresh();
        acceptLeaving();
        until(visibilityOfElementLocated(By.cssSelector("[data-unsaved='drop']")))
                .click();
        until(invisibilityOfElementLocated(By.id("unsaved")));
        until(_ -> !text().contains("never"));
        ines.driver().navigate().refresh();
        content();
        until(_ -> text().contains("part barrier : Barrier;"));
        assertThat(text()).doesNotContain("never");
        assertThat(ines.driver().findElement(By.id("unsaved")).isDisplayed()).isFalse();
    }

    /** The browser may ask whether to leave a page with unsaved text. */
    private void acceptLeaving() {
        try {
            ines.driver().switchTo().alert().accept();
        } catch (NoAlertPresentException _) {
            // Then it has left already.
        }
    }

    @Test
    void whoeverComesSecondSeesBothVersionsAndDecides() {
        show("MerrowGate", "/notation");
        cursorBehind("part def SurgeGate");
        press("Two");
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("SurgeGate").withName("StormGate")),
                        merrow.person("odo"),
                        "renamed");
        save();
        WebElement disputed = until(visibilityOfElementLocated(By.id("disputed")));
        assertThat(disputed.getText()).contains("part def StormGate", "part def SurgeGateTwo");
        disputed.findElement(By.cssSelector("[data-keep='yours']")).click();
        until(textToBePresentInElementLocated(By.id("saved"), "r3"));
        assertThat(merrow.named("SurgeGateTwo").kind()).isNotNull();
    }

    private void openFind() {
        until(driver -> {
            new Actions(driver)
                    .keyDown(Keys.CONTROL)
                    .sendKeys("k")
                    .keyUp(Keys.CONTROL)
                    .perform();
            return "find".equals(driver.switchTo().activeElement().getAttribute("id"));
        });
    }

    @Test
    void whoTypesQuicklyGetsWhatTheyTyped() {
        openFind();
        new Actions(ines.driver()).sendKeys("landsSoftly", Keys.ENTER).perform();
        until(textToBePresentInElementLocated(By.tagName("h1"), "landsSoftly"));
    }

    /** A requirement's subject is called like the part it looks at; the part is what somebody looks for. */
    @Test
    void whatOnlyStandsForSomethingElseIsFoundLast() {
        openFind();
        press("leaf");
        until(textToBePresentInElementLocated(By.id("hits"), "GateLeaf"));
        List<String> hits = ines.driver().findElements(By.cssSelector("#hits [role='option']")).stream()
                .map(WebElement::getText)
                .toList();
        assertThat(hits.getFirst()).contains("part in");
        int subject = IntStream.range(0, hits.size())
                .filter(i -> hits.get(i).contains("subject in"))
                .findFirst()
                .orElse(hits.size());
        assertThat(hits.subList(0, subject))
                .anyMatch(hit -> hit.contains("GateLeaf"))
                .anyMatch(hit -> hit.contains("MoveLeaf"));
    }

    @Test
    void commandsAreFoundAndRunLikeElements() {
        openFind();
        press("go to runs");
        until(textToBePresentInElementLocated(By.cssSelector("#hits [aria-selected='true']"), "Go to Runs"));
        press(Keys.ENTER);
        until(textToBePresentInElementLocated(By.tagName("h1"), "Runs"));
        press("?");
        until(visibilityOfElementLocated(By.id("keys")));
    }
}
