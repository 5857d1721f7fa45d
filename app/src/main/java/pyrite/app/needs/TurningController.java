package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.story.Actors;
import pyrite.core.story.StateSketch;
import pyrite.core.story.Story;
import pyrite.core.story.StoryFlows;
import pyrite.core.story.Turning;

/** Turns the steps of a story into events, functions and messages, and makes a first state machine of them. */
@RestController
class TurningController {
    private static final int MOST_AT_ONCE = 200;

    private final Workspace workspace;

    TurningController(Workspace workspace) {
        this.workspace = workspace;
    }

    /**
     * @param functions the names of the functions there are
     * @param items the names of the items there are
     */
    record Offers(List<Offer> steps, List<Actor> actors, List<String> functions, List<String> items) {}

    record Actor(String id, String name) {}

    /** @param alike the names of functions that do much the same */
    record Offer(
            String step,
            String label,
            String text,
            String kind,
            String name,
            @Nullable String actor,
            List<String> alike) {}

    private static Element useCase(Workspace.Head head, String id) {
        Element useCase = head.element(id);
        if (!Story.isToldOf(useCase.kind())) {
            throw new NotFound("the steps of a use case are turned, and " + new Labels(head.model()).name(useCase)
                    + " is " + useCase.kind().titleWithArticle());
        }
        return useCase;
    }

    /** @param steps the ids of steps; empty for all that are not turned yet */
    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/story/turning.json")
    Offers offers(Workspace.Head head, @PathVariable String id, @RequestParam(defaultValue = "") Set<String> steps) {
        Model model = head.model();
        Element useCase = useCase(head, id);
        Labels labels = new Labels(model);
        Story story = Story.of(model, useCase);
        return new Offers(
                new Turning(model, useCase)
                        .proposals().stream()
                                .filter(each -> steps.isEmpty()
                                        || steps.contains(each.step().id().toString()))
                                .limit(MOST_AT_ONCE)
                                .map(each -> offer(model, story, each))
                                .toList(),
                Actors.all(model, useCase).stream()
                        .map(actor -> new Actor(actor.id().toString(), labels.name(actor)))
                        .toList(),
                names(model, ElementKind.ACTION_DEFINITION),
                names(model, ElementKind.ITEM_DEFINITION));
    }

    private static Offer offer(Model model, Story story, Turning.Proposal proposal) {
        Story.Line line = story.lines().stream()
                .filter(each -> each.step().equals(proposal.step()))
                .findFirst()
                .orElseThrow();
        return new Offer(
                proposal.step().id().toString(),
                line.label(),
                line.text(),
                proposal.kind().name(),
                proposal.name(),
                proposal.actor() == null ? null : proposal.actor().id().toString(),
                proposal.functions().stream()
                        .map(function -> new Labels(model).name(function))
                        .toList());
    }

    private static List<String> names(Model model, ElementKind kind) {
        return model.ownElements(kind)
                .map(Element::name)
                .filter(Objects::nonNull)
                .distinct()
                .sorted()
                .toList();
    }

    record Choice(
            @NotNull String step,
            @NotNull Turning.Kind kind,
            @NotNull @Size(max = 200) String name,
            @Nullable String actor) {}

    record Choices(
            @NotEmpty @Size(max = MOST_AT_ONCE) List<@Valid Choice> choices,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/turn")
    ResponseEntity<Answer> turn(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Choices asked) {
        Element useCase = useCase(head, id);
        List<Turning.Choice> choices = new ArrayList<>();
        asked.choices()
                .forEach(choice -> choices.add(new Turning.Choice(
                        head.element(choice.step()),
                        choice.kind(),
                        choice.name(),
                        choice.actor() == null || choice.kind() == Turning.Kind.FUNCTION
                                ? null
                                : head.element(choice.actor()))));
        Edit edit;
        try {
            edit = new Turning(head.model(), useCase).turn(choices);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        int count = choices.size();
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        asked.base(),
                        edit,
                        person,
                        count == 1
                                ? "step " + choices.getFirst().step().name() + " turned: it "
                                        + choices.getFirst().kind().verb() + " "
                                        + choices.getFirst().name()
                                : count + " steps of " + useCase.name() + " turned"),
                "nothing changed");
    }

    /** @param words what the function takes or gives */
    record Flow(String event, String function, String words, String step) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/story/flows.json")
    List<Flow> flows(Workspace.Head head, @PathVariable String id) {
        Model model = head.model();
        return new StoryFlows(model, useCase(head, id))
                .proposals().stream()
                        .limit(MOST_AT_ONCE)
                        .map(flow -> new Flow(
                                flow.event().id().toString(),
                                flow.function().id().toString(),
                                flow.definition().name()
                                        + (flow.isIn() ? " takes " : " gives ")
                                        + flow.item().name(),
                                model.inheritance().documentation(flow.event())))
                        .toList();
    }

    record Chosen(@NotNull String event, @NotNull String function) {}

    record Flows(
            @NotEmpty @Size(max = MOST_AT_ONCE) List<@Valid Chosen> flows,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/flows")
    ResponseEntity<Answer> make(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Flows asked) {
        Element useCase = useCase(head, id);
        StoryFlows flows = new StoryFlows(head.model(), useCase);
        List<StoryFlows.Proposal> chosen = flows.proposals().stream()
                .filter(flow -> asked.flows()
                        .contains(new Chosen(
                                flow.event().id().toString(),
                                flow.function().id().toString())))
                .toList();
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        asked.base(),
                        flows.make(chosen),
                        person,
                        chosen.size() + (chosen.size() == 1 ? " flow" : " flows") + " of " + useCase.name() + " made"),
                "these flows are there already");
    }

    record At(@PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/states")
    ResponseEntity<Answer> states(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody At at) {
        StateSketch.Made made;
        try {
            made = StateSketch.of(head.model(), useCase(head, id));
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), at.base(), made.edit(), person, made.summary()),
                made.summary(),
                List.of(made.machine()));
    }
}
