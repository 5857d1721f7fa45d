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
        told("How long? For instance 10 min, 3 h or 45 s.");

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
}
