package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.invisibilityOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfAllElementsLocatedBy;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.specification.Waivers;

/** A person goes through what the check of the model noticed, and compares products for a part. */
class FindingsTest extends InBrowser {
    private static String row(String key) {
        return "tr:has([data-finding='" + key + "'])";
    }

    @Test
    void oneFindingIsMendedAndAnotherWaivedWithItsReason() {
        open("findings");
        see(row("open-port:supply"));
        click(row("open-port:supply") + " [data-mend^='Lead it']");
        told("Lead it to the border of Barrier");
        until(invisibilityOfElementLocated(By.cssSelector(row("open-port:supply"))));
        Model mended = merrow.head().model();
        assertThat(mended.children(merrow.named("Barrier").id())).anyMatch(child -> "supply".equals(child.name()));

        click(row("open-port:radar") + " [data-finding]:not([data-mend])");
        see("#question [name=reason]").sendKeys("the radar stands outside of this model");
        click("#question .primary");
        told("waived");
        see("a[href$='findings?waived=true']");
        open("findings?waived=true");
        until(textToBePresentInElementLocated(By.id("work"), "the radar stands outside of this model"));
        Element gate = mended.children(merrow.named("Barrier").id()).stream()
                .filter(child -> "gate".equals(child.name()))
                .findFirst()
                .orElseThrow();
        assertThat(Waivers.of(merrow.head().model(), gate))
                .containsEntry("open-port:radar", "the radar stands outside of this model");
        click("[data-restore]");
        // The row goes with the waiver; the notice may be gone before somebody looks at it.
        until(_ -> Waivers.of(merrow.head().model(), merrow.head().model().get(gate.id()))
                .isEmpty());
    }

    /** The controller has a port of that name, too. */
    private Element pumps() {
        return merrow.head().model().children(merrow.named("HydraulicPowerUnit").id()).stream()
                .filter(child -> "pumps".equals(child.name()))
                .findFirst()
                .orElseThrow();
    }

    private String type(Element part) {
        return merrow.head().model().get(part.id()).references(Property.TYPES).stream()
                .map(type ->
                        String.valueOf(merrow.head().model().get(type.target()).name()))
                .findFirst()
                .orElse("");
    }

    @Test
    void theCandidateThatKeepsTheLimitsIsChosenAndTakenBack() {
        open("findings?rule=limit");
        until(textToBePresentInElementLocated(By.id("work"), "HU-16"));
        Element pumps = pumps();
        open("element/" + pumps.id() + "/candidates");
        String row = "tr:has(a[href*='" + merrow.named("isLiftedToThePier").id() + "'])";
        List<String> verdicts = until(presenceOfAllElementsLocatedBy(By.cssSelector(row + " .verdict"))).stream()
                .map(verdict -> verdict.getText().strip())
                .toList();
        // Two pumps of 95, 92, 84 and 82 kg beside 379.2 kg, of which the crane lifts 550.
        assertThat(verdicts).containsExactly("fail", "fail", "pass", "pass");
        click("[aria-label='Choose Skerry L84']");
        see("#question [name=reason]").sendKeys("the only one within both limits");
        click("#question .primary");
        told("Skerry L84 chosen for pumps: the only one within both limits");
        assertThat(type(pumps)).isEqualTo("Skerry L84");
        open("findings");
        see(".chips");
        assertThat(see("#work").getText()).doesNotContain("HU-16");

        open("element/" + pumps.id() + "/candidates");
        until(textToBePresentInElementLocated(
                By.cssSelector("td.chosen:last-of-type, #work"), "the only one within both limits"));
        click("[data-choose]:not([data-candidate])");
        see("#question [name=reason]").sendKeys("too dear");
        click("#question .primary");
        told("choice for pumps undone: too dear");
        assertThat(type(pumps)).isEqualTo("Pump");
    }

    @Test
    void anotherWeightPutsAnotherProductFirst() {
        open("element/" + pumps().id() + "/candidates");
        until(textToBePresentInElementLocated(
                By.id("work"), "With price above 7.6 instead of 3, Holm AP-92 comes first."));
        var weight = see("[aria-label='Weight of price']");
        weight.clear();
        weight.sendKeys("9\t");
        told("weights of the candidates for pumps changed");
        until(textToBePresentInElementLocated(By.id("work"), "Tarn 38 Plus comes first."));
    }

    @Test
    void aNewProductIsAddedOrRefusedWithTheReason() {
        open("element/" + pumps().id() + "/candidates");
        click("[data-add-candidate]");
        see("#question [name=name]").sendKeys("Weir 90");
        see("#question [name=address]").sendKeys("javascript:alert(1)");
        see("#question [name=value-2]").sendKeys("90");
        click("#question .primary");
        until(textToBePresentInElementLocated(By.cssSelector("#question [role=alert]"), "is no address to refer to"));
        see("#question [name=address]").clear();
        click("#question .primary");
        told("Weir 90 added as a candidate for pumps");
        until(textToBePresentInElementLocated(By.id("work"), "Weir 90"));
    }
}
