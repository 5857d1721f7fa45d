package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.requirements.NewIds;
import pyrite.app.requirements.RequirementRows;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.story.UseCaseEditing;

@Controller
class NeedsController {
    private static final int MOST_ROWS = 200;

    private final Pages pages;
    private final RequirementRows requirements;
    private final Workspace workspace;
    private final NewIds newIds;

    NeedsController(Pages pages, RequirementRows requirements, Workspace workspace, NewIds newIds) {
        this.pages = pages;
        this.requirements = requirements;
        this.workspace = workspace;
        this.newIds = newIds;
    }

    @GetMapping("/p/{project}/{branch}/needs")
    String list(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "0") int from,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.NEEDS, "Needs");
        List<NeedRows.Row> rows = NeedRows.of(head.model(), requirements.of(head));
        int first = Math.max(0, Math.min(from, Math.max(0, rows.size() - 1)));
        page.addAttribute("total", rows.size());
        page.addAttribute("from", first);
        page.addAttribute("most", MOST_ROWS);
        page.addAttribute("rows", rows.subList(first, Math.min(rows.size(), first + MOST_ROWS)));
        page.addAttribute("homes", homes(head.model()));
        return "needs/list";
    }

    /** Where a new need may stand: specifications of needs first, then packages that hold needs, then all others. */
    private static List<Element> homes(Model model) {
        List<Element> packages = model.ownElements(ElementKind.PACKAGE)
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
        return Stream.of(
                        Specification.all(model).stream()
                                .filter(specification -> specification.level().equals("need"))
                                .map(Specification::element),
                        packages.stream()
                                .filter(each -> model.children(each.id()).stream()
                                        .anyMatch(child -> child.kind().isNeed())),
                        packages.stream())
                .flatMap(each -> each)
                .distinct()
                .toList();
    }

    /** @param wantedBy the name of a definition; empty for nobody yet */
    record NewNeed(
            @NotBlank String home,
            @NotBlank @Size(max = 4000) String text,
            @NotNull @Size(max = 200) String wantedBy,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/needs/add")
    ResponseEntity<Answer> add(Workspace.Head head, Person person, @Valid @RequestBody NewNeed wanted) {
        Element home = head.element(wanted.home());
        String id = newIds.take(head, home, 1).getFirst();
        List<Element> need =
                new Structuring(head.model()).need(home, id, wanted.text().strip());
        Edit edit = new Edit(need, Set.of());
        try {
            if (!wanted.wantedBy().isBlank()
                    && head.model().apply(edit) instanceof EditResult.Applied(Model after, var _)) {
                Edit more = new UseCaseEditing(after)
                        .stakeholder(after.get(need.getFirst().id()), wanted.wantedBy())
                        .edit();
                edit = new Edit(
                        Stream.concat(need.stream(), more.put().stream()).toList(), Set.of());
            }
        } catch (IllegalArgumentException refusal) {
            return Answer.unprocessable(refusal);
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), wanted.base(), edit, person, "need " + id + " added"),
                "nothing changed",
                List.of(need.getFirst().id()));
    }

    /** @param name of a definition */
    record Named(
            @NotBlank @Size(max = 200) String name,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/stakeholder")
    ResponseEntity<Answer> stakeholder(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Named named) {
        Element need = head.element(id);
        try {
            UseCaseEditing.Made made = new UseCaseEditing(head.model()).stakeholder(need, named.name());
            return Answer.of(
                    head,
                    workspace.commit(head.branch(), named.base(), made.edit(), person, made.summary()),
                    "nothing changed");
        } catch (IllegalArgumentException refusal) {
            return Answer.unprocessable(refusal);
        }
    }
}
