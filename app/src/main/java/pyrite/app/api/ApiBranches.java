package pyrite.app.api;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;

/** Finds projects, branches and commits by the UUIDs in API addresses. */
@Component
class ApiBranches {
    private final BranchStore store;
    private final Workspace workspace;

    ApiBranches(BranchStore store, Workspace workspace) {
        this.store = store;
        this.workspace = workspace;
    }

    /** @throws NotFound if there is no such project */
    List<Branch> ofProject(UUID project) {
        List<Branch> branches = store.all().stream()
                .filter(branch -> branch.projectUuid().equals(project))
                .toList();
        if (branches.isEmpty()) {
            throw new NotFound("there is no project " + project);
        }
        return branches;
    }

    /** The head of a branch, or of the first of the project. */
    Workspace.Head headOrFirst(UUID project, Optional<UUID> branch) {
        return branch.map(id -> workspace.head(project, id))
                .orElseGet(() -> workspace.head(ofProject(project).getFirst().id()));
    }

    /** The model as a commit left it. */
    Workspace.Head at(UUID project, UUID commit) {
        BranchStore.Place place = store.placeOf(commit)
                .filter(found -> ofProject(project).stream().anyMatch(branch -> branch.id() == found.branch()))
                .orElseThrow(() -> new NotFound("there is no commit " + commit + " of this project"));
        return workspace.asOf(workspace.head(place.branch()), place.number());
    }

    ApiRecords.CommitRecord commit(Branch branch, int number) {
        BranchStore.Entry entry = store.revision(branch, number)
                .orElseThrow(() -> new NotFound("there is no r" + number + " on this branch"));
        return ApiRecords.CommitRecord.of(
                branch,
                entry,
                number == 1
                        ? null
                        : store.revision(branch, number - 1)
                                .map(BranchStore.Entry::uuid)
                                .orElse(null));
    }

    ApiRecords.BranchJson branch(Workspace.Head head) {
        Branch branch = head.branch();
        return new ApiRecords.BranchJson(
                branch.uuid(),
                "Branch",
                branch.name(),
                new ApiRecords.Id(branch.projectUuid()),
                head.number() == 0
                        ? null
                        : new ApiRecords.Id(commit(branch, head.number()).id()));
    }
}
