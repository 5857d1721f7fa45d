package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.NotationWriter;
import pyrite.core.view.ShownView;

/**
 * A person shapes a part on its drawing, with the mouse and with keys; what counts is the notation that comes of it.
 */
class DrawingTest extends InBrowser {
    private static final String NO_SKID = "part def Skid;";
    private static final String SKID = """
            part def Skid {
                part pump : Pump;
                part proportionalValve : ProportionalValve;
                part oilTank : OilTank;
                connect pump.outlet to proportionalValve.supply;
            }
            """;

    private String notation(String name) {
        return NotationWriter.write(merrow.head().model(), List.of(merrow.named(name)));
    }

    private WebElement box(String title) {
        return until(presenceOfElementLocated(By.cssSelector(".box[aria-label^='" + title + "']")));
    }

    private WebElement title(String box) {
        return box(box).findElement(By.cssSelector(":scope > .title"));
    }

    private WebElement port(String box, String name) {
        return box(box).findElement(By.cssSelector(":scope > .port[aria-label^='port " + name + "'] > .shape"));
    }

    private void inside(String name) {
        open("element/" + merrow.named(name).id() + "/inside");
        until(presenceOfElementLocated(By.cssSelector("#canvas[data-shown]")));
    }

    /** Until the drawing shows a revision. */
    private void drawn(int revision) {
        until(presenceOfElementLocated(By.cssSelector("#canvas[data-shown='" + revision + "']")));
    }

    private int revision() {
        return merrow.head().number();
    }

    private void bringIn(String definition, String into) {
        int before = revision();
        WebElement field = see("#bring input");
        field.clear();
        field.sendKeys(definition);
        until(driver ->
                driver.findElement(By.cssSelector(".offer .label")).getText().equals(definition));
        drag(() -> see(".offer .label"), () -> title(into));
        drawn(before + 1);
    }

    @Test
    void aPartIsMadeOfDefinitionsWiredUndoneAndRedone() {
        open("element/" + merrow.named("MerrowHydraulics").id() + "/general");
        box("part def Pump");
        press("a");
        see(".over-field input").sendKeys("part def Skid", Keys.ENTER);
        told("Skid added");
        inside("Skid");
        click("[data-bring]");
        bringIn("Pump", "part def Skid");
        bringIn("ProportionalValve", "part def Skid");
        bringIn("OilTank", "part def Skid");
        int wired = revision() + 1;
        drag(() -> port("part pump", "outlet"), () -> port("part proportionalValve", "supply"));
        drawn(wired);
        drag(() -> port("part pump", "inlet"), () -> port("part oilTank", "oil"));
        told("Not connected: 'pump.inlet' receives 'power', which 'oilTank.oil' does not have");
        assertThat(revision()).isEqualTo(wired);
        assertThat(notation("Skid")).isEqualTo(SKID);
        for (int step = 1; step <= 4; step++) {
            with(Keys.CONTROL, "z");
            drawn(wired + step);
        }
        assertThat(notation("Skid").strip()).isEqualTo(NO_SKID);
        for (int step = 5; step <= 8; step++) {
            with(Keys.CONTROL, "y");
            drawn(wired + step);
        }
        assertThat(notation("Skid")).isEqualTo(SKID);
    }

    @Test
    void aDefinitionIsNotBroughtIntoWhatItConsistsOf() {
        inside("HydraulicPowerUnit");
        click("[data-bring]");
        see("#bring input").sendKeys("SurgeGate");
        until(driver ->
                driver.findElement(By.cssSelector(".offer .label")).getText().equals("SurgeGate"));
        drag(() -> see(".offer .label"), () -> title("part def HydraulicPowerUnit"));
        told("Not added: 'HydraulicPowerUnit' would contain itself");
        assertThat(revision()).isEqualTo(1);
    }

    @Test
    void aConnectionOutOfADeepPartMakesThePortAtTheBorder() {
        inside("SurgeGate");
        title("part cabinet").click();
        press(Keys.SPACE);
        box("part radio");
        drag(() -> port("part radio", "command"), () -> port("part siren", "command"));
        told("port command added to Cabinet and bound to radio.command");
        assertThat(notation("Cabinet")).contains("port command : CommandPort;", "bind radio.command = command;");
        assertThat(notation("SurgeGate")).contains("connect cabinet.command to siren.command;");
    }

