package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.Exploration;
import pyrite.core.execution.Exploration.Kind;
import pyrite.core.execution.Subject;
import pyrite.core.model.Model;
import pyrite.core.sequence.SequenceStep;

/** All orders of events within bounds: what can go wrong is found, with a shortest way there. */
class ExploringTest {
    private static final Exploration.Bounds BOUNDS = new Exploration.Bounds(8, 5_000, 100, Duration.ofSeconds(30));

    private static Exploring exploring(Model model) {
        return Exploring.of(model, Models.element(model, "Test::p"), BOUNDS, RunControl.NONE);
    }

    private static Model model(String text) {
        return Models.of("private import Execution::*;\n" + text);
    }

    /** The order that a run takes is harmless; the other one of two steps that end together stands still. */
    @Test
    void anOrderThatARunDoesNotTakeIsFound() {
        Model model = model("""
                part def Tool :> Pool { attribute :>> capacity = 1; }
                part p { part saw : Tool; part drill : Tool;
                    perform action work { first start; then fork f; then a1; then b1;
                        action a1 : TimedAction { attribute :>> duration = 1 [s]; }
                        then action a2 : TimedAction { item :>> claims : Claim { ref part :>> pool = saw; }
                            first start; then action a3 : TimedAction { attribute :>> duration = 1 [s]; }
                            then action a4 : TimedAction { attribute :>> duration = 1 [s]; item :>> claims : Claim {
                                ref part :>> pool = drill; } } then done; }
                        then both;
                        action b1 : TimedAction { attribute :>> duration = 1 [s]; }
                        then action b2 : TimedAction { item :>> claims : Claim { ref part :>> pool = drill; }
                            first start; then action b3 : TimedAction { attribute :>> duration = 1 [s]; }
                            then action b4 : TimedAction { attribute :>> duration = 1 [s]; item :>> claims : Claim {
                                ref part :>> pool = saw; } } then done; }
                        then both; join both; then done; } }
                """);
        Exploration.Result result = exploring(model).explore();
        assertThat(result.isComplete()).isTrue();
        assertThat(result.found())
                .anyMatch(
                        found -> found.kind() == Kind.STANDSTILL && found.what().contains("saw"));
    }

    private static final String DOOR = """
            item def Open1; item def Close1; item def Break1;
            port def Panel { in item open : Open1; in item close : Close1; in item break1 : Break1; }
            part def Door { port panel : Panel; attribute speed : Real := 0;
                exhibit state m { entry; then shut;
                    state shut { entry assign speed := 0; }
                    transition first shut accept Open1 via panel then opening;
                    state opening { entry assign speed := 2; }
                    transition first opening accept Close1 via panel then closing;
                    transition first opening accept after 5 [s] then open;
                    state closing { entry assign speed := %s; }
                    transition first closing accept Open1 via panel then opening;
                    transition first closing accept after 5 [s] then shut;
                    state open { entry assign speed := 0; }
                    transition first open accept Close1 via panel then closing;
                    state broken;
                    state never;
                    transition first open accept Break1 via panel if speed > 0 then broken; } }
            part p : Door;
            requirement <'D-1'> gentle { subject d : Door; require constraint { d.speed <= 2 } }
            requirement soon { subject d : Door; require constraint { firstTime(active(d.m.open)) <= 9 [s] } }
            satisfy gentle by p; satisfy soon by p;
            """;

    @Test
    void statesThatNoWayLeadsToAreNamedAndAllIsTried() {
        Exploring exploring = exploring(model(DOOR.formatted("2")));
        Exploration.Result result = exploring.explore();
        assertThat(exploring.asked()).containsExactly("D-1");
        assertThat(result.found()).isEmpty();
        assertThat(result.isComplete()).isTrue();
        assertThat(result.unreached()).extracting(Subject::path).containsExactly("p.m.broken", "p.m.never");
    }

    @Test
    void aViolationHasAShortestWayThatCanBeKept() {
        Model model = model(DOOR.formatted("3"));
        Exploring exploring = exploring(model);
        Exploration.Found found = exploring.explore().found().getFirst();
        assertThat(found.kind()).isEqualTo(Kind.VIOLATION);
        assertThat(found.what()).isEqualTo("D-1 does not hold");
        // By hand: to closing it takes an opening and a closing, and nothing shorter does.
        assertThat(found.words())
                .containsExactly("Open1 comes to p.panel at 0.0 s", "Close1 comes to p.panel at 0.0 s");
        assertThat(found.isReplayable()).isTrue();
        assertThat(exploring.tell(found.way()).steps())
                .filteredOn(SequenceStep::isStimulus)
                .hasSize(2);
    }

    @Test
    void bothSidesOfABranchByChanceAreTried() {
        Exploration.Result result = exploring(model("""
                part p { perform action w { first start; then decide d; if chance(0.001) then rare; else usual;
                    action rare : TimedAction { attribute :>> duration = 1 [s]; } then done;
                    action usual : TimedAction { attribute :>> duration = exponential(3 [s]); } then done; } }
                """)).explore();
        assertThat(result.unreached()).isEmpty();
        assertThat(result.isComplete()).isTrue();
    }

    @Test
    void boundsAreKeptAndSaid() {
        Model model = model(DOOR.formatted("3"));
        Exploration.Result result = Exploring.of(
                        model,
                        Models.element(model, "Test::p"),
                        new Exploration.Bounds(1, 5, 100, Duration.ofSeconds(30)),
                        RunControl.NONE)
                .explore();
        assertThat(result.isComplete()).isFalse();
        assertThat(result.found()).isEmpty();
        assertThat(List.copyOf(result.unreached())).isNotEmpty();
    }

    /** What a state commands is integrated: the requirement is on the motion, and asked in each situation. */
    @Test
    void aRequirementOnMotionIsAskedToo() {
        Exploration.Result result = exploring(model("""
                item def Faster;
                port def Panel { in item faster : Faster; }
                part def Lift { port panel : Panel; attribute speed : Real := 1; attribute way : Real := 0;
                    assert constraint { der(way) == speed / 1 [s] }
                    exhibit state m { entry; then slow; state slow; transition first slow accept Faster via panel then fast;
                        state fast { entry assign speed := 9; } transition first fast accept after 4 [s] then slow2;
                            state slow2 { entry assign speed := 0; } } }
                part p : Lift;
                requirement <'L-1'> short { subject l : Lift; require constraint { l.way <= 30 or not active(l.m.slow2) } }
                satisfy short by p;
                """)).explore();
        assertThat(result.found()).extracting(Exploration.Found::what).containsExactly("L-1 does not hold");
    }
}
