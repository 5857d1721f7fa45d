package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.numberOfElementsToBe;
import static org.openqa.selenium.support.ui.ExpectedConditions.presenceOfElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBe;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;
import static org.openqa.selenium.support.ui.ExpectedConditions.urlContains;
import static org.openqa.selenium.support.ui.ExpectedConditions.visibilityOfElementLocated;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.model.Model;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Specification.Item;
import pyrite.core.trace.Link;
import pyrite.core.trace.Links;

/** The daily tasks of a requirements engineer, each done in a browser as one would. */
@NewProject
class RequirementsDayTest extends InBrowser {
    /** Many letters are commands in the grid, but not behind the N that begins a line, however fast they come. */
    @Test
    void linesAreTypedFasterThanTheServerAnswers() {
        open("requirements");
        see(".grid-canvas .requirement");
        int before = merrow.head().number();
        ines.driver().findElement(By.cssSelector(".grid-body")).sendKeys(Keys.ARROW_DOWN);
        new Actions(ines.driver())
                .sendKeys("n", "Doors shall hold no load: d, s, h.", Keys.ENTER, "n", "Roofs shall, too.", Keys.ENTER)
                .perform();
        until(driver -> driver.findElements(By.cssSelector(".grid-canvas .requirement .text")).stream()
                .anyMatch(cell -> cell.getText().equals("Roofs shall, too.")));
        assertThat(texts()).containsSubsequence("Doors shall hold no load: d, s, h.", "Roofs shall, too.");
        assertThat(merrow.head().number()).as("two lines, two texts").isEqualTo(before + 4);
        assertThat(ines.driver().findElements(By.cssSelector(".ahead"))).isEmpty();
    }

    private static java.util.List<String> texts() {
        return ines.driver().findElements(By.cssSelector(".grid-canvas .requirement .text")).stream()
                .map(org.openqa.selenium.WebElement::getText)
                .toList();
    }

