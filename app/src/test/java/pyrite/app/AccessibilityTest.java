package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.JavascriptExecutor;
import pyrite.core.dynamics.RunControl;
import pyrite.core.verification.CaseRun;

/** axe-core on every page, and whether pages fit into narrow windows and wide ones. */
class AccessibilityTest {
    private static Merrow merrow;
    private static Browser browser;
    private static String axe;
    private static String overlaps;

    @BeforeAll
    static void start() throws Exception {
        merrow = new Merrow();
        run();
        merrow.change("drive", "cushionedSpeed", "0.2 [deg/s]");
        run();
        browser = new Browser();
        browser.signIn(merrow.address(), "admin");
        axe = Files.readString(Path.of("target/axe.min.js"));
        overlaps = Files.readString(Path.of("src/test/resources/overlaps.js"));
    }

    private static void run() {
        var runs = merrow.bean(pyrite.app.store.RunStore.class);
        var head = merrow.head();
        long id = runs.queue(
                head.branch(), merrow.named("closingCheck"), "closingCheck", head.number(), merrow.person("ines"));
        runs.started(id);
        runs.end(runs.get(id), CaseRun.of(head.model(), merrow.named("closingCheck"), RunControl.NONE));
    }

    @AfterAll
    static void stop() {
        browser.close();
        merrow.close();
    }

    /** Addresses with names of elements in braces. */
    static Stream<String> pages() {
        return Stream.of(
                "/p/merrow/main/overview",
                "/p/merrow/main/needs",
                "/p/merrow/main/use-cases",
                "/p/merrow/main/use-cases/drawing",
                "/p/merrow/main/consolidation",
                "/p/merrow/main/paths",
                "/p/merrow/main/functions/matrix",
                "/p/merrow/main/element/{CloseForSurge}/story",
                "/p/merrow/main/requirements",
                "/p/merrow/main/requirements?show=failing",
                "/p/merrow/main/architecture",
                "/p/merrow/main/runs",
                "/p/merrow/main/runs/1",
                "/p/merrow/main/runs/1/budget",
                "/p/merrow/main/element/{vesselInChannel}/sequence",
                "/p/merrow/main/runs/compare?run=1&run=2",
                "/p/merrow/main/changes",
                "/p/merrow/main/changes/2",
                "/p/merrow/main/changes/between?from=0",
                "/p/merrow/main/element/{closesInTime}",
                "/p/merrow/main/element/{drive}",
                "/p/merrow/main/element/{drive}?at=1",
                "/p/merrow/main/element/{drive}/general",
                "/p/merrow/main/element/{drive}/notation",
                "/p/merrow/main/element/{drive}/general?split=on",
                "/p/merrow/main/interfaces",
                "/p/merrow/main/interfaces?of={SurgeGate}",
                "/p/merrow/main/parts?of={SurgeGate}",
                "/p/merrow/main/element/{SurgeGate}/inside",
                "/p/merrow/main/element/{SurgeGate}/context",
                "/p/merrow/main/element/{drive}/candidates",
                "/p/merrow/main/element/{DeskLine}/pairs",
                "/p/merrow/main/drawings",
                "/p/merrow/main/functions",
                "/p/merrow/main/exchanges",
                "/p/merrow/main/element/{SurgeGate}/exchanges",
                "/p/merrow/main/element/{ProtectTheTown}/flow",
                "/p/merrow/main/findings",
                "/p/merrow/main/libraries",
                "/p/merrow/main/element/nothing",
                "/p/merrow/main/requirements?as=document",
                "/p/merrow/main/requirements/import",
                "/p/merrow/main/element/{keepsTownDry}",
                "/p/merrow/main/links",
                "/p/merrow/main/trace?edit=on",
                "/p/merrow/main/matrix",
                "/p/merrow/main/coverage",
                "/p/merrow/main/impact?of=MG-1",
                "/p/merrow/main/recheck",
                "/p/merrow/main/rules",
                "/p/merrow/main/views",
                "/p/merrow/main/baselines",
                "/projects",
                "/account",
                "/people",
                "/audit",
                "/licences",
                "/api/docs",
                "/sign-in");
    }

    private static void open(String page) {
        String path = page;
        for (String name : List.of(
                "vesselInChannel",
                "closesInTime",
                "drive",
                "keepsTownDry",
                "SurgeGate",
                "DeskLine",
                "CloseForSurge",
                "ProtectTheTown")) {
            path = path.replace("{" + name + "}", merrow.named(name).id().toString());
        }
        browser.driver().get(merrow.address() + path);
        browser.until().until(presenceOfElementLocated(By.tagName("main")));
        // The head of the grid is filled by its script.
        browser.until()
                .until(driver ->
                        driver.findElements(By.cssSelector(".grid-head:empty")).isEmpty());
    }

    /**
     * No fault of accessibility but minor ones, targets of 24 px (WCAG 2.2, 2.5.8) among them, and at 1920 and 1024
     * wide, and at 640 by 400 as 1280 by 800 is at 200%, nothing runs out of the window sideways and no text lies over
     * another.
     */
    @ParameterizedTest
    @MethodSource("pages")
    void everyPageIsAccessibleAndFitsIntoItsWindow(String page) {
        open(page);
        ((JavascriptExecutor) browser.driver()).executeScript(axe);
        Object faults = ((JavascriptExecutor) browser.driver()).executeAsyncScript("""
                const done = arguments[0];
                axe.run({ resultTypes: ['violations'], rules: { 'target-size': { enabled: true } } })
                  .then((result) => done(result.violations
                  .filter((v) => v.impact !== 'minor')
                  .map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(' | ')}`)));""");
        assertThat((List<?>) faults).isEmpty();
        for (int width : new int[] {1920, 1024, 640}) {
            browser.driver().manage().window().setSize(new Dimension(width, width == 640 ? 400 : 800));
            assertThat(afterResizing("document.documentElement.scrollWidth - document.documentElement.clientWidth"))
                    .as(width + " wide")
                    .satisfies(over -> assertThat((Long) over).isLessThanOrEqualTo(1));
            assertThat((List<?>) ((JavascriptExecutor) browser.driver()).executeScript(overlaps))
                    .as(width + " wide")
                    .isEmpty();
        }
        browser.driver().manage().window().setSize(new Dimension(1280, 800));
    }

    /** Two frames after a change of size, when everything that follows it is laid out. */
    private static Object afterResizing(String expression) {
        return ((JavascriptExecutor) browser.driver())
                .executeAsyncScript(
                        "const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => done("
                                + expression + ")));");
    }
}
