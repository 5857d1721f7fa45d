package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

/** Two steps one after the other, with durations by hand. */
class TimelineComparisonTest {
    private static TimelineComparison.Ran ran(double first, double second, double end) {
        Played played = Played.of("""
                part p { perform action work { first start;
                    then action raise : TimedAction { attribute :>> duration = %s [s]; }
                    then action hold : TimedAction { attribute :>> duration = %s [s]; }
                    then done; } }
                """.formatted(first, second), end);
        return new TimelineComparison.Ran(played.engine().log(), end);
    }

    private static List<String> parted(TimelineComparison.Ran... runs) {
        return TimelineComparison.of(List.of(runs), UnaryOperator.identity()).stream()
                .map(each -> each.path() + " at " + each.at() + " " + each.courses())
                .toList();
    }

    @Test
    void equalRunsDoNotPart() {
        assertThat(parted(ran(2, 3, 10), ran(2, 3, 10))).isEmpty();
    }

    @Test
    void whatPartsFirstComesFirstWithTheInstantAndTheTimes() {
        assertThat(parted(ran(2, 3, 10), ran(2, 4, 10)))
                .containsExactly(
                        "p.work at 5.0 [Course[times=1, active=5.0, waited=0.0], Course[times=1, active=6.0, waited=0.0]]",
                        "p.work.hold at 5.0 [Course[times=1, active=3.0, waited=0.0], Course[times=1, active=4.0, waited=0.0]]");
        assertThat(parted(ran(2, 3, 10), ran(1, 3, 10)))
                .containsExactly(
                        "p.work.hold at 1.0 [Course[times=1, active=3.0, waited=0.0], Course[times=1, active=3.0, waited=0.0]]",
                        "p.work.raise at 1.0 [Course[times=1, active=2.0, waited=0.0], Course[times=1, active=1.0, waited=0.0]]",
                        "p.work at 4.0 [Course[times=1, active=5.0, waited=0.0], Course[times=1, active=4.0, waited=0.0]]");
    }

    /** What goes on when the shorter run ends is no difference. */
    @Test
    void onlyTheTimeThatAllRunsHaveIsCompared() {
        assertThat(parted(ran(2, 8, 20), ran(2, 8, 4))).isEmpty();
        assertThat(parted(ran(2, 8, 20), ran(6, 8, 4)))
                .containsExactly(
                        "p.work.hold at 2.0 [Course[times=1, active=2.0, waited=0.0], null]",
                        "p.work.raise at 2.0 [Course[times=1, active=2.0, waited=0.0], Course[times=1, active=4.0, waited=0.0]]");
    }

    @Test
    void aRunWithoutAnyEventsHasNoSuchSteps() {
        TimelineComparison.Ran nothing = new TimelineComparison.Ran(Happened.NOTHING.log(), 10);
        assertThat(parted(ran(2, 3, 10), nothing)).hasSize(3).allMatch(each -> each.endsWith("null]"));
        assertThat(parted(nothing, nothing)).isEmpty();
    }
}
