package pyrite.app.runs;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Happened;
import pyrite.core.execution.Subject;
import pyrite.core.execution.TimelineComparison;
import pyrite.core.model.ElementId;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.RunComparison;

/** Compares runs: their series in one plot, and the differences of their inputs and verdicts. */
@Controller
class ComparisonController {
    private static final int MOST_RUNS = 6;
    private static final int MOST_SERIES = 20;
    private static final int MOST_HAPPENED = 40;
    private static final int SUGGESTED = 2;

    private final Pages pages;
    private final Workspace workspace;
    private final RunStore store;
    private final Verdicts verdicts;

    ComparisonController(Pages pages, Workspace workspace, RunStore store, Verdicts verdicts) {
        this.pages = pages;
        this.workspace = workspace;
        this.store = store;
        this.verdicts = verdicts;
    }

    /** A requirement with the verdict of each run; null where a run gave none. */
    record Judged(ElementId requirement, List<@Nullable VerdictView> views) {
        public boolean differs() {
            return views.stream()
                            .map(view -> view == null ? "" : view.kind() + view.marginText())
                            .distinct()
                            .count()
                    > 1;
        }
    }

    /** An element that the runs read in different states; {@code name} is that of the newest run. */
    record Input(ElementId id, String name, boolean exists, List<@Nullable String> texts) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/runs/compare")
    String compare(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") List<Long> run,
            org.springframework.ui.Model page) {
        List<RunRecord> runs = run.stream()
                .distinct()
                .sorted()
                .map(id -> store.find(head.branch(), id)
                        .orElseThrow(() -> new NotFound("there is no run " + id + " on this branch")))
                .toList();
        if (runs.size() < 2 || runs.size() > MOST_RUNS) {
            throw new NotFound("two to " + MOST_RUNS + " runs can be compared; choose them on the page of all runs");
        }
        pages.frame(page, head, person, Station.RUNS, "Runs compared");
        List<Workspace.Head> heads = runs.stream()
                .map(each -> workspace.asOf(
                        head.past() ? workspace.head(head.branch().id()) : head, each.revisionNumber()))
                .toList();
        List<RunStore.Recorded> stored =
                runs.stream().map(each -> store.series(each.id())).toList();
        List<List<CaseRun.Series>> recorded =
                stored.stream().map(RunStore.Recorded::series).toList();
        List<TimelineComparison.Ran> ran = IntStream.range(0, runs.size())
                .mapToObj(i -> ran(runs.get(i), stored.get(i).times()))
                .toList();
        boolean isWithin = areOfDifferentParts(recorded, ran);
        UnaryOperator<String> within = isWithin ? RunComparison::within : UnaryOperator.identity();
        List<RunComparison.Parted> series = RunComparison.series(recorded, within);
        List<TimelineComparison.Parted> happened = TimelineComparison.of(ran, within);
        page.addAttribute("runs", runs);
        page.addAttribute("within", isWithin);
        page.addAttribute("happened", happened.stream().limit(MOST_HAPPENED).toList());
        page.addAttribute("happenedCount", happened.size());
        page.addAttribute(
                "common",
                ran.stream().mapToDouble(TimelineComparison.Ran::end).min().orElse(0));
        page.addAttribute("hasSeries", recorded.stream().anyMatch(each -> !each.isEmpty()));
        page.addAttribute(
                "hasHappened", ran.stream().anyMatch(each -> each.log().size() > 0));
        page.addAttribute(
                "suggested",
                series.stream().limit(SUGGESTED).map(RunComparison.Parted::path).collect(Collectors.joining("|")));
        page.addAttribute("inputs", inputs(head, runs, heads));
        page.addAttribute("judged", judged(head, runs));
        page.addAttribute("series", series.stream().limit(MOST_SERIES).toList());
        page.addAttribute("seriesCount", series.size());
        return "runs/compare";
    }

    private TimelineComparison.Ran ran(RunRecord run, double[] times) {
        EventLog log = store.happened(run.id()).orElse(Happened.NOTHING).log();
        double last = log.size() == 0 ? 0 : log.get(log.size() - 1).time();
        return new TimelineComparison.Ran(log, times.length == 0 ? last : times[times.length - 1]);
    }

    private static boolean areOfDifferentParts(List<List<CaseRun.Series>> recorded, List<TimelineComparison.Ran> ran) {
        List<List<String>> paths = new ArrayList<>();
        recorded.forEach(run -> paths.add(run.stream().map(CaseRun.Series::path).toList()));
        ran.forEach(run ->
                paths.add(run.log().subjects().stream().map(Subject::path).toList()));
        return RunComparison.areOfDifferentParts(paths);
    }

    private static List<Input> inputs(Workspace.Head head, List<RunRecord> runs, List<Workspace.Head> heads) {
        List<RunComparison.Inputs> read = new ArrayList<>();
        for (int i = 0; i < runs.size(); i++) {
            read.add(new RunComparison.Inputs(
                    RunStore.readFingerprint(runs.get(i).fingerprint()),
                    heads.get(i).model()));
        }
        return RunComparison.inputs(read).stream()
                .map(each -> new Input(
                        each.id(),
                        heads.reversed().stream()
                                .map(Workspace.Head::model)
                                .filter(model -> model.has(each.id()))
                                .findFirst()
                                .map(model -> new Labels(model).withOwner(model.get(each.id())))
                                .orElse("(removed)"),
                        head.model().has(each.id()),
                        each.texts()))
                .toList();
    }

    private List<Judged> judged(Workspace.Head head, List<RunRecord> runs) {
        List<Map<ElementId, List<VerdictView>>> views =
                runs.stream().map(each -> verdicts.ofRun(head, each.id())).toList();
        Set<ElementId> requirements = new LinkedHashSet<>();
        views.forEach(each -> requirements.addAll(each.keySet()));
        Map<ElementId, List<@Nullable VerdictView>> rows = new LinkedHashMap<>();
        requirements.forEach(requirement -> {
            List<@Nullable VerdictView> row = new ArrayList<>();
            views.forEach(each -> row.add(
                    each.containsKey(requirement) ? each.get(requirement).getFirst() : null));
            rows.put(requirement, row);
        });
        return rows.entrySet().stream()
                .map(entry -> new Judged(entry.getKey(), entry.getValue()))
                .toList();
    }
}
