package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.function.Function;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.behavior.Leading;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;

/** The edits of drawings of behaviour: lines between states or steps, and what is added within inherited ones. */
@RestController
class LeadingController {
    private static final int LONGEST_KEY = 2_000;
    private static final int LONGEST_TEXT = 20_000;

    private final Workspace workspace;

    LeadingController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** @param text what stands between both ends: trigger, guard and effect */
    record Led(
            @NotNull @Size(max = LONGEST_KEY) String from,
            @NotNull @Size(max = LONGEST_KEY) String to,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/drawing/lead")
    ResponseEntity<Answer> lead(Workspace.Head head, Person person, @Valid @RequestBody Led led) {
        return edit(
                head,
                person,
                led.base(),
                leading -> leading.lead(head.way(led.from()), head.way(led.to()), led.text()));
    }

    /** @param into the key of the box that gets the members */
    record Within(
            @NotNull @Size(max = LONGEST_KEY) String into,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/drawing/within")
    ResponseEntity<Answer> within(Workspace.Head head, Person person, @Valid @RequestBody Within within) {
        return edit(head, person, within.base(), leading -> leading.add(head.way(within.into()), within.text()));
    }

    /** What a line says, to be changed. */
    record Said(String text) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/drawing/says.json")
    ResponseEntity<?> says(Workspace.Head head, @PathVariable String id) {
        Element line = head.element(id);
        if (line.kind() != ElementKind.TRANSITION && line.kind() != ElementKind.SUCCESSION) {
            throw new NotFound("only a transition or succession says when it leads on; this is "
                    + line.kind().titleWithArticle());
        }
        try {
            return ResponseEntity.ok(new Said(new Leading(head.model()).says(line)));
        } catch (IllegalArgumentException none) {
            return Answer.unprocessable(none);
        }
    }

    /** @param shown the id of what is drawn */
    record Saying(
            @NotNull String shown,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/say")
    ResponseEntity<Answer> say(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Saying saying) {
        return edit(
                head,
                person,
                saying.base(),
                leading -> leading.say(head.element(saying.shown()).id(), head.element(id), saying.text()));
    }

    /** @param to the key of the box that one end leads to from now on */
    record Redirected(
            @NotNull @Size(max = LONGEST_KEY) String to,
            boolean isSource,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/redirect")
    ResponseEntity<Answer> redirect(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Redirected asked) {
        List<ElementId> to = head.way(asked.to());
        return edit(
                head,
                person,
                asked.base(),
                leading -> leading.redirect(to.getFirst(), head.element(id), to, asked.isSource()));
    }

    private ResponseEntity<Answer> edit(
            Workspace.Head head, Person person, int base, Function<Leading, Leading.Made> act) {
        try {
            Leading.Made made = act.apply(new Leading(head.model()));
            return Answer.of(
                    head,
                    workspace.commit(head.branch(), base, made.edit(), person, made.summary()),
                    "nothing changed",
                    made.made());
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
    }
}
