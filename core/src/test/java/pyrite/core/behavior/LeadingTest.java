package pyrite.core.behavior;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** Lines that are drawn between states and steps, of special behaviours too. */
class LeadingTest {
    private static final Model MODEL = Models.of("""
            private import Execution::*;
            item def Go; item def Stop; item def Water;
            part def Valve {
                attribute x : Real := 0;
                exhibit state modes {
                    entry; then shut;
                    state shut;
                    transition rise first shut accept Go then moving;
                    state moving {
                        entry; then slow;
                        state slow;
                        accept after 2 [s] if x > 1 do assign x := 2 then fast;
                        state fast;
                    }
                    state bare { state one; state two; }
                }
                perform action work {
                    first start;
                    then action fill { out item water : Water; }
                    then done;
                    action drain { in item water : Water; }
                    decide which;
                }
            }
            part def QuickValve :> Valve { exhibit state :>> modes { state racing; } perform action :>> work; }
            """);

    private static List<ElementId> way(String top, String... names) {
        Element at = Models.element(MODEL, "Test::" + top);
        List<ElementId> way = new java.util.ArrayList<>(List.of(at.id()));
        for (String name : names) {
            if (name.equals("start") || name.equals("done")) {
                way.add(name.equals("start") ? StepGraph.START : StepGraph.DONE);
                continue;
            }
            Element around = at;
            at = MODEL.inheritance().features(around).stream()
                    .filter(feature -> name.equals(MODEL.names().effectiveName(feature)))
                    .findFirst()
                    .orElseThrow();
            way.add(at.id());
        }
        return way;
    }

    private static List<ElementId> keys(String path) {
        String[] names = path.split("\\.");
        return way(names[0], Arrays.copyOfRange(names, 1, names.length));
    }

    /** What is new in the text of the element that is drawn. */
    private static List<String> news(String top, Leading.Made made) {
        if (!(MODEL.apply(made.edit()) instanceof EditResult.Applied(Model after, var _))) {
            throw new AssertionError("refused");
        }
        Element shown = Models.element(MODEL, "Test::" + top);
        List<String> before = text(MODEL, shown);
        List<String> lines = new java.util.ArrayList<>(text(after, after.get(shown.id())));
        before.forEach(lines::remove);
        assertThat(text(after, after.get(Models.id(MODEL, "Test::Valve")))
                        .equals(text(MODEL, Models.element(MODEL, "Test::Valve"))))
                .as("what is general stays")
                .isEqualTo(top.startsWith("QuickValve"));
        return lines;
    }

