package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.attributeToBe;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;

import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;

/** Somebody plays the gate by hand: lets time pass, gives it items, and sees what it does. */
class BenchPageTest extends InBrowser {
    private void pass(String time) {
        see("#bench-until").clear();
        see("#bench-until").sendKeys(time);
        click(".bench-to button");
    }

    @NewProject
    @Test
    void aVesselStopsTheLeafAndAnAnswerSaysWhyNot() {
        open("runs");
        click("[aria-label='Play commandedClosing']");
        until(urlContains("/bench/"));
        until(textToBePresentInElementLocated(By.id("bench-now"), "modes.operating.open active"));
        click("[data-bench-event]");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:00:30"));
        until(textToBePresentInElementLocated(By.id("bench-now"), "modes.operating.warned active"));
        click("[data-bench-next]");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:01:30"));
        pass("310 s");
        until(textToBePresentInElementLocated(By.id("bench-now"), "closing.raising active"));
        until(textToBePresentInElementLocated(By.id("timeline"), "raising"));

        click("[aria-label='Give VesselSeen']");
        until(textToBePresentInElementLocated(By.id("bench-now"), "operating.stalled active"));
        assertThat(see("#bench-messages").getText()).contains("you", "VesselSeen", "stalled");
        until(attributeToBe(By.cssSelector("[aria-label='commandedBarrier.gate.control.leafCommand']"), "value", "0"));

        click("[aria-label='Give OpenNow']");
        until(textToBePresentInElementLocated(By.id("bench-messages"), "OpenNow 6, not accepted"));
        pass("soon");
        told("Enter a time, for instance 10 min, 3 h or 45 s.");

        // What is on the bench is the model as it was; the page says when that is not what it is now.
        merrow.change("control", "clearingTime", "5 [min]");
        pass("1 s");
        until(textToBePresentInElementLocated(By.id("work"), "the model has changed since"));
    }

    @Test
    void timeRunsAtAChosenSpeedUntilItIsStopped() {
        open("runs");
        click("[aria-label='Play sharedPower']");
        until(urlContains("/bench/"));
        until(textToBePresentInElementLocated(By.id("bench-now"), "hearAlarm waits for 'SurgeAlarm'"));
        new Select(see("#bench-speed")).selectByValue("10");
        click("[data-bench-run]");
        until(textToBePresentInElementLocated(By.id("bench-now"), "soundHorn active"));
        click("[data-bench-run]");
        until(textToBePresentInElementLocated(By.cssSelector("[data-bench-run]"), "Run"));
    }

    /** What was played is kept, replayed, and compared when the model has changed. */
    @Test
    void whatWasPlayedIsKeptAndReplayed() {
        open("runs");
        click("[aria-label='Play commandedClosing']");
        until(urlContains("/bench/"));
        until(textToBePresentInElementLocated(By.id("bench-now"), "modes.operating.open active"));
        pass("20 s");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:00:20"));
        click("[aria-label='Give SurgeAlarm']");
        until(textToBePresentInElementLocated(By.id("bench-now"), "operating.warned active"));
        pass("100 s");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:02:00"));
        click(".keep[data-bench-keep] button");
        told("Enter a name, for instance late vessel.");
        see(".keep [name='name']").sendKeys("early alarm");
        see(".keep [name='remark']").sendKeys("The alarm comes by hand.");
        click(".keep[data-bench-keep] button");
        until(textToBePresentInElementLocated(By.id("bench-kept"), "Kept: early alarm"));

        click("#bench-kept a");
        until(urlContains("/sequence"));
        until(textToBePresentInElementLocated(By.id("diagram"), "SurgeAlarm"));
        assertThat(see(".steps").getText()).contains("SurgeAlarm", "from outside to gate.control.desk", "given");
        click("[data-start]");
        until(urlContains("/runs/"));
        until(textToBePresentInElementLocated(By.id("work"), "Happens as recorded, all"));

        merrow.change("Office", "thinking", "70 [s]");
        click("[data-start]");
        until(textToBePresentInElementLocated(By.id("recording"), "Differs from the recording at t = 90 s"));
        assertThat(see("#recording tr.first").getText()).contains("90 s", "other time", "100 s");
    }

    @Test
    void allOrdersOfEventsAreTried() {
        open("runs");
        click("[aria-label='Play lostLink']");
        until(urlContains("/bench/"));
        click("[data-bench-explore] button");
        until(textToBePresentInElementLocated(By.id("bench-explored"), "situations"));
        assertThat(see("#bench-explored").getText()).contains("Not reached yet");
        see("[data-bench-explore] [name='moves']").clear();
        see("[data-bench-explore] [name='moves']").sendKeys("many");
        click("[data-bench-explore] button");
        told("Enter at most 40 events, and a time such as 30 min.");
    }

    /** The steps of a story are pressed while it is played; the recording says how they stand to the story. */
    @Test
    void aRecordingIsMadeAlongAStory() {
        open("runs");
        click("[aria-label='Play lostLink']");
        until(urlContains("/bench/"));
        click(".tell summary");
        new Select(see("#bench-story")).selectByVisibleText("CloseForSurge");
        click("[data-story]:not([hidden]) li:nth-child(1) button");
        until(textToBePresentInElementLocated(By.id("bench-told"), "So far as the main story for 1 step"));
        click("[data-story]:not([hidden]) li:nth-child(4) button");
        until(textToBePresentInElementLocated(By.id("bench-told"), "but told was step 4"));
        see(".keep [name='name']").sendKeys("along");
        click(".keep[data-bench-keep] button");
        until(textToBePresentInElementLocated(By.id("bench-kept"), "Kept: along"));
        click("#bench-kept a");
        until(textToBePresentInElementLocated(By.id("story-told"), "Beside the story of CloseForSurge"));
        assertThat(see("#story-told").getText()).contains("then step 2 comes", "but told was step 4");
    }

    /** A function that no part performs is played on its drawing, and says why it cannot be kept. */
    @Test
    void aFunctionIsPlayedOnItsDrawing() {
        merrow.add("MerrowHydraulics", """
                action def Rinse {
                    private import Execution::*;
                    first start;
                    then action wet : TimedAction { attribute :>> duration = 20 [s]; }
                    then action dry : TimedAction { attribute :>> duration = 40 [s]; }
                    then done;
                }
                """);
        open("element/" + merrow.named("Rinse").id() + "/flow");
        click("[data-bench-here]");
        until(urlContains("?bench="));
        until(textToBePresentInElementLocated(By.cssSelector("#diagram .box.live"), "wet"));
        click("[data-bench-event]");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:00:20"));
        until(textToBePresentInElementLocated(By.cssSelector("#diagram .box.live"), "dry"));
        click("[data-bench-event]");
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:01:00"));
        assertThat(see("#bench-over").getText()).startsWith("Nothing more happens");
        assertThat(see("[data-bench-event]").isEnabled()).isFalse();
        click("a[href*='/bench/']");
        until(urlContains("/bench/"));
        until(textToBePresentInElementLocated(By.id("bench-clock"), "0:01:00"));
        assertThat(see("#work").getText()).contains("played alone", "To keep what you play, add a part");
        assertThat(ines.driver().findElements(By.cssSelector("[data-bench-keep]")))
                .isEmpty();
    }
}
