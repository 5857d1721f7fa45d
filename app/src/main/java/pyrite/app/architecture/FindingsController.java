package pyrite.app.architecture;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.finding.Finding;
import pyrite.core.finding.Findings;
import pyrite.core.finding.Mends;
import pyrite.core.finding.Rule;
import pyrite.core.function.FunctionPaths;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.reuse.LibraryGuard;
import pyrite.core.reuse.UsedLibrary;
import pyrite.core.specification.Waivers;
import pyrite.core.verification.VerdictKind;
import pyrite.core.view.ShownView;

/** What a check of the model noticed: listed, mended with one click, or waived with a reason. */
@Controller
class FindingsController {
    private static final int MOST_ROWS = 100;

    private final Pages pages;
    private final Verdicts verdicts;
    private final Workspace workspace;

    FindingsController(Pages pages, Verdicts verdicts, Workspace workspace) {
        this.pages = pages;
        this.verdicts = verdicts;
        this.workspace = workspace;
    }

    /**
     * A finding as the page shows it.
     *
     * @param place what the element stands in; null at the top
     * @param drawing the address of the drawing that shows it; null if there is none
     * @param waived the reason; null if it counts
     */
    public record Row(
            Finding finding,
            Element element,
            @Nullable Element place,
            @Nullable String drawing,
            List<Mends.Mend> mends,
            @Nullable String waived) {}

    /** How many findings of a rule count. */
    public record Choice(Rule rule, long count) {}

    private record Known(Finding finding, @Nullable String waived) {
        boolean counts() {
            return waived == null;
        }
    }

    @Costly
    @GetMapping("/p/{project}/{branch}/findings")
    String findings(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String rule,
            @RequestParam(defaultValue = "false") boolean waived,
            org.springframework.ui.Model page) {
        Rule chosen = Rule.of(rule).orElse(null);
        List<Known> all = all(head);
        List<Known> shown = all.stream()
                .filter(known -> known.counts() != waived
                        && (chosen == null || known.finding().rule() == chosen))
                .toList();
        pages.frame(page, head, person, Station.ARCHITECTURE, "Findings");
        page.addAttribute("rows", rows(head.model(), shown));
        page.addAttribute("total", shown.size());
        page.addAttribute("open", all.stream().filter(Known::counts).count());
        page.addAttribute(
                "waivedCount", all.stream().filter(known -> !known.counts()).count());
        page.addAttribute("choices", choices(all, waived));
        page.addAttribute("chosen", chosen);
        page.addAttribute("isWaived", waived);
        page.addAttribute("rules", Rule.values());
        return "architecture/findings";
    }

    private static List<Choice> choices(List<Known> all, boolean waived) {
        return Stream.of(Rule.values())
                .map(rule -> new Choice(
                        rule,
                        all.stream()
                                .filter(known -> known.counts() != waived
                                        && known.finding().rule() == rule)
                                .count()))
                .filter(choice -> choice.count() > 0)
                .toList();
    }

    private List<Known> all(Workspace.Head head) {
        Model model = head.model();
        return Stream.of(Findings.in(model).all(model), brokenPaths(model), breached(head))
                .flatMap(List::stream)
                // What comes from another project is mended there.
                .filter(finding ->
                        UsedLibrary.around(model, model.get(finding.element())).isEmpty())
                .map(finding -> new Known(
                        finding, Waivers.of(model, model.get(finding.element())).get(finding.key())))
                .toList();
    }

    private static List<Finding> brokenPaths(Model model) {
        return new FunctionPaths(model)
                .all().stream()
                        .flatMap(path -> path.faults().stream()
                                .map(fault -> new Finding(
                                        Rule.BROKEN_PATH,
                                        path.path().id(),
                                        fault,
                                        new Labels(model).name(path.path()) + ": " + fault)))
                        .toList();
    }

    /** Requirements that fail by values that no run has to find out. */
    private List<Finding> breached(Workspace.Head head) {
        List<Finding> found = new ArrayList<>();
        verdicts.all(head)
                .forEach((requirement, views) -> views.stream()
                        .filter(view -> view.run() == null && view.kind() == VerdictKind.FAIL)
                        .forEach(view -> found.add(limit(head.model(), requirement, view))));
        Labels labels = new Labels(head.model());
        found.sort(Comparator.comparing(finding -> labels.full(head.model().get(finding.element()))));
        return found;
    }

