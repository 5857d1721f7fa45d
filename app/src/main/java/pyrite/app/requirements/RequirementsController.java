package pyrite.app.requirements;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.trace.TraceThread;

/** The list of all requirements with what satisfies and verifies them. */
@Controller
class RequirementsController {
    private final Pages pages;
    private final Verdicts verdicts;

    RequirementsController(Pages pages, Verdicts verdicts) {
        this.pages = pages;
        this.verdicts = verdicts;
    }

    /** One row of the list. */
    record Row(Element element, String id, String text, List<Element> satisfiedBy, List<Element> verifiedBy,
            List<VerdictView> verdicts) {
    }

    /** How many requirements stand how, for the heading. */
    record Counts(int all, long passing, long failing, long stale, long open) {
        static Counts of(List<Row> rows) {
            return new Counts(rows.size(), rows.stream().filter(r -> first(r, "pass")).count(),
                    rows.stream().filter(r -> first(r, "fail") || first(r, "error")).count(),
                    rows.stream().filter(r -> r.verdicts().stream().anyMatch(VerdictView::stale)).count(),
                    rows.stream().filter(r -> r.verdicts().isEmpty() || first(r, "inconclusive")).count());
        }

        private static boolean first(Row row, String word) {
            return !row.verdicts().isEmpty() && row.verdicts().getFirst().mark().equals(word);
        }
    }

    @GetMapping("/p/{project}/{branch}/requirements")
    String list(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Requirements");
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        List<Row> rows = head.model().ownElements().stream().filter(e -> e.kind() == ElementKind.REQUIREMENT)
                .map(e -> row(head.model(), e, judged.getOrDefault(e.id(), List.of())))
                .sorted(Comparator.comparing(Row::id, Comparator.comparing(String::length).thenComparing(Comparator.naturalOrder()))).toList();
        page.addAttribute("rows", rows);
        page.addAttribute("counts", Counts.of(rows));
        page.addAttribute("packages", head.model().ownRoots());
        return "requirements/list";
    }

    private static Row row(Model model, Element requirement, List<VerdictView> judged) {
        TraceThread thread = TraceThread.of(model, requirement);
        return new Row(requirement, RequirementIds.of(model, requirement), model.inheritance().documentation(requirement),
                related(thread, "satisfied by"), related(thread, "verified by"), judged);
    }

    private static List<Element> related(TraceThread thread, String relation) {
        return thread.below().stream().filter(entry -> entry.relation().equals(relation)).map(TraceThread.Entry::element).toList();
    }
}
