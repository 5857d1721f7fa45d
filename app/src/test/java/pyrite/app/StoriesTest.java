package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.Select;
import pyrite.core.model.Element;
import pyrite.core.story.StepRequirements;
import pyrite.core.story.Story;
import pyrite.core.story.Story.Ending;

/** A person tells how the gate is used, reads it with others and makes requirements from it. */
class StoriesTest extends InBrowser {
    private static final String FIELD = "#story-steps textarea";

    /** A line a way, as the model has it. */
    private List<String> story(String useCase) {
        return Story.of(merrow.head().model(), merrow.named(useCase)).ways().stream()
                .map(way -> way.label() + "[" + way.condition() + "] "
                        + way.lines().stream().map(Story.Line::text).collect(Collectors.joining(" "))
                        + switch (way.ending()) {
                            case Ending.Open _ -> " open";
                            case Ending.Ends _ -> " ends";
                            case Ending.GoesOn(var _, String label) -> " goes on with " + label;
                        })
                .toList();
    }

    /** Waits for an empty line to write in, and writes. */
    private void write(CharSequence... keys) {
        until(driver -> {
            WebElement active = driver.switchTo().activeElement();
            return active.getTagName().equals("textarea")
                    && active.getDomProperty("value").isEmpty();
        });
        press(keys);
    }

    @Test
    void aStoryWithAnAlternativeIsToldByKeyboardAndReadThrough() {
        open("use-cases");
        click("[data-use-case=add]");
        see("#question [name=text]").sendKeys("Moor a workboat at the gate" + Keys.ENTER);
        see(FIELD);
        write("The boat asks for a berth.", Keys.ENTER);
        write("The gate shows a free berth.", Keys.ENTER);
        write("The boat makes fast.", Keys.ENTER);
        write("The boat waits outside.", Keys.TAB);
        write("No berth is free.", Keys.ENTER);
        press(Keys.ENTER);
        until(textToBePresentInElementLocated(By.id("story-state"), "4 steps"));
        write(Keys.ESCAPE);
        new Select(see(".story-line.end select.is-open")).selectByIndex(0);
        see(".story-line.end select.is-open").click();
        until(driver ->
                new Select(see(".story-line.end select.is-open")).getOptions().size() > 2);
        new Select(see(".story-line.end select.is-open"))
                .selectByVisibleText("goes on with step 2: The gate shows a free berth.");
        told("goes on with");
        assertThat(story("MoorWorkboatAtGate"))
                .containsExactly(
                        "[] The boat asks for a berth. The gate shows a free berth. The boat makes fast. ends",
                        "3a[No berth is free.] The boat waits outside. goes on with 2");

        // The drawing shows the same; a way that is chosen lets the others step back.
        until(driver ->
                driver.findElements(By.cssSelector(".diagram .box.step")).size() == 4);
        click("[data-way='']");
        until(driver ->
                driver.findElements(By.cssSelector(".diagram .box.step.aside")).size() == 1);

        click("[data-read-through]");
        until(textToBePresentInElementLocated(By.cssSelector(".read-text"), "The boat asks for a berth."));
        press(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT);
        until(textToBePresentInElementLocated(By.cssSelector(".read-text"), "The boat makes fast."));
        click(".read-ways button");
        until(textToBePresentInElementLocated(By.cssSelector(".read-text"), "The boat waits outside."));
        assertThat(see(".read-if").getText()).isEqualTo("If no berth is free.");
        press(Keys.ESCAPE);

        // An existing step becomes an alternative of the one above it, and a step again.
        Element step = merrow.named("boatMakesFast");
        click("[data-step='" + step.id() + "'] textarea");
        press(Keys.TAB);
        told("made an alternative");
        assertThat(story("MoorWorkboatAtGate").getFirst()).doesNotContain("makes fast");
        click("#undo");
        told("undone");
        assertThat(story("MoorWorkboatAtGate").getFirst()).contains("makes fast");
    }

    @NewProject
    @Test
    void requirementsAreMadeFromStepsAndLinkedWhereOneSaysTheSame() {
        String useCase = merrow.named("WorkInPowerCut").id().toString();
        open("element/" + useCase + "/story");
        until(textToBePresentInElementLocated(By.id("story-state"), "without requirement"));
        long before = uncovered();
        click("#story-state button");
        List<WebElement> proposals = until(driver -> {
            List<WebElement> found = driver.findElements(By.cssSelector(".from-step"));
            return found.isEmpty() ? null : found;
        });
        assertThat(proposals).hasSize((int) before);
        // The first gets a new one with another text, the second one that is there, the rest none.
        WebElement text = proposals.getFirst().findElement(By.tagName("textarea"));
        assertThat(text.getDomProperty("value")).contains(" shall ");
        text.clear();
        text.sendKeys("The gate shall notice within 1 s that the grid power is gone.");
        for (int i = 1; i < proposals.size(); i++) {
            proposals.get(i).findElement(By.cssSelector("legend input")).click();
        }
        click("dialog .primary");
        told("1 requirement made from steps");
        until(textToBePresentInElementLocated(By.id("story-state"), (before - 1) + " without requirement"));
        assertThat(uncovered()).isEqualTo(before - 1);
    }

    @Test
    void stepsAreTurnedAndWhatTheyBecameIsShown() {
        Element useCase = merrow.named("WatchTheSea");
        open("element/" + useCase.id() + "/story");
        until(textToBePresentInElementLocated(By.id("story-state"), "4 to turn"));
        click("#story-state .link-act:nth-of-type(2)");
        see("[aria-label='Name of step 1']");
        WebElement name = see("[aria-label='Name of step 1']");
        name.clear();
        name.sendKeys("MeasureLevel");
        click("dialog .primary");
        told("4 steps of WatchTheSea turned");
        until(textToBePresentInElementLocated(By.id("story-steps"), "does MeasureLevel"));
        assertThat(see("#story-state").getText()).doesNotContain("to turn");
        assertThat(Story.of(merrow.head().model(), useCase).lines().getFirst().text())
                .startsWith("The gate reads the water level");
    }

    @Test
    void aRequirementIsDraggedOntoAStepAndAStepIsTakenOutOnTheDrawing() {
        Element step = merrow.named("tellEndurance");
        open("element/" + merrow.named("WorkInPowerCut").id() + "/story");
        click("[data-bring]");
        see("#bring input").sendKeys("reportsItsState");
        drag(
                () -> see("#bring [data-id='" + merrow.named("reportsItsState").id() + "']"),
                () -> see(".box[data-select='" + step.id() + "'] .prose"));
        told("linked");
        assertThat(new StepRequirements(merrow.head().model()).of(step)).isNotEmpty();

        // Taken out on the drawing, the story goes on without it; undo brings it back with its link.
        click(".box[data-select='" + step.id() + "']:not(.uncovered) .keyword");
        see(".box.chosen[data-select='" + step.id() + "']");
        press(Keys.DELETE);
        until(driver -> story("WorkInPowerCut").getFirst().contains("tells the harbour master") ? null : true);
        click("#undo");
        told("undone");
        assertThat(new StepRequirements(merrow.head().model()).of(step)).isNotEmpty();
    }

    private long uncovered() {
        StepRequirements requirements = new StepRequirements(merrow.head().model());
        return Story.of(merrow.head().model(), merrow.named("WorkInPowerCut")).lines().stream()
                .filter(line -> requirements.of(line.step()).isEmpty())
                .count();
    }
}
