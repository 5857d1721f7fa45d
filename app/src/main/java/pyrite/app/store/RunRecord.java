package pyrite.app.store;

import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** A stored run: its case, revision, author and result. */
public record RunRecord(
        long id,
        long branchId,
        UUID caseId,
        String caseName,
        int revisionNumber,
        String person,
        Instant startedAt,
        @Nullable Instant endedAt,
        Status status,
        String message,
        String fingerprint) {
    /** The status of a run. */
    public enum Status {
        QUEUED,
        RUNNING,
        DONE,
        FAILED,
        CANCELLED,
        INTERRUPTED;

        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /** Whether it has not come to its end yet. */
    public boolean isUnderWay() {
        return status == Status.RUNNING || status == Status.QUEUED;
    }

    /** How long it took, in words; empty while it runs. */
    public String took() {
        if (endedAt == null) {
            return "";
        }
        Duration duration = Duration.between(startedAt, endedAt);
        return duration.toMillis() < 10_000
                ? String.format(java.util.Locale.ROOT, "%.1f s", duration.toMillis() / 1000.0)
                : duration.toSeconds() + " s";
    }
}
