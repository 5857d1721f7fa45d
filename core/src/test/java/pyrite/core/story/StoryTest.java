package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.story.Story.Ending;

class StoryTest {
    private static final String CLOSING = """
            use case def Close {
                attribute vesselInChannel : Boolean { doc /* A vessel is in the channel. */ }
                attribute late : Boolean;
                first start;
                then action warned { doc /* The tide service warns. */ }
                then merge look;
                then decide;
                    if vesselInChannel then wait { @Stories::RainyDay; }
                    if late then hurry;
                    else clear;
                action clear { doc /* The channel is clear. */ }
                then action raise { doc /* The leaf rises. */ }
                then done;
                action wait { doc /* The closing waits. */ }
                then look;
                action hurry;
                then done;
            }
            """;

    private Model model = Models.of(CLOSING);

    private Element useCase() {
        return Models.element(model, "Test::Close");
    }

    private Element step(String name) {
        return Models.element(model, "Test::Close::" + name);
    }

    private Story story() {
        return Story.of(model, useCase());
    }

    /** A line a way: label, kind, condition, steps, ending. */
    private List<String> told() {
        return story().ways().stream().map(StoryTest::inWords).toList();
    }

    private static String inWords(Story.Way way) {
        String steps = way.lines().stream()
                .map(line -> line.label() + " " + line.step().name())
                .collect(Collectors.joining(", "));
        String ending = switch (way.ending()) {
            case Ending.Open _ -> "open";
            case Ending.Ends _ -> "ends";
            case Ending.GoesOn(var _, String label) -> "goes on with " + label;
        };
        return way.label() + " " + way.kind() + " [" + way.condition() + "] " + steps + "; " + ending;
    }

