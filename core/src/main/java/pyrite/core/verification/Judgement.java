package pyrite.core.verification;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;

/**
 * The verdict on one requirement for one subject, with what it rests on.
 *
 * @param subject the path of the subject, such as {@code barrier.gate}
 * @param margin null where nothing was compared
 * @param worstInstant the instant of the smallest margin, s; null if there is none
 * @param firstViolation the instant of the first violation, s; null if there is none or time plays no part
 * @param reason one sentence
 */
public record Judgement(
        ElementId requirement,
        String subject,
        VerdictKind verdict,
        @Nullable Margin margin,
        @Nullable Double worstInstant,
        @Nullable Double firstViolation,
        String reason,
        VerdictPlot plot,
        Fingerprint fingerprint) {
    public Judgement {
        Objects.requireNonNull(reason);
    }

    Judgement with(VerdictKind other, String because) {
        return new Judgement(
                requirement, subject, other, margin, worstInstant, firstViolation, because, plot, fingerprint);
    }

    Judgement with(Fingerprint rests) {
        return new Judgement(requirement, subject, verdict, margin, worstInstant, firstViolation, reason, plot, rests);
    }
}
