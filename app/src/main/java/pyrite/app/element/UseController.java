package pyrite.app.element;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Objects;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
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
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.Authoring.Proposal;
import pyrite.core.notation.TextProblem;
import pyrite.core.structure.UseInContext;
import pyrite.core.view.BoxKey;
import pyrite.core.view.FeatureSheet;

/**
 * The page of one use of a part inside others, such as the motor of the pump of a gate's supply, and the edits that
 * change this use alone.
 */
@Controller
class UseController {
    private static final int LONGEST_TEXT = 100_000;

    private final Workspace workspace;
    private final Pages pages;

    UseController(Workspace workspace, Pages pages) {
        this.workspace = workspace;
        this.pages = pages;
    }

    /** A step of the way to a use: its name, and the key of what it is so far. */
    public record Step(String name, String key) {}

    /** @param key as that of a box: ids from the whole inward */
    @GetMapping("/p/{project}/{branch}/use/{key}")
    String show(Workspace.Head head, Person person, @PathVariable String key, org.springframework.ui.Model page) {
        Model model = head.model();
        List<ElementId> way = UseInContext.current(model, head.way(key));
        if (UseInContext.isOwn(model, way)) {
            return "redirect:" + head.branch().address() + "/element/" + way.getLast();
        }
        UseInContext use;
        try {
            use = UseInContext.of(model, way);
        } catch (IllegalArgumentException refused) {
            throw new NotFound(String.valueOf(refused.getMessage()));
        }
        Element feature = model.get(way.getLast());
        pages.frame(page, head, person, Station.ARCHITECTURE, use.path());
        page.addAttribute("element", feature);
        page.addAttribute("key", BoxKey.of(way));
        page.addAttribute("steps", steps(model, way));
        page.addAttribute("owner", model.get(Objects.requireNonNull(feature.owner())));
        page.addAttribute("type", type(model, feature));
        page.addAttribute("sheet", FeatureSheet.of(use.model(), use.element()));
        return "architecture/use";
    }

    private static List<Step> steps(Model model, List<ElementId> way) {
        Labels labels = new Labels(model);
        return IntStream.range(0, way.size())
                .mapToObj(i -> new Step(labels.name(model.get(way.get(i))), BoxKey.of(way.subList(0, i + 1))))
                .toList();
    }

    private static @Nullable Element type(Model model, Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .findFirst()
                .orElse(null);
    }

    /**
     * An edit of a use inside others.
     *
     * @param in the way to the use, as the key of a box has it
     */
    record InUse(
            @NotNull @Size(max = 2000) String in,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @ResponseBody
    @PostMapping("/p/{project}/{branch}/use/value/{feature}")
    ResponseEntity<Answer> value(
            Workspace.Head head, Person person, @PathVariable String feature, @Valid @RequestBody InUse typed) {
        return edit(
                head,
                person,
                typed,
                (authoring, holder) -> authoring.value(holder, head.element(feature), typed.text()));
    }

    @ResponseBody
    @PostMapping("/p/{project}/{branch}/use/members")
    ResponseEntity<Answer> members(Workspace.Head head, Person person, @Valid @RequestBody InUse typed) {
        return edit(head, person, typed, (authoring, owner) -> authoring.members(owner, typed.text()));
    }

    @ResponseBody
    @PostMapping("/p/{project}/{branch}/use/name")
    ResponseEntity<Answer> name(Workspace.Head head, Person person, @Valid @RequestBody InUse typed) {
        return edit(head, person, typed, (authoring, element) -> authoring.name(element, typed.text()));
    }

    /** Redefines what is on the way to the use, where that is needed, and edits what is at its end. */
    private ResponseEntity<Answer> edit(
            Workspace.Head head, Person person, InUse typed, BiFunction<Authoring, Element, Proposal> propose) {
        List<ElementId> way = head.way(typed.in());
        UseInContext use;
        try {
            use = UseInContext.of(head.model(), way);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return switch (propose.apply(new Authoring(use.model()), use.element())) {
            case Proposal.Rejected(List<TextProblem> problems) ->
                Answer.unprocessable(problems.getFirst().message(), problems);
            case Proposal.Accepted(var edit, String summary) ->
                Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                typed.base(),
                                use.with(edit),
                                person,
                                way.size() == 1 ? summary : summary + ", in " + use.path() + " alone"),
                        "nothing changed");
        };
    }
}
