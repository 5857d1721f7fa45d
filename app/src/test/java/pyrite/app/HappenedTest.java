package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.support.ui.Select;
import pyrite.app.store.RunStore;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.Happened;
import pyrite.core.verification.CaseRun;

/** What happened in a run, kept and shown: its timeline, its events, and what waited at its end. */
class HappenedTest extends InBrowser {
    private long run(String name) {
        RunStore runs = merrow.bean(RunStore.class);
        var head = merrow.head();
        long id = runs.queue(head.branch(), merrow.named(name), name, head.number(), merrow.person("ines"));
        runs.started(id);
        CaseRun result = CaseRun.of(head.model(), merrow.named(name), RunControl.NONE);
        runs.end(runs.get(id), result);
        Happened kept = runs.happened(id).orElseThrow();
        assertThat(kept.log().slice(0, kept.log().size()))
                .isEqualTo(
                        result.happened().log().slice(0, result.happened().log().size()));
        assertThat(kept.standstill()).isEqualTo(result.happened().standstill());
        return id;
    }

    @Test
    void aRunShowsWhoWaitedForWhatAndWhen() {
        long id = run("sharedPower");
        open("runs/" + id);
        until(textToBePresentInElementLocated(By.id("timeline"), "closeEast"));
        assertThat(ines.driver().findElements(By.cssSelector("#timeline .bar.queued title")))
                .singleElement()
                .satisfies(title -> assertThat(title.getDomProperty("textContent"))
                        .startsWith("twoLeafHarbour.twinGate.warnAndClose.closeEast waits for a pool from "));
        assertThat(see("#standstill").getText()).isEqualTo("Waiting at the end");
        until(textToBePresentInElementLocated(By.id("events"), "twoLeafHarbour.twinGate.warnAndClose"));

        see("#timeline-filter").sendKeys("hearAlarm");
        until(driver -> !see("#timeline").getText().contains("closeEast"));
        assertThat(see("#timeline").getText()).contains("warnAndClose", "hearAlarm");

        see("#events-filter").sendKeys("SurgeAlarm");
        until(driver -> see("#events").getText().lines().allMatch(line -> line.contains("SurgeAlarm"))
                && !see("#events").getText().isBlank());
        assertThat(see("#events").getText()).contains("sent", "accepted");
    }

    @Test
    void statesAndMotionAreJudgedInOneRun() {
        long id = run("commandedClosing");
        open("runs/" + id);
        until(textToBePresentInElementLocated(By.id("timeline"), "landing"));
        assertThat(see("#work").getText()).contains("closesAfterWarning", "neverOnVessel", "pass");
        assertThat(List.of(see("#timeline").getText().split("\n"))).contains("closed", "occupied");
    }

    @Test
    void poolsAndItemsHaveRowsAndReplicationsTheirNumbers() {
        long id = run("sharedPower");
        open("runs/" + id);
        until(textToBePresentInElementLocated(By.id("timeline"), "power, held"));
        assertThat(see("#statistics").getText())
                .contains("mean of used(twoLeafHarbour.twinGate.power)", "margin of MT-4, twoLeafHarbour [min] 100");

        new Select(see("#timeline-kind")).selectByValue("pool");
        until(driver -> !see("#timeline").getText().contains("closeEast"));
        assertThat(see("#timeline").getText()).contains("twoLeafHarbour.twinGate", "power, held", "power, waiting");
        new Select(see("#timeline-group")).selectByValue("kind");
        until(textToBePresentInElementLocated(By.id("timeline"), "Queues"));
        new Select(see("#timeline-kind")).selectByValue("item");
        until(textToBePresentInElementLocated(By.id("timeline"), "StateReport"));
    }

    @Test
    void theTimeThatARequirementLimitsIsTakenApart() {
        long id = run("commandedClosing");
        open("runs/" + id + "/budget");
        assertThat(see("#limits").getText()).contains("closesAfterWarning", "8.806 min ≤ 11 min");
        List<Double> parts = ines.driver().findElements(By.cssSelector("#budget tbody td:nth-child(3)")).stream()
                .map(cell -> Double.parseDouble(cell.getText().replace(" s", "")))
                .toList();
        assertThat(parts.stream().mapToDouble(Double::doubleValue).sum()).isCloseTo(8.806 * 60, within(0.1));
        assertThat(see("#budget tbody").getText())
                .containsSubsequence("office.operate.think active 60 s", "clearing waiting 180 s", "closing waiting");

        see("[name=to]").clear();
        see("[name=to]").sendKeys("ended nowhere");
        see(".between button").click();
        until(textToBePresentInElementLocated(By.cssSelector("[role=alert]"), "is no event of this run"));
    }
}
