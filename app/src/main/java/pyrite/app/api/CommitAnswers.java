package pyrite.app.api;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.ElementJson;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** The API's answers to a requested commit. */
@Component
class CommitAnswers {
    private final ApiBranches branches;

    CommitAnswers(ApiBranches branches) {
        this.branches = branches;
    }

    ResponseEntity<?> of(Workspace.Head head, Workspace.Commit commit) {
        return switch (commit) {
            case Workspace.Commit.Saved(var revision) ->
                ResponseEntity.status(HttpStatus.CREATED).body(branches.commit(head.branch(), revision.number()));
            case Workspace.Commit.Nothing() -> ResponseEntity.ok(branches.commit(head.branch(), head.number()));
            case Workspace.Commit.Refused(var problems) ->
                problem(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        problems.getFirst().message(),
                        Map.of(
                                "faults",
                                problems.stream()
                                        .map(each ->
                                                Map.of("element", each.element().toString(), "message", each.message()))
                                        .toList()));
            case Workspace.Commit.Overtaken(List<ElementId> elements, var _, Model theirs) ->
                problem(
                        HttpStatus.CONFLICT,
                        "somebody has changed the same elements since the previous commit",
                        Map.of(
                                "theirs",
                                elements.stream()
                                        .map(id -> theirs.find(id)
                                                .map(new ElementJson(theirs)::write)
                                                .orElseGet(() -> removed(id)))
                                        .toList()));
        };
    }

    private static Map<String, @Nullable Object> removed(ElementId id) {
        Map<String, @Nullable Object> json = new LinkedHashMap<>();
        json.put("@id", id.toString());
        json.put("@type", null);
        return json;
    }

    ResponseEntity<ProblemDetail> problem(HttpStatus status, String message, Map<String, Object> more) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, message);
        more.forEach(problem::setProperty);
        return ResponseEntity.of(problem).build();
    }
}
