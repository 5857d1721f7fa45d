package pyrite.app.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.projects.Projects;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.Workspace;

/** Projects and their branches (Systems Modeling API, Project and Branch). */
@RestController
@RequestMapping("/api/projects")
@Tag(name = "1 Projects and branches")
class ProjectsApi {
    private final BranchStore store;
    private final ApiBranches branches;
    private final Projects projects;
    private final Workspace workspace;

    ProjectsApi(BranchStore store, ApiBranches branches, Projects projects, Workspace workspace) {
        this.store = store;
        this.branches = branches;
        this.projects = projects;
        this.workspace = workspace;
    }

    record NewProject(@NotBlank @Size(max = 120) String name) {}

    @Operation(summary = "All projects")
    @GetMapping
    List<ApiRecords.ProjectJson> projects() {
        return store.all().stream()
                .collect(Collectors.toMap(
                        Branch::projectUuid, ApiRecords.ProjectJson::of, (first, _) -> first, LinkedHashMap::new))
                .values()
                .stream()
                .toList();
    }

    @Operation(summary = "Begin a project; takes a lead")
    @PostMapping
    ResponseEntity<ApiRecords.ProjectJson> begin(Person person, @Valid @RequestBody NewProject requested) {
        return ResponseEntity.status(HttpStatus.CREATED)
                .body(ApiRecords.ProjectJson.of(projects.begin(person, requested.name())));
    }

    @Operation(summary = "One project")
    @GetMapping("/{projectId}")
    ApiRecords.ProjectJson project(@PathVariable UUID projectId) {
        return ApiRecords.ProjectJson.of(branches.ofProject(projectId).getFirst());
    }

    @Operation(summary = "The branches of a project")
    @GetMapping("/{projectId}/branches")
    List<ApiRecords.BranchJson> branches(@PathVariable UUID projectId) {
        return branches.ofProject(projectId).stream()
                .map(branch -> branches.branch(workspace.head(branch.id())))
                .toList();
    }

    @Operation(summary = "One branch with its newest commit")
    @GetMapping("/{projectId}/branches/{branchId}")
    ApiRecords.BranchJson branch(@PathVariable UUID projectId, @PathVariable UUID branchId) {
        return branches.branch(workspace.head(projectId, branchId));
    }
}
