package pyrite.app.api;

import com.fasterxml.jackson.annotation.JsonProperty;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.CommitJson;
import pyrite.core.exchange.ElementJson;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;

/** Lists commits and their changes, and makes new ones (Systems Modeling API, Commit and DataVersion). */
@RestController
@RequestMapping("/api/projects/{projectId}/commits")
@Tag(name = "2 Commits")
class CommitsApi {
    private static final int MOST = 1000;

    private final ApiBranches branches;
    private final BranchStore store;
    private final Workspace workspace;
    private final CommitAnswers answers;

    CommitsApi(ApiBranches branches, BranchStore store, Workspace workspace, CommitAnswers answers) {
        this.answers = answers;
        this.branches = branches;
        this.store = store;
        this.workspace = workspace;
    }

    @Operation(
            summary =
                    "The commits of a branch, newest first, page by page; without branchId those of the first branch; "
                            + "the Link header leads to the next page")
    @GetMapping
    ResponseEntity<List<ApiRecords.CommitRecord>> commits(
            @PathVariable UUID projectId,
            @RequestParam Optional<UUID> branchId,
            @RequestParam(name = "page[size]", defaultValue = "100") int size,
            @RequestParam(name = "page[after]") Optional<UUID> after,
            HttpServletRequest request) {
        Workspace.Head head = branches.headOrFirst(projectId, branchId);
        int newest = after.map(id -> store.placeOf(id)
                                .filter(place -> place.branch() == head.branch().id())
                                .orElseThrow(() -> new NotFound("there is no commit " + id + " on this branch"))
                                .number()
                        - 1)
                .orElse(head.number());
        int most = Math.clamp(size, 1, MOST);
        List<BranchStore.Entry> entries = store.revisions(head.branch(), newest, most + 1);
        List<ApiRecords.CommitRecord> page = IntStream.range(0, Math.min(entries.size(), most))
                .mapToObj(i -> ApiRecords.CommitRecord.of(
                        head.branch(),
                        entries.get(i),
                        i + 1 < entries.size() ? entries.get(i + 1).uuid() : null))
                .toList();
        return entries.size() > most
                ? NextPage.after(page, page.getLast().id(), most, request)
                : ResponseEntity.ok(page);
    }

    @Operation(summary = "One commit")
    @GetMapping("/{commitId}")
    ApiRecords.CommitRecord commit(@PathVariable UUID projectId, @PathVariable UUID commitId) {
        Workspace.Head head = branches.at(projectId, commitId);
        return branches.commit(head.branch(), head.number());
    }

    /** The state of one element after a commit. */
    record DataVersion(
            @JsonProperty("@type") String type,
            ApiRecords.Id identity,
            @Nullable Map<String, @Nullable Object> payload) {}

    @Operation(summary = "What a commit changed; the payload is null where it removed an element")
    @Costly
    @GetMapping("/{commitId}/changes")
    List<DataVersion> changes(@PathVariable UUID projectId, @PathVariable UUID commitId) {
        Workspace.Head head = branches.at(projectId, commitId);
        ElementJson writer = new ElementJson(head.model());
        return store.difference(head.branch(), head.number()).changes().stream()
                .map(change -> version(writer, change))
                .toList();
    }

    private static DataVersion version(ElementJson writer, ElementChange change) {
        return new DataVersion(
                "DataVersion",
                new ApiRecords.Id(change.id().value()),
                change.after() == null ? null : writer.write(change.after()));
    }

    /** @param identity of the changed or removed element; without it the payload is a new element */
    record NewVersion(
            ApiRecords.@Nullable Id identity, @Nullable Map<String, @Nullable Object> payload) {}

    /** @param previousCommit the commit that the changes are based on; later commits may have changed other elements */
    record NewCommit(
            @Nullable @Size(max = 1000) String description,
            @NotNull List<@Valid NewVersion> change,
            ApiRecords.@Nullable Id previousCommit) {}

    @Operation(summary = "Commit changes of elements; takes an engineer")
    @Costly
    @PostMapping
    ResponseEntity<?> add(
            Person person,
            @PathVariable UUID projectId,
            @RequestParam Optional<UUID> branchId,
            @Valid @RequestBody NewCommit requested) {
        Workspace.Head head = branches.headOrFirst(projectId, branchId);
        Workspace.Head base = requested.previousCommit() == null
                ? head
                : branches.at(projectId, requested.previousCommit().id());
        if (base.branch().id() != head.branch().id()) {
            throw new NotFound("the previous commit is of another branch");
        }
        CommitJson.Read read = CommitJson.read(
                base.model(),
                requested.change().stream()
                        .map(each -> new CommitJson.Change(
                                each.identity() == null
                                        ? null
                                        : ElementId.of(each.identity().id()),
                                each.payload()))
                        .toList());
        if (!read.faults().isEmpty()) {
            return answers.problem(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    read.faults().getFirst().message(),
                    Map.of("faults", read.faults()));
        }
        String summary =
                requested.description() == null || requested.description().isBlank()
                        ? "committed over the API"
                        : requested.description();
        return answers.of(head, workspace.commit(head.branch(), base.number(), read.edit(), person, summary));
    }
}
