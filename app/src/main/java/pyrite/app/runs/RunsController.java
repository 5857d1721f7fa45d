package pyrite.app.runs;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Happened;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.sequence.SequenceComparison.Difference;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.NotExecuted;

/** The runnable cases, the list of runs, and the page of each run. */
@Controller
class RunsController {
    private static final int SHOWN = 50;
    /** How a step of a replay differs, in words. */
    private static final Map<String, String> DIFFERENCES = Map.of(
            Difference.TIME.name(), "other time",
            Difference.CONTENT.name(), "other content",
            Difference.OUTCOME.name(), "other outcome",
            Difference.MISSING.name(), "missing now",
            Difference.ADDED.name(), "not recorded");

    private static final int SUGGESTED = 3;

    private final Pages pages;
    private final Jobs jobs;
    private final RunStore store;
    private final Verdicts verdicts;

    RunsController(Pages pages, Jobs jobs, RunStore store, Verdicts verdicts) {
        this.pages = pages;
        this.jobs = jobs;
        this.store = store;
        this.verdicts = verdicts;
    }

    /** A case with its newest run, if it ever ran. */
    record Case(
            Element element,
            String name,
            String text,
            boolean verification,
            List<Judged> requirements,
            List<String> notes,
            @Nullable RunRecord newest) {}

    /** A requirement that a case verifies, with the worst verdict of this case. */
    record Judged(Element requirement, @Nullable VerdictView verdict) {
        static Judged of(Element requirement, Element usage, List<VerdictView> views) {
            return new Judged(
                    requirement,
                    views.stream()
                            .filter(view -> usage.id().equals(view.caseId()) || view.isFromModelAlone())
                            .findFirst()
                            .orElse(null));
        }
    }

    @GetMapping("/p/{project}/{branch}/runs")
    String list(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.RUNS, "Runs");
        Map<ElementId, RunRecord> newest = store.newestOfEachCase(head.branch());
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        Model model = head.model();
        page.addAttribute(
                "cases",
                model.ownElements().stream()
                        .filter(e -> CaseSetup.isRunnable(model, e))
                        .map(e -> new Case(
                                e,
                                model.names().qualifiedName(e),
                                model.inheritance().documentation(e),
                                e.kind() == ElementKind.VERIFICATION,
                                CaseSetup.requirements(model, e).stream()
                                        .map(each -> Judged.of(each, e, judged.getOrDefault(each.id(), List.of())))
                                        .toList(),
                                NotExecuted.by(model, e),
                                newest.get(e.id())))
                        .sorted(Comparator.comparing((Case c) -> !c.verification())
                                .thenComparing(Case::name))
                        .toList());
        page.addAttribute("runs", store.newest(head.branch(), SHOWN));
        return "runs/list";
    }

    /** Where all happens at one instant, the series say more than the timeline. */
    private static boolean takesTime(EventLog log) {
        return log.size() > 0 && log.get(0).time() < log.get(log.size() - 1).time();
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}")
    String show(Workspace.Head head, Person person, @PathVariable long id, org.springframework.ui.Model page) {
        RunRecord run = find(head, id);
        pages.frame(page, head, person, Station.RUNS, "Run " + id);
        page.addAttribute("run", run);
        page.addAttribute(
                "element", head.model().find(ElementId.of(run.caseId())).orElse(null));
        page.addAttribute(
                "notes",
                head.model()
                        .find(ElementId.of(run.caseId()))
                        .map(usage -> NotExecuted.by(head.model(), usage))
                        .orElse(List.of()));
        Happened happened = store.happened(id).orElse(null);
        var names = store.seriesNames(id);
        boolean hasSeries = !names.isEmpty();
        page.addAttribute("hasSeries", hasSeries && run.status() == RunRecord.Status.DONE);
        page.addAttribute("happensInTime", happened != null && takesTime(happened.log()));
        page.addAttribute("pruned", run.status() == RunRecord.Status.DONE && !hasSeries && happened == null);
        page.addAttribute("eventKinds", EventLog.Kind.values());
        page.addAttribute("happened", happened);
        page.addAttribute("noticed", happened == null ? List.of() : Noticed.in(happened.log()));
        page.addAttribute("statistics", store.statistics(id));
        page.addAttribute("compared", store.compared(id).orElse(null));
        page.addAttribute("differences", DIFFERENCES);
        page.addAttribute("before", store.before(run).orElse(null));
        page.addAttribute("fraction", jobs.progress(id).orElse(0));
        Map<ElementId, List<VerdictView>> judged = verdicts.ofRun(head, id);
        page.addAttribute("judged", judged);
        List<String> suggested = judged.values().stream()
                .flatMap(List::stream)
                .map(VerdictView::stored)
                .filter(Objects::nonNull)
                .flatMap(stored -> store.plot(id, stored).traces().stream())
                .map(trace -> trace.label())
                .distinct()
                .limit(SUGGESTED)
                .toList();
        page.addAttribute("suggested", String.join("|", suggested));
        page.addAttribute(
                "panels",
                names.stream()
                        .filter(name -> suggested.contains(name.path()))
                        .map(name -> name.unit())
                        .distinct()
                        .count());
        return "runs/run";
    }

    /** The address of a started run. */
    record Started(long id, String address) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/start")
    @ResponseBody
    ResponseEntity<Started> start(Workspace.Head head, Person person, @PathVariable String id) {
        Element usage = head.element(id);
        if (!CaseSetup.isRunnable(head.model(), usage)) {
            throw new NotFound("this is no case that can be run");
        }
        long run = jobs.start(head, usage, person);
        return ResponseEntity.status(HttpStatus.CREATED).body(new Started(run, head.address("runs/" + run)));
    }

    /** Starts every verification; they are watched on the page of all runs. */
    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Run all verification cases; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/verify-all", ApiAddress.BRANCH + "/verify-all"})
    @ResponseBody
    ResponseEntity<List<Started>> verifyAll(Workspace.Head head, Person person) {
        Model model = head.model();
        List<Element> cases = model.ownElements(ElementKind.VERIFICATION)
                .filter(e -> CaseSetup.isRunnable(model, e))
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
        List<Started> started = jobs.start(head, cases, person).stream()
                .map(run -> new Started(run, head.address("runs/" + run)))
                .toList();
        return ResponseEntity.status(HttpStatus.CREATED).body(started);
    }

    @PostMapping("/p/{project}/{branch}/runs/{id}/cancel")
    @ResponseBody
    ResponseEntity<Void> cancel(Workspace.Head head, @PathVariable long id) {
        find(head, id);
        jobs.cancel(id);
        return ResponseEntity.accepted().build();
    }

    private RunRecord find(Workspace.Head head, long id) {
        return store.find(head.branch(), id)
                .orElseThrow(() -> new NotFound("there is no run " + id + " on this branch"));
    }
}
