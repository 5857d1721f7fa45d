package pyrite.app.workspace;

import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import pyrite.core.history.Revision;
import pyrite.core.model.ElementId;
import pyrite.core.notation.TextProblem;

/**
 * The answer to an edit on a page: what was saved, or where and why not.
 *
 * @param revision the label of the new revision; empty if nothing was saved
 * @param made the ids of the new elements that the page asked for
 */
public record Answer(boolean saved, String revision, String message, List<TextProblem> problems, List<String> made) {

    private static final int MOST_NAMED = 5;

    public static Answer refused(String message, List<TextProblem> problems) {
        return new Answer(false, "", message, problems, List.of());
    }

    public static ResponseEntity<Answer> unprocessable(String message, List<TextProblem> problems) {
        return ResponseEntity.status(HttpStatus.UNPROCESSABLE_CONTENT).body(refused(message, problems));
    }

    public static ResponseEntity<Answer> unprocessable(String message) {
        return unprocessable(message, List.of());
    }

    /** Refuses with what an exception says. */
    public static ResponseEntity<Answer> unprocessable(RuntimeException fault) {
        return unprocessable(Objects.requireNonNullElse(fault.getMessage(), fault.toString()));
    }

    /** @param nothing what to say if the edit changed nothing */
    public static ResponseEntity<Answer> of(Workspace.Head head, Workspace.Commit commit, String nothing) {
        return of(head, commit, nothing, List.of());
    }

    public static ResponseEntity<Answer> of(
            Workspace.Head head, Workspace.Commit commit, String nothing, List<ElementId> made) {
        return switch (commit) {
            case Workspace.Commit.Saved(var revision) ->
                ResponseEntity.ok(new Answer(
                        true,
                        revision.label(),
                        revision.summary(),
                        List.of(),
                        made.stream().map(ElementId::toString).toList()));
            case Workspace.Commit.Nothing() -> ResponseEntity.ok(refused(nothing, List.of()));
            case Workspace.Commit.Refused(var problems) ->
                unprocessable(problems.getFirst().message());
            case Workspace.Commit.Overtaken overtaken ->
                ResponseEntity.status(HttpStatus.CONFLICT).body(refused(overtaken(overtaken), List.of()));
        };
    }

    /** What is in the way of a commit, and how to go on. */
    public static String overtaken(Workspace.Commit.Overtaken overtaken) {
        Labels labels = new Labels(overtaken.model());
        List<ElementId> elements = overtaken.elements();
        String names = elements.stream().limit(MOST_NAMED).map(labels::name).collect(Collectors.joining(", "))
                + (elements.size() > MOST_NAMED ? " and " + (elements.size() - MOST_NAMED) + " more" : "");
        return overtaken.act() == Revision.Act.EDIT
                ? "somebody has changed " + names
                        + " since this page was loaded; look at it again, then repeat your change"
                : names + (elements.size() == 1 ? " was" : " were")
                        + " changed or added since by somebody else; to take your edit back, change "
                        + (elements.size() == 1 ? "it" : "them") + " back first";
    }
}
