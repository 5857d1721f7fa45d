package pyrite.app.element;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.Authoring.Proposal;
import pyrite.core.notation.TextProblem;
import pyrite.core.structure.Specialising;
import pyrite.core.structure.UseInContext;

/** Receives edits typed on a page, and answers with what was saved or where the text is wrong. */
@RestController
class EditController {
    private static final int LONGEST_TEXT = 100_000;

    private final Workspace workspace;

    EditController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @param base the revision that the page showed when the edit was begun */
    record Typed(
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{holder}/value/{feature}")
    ResponseEntity<Answer> value(
            Workspace.Head head,
            Person person,
            @PathVariable String holder,
            @PathVariable String feature,
            @Valid @RequestBody Typed typed) {
        return edit(
                head,
                person,
                typed.base(),
                authoring -> authoring.value(head.element(holder), head.element(feature), typed.text()));
    }

    /** Adds to the definition of a part, and with it to every use. */
    @PostMapping("/p/{project}/{branch}/element/{id}/definition/members")
    ResponseEntity<Answer> membersOfDefinition(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        Element definition =
                UseInContext.ofDefinition(head.model(), head.way(id)).element();
        return edit(head, person, typed.base(), authoring -> authoring.members(definition, typed.text()));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/text")
    ResponseEntity<Answer> text(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.documentation(head.element(id), typed.text()));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/name")
    ResponseEntity<Answer> name(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.name(head.element(id), typed.text()));
    }

    /** Another condition for a constraint. */
    @PostMapping("/p/{project}/{branch}/element/{id}/condition")
    ResponseEntity<Answer> condition(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.condition(head.element(id), typed.text()));
    }

    record NewConstraint(
            @NotNull @Size(max = LONGEST_TEXT) String condition,
            boolean assumed,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/constraint")
    ResponseEntity<Answer> constraint(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewConstraint made) {
        return edit(
                head,
                person,
                made.base(),
                authoring -> authoring.constraint(head.element(id), made.assumed(), made.condition()));
    }

    /** @param type the name of a definition; empty to leave it to the value */
    record NewAttribute(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 1_000) String type,
            @NotNull @Size(max = LONGEST_TEXT) String value,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/attribute")
    ResponseEntity<Answer> attribute(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewAttribute made) {
        return edit(
                head,
                person,
                made.base(),
                authoring -> authoring.attribute(head.element(id), made.name(), made.type(), made.value()));
    }

    /** The target of a move: into {@code owner} (null for the top), before another element or, if null, at the end. */
    record Place(
            @Nullable String owner,
            @Nullable String before,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/move")
    ResponseEntity<Answer> move(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Place place) {
        return edit(
                head,
                person,
                place.base(),
                authoring -> authoring.move(
                        head.element(id),
                        place.owner() == null ? null : head.element(place.owner()),
                        place.before() == null ? null : head.element(place.before())));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/members")
    ResponseEntity<Answer> members(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.members(head.element(id), typed.text()));
    }

    /**
     * An inherited feature that is taken up.
     *
     * @param name of what subsets it; null to redefine it
     */
    record Special(
            @NotNull String feature,
            @Nullable @Size(max = 200) String name,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/specialise")
    ResponseEntity<Answer> specialise(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Special special) {
        Element holder = head.element(id);
        Element feature = head.element(special.feature());
        return switch (special.name() == null
                ? Specialising.redefine(head.model(), holder, feature)
                : Specialising.subset(head.model(), holder, feature, special.name())) {
            case Specialising.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Specialising.Result.Made(var edit, var made, String summary) ->
                Answer.of(
                        head,
                        workspace.commit(head.branch(), special.base(), edit, person, summary),
                        "nothing changed",
                        List.of(made));
        };
    }

    @PostMapping("/p/{project}/{branch}/members")
    ResponseEntity<Answer> packages(Workspace.Head head, Person person, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.packages(typed.text()));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/remove")
    ResponseEntity<Answer> remove(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Typed typed) {
        return edit(head, person, typed.base(), authoring -> authoring.removal(head.element(id)));
    }

    @PostMapping("/p/{project}/{branch}/undo")
    ResponseEntity<Answer> undo(Workspace.Head head, Person person) {
        return Answer.of(head, workspace.undo(head.branch(), person), "there is nothing of yours to undo");
    }

    @PostMapping("/p/{project}/{branch}/redo")
    ResponseEntity<Answer> redo(Workspace.Head head, Person person) {
        return Answer.of(head, workspace.redo(head.branch(), person), "there is nothing of yours to redo");
    }

    private ResponseEntity<Answer> edit(
            Workspace.Head head, Person person, int base, Function<Authoring, Proposal> propose) {
        return switch (propose.apply(new Authoring(head.model()))) {
            case Proposal.Rejected(List<TextProblem> problems) ->
                Answer.unprocessable(problems.getFirst().message(), problems);
            case Proposal.Accepted(var edit, String summary) ->
                Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed");
        };
    }
}