    private static List<String> text(Model model, Element element) {
        return NotationWriter.write(model, List.of(element))
                .lines()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Valve::modes.shut | Valve::modes.bare | | transition first shut then bare;",
                "Valve::modes.moving | Valve::modes.shut | accept Stop if x > 0 do assign x := 0 | transition first "
                        + "moving accept Stop if x > 0 do assign x := 0 then shut;",
                "Valve::modes.moving.slow | Valve::modes.shut | accept when x > 3 | transition first moving.slow accept "
                        + "when x > 3 then shut;",
                "Valve::modes.moving.fast | Valve::modes.moving.slow | accept Stop | transition first fast accept Stop then slow;",
                "Valve::modes.shut | Valve::modes.done | accept Stop | transition first shut accept Stop then done;",
                "Valve::modes.bare.start | Valve::modes.bare.two | | entry;,then two;",
                "Valve::work.fill | Valve::work.drain | flow water to water | flow fill.water to drain.water;",
                "Valve::work.which | Valve::work.drain | if x > 1 | first which if x > 1 then drain;",
                "Valve::work.start | Valve::work.drain | | first start then drain;",
            })
    void aLineIsWrittenWhereBothEndsStand(String from, String to, String says, String written) {
        String top = from.substring(0, from.indexOf('.'));
        Leading.Made made = new Leading(MODEL).lead(keys(from), keys(to), says == null ? "" : says);
        assertThat(news(top, made)).containsExactly(written.split(","));
    }

    @Test
    void inASpecialMachineTheLineIsItsOwn() {
        Leading leading = new Leading(MODEL);
        assertThat(news(
                        "QuickValve::modes",
                        leading.lead(keys("QuickValve::modes.shut"), keys("QuickValve::modes.racing"), "accept Go")))
                .containsExactly("transition first shut accept Go then racing;");
        assertThat(news(
                        "QuickValve::modes",
                        leading.lead(
                                keys("QuickValve::modes.moving.fast"),
                                keys("QuickValve::modes.moving.slow"),
                                "accept Stop")))
                .containsExactly("state :>> moving {", "transition first fast accept Stop then slow;", "}");
        assertThat(news("QuickValve::modes", leading.add(keys("QuickValve::modes.moving"), "state wild")))
                .containsExactly("state :>> moving {", "state wild;", "}");
        assertThat(news(
                        "QuickValve::work",
                        leading.lead(keys("QuickValve::work.fill"), keys("QuickValve::work.drain"), "if x > 2")))
                .contains("first fill if x > 2 then drain;");
    }

    @Test
    void whatALineSaysIsChangedInItsPlace() {
        Leading leading = new Leading(MODEL);
        Element rise = Models.element(MODEL, "Test::Valve::modes::rise");
        assertThat(leading.says(rise)).isEqualTo("accept Go");
        ElementId shown = Models.id(MODEL, "Test::Valve::modes");
        assertThat(news("Valve::modes", leading.say(shown, rise, "accept Stop if x > 1")))
                .containsExactly("transition rise first shut accept Stop if x > 1 then moving;");
        assertThat(leading.say(shown, rise, "accept Stop").made()).containsExactly(rise.id());
        assertThat(news("Valve::modes", leading.redirect(shown, rise, keys("Valve::modes.bare"), false)))
                .containsExactly("transition rise first shut accept Go then bare;");

        Element timed = transition("fast");
        assertThat(leading.says(timed)).isEqualTo("accept after 2 [s] if x > 1 do assign x := 2");
        assertThat(news("Valve::modes", leading.say(shown, timed, "accept after 3 [s]")))
                .containsExactly("accept after 3 [s] then fast;");
    }

    private static Element transition(String target) {
        return MODEL.ownElements().stream()
                .filter(element -> element.kind() == pyrite.core.model.ElementKind.TRANSITION)
                .filter(element -> element.get(pyrite.core.model.Property.TARGET)
                        .filter(reference ->
                                target.equals(MODEL.get(reference.target()).name()))
                        .isPresent())
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatIsInheritedIsRedefined() {
        Leading leading = new Leading(MODEL);
        Element rise = Models.element(MODEL, "Test::Valve::modes::rise");
        ElementId quick = keys("QuickValve::modes").getFirst();
        assertThat(news("QuickValve::modes", leading.say(quick, rise, "accept Stop")))
                .containsExactly("transition :>> rise first shut accept Stop then moving;");
        assertThat(news("QuickValve::modes", leading.redirect(quick, rise, keys("QuickValve::modes.racing"), false)))
                .containsExactly("transition :>> rise first shut then racing;");
        assertThat(news("QuickValve::modes", leading.redirect(quick, rise, keys("QuickValve::modes.racing"), true)))
                .containsExactly("transition :>> rise first racing then moving;");
        assertThatThrownBy(() -> leading.say(quick, transition("fast"), "accept after 3 [s]"))
                .hasMessageContaining("has no name by which it could be redefined");
    }

    private static final Model SPECIAL = Models.of("""
            item def Go; item def Stop; attribute x : ScalarValues::Real;
            state def General {
                entry; then a; state a; state b; state c;
                transition go first a accept Go if x > 1 do assign x := 2 then b;
            }
            state def Special :> General { transition :>> go first a then c; }
            """);

    @Test
    void aRedefinitionGoesOnInheritingWhatItDoesNotSay() {
        Element go = Models.element(SPECIAL, "Test::Special::go");
        ElementId shown = Models.id(SPECIAL, "Test::Special");
        Leading leading = new Leading(SPECIAL);
        assertThat(leading.says(go)).isEqualTo("accept Go if x > 1 do assign x := 2");
        assertThat(special(leading.say(shown, go, leading.says(go)))).isEqualTo("transition :>> go first a then c;");
        assertThat(special(leading.redirect(shown, go, List.of(shown, Models.id(SPECIAL, "Test::General::b")), false)))
                .isEqualTo("transition :>> go first a then b;");
        assertThat(special(leading.redirect(shown, go, List.of(shown, Models.id(SPECIAL, "Test::General::b")), true)))
                .isEqualTo("transition :>> go first b then c;");
        assertThat(special(leading.say(shown, go, "accept Stop if x > 2 do action")))
                .isEqualTo("transition :>> go first a accept Stop if x > 2 do then c;");
    }

    @Test
    void whatARedefinitionLeavesOutIsNotInheritedUnawares() {
        Element go = Models.element(SPECIAL, "Test::Special::go");
        ElementId shown = Models.id(SPECIAL, "Test::Special");
        Leading leading = new Leading(SPECIAL);
        assertThat(special(leading.say(shown, go, "accept Go do assign x := 2")))
                .isEqualTo("transition :>> go first a accept Go if true do assign x := 2 then c;");
        assertThatThrownBy(() -> leading.say(shown, go, "if x > 1 do assign x := 2"))
                .hasMessage(
                        "the general machine says what 'go' waits for; say another event here, none is not possible");
        assertThatThrownBy(() -> leading.say(shown, go, "accept Go"))
                .hasMessage("the general machine says what 'go' does on the way; write 'do action' to do nothing here");
    }

    private static String special(Leading.Made made) {
        if (!(SPECIAL.apply(made.edit()) instanceof EditResult.Applied(Model after, var _))) {
            throw new AssertionError("refused");
        }
        List<String> lines = text(after, Models.element(after, "Test::Special"));
        assertThat(lines).hasSize(3);
        return lines.get(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Valve::modes.start | Valve::modes.bare | | how it begins is written already",
                "Valve::modes.shut | Valve::modes.bare | accept Nobody | Nobody",
                "Valve::modes.shut | QuickValve::modes.racing | | different drawings",
                "Valve::work.fill | Valve::work.drain | flow water | a flow names what goes out and where it comes in",
                "Valve::work.fill | Valve::work.drain | flow water to fire | fire",
            })
    void aBadLineSaysWhy(String from, String to, String says, String why) {
        assertThatThrownBy(() -> new Leading(MODEL).lead(keys(from), keys(to), says == null ? "" : says))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(why);
    }
}
