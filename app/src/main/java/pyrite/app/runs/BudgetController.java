package pyrite.app.runs;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.execution.CriticalPath;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Happened;
import pyrite.core.execution.Subject;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.verification.TimeBudget;

/** Where the time between two events of a run went, for a requirement that limits it or for any two events. */
@Controller
class BudgetController {
    private static final String BEGINNING = "";

    private final Pages pages;
    private final RunStore store;
    private final Verdicts verdicts;

    BudgetController(Pages pages, RunStore store, Verdicts verdicts) {
        this.pages = pages;
        this.store = store;
        this.verdicts = verdicts;
    }

    /** A requirement of the run that limits a time. */
    record Limit(Element requirement, VerdictView verdict, String from, String to) {}

    /**
     * A part of the way.
     *
     * @param begin share of the whole at which it begins, in thousandths
     * @param width in thousandths
     * @param share of the whole, in per cent
     */
    record Row(String path, ElementId element, String what, double took, double begin, double width, long share) {
        /** Its path within the part that ran. */
        public String shown() {
            return path.substring(path.indexOf('.') + 1);
        }
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/budget")
    String show(
            Workspace.Head head,
            Person person,
            @PathVariable long id,
            @RequestParam(defaultValue = BEGINNING) String from,
            @RequestParam(defaultValue = "") String to,
            org.springframework.ui.Model page) {
        RunRecord run = store.find(head.branch(), id)
                .orElseThrow(() -> new NotFound("there is no run " + id + " on this branch"));
        EventLog log = store.happened(id).orElse(Happened.NOTHING).log();
        List<Limit> limits = limits(head, id, log);
        boolean isChosen = !to.isBlank() || limits.isEmpty();
        String begin = isChosen ? from.strip() : limits.getFirst().from();
        String end = isChosen ? to.strip() : limits.getFirst().to();
        pages.frame(page, head, person, Station.RUNS, "Time budget of run " + id);
        page.addAttribute("run", run);
        page.addAttribute("limits", limits);
        page.addAttribute("isFirstOfMany", !store.statistics(id).isEmpty());
        page.addAttribute("events", names(log.subjects()).toList());
        page.addAttribute("from", begin);
        page.addAttribute("to", end);
        page.addAttribute("problem", end.isEmpty() ? "" : problem(log, begin, end));
        way(log, begin, end).ifPresent(way -> {
            page.addAttribute("way", way);
            page.addAttribute("rows", rows(log, way));
        });
        return "runs/budget";
    }

    private List<Limit> limits(Workspace.Head head, long id, EventLog log) {
        List<Limit> limits = new ArrayList<>();
        verdicts.ofRun(head, id)
                .forEach((requirement, views) -> head.model()
                        .find(requirement)
                        .ifPresent(element -> TimeBudget.of(head.model(), element, log.subjects())
                                .ifPresent(budget -> limits.add(new Limit(
                                        element,
                                        views.getFirst(),
                                        budget.begin() == null ? BEGINNING : name(log.subjects(), budget.begin()),
                                        name(log.subjects(), budget.end()))))));
        limits.sort(Comparator.comparing(
                limit -> limit.verdict().margin() == null ? 0 : limit.verdict().margin()));
        return limits;
    }

    private static Stream<String> names(List<Subject> subjects) {
        return IntStream.range(0, subjects.size())
                .boxed()
                .flatMap(index ->
                        kinds(subjects.get(index)).map(kind -> name(subjects, new CriticalPath.End(kind, index))));
    }

    private static Stream<EventLog.Kind> kinds(Subject subject) {
        return switch (subject.kind()) {
            case STEP -> Stream.of(EventLog.Kind.STARTED, EventLog.Kind.ENDED);
            case STATE -> Stream.of(EventLog.Kind.ENTERED, EventLog.Kind.LEFT);
            case POOL, PORT -> Stream.empty();
        };
    }

    private static String name(List<Subject> subjects, CriticalPath.End end) {
        return end.kind().name().toLowerCase(Locale.ROOT) + " "
                + subjects.get(end.subject()).path();
    }

    private static Optional<CriticalPath.End> end(List<Subject> subjects, String name) {
        return IntStream.range(0, subjects.size())
                .boxed()
                .flatMap(index -> kinds(subjects.get(index)).map(kind -> new CriticalPath.End(kind, index)))
                .filter(end -> name(subjects, end).equals(name))
                .findFirst();
    }

    private static Optional<CriticalPath> way(EventLog log, String from, String to) {
        Optional<CriticalPath.End> end = end(log.subjects(), to);
        return from.isEmpty()
                ? end.flatMap(last -> CriticalPath.upTo(log, last))
                : end(log.subjects(), from)
                        .flatMap(first -> end.flatMap(last -> CriticalPath.between(log, first, last)));
    }

    /** Why there is no way; empty if there is one. */
    private static String problem(EventLog log, String from, String to) {
        for (String name : List.of(from, to)) {
            if (!name.isEmpty() && end(log.subjects(), name).isEmpty()) {
                return "'" + name
                        + "' is no event of this run; choose one from the list, such as 'started a.b' or 'ended a.b'.";
            }
            if (!name.isEmpty()
                    && CriticalPath.upTo(log, end(log.subjects(), name).orElseThrow())
                            .isEmpty()) {
                return "'" + name + "' did not come about in this run.";
            }
        }
        return way(log, from, to).isEmpty() ? "'" + to + "' came before '" + from + "'." : "";
    }

    private static List<Row> rows(EventLog log, CriticalPath way) {
        double whole = way.to() - way.from();
        return way.parts().stream()
                .map(part -> {
                    Subject subject = log.subjects().get(part.subject());
                    return new Row(
                            subject.path(),
                            subject.element(),
                            words(part.what()),
                            part.took(),
                            1000 * (part.begin() - way.from()) / whole,
                            Math.max(1000 * part.took() / whole, 1),
                            Math.round(100 * part.took() / whole));
                })
                .toList();
    }

    private static String words(CriticalPath.What what) {
        return switch (what) {
            case ACTIVE -> "active";
            case ON_THE_WAY -> "item on the way";
            case WAITING -> "waiting";
        };
    }
}
