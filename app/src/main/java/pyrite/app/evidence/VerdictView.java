package pyrite.app.evidence;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.Margin;
import pyrite.core.verification.VerdictKind;
import pyrite.core.verification.Wording;

/**
 * A verdict as pages show it.
 *
 * @param stored its number in the store, by which its plot is found; null if it needs no run
 * @param run the run it came from; null if it needs no run
 * @param caseId the case that was run; null without a run
 * @param changes what changed since; empty if it is fresh
 */
public record VerdictView(
        @Nullable Long stored,
        VerdictKind kind,
        String subject,
        @Nullable Double margin,
        String unit,
        @Nullable Double worstInstant,
        @Nullable Double firstViolation,
        String reason,
        @Nullable Long run,
        @Nullable ElementId caseId,
        @Nullable String caseName,
        int revision,
        List<Change> changes,
        boolean stale) {

    /** A change after the run: the element, and the revision if it is known. */
    public record Change(String element, String address, String revision, String summary, String author) {}

    /** What a revision says without a run. */
    public static VerdictView of(Judgement judgement, int revision) {
        Margin margin = judgement.margin();
        return new VerdictView(
                null,
                judgement.verdict(),
                judgement.subject(),
                margin == null ? null : Double.valueOf(margin.shown()),
                margin == null ? "" : margin.unit().symbol(),
                judgement.worstInstant(),
                judgement.firstViolation(),
                judgement.reason(),
                null,
                null,
                null,
                revision,
                List.of(),
                false);
    }

    /** Whether the model says it, whatever a run does. */
    public boolean isFromModelAlone() {
        return run == null && kind != VerdictKind.INCONCLUSIVE;
    }

    /** The name of the mark: {@code pass}, or {@code pass-stale}. */
    public String mark() {
        return kind.word() + (stale ? "-stale" : "");
    }

    public String words() {
        return stale ? kind.word() + ", stale" : kind.word();
    }

    /** The margin with sign and unit, empty if there is none. */
    public String marginText() {
        if (margin == null) {
            return "";
        }
        String number = (margin > 0 ? "+" : margin < 0 ? "−" : "") + Wording.number(Math.abs(margin));
        return unit.isEmpty() ? number : number + " " + unit;
    }
}
