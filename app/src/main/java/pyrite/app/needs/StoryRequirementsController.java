package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.requirements.NewIds;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;
import pyrite.core.story.ProposedRequirement;
import pyrite.core.story.SimilarTexts;
import pyrite.core.story.StepRequirements;
import pyrite.core.story.Story;

/** Makes requirements from the steps of a story, and links those there are to steps. */
@RestController
class StoryRequirementsController {
    private static final int MOST_SIMILAR = 3;
    private static final int MOST_AT_ONCE = 200;

    private final Workspace workspace;
    private final NewIds newIds;

    StoryRequirementsController(Workspace workspace, NewIds newIds) {
        this.workspace = workspace;
        this.newIds = newIds;
    }

    /** Where requirements can be put, and what they could be. */
    record Proposals(List<Place> specifications, List<Proposal> proposals) {}

    record Place(String id, String label) {}

    record Proposal(String step, String label, String text, String proposed, List<Similar> similar) {}

    record Similar(String id, String label, String text, int percent) {}

    /** @param steps the ids of steps; empty for all that have no requirement */
    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/story/proposals.json")
    Proposals proposals(
            Workspace.Head head, @PathVariable String id, @RequestParam(defaultValue = "") Set<String> steps) {
        Model model = head.model();
        StepRequirements requirements = new StepRequirements(model);
        SimilarTexts texts = SimilarTexts.in(model);
        Labels labels = new Labels(model);
        return new Proposals(
                Specification.all(model).stream()
                        .filter(specification -> !specification.level().equals("need"))
                        .filter(specification ->
                                !model.isLibrary(specification.element().id()))
                        .map(specification -> new Place(
                                specification.element().id().toString(),
                                labels.name(specification.element())
                                        + (specification.prefix().isEmpty()
                                                ? ""
                                                : " (" + specification.prefix() + "-…)")))
                        .toList(),
                Story.of(model, head.element(id)).lines().stream()
                        .filter(line -> steps.isEmpty()
                                ? requirements.of(line.step()).isEmpty()
                                : steps.contains(line.step().id().toString()))
                        .limit(MOST_AT_ONCE)
                        .map(line -> new Proposal(
                                line.step().id().toString(),
                                line.label(),
                                line.text(),
                                ProposedRequirement.of(line.text()),
                                texts.to(line.text(), MOST_SIMILAR).stream()
                                        .map(match -> new Similar(
                                                match.element().id().toString(),
                                                labels.tag(match.element()),
                                                match.text(),
                                                (int) Math.round(100 * match.similarity())))
                                        .toList()))
                        .toList());
    }

    /** @param existing the requirement that is linked; null for a new one with the text */
    record Wish(
            @NotNull String step,
            @NotNull @Size(max = 4000) String text,
            @Nullable String existing) {}

    record Wishes(
            @Nullable String specification,
            @NotEmpty @Size(max = MOST_AT_ONCE) List<@Valid Wish> wishes,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/story/requirements")
    ResponseEntity<Answer> make(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Wishes asked) {
        Model model = head.model();
        List<Wish> fresh =
                asked.wishes().stream().filter(wish -> wish.existing() == null).toList();
        String specification = asked.specification();
        if (!fresh.isEmpty() && specification == null) {
            return Answer.unprocessable("choose the specification that new requirements are put into");
        }
        if (fresh.stream().anyMatch(wish -> wish.text().isBlank())) {
            return Answer.unprocessable("a new requirement needs a text");
        }
        StepRequirements requirements = new StepRequirements(model);
        List<Edit> edits = new ArrayList<>();
        try {
            if (specification != null && !fresh.isEmpty()) {
                edits.add(requirements.make(head.element(specification), numbered(head, specification, fresh)));
            }
            asked.wishes().stream()
                    .filter(wish -> wish.existing() != null)
                    .collect(Collectors.groupingBy(Wish::existing, java.util.LinkedHashMap::new, Collectors.toList()))
                    .forEach((existing, wishes) -> edits.add(requirements.link(
                            head.element(existing),
                            wishes.stream()
                                    .map(wish -> head.element(wish.step()))
                                    .toList())));
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        int linked = asked.wishes().size() - fresh.size();
        return commit(head, person, asked.base(), Edit.joined(edits), summary(fresh.size(), linked));
    }

    private List<StepRequirements.Wish> numbered(Workspace.Head head, String specification, List<Wish> fresh) {
        List<String> ids = newIds.take(head, head.element(specification), fresh.size());
        List<StepRequirements.Wish> numbered = new ArrayList<>();
        for (int i = 0; i < fresh.size(); i++) {
            numbered.add(new StepRequirements.Wish(
                    ids.get(i),
                    fresh.get(i).text(),
                    List.of(head.element(fresh.get(i).step()))));
        }
        return numbered;
    }

    private static String summary(int made, int linked) {
        String first = made == 0 ? "" : made + (made == 1 ? " requirement" : " requirements") + " made from steps";
        String second = linked == 0 ? "" : linked + (linked == 1 ? " step" : " steps") + " linked to requirements";
        return first + (made > 0 && linked > 0 ? ", " : "") + second;
    }

    record Linked(
            @NotBlank String step,
            @NotBlank String requirement,
            boolean linked,
            @PositiveOrZero int base) {}

    /** Links one requirement to one step, or takes the link away. */
    @PostMapping("/p/{project}/{branch}/element/{id}/story/link")
    ResponseEntity<Answer> link(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Linked asked) {
        Element step = head.element(asked.step());
        Element requirement = head.element(asked.requirement());
        StepRequirements requirements = new StepRequirements(head.model());
        if (!Specification.isRequirement(requirement)) {
            return Answer.unprocessable("only a requirement can be linked to a step this way, and this is "
                    + requirement.kind().titleWithArticle());
        }
        if (asked.linked() == requirements.of(step).contains(requirement)) {
            return Answer.unprocessable(asked.linked() ? "the two are linked already" : "the two are no longer linked");
        }
        Edit edit;
        try {
            edit = asked.linked()
                    ? requirements.link(requirement, List.of(step))
                    : requirements.unlink(requirement.id(), step);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        Labels labels = new Labels(head.model());
        return commit(
                head,
                person,
                asked.base(),
                edit,
                labels.tag(requirement)
                        + (asked.linked() ? " linked to step " : " no longer linked to step ")
                        + labels.name(step));
    }

    private ResponseEntity<Answer> commit(Workspace.Head head, Person person, int base, Edit edit, String summary) {
        return Answer.of(
                head,
                workspace.commit(head.branch(), base, edit, person, summary),
                "nothing changed",
                List.<ElementId>of());
    }
}
