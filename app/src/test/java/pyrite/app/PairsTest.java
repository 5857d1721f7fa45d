package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.NotationWriter;

/**
 * The pairs of an interface definition, the flows of a connection, and what a definition takes up of what it inherits.
 */
class PairsTest extends InBrowser {
    private String notation(String name) {
        return NotationWriter.write(merrow.head().model(), List.of(merrow.named(name)));
    }

    @Test
    void pairsAreSeenAndChanged() {
        String line = merrow.named("DeskLine").id().toString();
        open("element/" + line + "/pairs");
        assertThat(see(".pair-picture").getText()).contains("note", "telegram");
        new Select(see("[aria-label='What belongs to note']")).selectByValue("");
        told("pairs of DeskLine changed");
        until(textToBePresentInElementLocated(By.id("work"), "Nothing belongs to telegram."));
        assertThat(notation("DeskLine")).doesNotContain("bind");
        // The connection that goes by it does not fit any more; one click pairs the two again.
        open("interfaces?of=" + merrow.named("HarbourOffice").id());
        click("[data-mend='Pair note with telegram in DeskLine']");
        told("Pair note with telegram");
        until(textToBePresentInElementLocated(By.id("work"), "fits"));
        assertThat(notation("DeskLine")).contains("bind desk.note = radio.telegram;");
    }

    @Test
    void theFlowsThatAConnectionAllowsAreMade() {
        long before = merrow.head().model().ownElements(ElementKind.FLOW).count();
        open("interfaces?of=" + merrow.named("Harbour").id());
        click("[data-flows]");
        told("flow");
        assertThat(merrow.head().model().ownElements(ElementKind.FLOW).count()).isGreaterThan(before);
        assertThat(notation("Harbour")).contains("flow of ");
    }

    @Test
    void anInheritedFeatureIsRedefinedOrSubset() {
        merrow.add("MerrowGate", "part def TwinGate :> SurgeGate;");
        open("element/" + merrow.named("TwinGate").id());
        click("[aria-label='Redefine leaf here']");
        told("leaf redefined in TwinGate");
        until(textToBePresentInElementLocated(By.id("work"), "redefines SurgeGate · leaf"));
        click("[aria-label='Subset cylinders here']");
        see("#question [name=name]").sendKeys("northCylinder");
        click("#question .primary");
        told("northCylinder added to TwinGate, some of cylinders");
        assertThat(notation("TwinGate"))
                .isEqualToIgnoringWhitespace(
                        "part def TwinGate :> SurgeGate { part :>> leaf; part northCylinder :> cylinders; }");
    }
}