    @Test
    void whereABoxIsPutIsKeptAndSeenByOthers() throws IOException {
        inside("SurgeGate");
        try (Browser odo = new Browser()) {
            odo.signIn(merrow.address(), "odo");
            open(odo, "element/" + merrow.named("SurgeGate").id() + "/inside");
            odo.until().until(presenceOfElementLocated(By.cssSelector("#canvas[data-shown]")));
            new Actions(ines.driver())
                    .clickAndHold(title("part hinge"))
                    .moveByOffset(90, 60)
                    .release()
                    .perform();
            told("view SurgeGate interconnection view made");
            Element view = merrow.head()
                    .model()
                    .ownElements(ElementKind.VIEW)
                    .filter(each -> "SurgeGate interconnection view".equals(each.name()))
                    .findFirst()
                    .orElseThrow();
            String key =
                    merrow.named("SurgeGate").id() + "." + merrow.named("hinge").id();
            var place = ShownView.of(merrow.head().model(), view)
                    .orElseThrow()
                    .placement()
                    .places()
                    .get(key);
            odo.until().until(presenceOfElementLocated(By.cssSelector("#canvas[data-shown='2']")));
            String at = "translate(" + shown(place.at().x()) + " "
                    + shown(place.at().y()) + ")";
            assertThat(odo.driver()
                            .findElement(By.cssSelector(".box[aria-label^='part hinge']"))
                            .getAttribute("transform"))
                    .isEqualTo(at);
        }
    }

    private static String shown(double px) {
        return px == Math.rint(px) ? Long.toString((long) px) : Double.toString(px);
    }

    @Test
    void takingOutOfTheViewIsNotRemovingFromTheModel() {
        inside("SurgeGate");
        title("part hinge").click();
        press("h");
        drawn(2);
        assertThat(ines.driver().findElements(By.cssSelector(".box[aria-label^='part hinge']")))
                .isEmpty();
        assertThat(merrow.named("hinge")).isNotNull();
        title("part beacon").click();
        press(Keys.DELETE);
        told("beacon removed with 1 connection and 1 link");
        drawn(3);
        assertThat(notation("SurgeGate")).doesNotContain("beacon").contains("part hinge : Hinge;");
    }

    @Test
    void everythingIsDoneWithKeysToo() {
        inside("HydraulicPowerUnit");
        ines.driver().executeScript("arguments[0].focus()", box("part relief"));
        press(Keys.ARROW_UP);
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .startsWith("part accumulator");
        alt(Keys.ARROW_LEFT);
        told("view HydraulicPowerUnit interconnection view made");
        drawn(2);
        press(".", "c", Keys.ARROW_DOWN, ".");
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .startsWith("port oil");
        press(Keys.ENTER);
        told("accumulator.oil connected to relief.oil");
        drawn(3);
        press("m");
        see(".menu[role='menu']");
        press(Keys.ESCAPE);
        press("r");
        see(".over-field input").sendKeys(Keys.chord(Keys.CONTROL, "a"), "line", Keys.ENTER);
        drawn(4);
        assertThat(notation("ReliefValve")).contains("port line : OilPort;");
    }

    @Test
    void aLineIsBentAndItsEndLedElsewhere() {
        inside("HydraulicPowerUnit");
        WebElement line =
                until(presenceOfElementLocated(By.cssSelector(".edge.interface[aria-label*='returnLine'] .way")));
        new Actions(ines.driver())
                .clickAndHold(line)
                .moveByOffset(0, 40)
                .release()
                .perform();
        drawn(2);
        assertThat(notation("HydraulicPowerUnit interconnection view")).contains("@Placement::Bent", "corners = (");
    }

    @Test
    void aDrawingIsSavedAsAPictureThatStandsForItself() throws Exception {
        inside("HydraulicPowerUnit");
        Object text = ines.driver()
                .executeAsyncScript("const done = arguments[0]; const { asSvg } = await import('/js/canvas/export.js');"
                        + "done(await asSvg(document.getElementById('canvas').canvas));");
        String svg = String.valueOf(text);
        assertThat(svg)
                .contains("data:", "font-face", ">pumps [2] : Pump</text>")
                .doesNotContain("var(--");
        DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(svg.getBytes(StandardCharsets.UTF_8)));
    }
}