    private void apply(StoryEditing.Told told) {
        apply(told.edit());
    }

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(Models.tryRead(text).problems()).as(text).isEmpty();
    }

    private StoryEditing editing() {
        return new StoryEditing(model, useCase());
    }

    @Test
    void theMainWayGoesByElseAndEachConditionIsAnAlternativeOfTheStepBehindIt() {
        assertThat(told())
                .containsExactly(
                        " MAIN [] 1 warned, 2 clear, 3 raise; ends",
                        "2a RAINY [A vessel is in the channel.] 2a1 wait; goes on with 2",
                        "2b ALTERNATIVE [late] 2b1 hurry; ends");
        assertThat(story().lines()).extracting(Story.Line::text).contains("The tide service warns.", "hurry");
    }

    @Test
    void aWayIsReadableAloneFromTheStartToItsEnd() {
        Story story = story();
        assertThat(story.ways().stream()
                        .map(way -> story.path(way).stream()
                                .map(line -> String.valueOf(line.step().name()))
                                .collect(Collectors.joining(" "))))
                .containsExactly("warned clear raise", "warned wait clear raise", "warned hurry");
    }

    @Test
    void parallelBranchesAreToldOneBehindTheOtherUpToTheirJoin() {
        model = Models.of("""
                use case def Close {
                    first start;
                    then action order;
                    then fork;
                        then warn;
                        then look;
                    action warn; then action wait; then both;
                    action look; then both;
                    join both;
                    then action raise;
                    then done;
                }""");
        assertThat(told()).containsExactly(" MAIN [] 1 order, 2A1 warn, 2A2 wait, 2B1 look, 3 raise; ends");
    }

    @Test
    void anEventThatTerminatesAStretchIsAWayOfItsOwn() {
        model = Models.of("""
                use case def Close {
                    first start;
                    then action order;
                    then fork;
                        then stretch;
                        then withdrawn;
                    action stretch { action warn; then action raise; }
                    then action report;
                    then done;
                    action withdrawn { doc /* The warning is withdrawn. */ }
                    then terminate stretch;
                    then action lower;
                    then done;
                }""");
        assertThat(told())
                .containsExactly(
                        " MAIN [] 1 order, 2 warn, 3 raise, 4 report; ends",
                        "2a INTERRUPTION [The warning is withdrawn.] 2a1 lower; ends");
    }

    @Test
    void stepsWithinAStepThatHasATextAreNumberedWithinIt() {
        model = Models.of("""
                use case def Close {
                    first start;
                    then action order { doc /* The master orders. */ action ask; then action confirm; }
                    then done;
                }""");
        assertThat(told()).containsExactly(" MAIN [] 1 order, 1.1 ask, 1.2 confirm; ends");
    }

    @Test
    void aLoopWithoutExitIsToldOnce() {
        model = Models.of("use case def Close { merge again; then action look; then again; }");
        assertThat(told()).containsExactly(" MAIN [] 1 look; goes on with 1");
    }

    @Test
    void aSpecialUseCaseHasTheStoryOfTheGeneralOneWithItsOwnSteps() {
        model = Models.of(CLOSING + "use case def Remote :> Close { action :>> raise { doc /* By radio. */ } }");
        Story story = Story.of(model, Models.element(model, "Test::Remote"));
        assertThat(story.lines()).extracting(Story.Line::text).contains("The tide service warns.", "By radio.");
        assertThat(inWords(story.main())).startsWith(" MAIN [] 1 warned, 2 clear, 3 ");
    }

    @Test
    void aStoryIsWrittenLikeAList() {
        model = Models.of("use case def Close;");
        apply(editing().add(null, "The tide service warns of a surge."));
        apply(editing().add(step("tideServiceWarnsOfSurge").id(), "The leaf rises."));
        assertThat(told()).containsExactly(" MAIN [] 1 tideServiceWarnsOfSurge, 2 leafRises; ends");
        apply(editing().add(null, "The sea rises."));
        apply(editing().add(step("leafRises").id(), "The gate reports closed."));
        assertThat(told())
                .containsExactly(
                        " MAIN [] 1 seaRises, 2 tideServiceWarnsOfSurge, 3 leafRises, 4 gateReportsClosed; ends");
        assertThat(NotationWriter.write(model, List.of(useCase()))).isEqualTo("""
                use case def Close {
                    first start;

                    then action seaRises {
                        doc /* The sea rises. */
                    }

                    then action tideServiceWarnsOfSurge {
                        doc /* The tide service warns of a surge. */
                    }

                    then action leafRises {
                        doc /* The leaf rises. */
                    }

                    then action gateReportsClosed {
                        doc /* The gate reports closed. */
                    }

                    then done;
                }
                """);
    }

    @Test
    void aStepBecomesAnAlternativeAndGoesOnWhereItIsTold() {
        model = Models.of("""
                use case def Close {
                    first start;
                    then action warned;
                    then action clear;
                    then action wait;
                    then action raise;
                    then done;
                }""");
        apply(editing().asAlternative(step("wait").id()));
        assertThat(told())
                .containsExactly(" MAIN [] 1 warned, 2 clear, 3 raise; ends", "2a ALTERNATIVE [] 2a1 wait; open");
        apply(editing().condition(story().way("2a").orElseThrow(), "A vessel is in the channel.", true));
        apply(editing().goOn(step("wait").id(), step("clear").id(), false));
        assertThat(told().getLast()).isEqualTo("2a RAINY [A vessel is in the channel.] 2a1 wait; goes on with 2");
        apply(editing().goOn(step("wait").id(), null, true));
        assertThat(told().getLast()).isEqualTo("2a RAINY [A vessel is in the channel.] 2a1 wait; ends");
        apply(editing().goOn(step("wait").id(), null, false));
        assertThat(told().getLast()).endsWith("; open");
        apply(editing().asStep(step("wait").id()));
        assertThat(told()).containsExactly(" MAIN [] 1 warned, 2 clear, 3 wait, 4 raise; ends");
        assertThat(NotationWriter.write(model, List.of(useCase()))).isEqualTo("""
                use case def Close {
                    first start;
                    then action warned;
                    then action clear;
                    then action wait;
                    then action raise;
                    then done;
                }
                """);
    }

    @Test
    void aSecondAlternativeOfAStepStandsBesideTheFirst() {
        apply(editing().alternative(step("clear").id(), "The radar is down.", "A person looks.", false));
        assertThat(told()).contains("2c ALTERNATIVE [The radar is down.] 2c1 personLooks; open");
        apply(editing().add(step("personLooks").id(), "The person reports."));
        apply(editing().goOn(step("personReports").id(), step("raise").id(), false));
        assertThat(told())
                .contains("2c ALTERNATIVE [The radar is down.] 2c1 personLooks, 2c2 personReports; goes on with 3");
        apply(editing().remove(step("personLooks").id()));
        apply(editing().remove(step("personReports").id()));
        assertThat(told()).contains("2c ALTERNATIVE [The radar is down.] ; goes on with 3");
        apply(editing().remove(step("hurry").id()));
        assertThat(told()).hasSize(4);
        apply(editing().addTo(story().way("2c").orElseThrow(), "The master looks."));
        assertThat(told()).contains("2c ALTERNATIVE [The radar is down.] 2c1 masterLooks; goes on with 3");
    }

    @Test
    void aStepIsTakenBesideOthers() {
        apply(editing().meanwhile(step("raise").id(), "The siren sounds."));
        apply(editing().meanwhile(step("raise").id(), "The beacon flashes."));
        assertThat(told().getFirst())
                .isEqualTo(" MAIN [] 1 warned, 2 clear, 3A1 raise, 3B1 sirenSounds, 3C1 beaconFlashes; ends");
        apply(editing().remove(step("sirenSounds").id()));
        apply(editing().remove(step("raise").id()));
        assertThat(told().getFirst()).isEqualTo(" MAIN [] 1 warned, 2 clear, 3 beaconFlashes; ends");
    }

    @Test
    void anEventCutsAStretchShort() {
        apply(editing().add(step("raise").id(), "The gate reports closed."));
        apply(editing().cutShort(step("raise").id(), step("gateReportsClosed").id(), "The warning is withdrawn."));
        assertThat(told())
                .contains(
                        " MAIN [] 1 warned, 2 clear, 3 raise, 4 gateReportsClosed; ends",
                        "3a INTERRUPTION [The warning is withdrawn.] ; open");
        apply(editing().addTo(story().way("3a").orElseThrow(), "The leaf is lowered."));
        assertThat(told()).contains("3a INTERRUPTION [The warning is withdrawn.] 3a1 leafLowered; open");
        apply(editing()
                .add(Models.element(model, "Test::Close::stretch::raise").id(), "The leaf is pressed on its stop."));
        assertThat(told().getFirst())
                .isEqualTo(" MAIN [] 1 warned, 2 clear, 3 raise, 4 leafPressedOnStop, 5 gateReportsClosed; ends");
        assertThatThrownBy(() ->
                        editing().cutShort(step("warned").id(), step("clear").id(), "x"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("into or out of the middle of the stretch");
    }

    @Test
    void aStepMovesAndKeepsItsAlternatives() {
        apply(editing().move(step("raise").id(), null));
        assertThat(told().getFirst()).isEqualTo(" MAIN [] 1 raise, 2 warned, 3 clear; ends");
        apply(editing().move(step("raise").id(), step("clear").id()));
        assertThat(told().getFirst()).isEqualTo(" MAIN [] 1 warned, 2 clear, 3 raise; ends");
        assertThatThrownBy(
                        () -> editing().move(step("raise").id(), step("raise").id()))
                .hasMessage("a step does not come behind itself");
    }

    @Test
    void aProposedNameFollowsTheTextAndOneThatSomebodyGaveStays() {
        apply(editing().reword(step("warned").id(), "The harbour office is warned."));
        assertThat(step("warned")).isNotNull();
        apply(editing().add(step("warned").id(), "The master orders the closing."));
        apply(editing().reword(step("masterOrdersClosing").id(), "The master confirms the closing."));
        assertThat(step("masterConfirmsClosing")).isNotNull();
    }

    @Test
    void namesAreMadeOfTheFirstWordsThatSaySomething() {
        assertThat(ProposedNames.of("The leaf's drive is warmed up, for 20 s.", "step"))
                .isEqualTo("leafDriveWarmedUpFor");
        assertThat(ProposedNames.of("… !", "step")).isEqualTo("step");
        assertThat(ProposedNames.of("24 m are free", "step")).isEqualTo("step");
        assertThat(ProposedNames.ofDefinition("raise the leaf", "X")).isEqualTo("RaiseLeaf");
    }

    @Test
    void aStoryOfTwoThousandStepsIsToldAndWritten() {
        StringBuilder text = new StringBuilder("use case def Close { first start;\n");
        for (int i = 0; i < 2000; i++) {
            text.append("then action s").append(i).append(";\n");
        }
        model = Models.of(text + "then done; }");
        assertThat(story().main().lines()).hasSize(2000);
        apply(editing().add(step("s999").id(), "In the middle."));
        assertThat(story().main().lines().get(1000).text()).isEqualTo("In the middle.");
    }
}
