package pyrite.app.api;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;

/** The records of the Systems Modeling API that describe projects rather than elements. */
final class ApiRecords {
    private ApiRecords() {}

    /** A reference to a record. */
    record Id(@JsonProperty("@id") UUID id) {}

    record ProjectJson(
            @JsonProperty("@id") UUID id,
            @JsonProperty("@type") String type,
            String name,
            Id defaultBranch) {
        static ProjectJson of(Branch branch) {
            return new ProjectJson(branch.projectUuid(), "Project", branch.projectName(), new Id(branch.uuid()));
        }
    }

    /** @param head the newest commit; null before the first */
    record BranchJson(
            @JsonProperty("@id") UUID id,
            @JsonProperty("@type") String type,
            String name,
            Id owningProject,
            @Nullable Id head) {}

    /** @param revision the revision number shown on pages */
    record CommitRecord(
            @JsonProperty("@id") UUID id,
            @JsonProperty("@type") String type,
            OffsetDateTime created,
            String description,
            Id owningProject,
            @Nullable Id previousCommit,
            int revision,
            String author) {
        static CommitRecord of(Branch branch, BranchStore.Entry entry, @Nullable UUID previous) {
            return new CommitRecord(
                    entry.uuid(),
                    "Commit",
                    entry.revision().at().atOffset(ZoneOffset.UTC),
                    entry.revision().summary(),
                    new Id(branch.projectUuid()),
                    previous == null ? null : new Id(previous),
                    entry.revision().number(),
                    entry.authorName());
        }
    }
}