    private static Finding limit(Model model, ElementId requirement, VerdictView view) {
        return new Finding(
                Rule.LIMIT,
                requirement,
                view.subject(),
                new Labels(model).full(model.get(requirement)) + ": " + view.subject() + " has " + view.reason());
    }

    /** What would mend what was found at one element, by the key of the finding. */
    static Map<String, List<Mends.Mend>> mends(Model model, Element element) {
        return Findings.in(model).of(element.id()).stream()
                .collect(Collectors.toMap(Finding::key, finding -> mends(model, finding), (one, _) -> one));
    }

    private static List<Mends.Mend> mends(Model model, Finding finding) {
        return Mends.of(
                model,
                finding,
                (before, applied) -> LibraryGuard.check(before, applied.model(), applied.difference())
                        .isEmpty());
    }

    private static List<Row> rows(Model model, List<Known> shown) {
        return shown.stream()
                .limit(MOST_ROWS)
                .map(known -> row(model, known.finding(), known.waived()))
                .toList();
    }

    private static Row row(Model model, Finding finding, @Nullable String waived) {
        Element element = model.get(finding.element());
        Element place = element.owner() == null ? null : model.get(element.owner());
        return new Row(
                finding,
                element,
                place,
                drawing(element, place),
                waived == null ? mends(model, finding) : List.of(),
                waived);
    }

    private static @Nullable String drawing(Element element, @Nullable Element place) {
        if (ShownView.hasStates(element)) {
            return "element/" + element.id() + "/states";
        }
        if (ShownView.hasSteps(element)) {
            return "element/" + element.id() + "/flow";
        }
        return place != null && !place.kind().isPackage() && ShownView.hasInside(place)
                ? "element/" + place.id() + "/inside"
                : null;
    }

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "What the check of the model noticed, as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/findings/export.csv", ApiAddress.BRANCH + "/findings/export.csv"})
    void export(Workspace.Head head, HttpServletResponse response) throws IOException {
        Labels labels = new Labels(head.model());
        List<List<String>> rows = new ArrayList<>(List.of(List.of("rule", "at", "finding", "waived because")));
        all(head)
                .forEach(known -> rows.add(List.of(
                        known.finding().rule().title(),
                        head.model()
                                .names()
                                .qualifiedName(head.model().get(known.finding().element())),
                        known.finding().sentence(),
                        known.waived() == null ? "" : known.waived())));
        Downloads.csv(response, "findings", head, rows);
    }

    record Chosen(
            @NotNull String element,
            @NotBlank @Size(max = 500) String key,
            @NotBlank @Size(max = 500) String label,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/findings/mend")
    ResponseEntity<Answer> mend(Workspace.Head head, Person person, @Valid @RequestBody Chosen chosen) {
        Element element = head.element(chosen.element());
        Finding finding = Findings.find(head.model(), element, chosen.key()).orElse(null);
        if (finding == null) {
            return Answer.unprocessable("this is no longer so; the list shows what there is now");
        }
        Optional<Mends.Mend> mend = mends(head.model(), finding).stream()
                .filter(each -> each.label().equals(chosen.label()))
                .findFirst();
        return mend.isEmpty()
                ? Answer.unprocessable("'" + chosen.label() + "' would no longer mend it; the list shows what would")
                : Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                chosen.base(),
                                mend.get().edit(),
                                person,
                                mend.get().label() + ": "
                                        + finding.rule().title().toLowerCase(Locale.ROOT) + " mended at "
                                        + new Labels(head.model()).name(element)),
                        "nothing changed");
    }

    record Waived(
            @NotNull String element,
            @NotBlank @Size(max = 500) String key,
            @NotNull @Size(max = 2000) String reason,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/findings/waive")
    ResponseEntity<Answer> waive(Workspace.Head head, Person person, @Valid @RequestBody Waived waived) {
        Element element = head.element(waived.element());
        boolean isKnown = all(head).stream()
                .map(Known::finding)
                .anyMatch(finding ->
                        finding.element().equals(element.id()) && finding.key().equals(waived.key()));
        if (!isKnown) {
            return Answer.unprocessable("this is no longer so; the list shows what there is now");
        }
        String name = new Labels(head.model()).name(element);
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        waived.base(),
                        Waivers.put(head.model(), element, waived.key(), waived.reason()),
                        person,
                        waived.reason().isBlank()
                                ? "finding at " + name + " counts again"
                                : "finding at " + name + " waived: "
                                        + waived.reason().strip()),
                "nothing changed");
    }
}