    @Test
    void tenRequirementsAreWrittenAndStructuredByKeyboardAlone() {
        open("requirements");
        press(Keys.TAB);
        new Actions(ines.driver()).sendKeys("/").perform();
        // A specification of one's own, begun from the field that finds and does.
        see(".grid-canvas .requirement");
        with(Keys.CONTROL, "k");
        press("New specification");
        until(textToBePresentInElementLocated(By.id("hits"), "New specification"));
        press(Keys.ENTER);
        see(".grid-dialog[open] [name=name]");
        press("Panel", Keys.TAB, "QP", Keys.TAB, "subsystem", Keys.ENTER);
        until(urlContains("spec="));
        until(presenceOfElementLocated(By.cssSelector(".grid-body")));
        ines.driver().findElement(By.cssSelector(".grid-body")).sendKeys("h");
        see(".grid-canvas .heading .editor input");
        with(Keys.CONTROL, "a");
        press("Showing", Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".grid-canvas .heading"), "Showing"));
        press(new CharSequence[] {"N"});
        for (int i = 1; i <= 10; i++) {
            see(".editor textarea");
            press("The panel shall show thing " + i + ".", Keys.ENTER);
            until(numberOfElementsToBe(By.cssSelector(".editor"), 0));
            String text = "thing " + i + ".";
            until(driver -> driver.findElements(By.cssSelector(".grid-canvas .requirement .text")).stream()
                    .anyMatch(cell -> cell.getText().contains(text)));
            if (i < 10) {
                press("n");
            }
        }
        int written = merrow.head().number();
        alt(Keys.ARROW_RIGHT);
        atRevision(written + 1);
        told("QP-10 one level deeper");
        alt(Keys.ARROW_LEFT);
        atRevision(written + 2);
        alt(Keys.ARROW_UP);
        atRevision(written + 3);
        Model model = merrow.head().model();
        Specification panel = Specification.all(model).stream()
                .filter(each -> each.prefix().equals("QP"))
                .findFirst()
                .orElseThrow();
        assertThat(panel.level()).isEqualTo("subsystem");
        assertThat(panel.items(model))
                .filteredOn(item -> item.type() == Item.Type.REQUIREMENT)
                .extracting(item -> item.element().shortName())
                .containsExactly("QP-1", "QP-2", "QP-3", "QP-4", "QP-5", "QP-6", "QP-7", "QP-8", "QP-10", "QP-9");
        assertThat(panel.items(model).getFirst().number()).isEqualTo("1");
        press(Keys.DELETE);
        told("QP-10 removed");
        until(driver ->
                !driver.findElement(By.cssSelector(".grid-canvas")).getText().contains("QP-10"));
        press("n");
        see(".editor textarea");
        press("The panel shall go dark.", Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".grid-canvas"), "QP-11"));
        assertThat(merrow.head().model().ownElements()).noneMatch(each -> "QP-10".equals(each.shortName()));
    }

    private void choose(String side, String set) {
        new Select(see(".link-list[data-side=" + side + "] [data-set]")).selectByVisibleText(set);
    }

    private WebElement option(String side, String label) {
        return until(visibilityOfElementLocated(By.xpath("//section[@data-side='" + side
                + "']//div[@role='option'][.//span[starts-with(., '" + label + " ') or .='" + label + "']]")));
    }

    @Test
    void linksAreMadeByDraggingEitherWayAndRefusedByARule() {
        open("links");
        choose("left", "MerrowDriveRequirements");
        option("left", "HU-11");
        choose("right", "MerrowRequirements");
        option("right", "MG-17");
        new Select(see("#link-kind")).selectByValue("derive");
        drag(() -> option("left", "HU-11"), () -> option("right", "MG-17"));
        told("HU-11 derives from MG-17");
        assertThat(links("filtersOil")).containsExactly("derive isRepairedInAMorning");
        drag(() -> option("right", "MG-11"), () -> option("left", "HU-11"));
        until(
                textToBePresentInElementLocated(
                        By.id("join-fault"),
                        "the link rule for 'derives from' leads from subsystem to system, not from MG-11 (system) to HU-11 (subsystem)"));
        assertThat(links("filtersOil")).hasSize(1);
        click("#join-other");
        told("HU-11 derives from MG-11");
        assertThat(links("filtersOil")).hasSize(2);
        click("#undo");
        atRevision(4);
        assertThat(links("filtersOil")).hasSize(1);
    }

    @Test
    void aGapIsFoundAndClosedAndTheUnaskedIsNamed() {
        open("coverage");
        assertThat(see("#work").getText())
                .contains(
                        "N-7 isQuietAtNight",
                        "answered by nothing",
                        "MG-20 showsOnTheQuay",
                        "CS-17 movesPanelHand",
                        "breaks at");
        click("[id^='gap-" + merrow.named("showsOnTheQuay").id() + "-frame'] [data-link-from]");
        see(".picker[open] .picker-end");
        press("N-7");
        until(driver -> driver.findElements(By.cssSelector(".picker-end[aria-selected='true']"))
                        .size()
                == 1);
        press(Keys.ENTER);
        told("MG-20 answers N-7");
        until(driver -> !driver.findElement(By.id("work")).getText().contains("N-7 isQuietAtNight"));
        assertThat(see("#work").getText()).doesNotContain("breaks at");
    }

    @Test
    void anIdThatDoesNotExistIsSaidSo() {
        open("element/" + merrow.named("showsOnTheQuay").id());
        click("#links [data-link-from]");
        see(".picker[open] .picker-end");
        press("N-7, N-99");
        until(textToBePresentInElementLocated(By.cssSelector(".picker .fault"), "Nothing has the id N-99"));
    }

    @Test
    void aNeedIsChangedAndTheLinksInDoubtAreSettled() {
        open("element/" + merrow.named("warnsInTime").id());
        click("#text");
        see(".editor textarea")
                .sendKeys(
                        Keys.chord(Keys.CONTROL, "a"),
                        "Whoever is in the channel hears it four minutes before.",
                        Keys.ENTER);
        atRevision(2);
        until(numberOfElementsToBe(By.cssSelector("#links .doubt"), 2));
        open("overview");
        assertThat(see("#work").getText()).contains("2\nlinks need recheck");
        open("recheck");
        assertThat(see("#work").getText())
                .contains(
                        "MG-13 warnsLongEnough",
                        "MG-15 isHeard",
                        "agreed at r1",
                        "r2 by Ines Marl",
                        "four minutes before");
        see("#recheck-note").sendKeys("three minutes are enough");
        click("[data-recheck]");
        click(".heading [data-lookedat=confirm]");
        told("confirmed: MG-13 answers N-3");
        until(driver -> !driver.findElement(By.id("work")).getText().contains("MG-13"));
        see("#recheck-note").sendKeys("the horn is measured in May");
        click(".recheck-item [data-lookedat=keep]");
        told("kept open: MG-15 answers N-3");
        until(textToBePresentInElementLocated(
                By.cssSelector(".kept-open"), "the horn is measured in May · r4 by Ines Marl"));
        open("recheck?seen=new");
        assertThat(see("#work").getText()).contains("0 of 1").doesNotContain("MG-15");
        open("recheck?seen=kept");
        click(".recheck-item [data-lookedat=confirm]");
        told("confirmed: MG-15 answers N-3");
        until(textToBePresentInElementLocated(By.id("work"), "Every link stands as it was agreed"));
        click("#undo");
        until(textToBePresentInElementLocated(By.id("work"), "MG-15 isHeard"));
    }

    /**
     * The link stands in the body of the requirement whose text changes, and so does the record of having been kept
     * open.
     */
    @Test
    void aRecordInAnEndIsNoChangeOfThatEnd() {
        open("element/" + merrow.named("isHeard").id());
        click("#text");
        see(".editor textarea")
                .sendKeys(Keys.chord(Keys.CONTROL, "a"), "The horn shall be heard at 600 m.", Keys.ENTER);
        atRevision(2);
        open("recheck?kind=frame");
        see("#recheck-note").sendKeys("measured in May");
        click(".recheck-item [data-lookedat=keep]");
        until(textToBePresentInElementLocated(By.cssSelector(".kept-open"), "measured in May · r3 by Ines Marl"));
        assertThat(see(".recheck-item").getText())
                .contains("text · r2 by Ines Marl")
                .doesNotContain("changed again since");
    }

    @Test
    void aTableIsSavedAsAViewPinnedAndOpenedAgain() {
        open("trace?set=~need&col=frame%3C%7C%7Cwithout");
        assertThat(see("#work").getText()).contains("1 row", "N-7 isQuietAtNight");
        click("[data-save-view]");
        see("#question[open] [name=name]").sendKeys(Keys.chord(Keys.CONTROL, "a"), "Needs nobody answers");
        new Select(see("#question [name=pinned]")).selectByValue("yes");
        click("#question .primary");
        told("view Needs nobody answers saved");
        open("overview");
        until(driver -> driver.findElement(By.id("work")).getText().contains("1\nNeeds nobody answers"));
        ines.driver().findElement(By.linkText("Needs nobody answers")).click();
        until(urlContains("/trace?set="));
        assertThat(see("#work").getText()).contains("1 row", "N-7 isQuietAtNight");
    }

    @Test
    void cellsOfTheMatrixAreSetAndClearedByKeyboard() {
        open("matrix");
        see(".matrix-cell.out");
        ines.driver().findElement(By.id("matrix")).sendKeys(Keys.ARROW_RIGHT, Keys.SPACE);
        told("MG-1 answers N-2");
        until(presenceOfElementLocated(By.cssSelector(".matrix-cell.out[data-row='0'][data-column='1']")));
        ines.driver().findElement(By.id("matrix")).sendKeys(Keys.SPACE);
        told("unlinked: MG-1 answers N-2");
        assertThat(links("closesInTime")).doesNotContain("frame neverClosesOnVessel");
    }

    @Test
    void theWordingIsAskedAboutWhileItIsWrittenWaivedAndSplit() {
        open("element/" + merrow.named("agreesOnLevel").id());
        assertThat(see(".finding").getText()).contains("more than one 'shall'");
        click("[aria-label='Waive passive']");
        see("#split-dialog[open] [name=reason]").sendKeys("the report is CS-7's" + Keys.ENTER);
        told("'passive' waived");
        until(textToBePresentInElementLocated(By.id("wording"), "waived: the report is CS-7's"));
        click("[aria-label='Split the requirement']");
        until(numberOfElementsToBe(By.cssSelector(".split-part textarea"), 2));
        click(".split-part:nth-child(2) label:last-of-type input");
        click("#split-dialog .primary");
        told("MG-7 split into 2");
        Model model = merrow.head().model();
        assertThat(model.inheritance().documentation(merrow.named("agreesOnLevel")))
                .isEqualTo("The two sea level sensors shall agree within 0.05 m.");
        var made = model.ownElements().stream()
                .filter(each -> "MG-25".equals(each.shortName()))
                .findFirst()
                .orElseThrow();
        assertThat(Links.in(model).of(made))
                .extracting(Link::kind)
                .extracting(kind -> kind.key())
                .containsExactly("frame");
    }

    @Test
    void anAddressThatIsRefusedStaysInItsFieldAndIsMendedThere() {
        open("element/" + merrow.named("agreesOnLevel").id());
        click("[data-refer]");
        see("#question[open] [name=address]").sendKeys("javascript:alert(1)", Keys.ENTER);
        until(textToBePresentInElementLocated(
                By.cssSelector("#question .fault-line"), "one begins with http://, https:// or mailto:"));
        see("#question[open] [name=address]")
                .sendKeys(Keys.chord(Keys.CONTROL, "a"), "https://harbour.example/levels", Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".references"), "https://harbour.example/levels"));
    }

    @Test
    void aSecondEditDoesNotWaitForTheFirstToBeShown() {
        open("requirements?q=MG-18");
        see("#row-" + merrow.named("closesCheaply").id() + " .of-text").click();
        new Actions(ines.driver())
                .keyDown(Keys.ALT)
                .sendKeys(Keys.ARROW_UP)
                .keyUp(Keys.ALT)
                .sendKeys(Keys.DELETE)
                .perform();
        told("MG-18 removed");
        assertThat(merrow.head().number()).isEqualTo(3);
    }

    @Test
    void markupThatIsPastedBecomesTextAndNothingElse() {
        open("element/" + merrow.named("showsOnTheQuay").id());
        click("#text");
        see(".editor textarea");
        with(Keys.CONTROL, "a");
        ines.driver().executeScript("""
                const data = new DataTransfer();
                data.setData('text/html', '<p>The gate shall <b>close</b>.<script>document.title = "taken"</script>'
                  + '<img src="x" onerror="document.title = 1"></p>'
                  + '<ul><li><i>one</i></li><li><a href="javascript:alert(1)">two</a></li></ul>'
                  + '<table><tr><th>a</th></tr><tr><td>1</td></tr></table>');
                const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
                document.querySelector('.editor textarea').dispatchEvent(paste);""");
        until(driver -> see(".editor textarea").getDomProperty("value").startsWith("The gate"));
        assertThat(see(".editor textarea").getDomProperty("value"))
                .isEqualTo("The gate shall **close**.\n\n- *one*\n- two\n\n| a   |\n| --- |\n| 1   |");
        assertThat(ines.driver().getTitle()).contains("MG-20");
        press(Keys.ENTER);
        until(driver -> see("#text strong").getText().equals("close")
                && see("#text table td").getText().equals("1"));
    }

    @Test
    void boxesOfADrawingAreLinkedByHandAndByKey() {
        ines.driver().manage().window().setSize(new Dimension(1600, 1400));
        String need = merrow.named("isQuietAtNight").id().toString();
        open("element/" + merrow.named("MerrowNeeds").id() + "/general");
        WebElement use = see("[data-select='" + merrow.named("CloseForSurge").id() + "'].box");
        new Actions(ines.driver()).moveToElement(use).perform();
        drag(() -> use.findElement(By.cssSelector(".join")), () -> see("[data-select='" + need + "'].box .title"));
        new Select(see("#question[open] select")).selectByVisibleText("traces to <N-7> isQuietAtNight");
        click("#question .primary");
        told("traces to N-7");
        assertThat(links("isQuietAtNight")).containsExactly("trace CloseForSurge");
        click("[data-select='" + need + "'].box .title");
        press("l");
        see(".picker[open] .picker-end");
        press("MG-20");
        until(driver -> driver.findElements(By.cssSelector(".picker-end[aria-selected='true']"))
                        .size()
                == 1);
        press(Keys.ENTER);
        told("MG-20 answers N-7");
    }

    @Test
    void aFilterIsKeptWithItsColumnsAndStartsATraceTable() {
        open("requirements?where=status%3Adraft&columns=tag~90,text,attribute%3Apriority~120");
        until(textToBePresentInElementLocated(By.cssSelector(".grid-head"), "priority"));
        assertThat(see(".grid-head").getText()).doesNotContain("Links");
        click("[data-save-view]");
        see("#question[open] [name=name]");
        with(Keys.CONTROL, "a");
        press("Drafts", Keys.ENTER);
        told("view Drafts saved");
        open("views");
        ines.driver().findElement(By.linkText("Drafts")).click();
        until(textToBePresentInElementLocated(By.cssSelector(".grid-head"), "priority"));
        String shown = see("[data-count]").getText();
        open("trace?edit=on");
        new Select(see("#trace-form [name=set]")).selectByVisibleText("Filter: Drafts");
        until(textToBePresentInElementLocated(By.id("work"), shown + " rows"));
    }

    @Test
    void conditionsAreAddedByKeyboardShownInWordsAndDropped() {
        open("requirements");
        see(".grid-canvas .requirement").click();
        press("f");
        new Select(see(".grid-dialog[open] [name=attribute]")).selectByValue("status");
        new Select(see(".grid-dialog [name=value]")).selectByValue("draft");
        click(".grid-dialog[open] .primary");
        until(textToBePresentInElementLocated(By.cssSelector(".conditions"), "status is draft"));
        click("[data-grid=filter]");
        new Select(see(".grid-dialog[open] [name=attribute]")).selectByValue("source");
        see(".grid-dialog [name=value]").sendKeys("nobody says so", Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".conditions"), "source contains nobody says so"));
        until(textToBe(By.cssSelector("[data-count]"), "0"));
        until(textToBePresentInElementLocated(By.cssSelector(".grid-nothing"), "Nothing meets the filter"));
        ines.driver().navigate().refresh();
        until(numberOfElementsToBe(By.cssSelector(".condition"), 2));
        click("[aria-label='Drop: source contains nobody says so']");
        until(textToBe(By.cssSelector("[data-count]"), "8"));
        assertThat(ines.driver().getCurrentUrl())
                .contains("where=status%3Adraft")
                .doesNotContain("source");
        open("requirements?where=status");
        told("'status' is no condition");
    }

    @Test
    void rechecksAreFilteredAndSentAsAFile() throws Exception {
        open("element/" + merrow.named("warnsInTime").id());
        click("#text");
        see(".editor textarea");
        with(Keys.CONTROL, "a");
        press("It is heard.", Keys.ENTER);
        atRevision(2);
        Session session = new Session(merrow.address()).signIn("ines", "merrow");
        assertThat(session.get("/p/merrow/main/recheck/export.csv?way=up").body())
                .contains(
                        "MG-13 warnsLongEnough,answers,N-3 warnsInTime,r1,N-3 warnsInTime,text",
                        "It is heard.,Ines Marl");
        assertThat(session.get("/p/merrow/main/recheck/export.csv?way=down").body())
                .doesNotContain("MG-13");
        assertThat(session.get("/p/merrow/main/impact/export.csv?of=N-3&depth=1&way=down")
                        .body())
                .contains(
                        "reached,MG-13 warnsLongEnough,down,1,",
                        "would need recheck,MG-15 isHeard answers N-3 warnsInTime");
    }

    private List<String> firstIds(int count) {
        return ines.driver().findElements(By.cssSelector(".grid-canvas .requirement .tag")).stream()
                .limit(count)
                .map(WebElement::getText)
                .toList();
    }

    private Object script(String text) {
        return ines.driver().executeScript(text);
    }

    @Test
    void whoFollowsALinkAndComesBackFindsTheSamePlace() {
        open("requirements");
        until(presenceOfElementLocated(By.cssSelector(".grid-canvas .requirement")));
        script("document.querySelector('.grid-body').scrollTop = 1500");
        until(driver -> Boolean.TRUE.equals(script("return history.state?.top === 1500")));
        script(
                "[...document.querySelectorAll('.grid-canvas a.tag')].find((tag) => tag.getBoundingClientRect().top > 350).click()");
        until(presenceOfElementLocated(By.id("text")));
        ines.driver().navigate().back();
        until(presenceOfElementLocated(By.cssSelector(".grid-canvas .requirement")));
        until(driver -> Boolean.TRUE.equals(script("return document.querySelector('.grid-body').scrollTop === 1500")));
        see("[data-filter]").sendKeys("siren");
        until(driver -> driver.getCurrentUrl().contains("q=siren"));
        String shown = see("[data-count]").getText();
        assertThat(shown).isNotEqualTo("74");
        ines.driver().navigate().refresh();
        until(textToBe(By.cssSelector("[data-count]"), shown));
        assertThat(see("[data-filter]").getDomProperty("value")).isEqualTo("siren");
    }

    @Test
    void rowsAreOrderedByTheHeadOfTheirColumn() {
        open("requirements");
        see(".grid-canvas .requirement");
        click("[data-sort=id]");
        until(driver -> firstIds(3).equals(List.of("CS-1", "CS-2", "CS-3")));
        press(Keys.ENTER);
        until(driver -> firstIds(2).equals(List.of("N-10", "N-9")));
        assertThat(see(".grid-head [aria-sort=descending]").getText()).isEqualTo("Id ↓");
        ines.driver().navigate().refresh();
        until(driver -> firstIds(2).equals(List.of("N-10", "N-9")));
        click("[data-sort=id]");
        until(driver -> firstIds(3).equals(List.of("N-1", "N-2", "N-3"))
                && driver.findElements(By.cssSelector(".grid-canvas .heading")).size() > 1);
    }

    @Test
    void anAttributeIsAddedToTheProjectAndFilledIn() {
        open("requirements?q=MG-1");
        see(".grid-canvas .requirement");
        click("[data-grid=columns]");
        click(".grid-dialog [value=more]");
        see(".grid-dialog [name=name]").sendKeys("priority");
        new Select(see(".grid-dialog [name=type]")).selectByVisibleText("choice of several");
        see(".grid-dialog [name=choices]").sendKeys("low, high");
        click(".grid-dialog .primary");
        told("there is an attribute called priority already");
        see(".grid-dialog[open] [name=name]").clear();
        see(".grid-dialog [name=name]").sendKeys("risk" + Keys.ENTER);
        until(textToBePresentInElementLocated(By.cssSelector(".grid-head"), "risk"));
        String cell = "#row-" + merrow.named("closesInTime").id() + " .of-attribute:has(+ .of-links)";
        see(cell).click();
        press(Keys.ENTER);
        new Select(see(".grid-canvas .editor select")).selectByValue("high");
        until(numberOfElementsToBe(By.cssSelector(".editor"), 0));
        until(textToBePresentInElementLocated(By.cssSelector(cell), "high"));
        assertThat(Attributes.in(merrow.head().model()).value(merrow.named("closesInTime"), "risk"))
                .isEqualTo("high");
        assertThat(Attributes.in(merrow.head().model()).value(merrow.named("closesInTime"), "status"))
                .isEqualTo("approved");
    }
}
