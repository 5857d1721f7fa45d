package pyrite.app.requirements;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Positive;
import jakarta.validation.constraints.Size;
import java.time.InstantSource;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Baseline;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.BranchStore;
import pyrite.app.store.BranchStore.Entry;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.view.SpecificationDifference;

/** Baselines, which are named revisions, and the comparison of a specification between two revisions. */
@Controller
class BaselinesController {
    private final Pages pages;
    private final Workspace workspace;
    private final BaselineMapper baselines;
    private final BranchStore branches;
    private final InstantSource clock;

    BaselinesController(
            Pages pages, Workspace workspace, BaselineMapper baselines, BranchStore branches, InstantSource clock) {
        this.pages = pages;
        this.workspace = workspace;
        this.baselines = baselines;
        this.branches = branches;
        this.clock = clock;
    }

    /** @param from a revision's number; by default the newest baseline */
    @Costly
    @GetMapping("/p/{project}/{branch}/baselines")
    String baselines(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String spec,
            @RequestParam(required = false) Integer from,
            @RequestParam(required = false) Integer to,
            @RequestParam(defaultValue = "") String as,
            HttpServletResponse response,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Baselines");
        List<Baseline> all = baselines.of(head.branch().id());
        List<RequirementsController.Choice> specifications = RequirementsController.choices(head.model());
        int first = from != null
                ? from
                : all.stream().findFirst().map(Baseline::number).orElse(1);
        int second = to != null ? to : head.number();
        String chosen = !spec.isEmpty()
                ? spec
                : specifications.stream()
                        .findFirst()
                        .map(RequirementsController.Choice::id)
                        .orElse("");
        page.addAttribute("baselines", all);
        page.addAttribute("specifications", specifications);
        page.addAttribute("spec", chosen);
        page.addAttribute("from", first);
        page.addAttribute("to", second);
        page.addAttribute("nameOf", new Names(all));
        if (!chosen.isEmpty() && head.number() > 0) {
            Model then = workspace.at(head, first);
            Model now = workspace.at(head, second);
            ElementId id = parsed(chosen);
            page.addAttribute(
                    "title",
                    now.find(id)
                            .or(() -> then.find(id))
                            .map(element -> Objects.requireNonNullElse(element.name(), ""))
                            .orElse(""));
            SpecificationDifference difference = SpecificationDifference.of(then, now, id);
            page.addAttribute("difference", difference);
            List<ElementId> lines = difference.lines().stream()
                    .map(SpecificationDifference.Line::id)
                    .toList();
            page.addAttribute("changedBy", changedBy(head, then, now, lines, first, second));
        }
        if (as.equals("file")) {
            response.setHeader(
                    "Content-Disposition", "attachment; filename=\"comparison-r" + first + "-r" + second + ".html\"");
            return "requirements/comparison";
        }
        return "requirements/baselines";
    }

    private static ElementId parsed(String text) {
        try {
            return ElementId.parse(text);
        } catch (IllegalArgumentException _) {
            throw new NotFound("'" + text + "' is no element's id");
        }
    }

    /** The label of a revision: its baseline, or its number. */
    public record Names(List<Baseline> baselines) {
        public String of(int number) {
            return baselines.stream()
                    .filter(each -> each.number() == number)
                    .findFirst()
                    .map(each -> each.name() + " (r" + number + ")")
                    .orElse("r" + number);
        }
    }

    /** Who changed each line last between two revisions, and when. */
    private Map<ElementId, Entry> changedBy(
            Workspace.Head head, Model then, Model now, List<ElementId> lines, int first, int second) {
        Map<ElementId, Set<ElementId>> parts = new HashMap<>();
        for (ElementId line : lines) {
            Set<ElementId> all = new HashSet<>(SpecificationDifference.parts(then, line));
            all.addAll(SpecificationDifference.parts(now, line));
            parts.put(line, all);
        }
        Map<ElementId, Entry> last = branches.lastChanges(
                head.branch(),
                parts.values().stream().flatMap(Set::stream).collect(Collectors.toSet()),
                Math.min(first, second),
                Math.max(first, second));
        Map<ElementId, Entry> changedBy = new HashMap<>();
        parts.forEach((line, all) -> all.stream()
                .map(last::get)
                .filter(Objects::nonNull)
                .max(Comparator.comparingInt(entry -> entry.revision().number()))
                .ifPresent(entry -> changedBy.put(line, entry)));
        return changedBy;
    }

    record Named(
            @Positive int number,
            @NotBlank @Size(max = 200) String name,
            @NotNull @Size(max = 2000) String note) {}

    @PostMapping("/p/{project}/{branch}/baselines")
    @ResponseBody
    ResponseEntity<Answer> name(Workspace.Head head, Person person, @Valid @RequestBody Named named) {
        if (named.number() > head.number()) {
            return Answer.unprocessable(
                    "there is no revision r" + named.number() + " yet; the newest is r" + head.number());
        }
        try {
            baselines.add(
                    head.branch().id(),
                    named.number(),
                    named.name().strip(),
                    named.note().strip(),
                    person.id(),
                    clock.instant());
        } catch (DuplicateKeyException _) {
            return Answer.unprocessable(
                    "there is a baseline called " + named.name().strip() + " already");
        }
        // No revision comes of it, and so there is none to undo.
        return ResponseEntity.ok(new Answer(
                true,
                "",
                "r" + named.number() + " is the baseline " + named.name().strip(),
                List.of(),
                List.of()));
    }

    @PostMapping("/p/{project}/{branch}/baselines/{id}/remove")
    @ResponseBody
    ResponseEntity<Answer> remove(Workspace.Head head, @PathVariable long id) {
        return baselines.remove(head.branch().id(), id) == 1
                ? ResponseEntity.ok(new Answer(true, "", "baseline removed; its revision stays", List.of(), List.of()))
                : Answer.unprocessable("there is no such baseline");
    }
}
