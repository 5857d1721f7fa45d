package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.PositiveOrZero;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.history.Restoration;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** Restores an element to its state at a revision; the restoration is a new revision, so nothing is lost. */
@RestController
class RestoreController {
    private final Workspace workspace;

    RestoreController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @param whole whether with everything it owned then, or the element alone */
    record Request(@PositiveOrZero int number, boolean whole) {}

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Bring an element back as a revision had it, alone or with all it owned; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/element/{id}/restore", ApiAddress.BRANCH + "/elements/{id}/restore"})
    ResponseEntity<Answer> restore(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Request requested) {
        Model then = workspace.at(head, requested.number());
        Element element = new Workspace.Head(head.branch(), requested.number(), then, true).element(id);
        ElementId at = element.id();
        Restoration restoration = requested.whole()
                ? Restoration.withAllItOwned(head.model(), then, at)
                : Restoration.alone(head.model(), then, at);
        return switch (restoration) {
            case Restoration.Possible(var edit) ->
                Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                head.number(),
                                edit,
                                person,
                                new Labels(then).name(element) + " restored as of r" + requested.number()
                                        + (requested.whole() ? " with all it owned" : "")),
                        "it is as it was then");
            case Restoration.WithoutOwner(Element owner) ->
                ResponseEntity.status(HttpStatus.UNPROCESSABLE_CONTENT)
                        .body(Answer.refused(
                                "it stood in " + new Labels(then).name(owner)
                                        + ", which is gone too; restore that first",
                                List.of()));
        };
    }
}
