package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.elementToBeClickable;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.NotationWriter;

/** States and steps are led to each other on their drawings; what a special machine inherits is redefined in it. */
class BehaviorDrawingTest extends InBrowser {
    private Element modes(String part) {
        return merrow.head().model().children(merrow.named(part).id()).stream()
                .filter(child -> child.kind() == ElementKind.EXHIBIT)
                .findFirst()
                .orElseThrow();
    }

    private String text(String part) {
        return NotationWriter.write(merrow.head().model(), List.of(merrow.named(part)));
    }

    private WebElement box(String title) {
        return until(presenceOfElementLocated(By.cssSelector(".box[aria-label^='" + title + "']")));
    }

    private void drawn() {
        until(presenceOfElementLocated(
                By.cssSelector("#canvas[data-shown='" + merrow.head().number() + "']")));
    }

    private void typed(String words) {
        WebElement field = see(".over-field input");
        field.sendKeys(Keys.chord(Keys.CONTROL, "a"), words, Keys.ENTER);
    }

    @Test
    void linesOfASpecialMachineAreDrawnChangedAndRedirected() {
        // In a window in which all states are in sight.
        ines.driver().manage().window().setSize(new Dimension(1900, 1500));
        String general = text("GateControl");
        open("element/" + modes("RemoteGateControl").id() + "/states");
        drawn();
        box("state waiting").sendKeys("c");
        box("state alone").sendKeys(Keys.ENTER);
        typed("accept Nobody via desk");
        assertThat(see(".over-field .fault").getText()).contains("Nobody");
        typed("accept LinkLost via desk");
        told("waiting leads to alone");
        assertThat(text("RemoteGateControl")).contains("transition first waiting accept LinkLost via desk then alone;");

        drawn();
        Element order = merrow.head()
                .model()
                .ownElements(ElementKind.TRANSITION)
                .filter(transition -> "order".equals(transition.name()))
                .findFirst()
                .orElseThrow();
        see("#diagram [data-select='" + order.id() + "']").sendKeys("r");
        assertThat(see(".over-field input").getAttribute("value")).isEqualTo("accept CloseNow via desk");
        typed("accept CloseNow via desk if not active(watching.occupied)");
        told("'order' redefined");
        assertThat(text("RemoteGateControl"))
                .contains(
                        "transition :>> order first warned accept CloseNow via desk if not active(watching.occupied) then clearing;");

        drawn();
        // What it inherits stays in the general machine.
        box("state clearing").findElement(By.cssSelector(":scope > .title")).click();
        press(Keys.DELETE);
        told("'clearing' comes from GateControl, which others use, too; remove it there");
        box("state closing").findElement(By.cssSelector(":scope > .title")).click();
        press("a");
        typed("state resting");
        told("added to closing, which is redefined here");
        assertThat(text("RemoteGateControl")).contains("state :>> closing {", "state resting;");
        assertThat(text("GateControl")).isEqualTo(general);
        // The text stands beside the drawing, as beside one of structure.
        until(elementToBeClickable(By.linkText("Text"))).click();
        assertThat(see(".notation-pane").getText()).contains("Save", "Format");
        drawn();
    }

    @Test
    void stepsAreLedToEachOtherWithAConditionOrAFlow() {
        merrow.add("MerrowBehaviour", """
                part def Winch {
                    attribute load : ScalarValues::Real := 0;
                    action hoist {
                        action look { out attribute load : ScalarValues::Real = 2; }
                        action pull { in attribute force : ScalarValues::Real; }
                        action rest;
                    }
                }
                """);
        open("element/" + merrow.named("hoist").id() + "/flow");
        drawn();
        box("action look").sendKeys("c");
        box("action rest").sendKeys(Keys.ENTER);
        typed("if load > 1");
        told("look leads to rest");
        drawn();
        box("action look").sendKeys("c");
        box("action pull").sendKeys(Keys.ENTER);
        typed("flow load to force");
        told("look leads to pull");
        assertThat(text("Winch")).contains("first look if load > 1 then rest;", "flow look.load to pull.force;");
    }

    private String recorded() {
        return text("lostLink");
    }

    @Test
    void aSequenceIsDrawnMovedSaidAnewAndReplayedAsItIsDrawn() {
        ines.driver().manage().window().setSize(new Dimension(1900, 1500));
        open("element/" + merrow.named("lostLink").id() + "/sequence");
        drawn();
        // From outside to the control, at the height of what happens after twelve minutes.
        WebElement late = until(presenceOfElementLocated(By.cssSelector(".box.event[aria-label*='clearing']")));
        drag(() -> lifeline("outside"), () -> late);
        typed("OpenUp");
        assertThat(see(".over-field .fault").getText()).contains("there is no item definition 'OpenUp'");
        typed("CloseNow");
        told("message CloseNow added to lostLink");
        drawn();
        assertThat(recorded())
                .containsPattern(
                        "message : Told of \\S*CloseNow from outside to \\S+control\\.desk \\{\\s+attribute :>> at = (420|810) ");
        // What is on a lifeline by itself comes behind everything else, and goes where it is dragged.
        click(".box.lifeline[aria-label*='office']");
        press("a");
        typed("operate");
        told("operate added to lostLink");
        drawn();
        WebElement message = see(".edge.message[aria-label*='CloseNow']");
        ines.driver().executeScript("arguments[0].focus()", message);
        press("c");
        press(Keys.ARROW_RIGHT, Keys.ENTER);
        told("message of lostLink leads to");
        drawn();
        ines.driver().executeScript("arguments[0].focus()", see(".edge.message[aria-label*='CloseNow']"));
        press(Keys.DELETE);
        told("step of lostLink removed");
        drawn();
        ines.driver().executeScript("arguments[0].focus()", see(".edge.message[aria-label*='SurgeAlarm']"));
        press("r");
        typed("SurgeAlarm(height = 1.6 [m])");
        told("→ SurgeAlarm(height = 1.6 [m])");
        assertThat(recorded()).contains("SurgeAlarm(height = 1.6 [m])").doesNotContain("CloseNow");
        click("[data-drawing='add']");
        typed("gate.sirene");
        assertThat(see(".over-field .fault").getText()).contains("the system has no part 'gate.sirene'");
        typed("gate.siren");
        until(presenceOfElementLocated(By.cssSelector(".box.lifeline[aria-label*='siren']")));
    }

    private WebElement lifeline(String part) {
        return until(
                presenceOfElementLocated(By.cssSelector(".box.lifeline[aria-label*='" + part + "'] > .life-reach")));
    }
}
