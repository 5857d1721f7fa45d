package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.BranchStore;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.Source;
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

    /** In a window in which ports are large enough for a steady hand. */
    private void inside(String name) {
        ines.driver().manage().window().setSize(new Dimension(1900, 1300));
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

    @NewProject
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

    /**
     * A person makes a skid of what the library has: parts nested in one another, wired, a misfit refused, features
     * exposed, names paired, all laid out, undone and redone.
     */
    @Test
    void aSkidIsMadeFromTheLibraryAsAPersonWould() {
        merrow.add("MerrowInstruments", """
                part def Dial { port face : DialPort; }
                port def DialPort { in attribute shown : ISQ::PressureValue; }
                part def Frame;
                """);
        merrow.add(
                "MerrowHydraulics",
                "part def Skid { part frame : MerrowInstruments::Frame; }".replace("frame", "rack"));
        int begun = revision();
        inside("Skid");
        // What is drawn inside the rack is to be in every frame.
        click("#extent option[value='DEFINITION']");
        click("[data-bring]");
        bringIn("Accumulator", "part rack");
        drawn(begun + 1);
        title("part rack").click();
        press(Keys.SPACE);
        box("part accumulator");
        bringIn("ReliefValve", "part rack");
        bringIn("Dial", "part def Skid");
        drag(() -> port("part accumulator", "oil"), () -> port("part reliefValve", "oil"));
        drawn(begun + 4);
        drag(() -> port("part accumulator", "oil"), () -> port("part dial", "face"));
        told("Not connected:");
        assertThat(revision()).isEqualTo(begun + 4);

        title("part reliefValve").click();
        press("e");
        see(".exposing-rows [aria-label='Expose setPressure']").click();
        see(".exposing-port input").sendKeys("setting");
        click(".exposing .primary");
        drawn(begun + 5);
        drag(() -> port("part reliefValve", "setting"), () -> port("part dial", "face"));
        see(".exposing .primary").click();
        told("interface definition");
        drawn(begun + 6);
        openMenuItem("Lay out anew");
        String made = notation("Skid") + notation("Frame") + notation("ReliefValve");
        assertThat(notation("Frame"))
                .contains("part accumulator : ", "part reliefValve : ", "connect accumulator.oil to reliefValve.oil;");
        assertThat(notation("Skid")).contains("part dial : Dial;", "connect rack.setting to dial.face;");
        assertThat(notation("ReliefValve")).contains("bind setting.setPressure = setPressure;");

        for (int step = 1; step <= 6; step++) {
            with(Keys.CONTROL, "z");
            drawn(begun + 6 + step);
        }
        assertThat(notation("Frame").strip()).isEqualTo("part def Frame;");
        for (int step = 1; step <= 6; step++) {
            with(Keys.CONTROL, "y");
            drawn(begun + 12 + step);
        }
        assertThat(notation("Skid") + notation("Frame") + notation("ReliefValve"))
                .isEqualTo(made);
    }

    /** Its library is used with it. */
    @NewProject
    @Test
    void aDefinitionOfAnotherProjectIsDraggedIn() {
        var works = merrow.bean("branchStore", BranchStore.class).create("works", "Works", "main", "main");
        merrow.workspace()
                .commit(
                        works,
                        0,
                        NotationReader.read(
                                        Library.model(),
                                        List.of(new Source(
                                                "works.sysml",
                                                "library package Fenders { part def Dolphin { part post[3] : Post; }"
                                                        + " part def Post; }")))
                                .edit(),
                        merrow.person("odo"),
                        "first");
        merrow.bean("baselineMapper", BaselineMapper.class)
                .add(works.id(), 1, "A", "", merrow.person("odo").id(), Instant.EPOCH);
        merrow.add("MerrowHarbour", "part def Skid;");
        inside("Skid");
        click("[data-bring]");
        int before = revision();
        see("#bring input").sendKeys("Dolphin");
        until(driver ->
                driver.findElement(By.cssSelector(".offer small")).getText().equals("Fenders, Works A"));
        drag(() -> see(".offer .label"), () -> title("part def Skid"));
        drawn(before + 2);
        box("part dolphin");
        assertThat(notation("Skid")).isEqualToIgnoringWhitespace("part def Skid { part dolphin : Fenders::Dolphin; }");
        title("part dolphin").click();
        press(Keys.SPACE);
        box("part post");
    }

    @NewProject
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
        told("port command added to cabinet and bound to radio.command");
        assertThat(notation("SurgeGate"))
                .contains(
                        "port command : CommandPort;",
                        "bind radio.command = command;",
                        "connect cabinet.command to siren.command;");
        assertThat(notation("Cabinet")).doesNotContain("bind radio.command = command;");
    }

    @NewProject
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

    @NewProject
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
        told("beacon removed with 2 connections and 1 link");
        drawn(3);
        assertThat(notation("SurgeGate")).doesNotContain("beacon").contains("part hinge : Hinge;");
    }

    @NewProject
    @Test
    void everythingIsDoneWithKeysToo() {
        inside("HydraulicPowerUnit");
        ines.driver().executeScript("arguments[0].focus()", box("part relief"));
        alt(Keys.ARROW_LEFT);
        told("view HydraulicPowerUnit interconnection view made");
        drawn(2);
        press(".", "c", Keys.ARROW_LEFT);
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .startsWith("part accumulator");
        press(".");
        assertThat(ines.driver().switchTo().activeElement().getAttribute("aria-label"))
                .startsWith("port oil");
        press(Keys.ENTER);
        told("relief.oil connected to accumulator.oil");
        drawn(3);
        press("m");
        see(".menu[role='menu']");
        press(Keys.ESCAPE);
        press("r");
        see(".over-field input").sendKeys(Keys.chord(Keys.CONTROL, "a"), "line", Keys.ENTER);
        drawn(4);
        // The port comes from the definition of the accumulator, which keeps it as it is.
        assertThat(notation("Accumulator")).contains("port oil : OilPort;");
        assertThat(notation("HydraulicPowerUnit")).contains("port line :>> oil;");
    }

    @NewProject
    @Test
    void whatStandsDeepInsideIsChangedInThisUseOrInItsDefinition() {
        inside("SurgeGate");
        ines.driver().executeScript("arguments[0].focus()", box("part powerUnit"));
        press(Keys.SPACE);
        ines.driver().executeScript("arguments[0].focus()", box("part pumps"));
        press("a");
        see(".over-field input").sendKeys("attribute serial : String", Keys.ENTER);
        told("attribute serial added to pumps, in SurgeGate.powerUnit.pumps alone");
        drawn(2);
        assertThat(notation("HydraulicPowerUnit")).doesNotContain("serial");
        assertThat(notation("SurgeGate")).contains("part :>> pumps {\n            attribute serial : String;");
        // The box that was chosen is chosen still, though another element stands for it now.
        press("m");
        until(driver -> driver.findElements(By.cssSelector("[role='menuitem']")).stream()
                        .filter(item -> item.getText().startsWith("Open its page"))
                        .findFirst()
                        .orElse(null))
                .click();
        until(driver -> driver.getCurrentUrl().contains("/element/"));
        assertThat(see("main").getText()).contains("serial");
        inside("SurgeGate");
        ines.driver().executeScript("arguments[0].focus()", box("part powerUnit"));
        press(Keys.SPACE);
        click("#extent option[value='DEFINITION']");
        ines.driver().executeScript("arguments[0].focus()", box("part tank"));
        press("a");
        see(".over-field input").sendKeys("attribute coating : String", Keys.ENTER);
        told("attribute coating added to OilTank");
        assertThat(notation("OilTank")).contains("attribute coating : String;");
    }

    private Element part(String owner, String name) {
        return merrow.head().model().children(merrow.named(owner).id()).stream()
                .filter(part -> name.equals(part.name()) && part.kind() == ElementKind.PART)
                .findFirst()
                .orElseThrow();
    }

    @NewProject
    @Test
    void aValueTypedOnThePageOfAUseHoldsThereAlone() {
        String use = Stream.of(
                        merrow.named("SurgeGate"), part("SurgeGate", "powerUnit"), part("HydraulicPowerUnit", "pumps"))
                .map(element -> element.id().toString())
                .collect(Collectors.joining("."));
        open("use/" + use);
        click("[data-label='Value of price']");
        see(".editor input").sendKeys(Keys.chord(Keys.CONTROL, "a"), "9000 [EUR]", Keys.ENTER);
        told("in SurgeGate.powerUnit.pumps alone");
        assertThat(notation("SurgeGate")).contains("attribute :>> price = 9000 [");
        open("use/" + use);
        // It is an element of its own now, with a page of its own.
        until(driver -> driver.getCurrentUrl().contains("/element/"));
        assertThat(see("[data-label='Value of price']").getText()).startsWith("9000 [");
    }

    @NewProject
    @Test
    void aPortStandsOnlyWhereItsTypeHasIt() {
        inside("HydraulicPowerUnit");
        box("part relief");
        new Actions(ines.driver())
                .keyDown(Keys.ALT)
                .clickAndHold(port("part relief", "oil"))
                .moveToElement(title("part tank"))
                .release()
                .keyUp(Keys.ALT)
                .perform();
        told("Port oil stands where its type has it, on relief");
        assertThat(revision()).isEqualTo(1);
    }

    @NewProject
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

    private void openMenuItem(String label) {
        click("[data-drawing='more']");
        until(driver -> driver.findElements(By.cssSelector("[role='menuitem']")).stream()
                        .filter(item -> item.getText().startsWith(label))
                        .findFirst()
                        .orElse(null))
                .click();
    }

    @Test
    void aLineIsBentAPortMovedAndAnEndLedElsewhereByKeys() {
        inside("HydraulicPowerUnit");
        title("part relief").click();
        press(".");
        // The port that was reached goes along the border, and the view keeps where.
        int before = revision();
        alt(Keys.ARROW_DOWN);
        drawn(before + 1);
        String view = "HydraulicPowerUnit interconnection view";
        assertThat(notation(view)).contains("HydraulicPowerUnit::relief, ReliefValve::oil");
        go(".", "interface returnLine");
        alt(Keys.ARROW_DOWN);
        alt(Keys.ARROW_RIGHT);
        drawn(before + 2);
        assertThat(notation(view)).contains("@Placement::Bent about");
        press("c");
        go(Keys.ARROW_LEFT, Keys.ARROW_UP, "part accumulator");
        press(".");
        press(Keys.ENTER);
        told("relief.oil connected to accumulator.oil");
        assertThat(notation("HydraulicPowerUnit"))
                .contains("interface returnLine : OilLine connect relief.oil to accumulator.oil;");
    }

    /** Presses a key until what it leads to has the focus. */
    private void go(CharSequence key, String label) {
        go(key, key, label);
    }

    private void go(CharSequence one, CharSequence other, String label) {
        for (int i = 0; i < 40 && !focused().startsWith(label); i++) {
            press(i % 5 == 4 ? other : one);
        }
        assertThat(focused()).startsWith(label);
    }

    private String focused() {
        String label = ines.driver().switchTo().activeElement().getAttribute("aria-label");
        return label == null ? "" : label;
    }

    @Test
    void aViewLeavesOutWhatIsNotChosenAndKeepsThat() {
        open("element/" + merrow.named("SurgeGate").id() + "/general");
        box("part def SurgeGate");
        assertThat(box("part def SurgeGate").getText()).contains("warningTime");
        openMenuItem("Contents of this view");
        see("#question input[value='attributes']").click();
        click("#question .primary");
        told("view SurgeGate general view made: without attributes");
        until(driver -> !box("part def SurgeGate").getText().contains("warningTime"));
        assertThat(notation("SurgeGate general view")).contains("without = \"attributes\";");
        openMenuItem("Bookmark this drawing");
        see("#question [name=name]").sendKeys(" again");
        click("#question .primary");
        told("view SurgeGate again saved");
        open("drawings");
        click("a[href*='/views/']");
        box("part def SurgeGate");
    }

    @NewProject
    @Test
    void chosenFeaturesAreExposedAtAPort() {
        inside("SurgeGate");
        title("part drive").click();
        press("e");
        see(".exposing-rows [aria-label='Expose fastSpeed']").click();
        see(".exposing-port input").sendKeys("speeds");
        until(driver -> see(".preview").getText().contains("bind speeds.fastSpeed = fastSpeed;"));
        click(".exposing .primary");
        told("port speeds : SpeedsPort added to GateDrive, carrying fastSpeed");
        assertThat(notation("SpeedsPort")).contains("out attribute fastSpeed : AngularVelocityValue;");
        assertThat(notation("GateDrive")).contains("port speeds : SpeedsPort;", "bind speeds.fastSpeed = fastSpeed;");
        drawn(2);
        assertThat(port("part drive", "speeds").isDisplayed()).isTrue();
    }

    @Test
    void portsWithDifferingNamesArePaired() {
        merrow.add(
                "MerrowInstruments",
                "port def Plug { out item note : Telegram; } port def Socket { in item word : Telegram; in item sound : Sound; }"
                        + " port def Jack { in item word : Telegram; }"
                        + " part def Mast { port plug : Plug; } part def Booth { port jack : Jack; port socket : Socket; }"
                        + " part def Site { part mast : Mast; part booth : Booth; }");
        inside("Site");
        int before = revision();
        drag(() -> port("part mast", "plug"), () -> port("part booth", "jack"));
        see(".exposing .primary").click();
        told("interface definition PlugToJack added to MerrowInstruments");
        drawn(before + 1);
        assertThat(notation("PlugToJack")).contains("bind plug.note = jack.word;");
        assertThat(notation("Site")).contains("interface : PlugToJack connect mast.plug to booth.jack;");
        drag(() -> port("part mast", "plug"), () -> port("part booth", "socket"));
        see(".exposing .primary").click();
        until(driver -> see(".exposing .fault").getText().contains("which 'mast.plug' does not have"));
        assertThat(revision()).isEqualTo(before + 1);
    }

    @Test
    void aPartIsSeenInItsSurroundings() {
        open("element/" + merrow.named("SurgeGate").id() + "/context");
        box("part vessel : Vessel");
        assertThat(ines.driver().findElements(By.cssSelector(".box")).stream()
                        .map(each -> each.getAttribute("aria-label"))
                        .toList())
                .contains("part def Harbour", "part tides : TideStation", "actor master : HarbourMaster")
                .doesNotContain("part def Barrier");
    }

    @Test
    void whatIsBroughtInBesideTheBoxesIsShownInAViewOfItsOwn() {
        open("element/" + merrow.named("MerrowHydraulics").id() + "/general");
        box("part def Pump");
        click("[data-bring]");
        see("#bring input").sendKeys("Siren");
        until(driver ->
                driver.findElement(By.cssSelector(".offer .label")).getText().equals("Siren"));
        see("#bring input").sendKeys(Keys.ENTER);
        until(driver -> String.valueOf(driver.getCurrentUrl()).contains("/drawing/"));
        box("part def Siren");
        box("part def Pump");
        assertThat(notation("MerrowHydraulics general view")).contains("expose MerrowHydraulics::*;", "Siren;");
    }

    @Test
    void aDrawingIsSavedAsAPictureThatStandsForItself() throws Exception {
        inside("HydraulicPowerUnit");
        ines.driver()
                .executeScript("const made = URL.createObjectURL;"
                        + "URL.createObjectURL = (blob) => { blob.text().then((text) => { window.savedPicture = text; }); return "
                        + "made(blob); };");
        openMenuItem("Save as SVG");
        String svg = until(driver -> (String) ines.driver().executeScript("return window.savedPicture;"));
        assertThat(svg)
                .contains("data:", "font-face", ">pumps [2] : Pump</text>")
                .doesNotContain("var(--");
        DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(svg.getBytes(StandardCharsets.UTF_8)));
    }
}
