package pyrite.app.store;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.sequence.SequenceComparison;
import pyrite.core.sequence.SequenceComparison.Difference;
import pyrite.core.sequence.SequenceStep;

/**
 * What was recorded beside what a run did, as it is kept and shown.
 *
 * @param sentence how it stands, with both sides of the first difference
 * @param first the index of the first row that differs; -1 if none does
 */
public record ComparedSequence(String sentence, int first, List<Line> lines) {
    /** One step on both sides; null where it does not happen. */
    public record Line(
            Difference difference,
            @Nullable Side recorded,
            @Nullable Side now) {}

    /**
     * @param at s
     * @param element the id of what is selected with it; empty for nothing
     */
    public record Side(double at, String words, String part, String element, boolean isStimulus) {
        private static @Nullable Side of(@Nullable SequenceStep step) {
            return step == null
                    ? null
                    : new Side(
                            step.at(),
                            step.words(),
                            step.part(),
                            step.element() == null ? "" : step.element().toString(),
                            step.isStimulus());
        }
    }

    static ComparedSequence of(SequenceComparison comparison) {
        List<Line> lines = comparison.rows().stream()
                .map(row -> new Line(row.difference(), Side.of(row.recorded()), Side.of(row.now())))
                .toList();
        int first = 0;
        while (first < lines.size() && lines.get(first).difference() == Difference.NONE) {
            first++;
        }
        return new ComparedSequence(comparison.sentence(), first < lines.size() ? first : -1, lines);
    }
}
