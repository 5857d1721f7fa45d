package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.story.Actors;
import pyrite.core.story.Story;
import pyrite.core.story.StoryEditing;
import pyrite.core.story.UseCases;

/** A story as a list and as a drawing, and the edits by which it is told. */
@Controller
class StoryController {
    private static final int LONGEST = 4000;

    private final Pages pages;
    private final Workspace workspace;
    private final StoryCoverage coverage;

    StoryController(Pages pages, Workspace workspace, StoryCoverage coverage) {
        this.pages = pages;
        this.workspace = workspace;
        this.coverage = coverage;
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/story")
    String story(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element useCase = useCase(head, id);
        pages.frame(page, head, person, Station.NEEDS, new Labels(head.model()).name(useCase) + " · Story");
        page.addAttribute("element", useCase);
        page.addAttribute("objective", UseCases.objective(head.model(), useCase));
        page.addAttribute("documentation", head.model().inheritance().documentation(useCase));
        page.addAttribute("actors", Actors.all(head.model(), useCase));
        page.addAttribute("subject", Actors.subject(head.model(), useCase).orElse(null));
        page.addAttribute("needs", UseCases.needs(head.model(), useCase));
        return "needs/story";
    }

    private static Element useCase(Workspace.Head head, String id) {
        Element useCase = head.element(id);
        if (!Story.isToldOf(useCase.kind())) {
            throw new NotFound("a story is told of a use case, and " + new Labels(head.model()).name(useCase) + " is "
                    + useCase.kind().titleWithArticle());
        }
        return useCase;
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/story.json")
    @ResponseBody
    StoryData data(Workspace.Head head, @PathVariable String id) {
        Element useCase = useCase(head, id);
        return StoryData.of(
                head.number(),
                head.model(),
                useCase,
                coverage.doubted(head, Story.of(head.model(), useCase).lines()));
    }

    /** @param behind the step that it comes behind; null for before all others */
    record Added(
            @Nullable String behind,
            @NotNull @Size(max = LONGEST) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/add")
    ResponseEntity<Answer> add(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Added asked) {
        return tell(head, person, id, asked.base(), story -> story.add(step(head, asked.behind()), asked.text()));
    }

    /**
     * A first step, or only a condition, of a way that a step is left by.
     *
     * @param way the label of a way there is, that gets its first step; null to make one
     */
    record Branched(
            @Nullable String insteadOf,
            @Nullable @Size(max = 200) String way,
            @NotNull @Size(max = LONGEST) String condition,
            @NotNull @Size(max = LONGEST) String text,
            boolean rainy,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/alternative")
    ResponseEntity<Answer> alternative(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Branched asked) {
        return tell(
                head,
                person,
                id,
                asked.base(),
                story -> asked.way() == null
                        ? story.alternative(
                                known(head, asked.insteadOf()), asked.condition(), asked.text(), asked.rainy())
                        : story.addTo(way(head, id, asked.way()), asked.text()));
    }

    record OfStep(@NotNull String step, @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/branch")
    ResponseEntity<Answer> asAlternative(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody OfStep asked) {
        return tell(head, person, id, asked.base(), story -> story.asAlternative(known(head, asked.step())));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/story/unbranch")
    ResponseEntity<Answer> asStep(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody OfStep asked) {
        return tell(head, person, id, asked.base(), story -> story.asStep(known(head, asked.step())));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/story/remove")
    ResponseEntity<Answer> remove(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody OfStep asked) {
        return tell(head, person, id, asked.base(), story -> story.remove(known(head, asked.step())));
    }

    record Worded(
            @NotNull String step,
            @NotNull @Size(max = LONGEST) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/reword")
    ResponseEntity<Answer> reword(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Worded asked) {
        return tell(head, person, id, asked.base(), story -> story.reword(known(head, asked.step()), asked.text()));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/story/meanwhile")
    ResponseEntity<Answer> meanwhile(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Worded asked) {
        return tell(head, person, id, asked.base(), story -> story.meanwhile(known(head, asked.step()), asked.text()));
    }

    record Cut(
            @NotNull String first,
            @NotNull String last,
            @NotBlank @Size(max = LONGEST) String event,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/cut-short")
    ResponseEntity<Answer> cutShort(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Cut asked) {
        return tell(
                head,
                person,
                id,
                asked.base(),
                story -> story.cutShort(known(head, asked.first()), known(head, asked.last()), asked.event()));
    }

    record Conditioned(
            @NotNull @Size(max = 200) String way,
            @NotNull @Size(max = LONGEST) String text,
            boolean rainy,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/condition")
    ResponseEntity<Answer> condition(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Conditioned asked) {
        return tell(
                head,
                person,
                id,
                asked.base(),
                story -> story.condition(way(head, id, asked.way()), asked.text(), asked.rainy()));
    }

    /** @param next the step that it goes on with; null if it ends, or if nothing is told */
    record Ended(
            @NotNull String step,
            @Nullable String next,
            boolean ends,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/go-on")
    ResponseEntity<Answer> goOn(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Ended asked) {
        return tell(
                head,
                person,
                id,
                asked.base(),
                story -> story.goOn(known(head, asked.step()), step(head, asked.next()), asked.ends()));
    }

    record Moved(
            @NotNull String step,
            @Nullable String behind,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/move")
    ResponseEntity<Answer> move(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Moved asked) {
        return tell(
                head,
                person,
                id,
                asked.base(),
                story -> story.move(known(head, asked.step()), step(head, asked.behind())));
    }

    private ResponseEntity<Answer> tell(
            Workspace.Head head, Person person, String id, int base, Function<StoryEditing, StoryEditing.Told> act) {
        StoryEditing.Told told;
        try {
            told = act.apply(new StoryEditing(head.model(), useCase(head, id)));
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), base, told.edit(), person, told.summary()),
                "nothing changed",
                List.of(told.step()));
    }

    private static @Nullable ElementId step(Workspace.Head head, @Nullable String id) {
        return id == null ? null : known(head, id);
    }

    private static ElementId known(Workspace.Head head, @Nullable String id) {
        if (id == null) {
            throw new IllegalArgumentException("name the step it is about");
        }
        return head.element(id).id();
    }

    private static Story.Way way(Workspace.Head head, String id, String label) {
        return Story.of(head.model(), useCase(head, id))
                .way(label)
                .orElseThrow(() -> new IllegalArgumentException(
                        "there is no alternative " + label + " any more; the list shows those there are"));
    }
}
