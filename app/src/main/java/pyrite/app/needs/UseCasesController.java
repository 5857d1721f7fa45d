package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;
import pyrite.core.story.Actors;
import pyrite.core.story.StepRequirements;
import pyrite.core.story.Story;
import pyrite.core.story.StoryChecks;
import pyrite.core.story.UseCaseEditing;
import pyrite.core.story.UseCases;
import pyrite.core.view.ShownView.Form;

/** The use cases of a project as a list and as an overview drawing, and what is said of them beside their stories. */
@Controller
class UseCasesController {
    private final Pages pages;
    private final Workspace workspace;

    UseCasesController(Pages pages, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
    }

    /**
     * @param alternatives the number of ways beside the main story
     * @param uncovered the number of steps without a requirement
     */
    public record Row(
            Element useCase,
            String objective,
            List<Element> actors,
            List<Element> needs,
            int steps,
            int alternatives,
            int uncovered,
            List<String> gaps) {}

    @GetMapping("/p/{project}/{branch}/use-cases")
    String list(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.NEEDS, "Use cases");
        Model model = head.model();
        List<Element> useCases = UseCases.all(model);
        page.addAttribute(
                "rows", useCases.stream().map(each -> row(model, each)).toList());
        page.addAttribute("home", home(model, useCases).orElse(null));
        return "needs/use-cases";
    }

    private static Row row(Model model, Element useCase) {
        Story story = Story.of(model, useCase);
        StepRequirements requirements = new StepRequirements(model);
        String objective = UseCases.objective(model, useCase);
        return new Row(
                useCase,
                objective.isEmpty() ? model.inheritance().documentation(useCase) : objective,
                Actors.all(model, useCase),
                UseCases.needs(model, useCase),
                story.lines().size(),
                story.ways().size() - 1,
                (int) story.lines().stream()
                        .filter(line -> requirements.of(line.step()).isEmpty())
                        .count(),
                StoryChecks.of(model, useCase).stream()
                        .map(StoryChecks.Gap::sentence)
                        .toList());
    }

    /** The package that a new use case is put into: the one with the most of them, else one with needs, else any. */
    private static Optional<Element> home(Model model, List<Element> useCases) {
        Map<Element, Integer> counts = new LinkedHashMap<>();
        useCases.forEach(useCase -> around(model, useCase).ifPresent(owner -> counts.merge(owner, 1, Integer::sum)));
        return counts.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .or(() -> Specification.all(model).stream()
                        .filter(specification -> specification.level().equals("need"))
                        .map(Specification::element)
                        .findFirst())
                .or(() -> model.ownRoots().stream()
                        .filter(root -> root.kind() == ElementKind.PACKAGE)
                        .findFirst());
    }

    private static Optional<Element> around(Model model, Element useCase) {
        return model.owners(useCase).stream()
                .filter(owner -> owner.kind().isPackage())
                .findFirst();
    }

    /** The overview drawing of the use cases in a package; of the one with the most if none is chosen. */
    @GetMapping("/p/{project}/{branch}/use-cases/drawing")
    String drawing(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String of,
            org.springframework.ui.Model page) {
        Model model = head.model();
        List<Element> useCases = UseCases.all(model);
        Element chosen = of.isEmpty() ? home(model, useCases).orElse(null) : head.element(of);
        if (chosen == null) {
            throw new NotFound("there are no use cases to draw yet; add the first on the list of use cases");
        }
        pages.frame(page, head, person, Station.NEEDS, "Use cases · Drawing");
        page.addAttribute("element", chosen);
        page.addAttribute("form", Form.USE_CASES);
        page.addAttribute(
                "packages",
                useCases.stream()
                        .flatMap(useCase -> around(model, useCase).stream())
                        .distinct()
                        .sorted(Comparator.comparing(model.names()::qualifiedName))
                        .toList());
        page.addAttribute("editable", person.mayEdit() && !head.past());
        return "needs/use-cases-drawing";
    }

    record Told(
            @Nullable String owner,
            @NotBlank @Size(max = 2000) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/use-cases/add")
    ResponseEntity<Answer> add(Workspace.Head head, Person person, @Valid @RequestBody Told told) {
        Element owner = told.owner() == null
                ? home(head.model(), UseCases.all(head.model())).orElse(null)
                : head.element(told.owner());
        return owner == null
                ? Answer.unprocessable("a use case stands in a package; add one in Architecture first")
                : commit(head, person, told.base(), () -> new UseCaseEditing(head.model()).add(owner, told.text()));
    }

    /** @param name of a definition */
    record Named(
            @NotNull @Size(max = 200) String name,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/use-case/actor")
    ResponseEntity<Answer> actor(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Named named) {
        Element useCase = head.element(id);
        return commit(head, person, named.base(), () -> new UseCaseEditing(head.model()).actor(useCase, named.name()));
    }

    @PostMapping("/p/{project}/{branch}/element/{id}/use-case/subject")
    ResponseEntity<Answer> subject(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Named named) {
        Element useCase = head.element(id);
        return commit(
                head, person, named.base(), () -> new UseCaseEditing(head.model()).subject(useCase, named.name()));
    }

    record Worded(
            @NotNull @Size(max = 4000) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/use-case/objective")
    ResponseEntity<Answer> objective(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Worded worded) {
        Element useCase = head.element(id);
        return commit(
                head, person, worded.base(), () -> new UseCaseEditing(head.model()).objective(useCase, worded.text()));
    }

    record Framed(
            @NotNull String need,
            boolean frames,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/use-case/need")
    ResponseEntity<Answer> frame(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Framed framed) {
        Element useCase = head.element(id);
        Element need = head.element(framed.need());
        UseCaseEditing editing = new UseCaseEditing(head.model());
        return commit(
                head,
                person,
                framed.base(),
                () -> framed.frames()
                        ? editing.frame(useCase, need)
                        : new UseCaseEditing.Made(
                                editing.unframe(useCase, need),
                                useCase.id(),
                                useCase.name() + " no longer frames " + new Labels(head.model()).tag(need)));
    }

    /** What can be chosen for a use case: definitions by their names, and needs. */
    record Choices(List<String> definitions, List<Need> needs) {}

    record Need(String id, String label, String text) {}

    @GetMapping("/p/{project}/{branch}/use-cases/choices.json")
    @ResponseBody
    Choices choices(Workspace.Head head) {
        Model model = head.model();
        Labels labels = new Labels(model);
        return new Choices(
                model.ownElements(java.util.Set.of(ElementKind.PART_DEFINITION, ElementKind.ITEM_DEFINITION))
                        .map(Element::name)
                        .filter(java.util.Objects::nonNull)
                        .distinct()
                        .sorted()
                        .toList(),
                NeedRows.all(model).stream()
                        .map(need -> new Need(
                                need.id().toString(),
                                labels.full(need),
                                model.inheritance().documentation(need)))
                        .toList());
    }

    private ResponseEntity<Answer> commit(
            Workspace.Head head, Person person, int base, Supplier<UseCaseEditing.Made> act) {
        UseCaseEditing.Made made;
        try {
            made = act.get();
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), base, made.edit(), person, made.summary()),
                "nothing changed",
                List.of(made.element()));
    }
}
