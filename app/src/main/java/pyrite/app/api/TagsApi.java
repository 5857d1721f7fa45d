package pyrite.app.api;

import com.fasterxml.jackson.annotation.JsonProperty;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import java.time.InstantSource;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Baseline;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;

/** Baselines, which the standard calls tags (Systems Modeling API, Tag). */
@RestController
@RequestMapping("/api/projects/{projectId}/tags")
@Tag(name = "2 Commits")
class TagsApi {
    private final ApiBranches branches;
    private final BaselineMapper baselines;
    private final InstantSource clock;

    TagsApi(ApiBranches branches, BaselineMapper baselines, InstantSource clock) {
        this.branches = branches;
        this.baselines = baselines;
        this.clock = clock;
    }

    record TagJson(
            @JsonProperty("@id") UUID id,
            @JsonProperty("@type") String type,
            String name,
            String description,
            OffsetDateTime created,
            ApiRecords.Id owningProject,
            ApiRecords.Id taggedCommit,
            String author) {}

    /** A baseline with the branch it is on. */
    private record Found(Branch branch, Baseline baseline) {
        UUID id() {
            return UUID.nameUUIDFromBytes(
                    ("pyrite.tag:" + branch.uuid() + ":" + baseline.id()).getBytes(StandardCharsets.UTF_8));
        }
    }

    private List<Found> all(UUID project) {
        return branches.ofProject(project).stream()
                .flatMap(branch -> baselines.of(branch.id()).stream().map(baseline -> new Found(branch, baseline)))
                .toList();
    }

    private Found find(UUID project, UUID tag) {
        return all(project).stream()
                .filter(found -> found.id().equals(tag))
                .findFirst()
                .orElseThrow(() -> new NotFound("there is no tag " + tag + " in this project"));
    }

    private TagJson json(Found found) {
        Baseline baseline = found.baseline();
        return new TagJson(
                found.id(),
                "Tag",
                baseline.name(),
                baseline.note(),
                baseline.at().atOffset(ZoneOffset.UTC),
                new ApiRecords.Id(found.branch().projectUuid()),
                new ApiRecords.Id(
                        branches.commit(found.branch(), baseline.number()).id()),
                baseline.person());
    }

    @Operation(summary = "The tags of a project: its baselines")
    @GetMapping
    List<TagJson> tags(@PathVariable UUID projectId) {
        return all(projectId).stream().map(this::json).toList();
    }

    @Operation(summary = "One tag")
    @GetMapping("/{tagId}")
    TagJson tag(@PathVariable UUID projectId, @PathVariable UUID tagId) {
        return json(find(projectId, tagId));
    }

    record NewTag(
            @NotBlank @Size(max = 200) String name,
            @Nullable @Size(max = 2000) String description,
            @NotNull ApiRecords.Id taggedCommit) {}

    @Operation(summary = "Name a commit; takes an engineer")
    @PostMapping
    ResponseEntity<?> name(Person person, @PathVariable UUID projectId, @Valid @RequestBody NewTag requested) {
        Workspace.Head named = branches.at(projectId, requested.taggedCommit().id());
        String name = requested.name().strip();
        try {
            baselines.add(
                    named.branch().id(),
                    named.number(),
                    name,
                    Objects.requireNonNullElse(requested.description(), "").strip(),
                    person.id(),
                    clock.instant());
        } catch (DuplicateKeyException _) {
            return ResponseEntity.of(ProblemDetail.forStatusAndDetail(
                            HttpStatus.UNPROCESSABLE_CONTENT, "there is a baseline called " + name + " already"))
                    .build();
        }
        return ResponseEntity.status(HttpStatus.CREATED)
                .body(all(projectId).stream()
                        .filter(found -> found.branch().id() == named.branch().id()
                                && found.baseline().name().equals(name))
                        .findFirst()
                        .map(this::json)
                        .orElseThrow());
    }

    @Operation(summary = "Take a tag away, the commit stays; takes an engineer")
    @DeleteMapping("/{tagId}")
    ResponseEntity<Void> remove(@PathVariable UUID projectId, @PathVariable UUID tagId) {
        Found found = find(projectId, tagId);
        baselines.remove(found.branch().id(), found.baseline().id());
        return ResponseEntity.noContent().build();
    }
}
