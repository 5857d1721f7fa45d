package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.sequence.Sequence;

/** What was told step by step beside the story: the first difference on both sides. */
class StoryComparisonTest {
    private static final Model MODEL = Models.of("""
            use case def Lock {
                subject s;
                first start;
                then action call { doc /* The boat calls. */ }
                then decide free;
                if true then letIn;
                else waits;
                action letIn { doc /* The keeper lets it in. */ }
                then close;
                action waits { doc /* The boat waits. */ }
                then close;
                action close { doc /* The gate closes. */ }
                then done;
            }
            """);

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "call waits close | told as the main story, all 3 steps",
                "call | as the main story for 1 step; then step 2 comes, 'The boat waits.', but nothing more was told",
                "call close | as the main story for 1 step; then step 2 comes, 'The boat waits.', but told was step 3, 'The gate closes.'",
                "waits | as the main story for 0 steps; then step 1 comes, 'The boat calls.', but told was step 2, 'The boat waits.'",
                "call waits close call | as the main story for 3 steps; then the story ends, but told was step 1, 'The boat calls.'",
            })
    void theFirstDifferenceIsToldOnBothSides(String told, String sentence) {
        assertThat(StoryComparison.of(MODEL, steps(told)).orElseThrow().sentence())
                .isEqualTo(sentence);
    }

    @ParameterizedTest
    @CsvSource({"call letIn close, true", "call letIn, false"})
    void anotherWayCountsAsWell(String told, boolean follows) {
        StoryComparison comparison = StoryComparison.of(MODEL, steps(told)).orElseThrow();
        assertThat(comparison.way().label()).isNotEmpty();
        assertThat(comparison.follows()).isEqualTo(follows);
    }

    private static List<Element> steps(String names) {
        return Arrays.stream(names.split(" "))
                .map(name -> Models.element(MODEL, "Test::Lock::" + name))
                .toList();
    }

    /** A step of any kind can be told: the recording that says so is well formed, and a run of it does not miss it. */
    @Test
    void stepsThatAcceptCanBeToldInARecording() {
        Model model = Models.of("""
                item def Call;
                use case def Lock { subject s; first start; then action hear accept Call; then action close; then done; }
                part def Keeper; part keeper : Keeper;
                verification told : Recordings::Recording { subject :>> system = keeper; attribute :>> stopTime = 5 [s];
                    event Lock::hear : Recordings::Begins { attribute :>> at = 1 [s]; }
                    event Lock::close : Recordings::Begins { attribute :>> at = 2 [s]; } objective; }
                """);
        Element recording = Models.element(model, "Test::told");
        assertThat(Sequence.members(model, recording)).isEmpty();
        List<Element> told = Sequence.marks(model, recording).stream()
                .map(Sequence.Mark::step)
                .toList();
        assertThat(StoryComparison.of(model, told).orElseThrow().follows()).isTrue();
    }
}
