package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class StoryChecksTest {
    private static List<String> gaps(String body) {
        Model model = Models.of("part def HarbourMaster; part def TideService; use case def Close {" + body + "}");
        return StoryChecks.of(model, Models.element(model, "Test::Close")).stream()
                .map(StoryChecks.Gap::sentence)
                .toList();
    }

    @Test
    void aUseCaseThatIsNotToldYetLacksNothing() {
        assertThat(gaps("actor master : HarbourMaster;")).isEmpty();
    }

    @Test
    void aStoryThatIsToldToItsEndLacksNothing() {
        assertThat(gaps("""
                actor master : HarbourMaster;
                attribute clear : Boolean { doc /* Nobody is in the channel. */ }
                first start;
                then action order { doc /* The harbour master orders the closing. */ }
                then decide; if clear then raise; else wait;
                action wait; then done;
                action raise; then done;""")).isEmpty();
    }

    @Test
    void aStepThatNoWayLeadsToIsFound() {
        assertThat(gaps("first start; then action a; then done; action b; then action c { action d; action e; }"))
                .containsExactly("No way leads to step 'b'", "No way leads to step 'c'");
        assertThat(gaps("first start; then action a { first start; then action d; action e; } then done;"))
                .containsExactly("No way leads to step 'e'");
    }

    @Test
    void aDecisionWithoutBranchesOrOtherwiseIsNotTold() {
        assertThat(gaps("first start; then action a; then decide;"))
                .containsExactly(
                        "A decision has no branches", "The main story does not say how it goes on behind step 1");
        assertThat(gaps("""
                attribute x : Boolean;
                first start; then action a; then decide; if x then b; action b; then done;"""))
                .containsExactly("A decision does not say what happens otherwise; give it a branch with 'else'");
    }

    @Test
    void anAlternativeWithoutConditionIsNotTold() {
        assertThat(gaps("""
                attribute condition : Boolean;
                first start; then decide; if condition then b; else a;
                action a; then done; action b; then done;""")).containsExactly("Alternative 1a does not say when it is taken");
    }

    @Test
    void aStoryThatDoesNotEndIsFound() {
        assertThat(gaps("first start; then action a;"))
                .containsExactly("The main story does not say how it goes on behind step 1");
        assertThat(gaps("merge again; then action a; then again;"))
                .containsExactly("The main story goes back to step 1 and has no end");
        assertThat(gaps("""
                attribute x : Boolean;
                first start; then decide; if x then b; else a;
                action a; then done; action b; then action c;""")).containsExactly("Alternative 1a does not say how it goes on behind step 1a2");
    }

    @Test
    void anActorThatNoStepNamesIsIdle() {
        assertThat(gaps("""
                actor master : HarbourMaster; actor service : TideService; actor crew : HarbourMaster;
                item def Warning;
                first start;
                then action a { doc /* The crews wait; a tide  service is not a tideserviceman. */ }
                then action heard accept w : Warning via master;
                then done;""")).isEmpty();
        assertThat(gaps("""
                actor master : HarbourMaster;
                first start; then action a { doc /* A quartermaster waits. */ } then done;""")).containsExactly("Actor 'master' does nothing in the story");
    }
}
