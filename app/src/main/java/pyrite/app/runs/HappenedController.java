package pyrite.app.runs;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Happened;
import pyrite.core.execution.Standstill;
import pyrite.core.execution.Subject;
import pyrite.core.execution.Timeline;

/** What happened in a run: its timeline, its events, and what waited at its end. */
@Controller
class HappenedController {
    private static final int MOST_EVENTS = 1_000;

    private final RunStore store;
    private final Jobs jobs;

    HappenedController(RunStore store, Jobs jobs) {
        this.jobs = jobs;
        this.store = store;
    }

    /** @param ends the instants of the run, s */
    private record Found(Happened happened, double begins, double ends) {}

    private Found find(Workspace.Head head, long id) {
        if (store.find(head.branch(), id).isEmpty()) {
            throw new NotFound("there is no run " + id + " on this branch");
        }
        Optional<Jobs.SoFar> soFar = jobs.soFar(id);
        if (soFar.isPresent()) {
            return new Found(
                    new Happened(soFar.get().log(), Standstill.NONE),
                    0,
                    soFar.get().now());
        }
        Happened happened = store.happened(id).orElse(Happened.NOTHING);
        double[] times = store.times(id);
        double begins = times.length == 0 ? 0 : times[0];
        double ends = times.length == 0 ? 0 : times[times.length - 1];
        return new Found(happened, begins, ends);
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/timeline.json")
    @ResponseBody
    TimelinePicture timeline(
            Workspace.Head head,
            @PathVariable long id,
            @RequestParam(defaultValue = "-Infinity") double from,
            @RequestParam(defaultValue = "Infinity") double to,
            @RequestParam(defaultValue = "800") int slices,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String kind,
            @RequestParam(defaultValue = "part") String group) {
        Found found = find(head, id);
        List<String> observed = store.seriesNames(id).stream()
                .map(name -> name.path())
                .filter(ValueRows::isRow)
                .toList();
        RunStore.Recorded recorded = store.series(id, observed);
        return TimelinePicture.of(
                found.happened().log(),
                found.begins(),
                found.ends(),
                new TimelinePicture.Window(from, to, slices),
                new TimelinePicture.Wanted(text, kind, group),
                new ValueRows(
                        found.happened().log(),
                        found.ends(),
                        recorded.times(),
                        observed.isEmpty() ? List.of() : recorded.series()));
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/timeline.csv")
    void timelineCsv(Workspace.Head head, @PathVariable long id, HttpServletResponse response) throws IOException {
        Found found = find(head, id);
        List<Subject> subjects = found.happened().log().subjects();
        Timeline timeline = new Timeline(found.happened().log(), found.ends());
        try (PrintWriter out = csv(response, "run-" + id + "-timeline.csv")) {
            out.println("what,state,from [s],to [s]");
            for (int i = 0; i < subjects.size(); i++) {
                for (Timeline.Bar bar : timeline.bars(i)) {
                    out.println(quoted(subjects.get(i).path()) + ","
                            + bar.state().name().toLowerCase(Locale.ROOT) + "," + bar.from() + "," + bar.to());
                }
            }
        }
    }

    /** An event with its place among all of the run. */
    record Line(int index, double time, String kind, String path, String element, String detail) {}

    /** @param next the place at which to go on; -1 at the end */
    record Lines(int size, List<Line> events, int next) {}

    @GetMapping("/p/{project}/{branch}/runs/{id}/events.json")
    @ResponseBody
    Lines events(
            Workspace.Head head,
            @PathVariable long id,
            @RequestParam(defaultValue = "0") int start,
            @RequestParam(defaultValue = "200") int most,
            @RequestParam(defaultValue = "-Infinity") double from,
            @RequestParam(defaultValue = "Infinity") double to,
            @RequestParam(defaultValue = "") List<String> kind,
            @RequestParam(defaultValue = "") String text) {
        EventLog log = find(head, id).happened().log();
        Predicate<Line> wanted = wanted(kind, text, from, to);
        List<Line> found = new ArrayList<>();
        int at = Math.max(0, start);
        while (at < log.size() && found.size() < Math.clamp(most, 1, MOST_EVENTS)) {
            Line line = line(log, at++);
            if (wanted.test(line)) {
                found.add(line);
            }
        }
        return new Lines(log.size(), found, at < log.size() ? at : -1);
    }

    private static Predicate<Line> wanted(List<String> kinds, String text, double from, double to) {
        Set<String> chosen = new HashSet<>(kinds);
        String lower = text.strip().toLowerCase(Locale.ROOT);
        return line -> (chosen.isEmpty() || chosen.contains(line.kind()))
                && line.time() >= from
                && line.time() <= to
                && (line.path() + " " + line.detail()).toLowerCase(Locale.ROOT).contains(lower);
    }

    private static Line line(EventLog log, int index) {
        EventLog.Event event = log.get(index);
        Subject subject = log.subjects().get(event.subject());
        return new Line(
                index,
                event.time(),
                event.kind().name(),
                subject.path(),
                subject.element().toString(),
                event.detail());
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/events.csv")
    void eventsCsv(Workspace.Head head, @PathVariable long id, HttpServletResponse response) throws IOException {
        EventLog log = find(head, id).happened().log();
        try (PrintWriter out = csv(response, "run-" + id + "-events.csv")) {
            out.println("time [s],event,what,detail");
            for (int i = 0; i < log.size(); i++) {
                Line line = line(log, i);
                out.println(line.time() + "," + line.kind().toLowerCase(Locale.ROOT) + "," + quoted(line.path()) + ","
                        + quoted(line.detail()));
            }
        }
    }

    private static PrintWriter csv(HttpServletResponse response, String file) throws IOException {
        response.setContentType("text/csv");
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + file + "\"");
        return response.getWriter();
    }

    /** A spreadsheet takes what begins with such a sign for a formula. */
    private static String quoted(String text) {
        String plain = !text.isEmpty() && "=+-@".indexOf(text.charAt(0)) >= 0 ? "'" + text : text;
        return Arrays.asList(",", "\"", "\n").stream().anyMatch(plain::contains)
                ? "\"" + plain.replace("\"", "\"\"") + "\""
                : plain;
    }
}
