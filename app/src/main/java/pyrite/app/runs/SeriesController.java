package pyrite.app.runs;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.RunMapper.SeriesName;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.Decimation;
import pyrite.core.verification.RunComparison;
import pyrite.core.verification.SeriesTable;
import pyrite.core.verification.VerdictPlot;

/** The recorded series of a run: their names, the values for a plot, and all values as a table. */
@Controller
class SeriesController {
    private static final int MOST_SLICES = 5000;
    private static final int MOST_SERIES = 60;

    private final RunStore store;
    private final Verdicts verdicts;

    SeriesController(RunStore store, Verdicts verdicts) {
        this.store = store;
        this.verdicts = verdicts;
    }

    /** The series to choose from, and the limits that requirements draw over them. */
    record Offer(List<SeriesName> series, List<VerdictPlot.Line> lines) {}

    @GetMapping("/p/{project}/{branch}/runs/{id}/series-names.json")
    @ResponseBody
    Offer names(Workspace.Head head, @PathVariable long id, @RequestParam(defaultValue = "false") boolean within) {
        find(head, id);
        List<VerdictPlot.Line> lines = verdicts.ofRun(head, id).values().stream()
                .flatMap(List::stream)
                .map(VerdictView::stored)
                .filter(Objects::nonNull)
                .flatMap(verdict -> store.plot(id, verdict).lines().stream())
                .distinct()
                .toList();
        return new Offer(
                within
                        ? store.seriesNames(id).stream()
                                .map(name -> new SeriesName(RunComparison.within(name.path()), name.unit()))
                                .toList()
                        : store.seriesNames(id),
                lines);
    }

    /** Times in s and series in their display units, at the instants that a plot of the given width can show. */
    record Recorded(double[] times, List<Named> series) {
        record Named(String path, String unit, double[] values) {}
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/series.json")
    @ResponseBody
    Recorded series(
            Workspace.Head head,
            @PathVariable long id,
            @RequestParam(defaultValue = "") List<String> path,
            @RequestParam(defaultValue = "1000") int slices,
            @RequestParam(defaultValue = "-Infinity") double from,
            @RequestParam(defaultValue = "Infinity") double to,
            @RequestParam(defaultValue = "false") boolean within) {
        find(head, id);
        UnaryOperator<String> called = within ? RunComparison::within : UnaryOperator.identity();
        Set<String> wanted = path.stream().limit(MOST_SERIES).collect(Collectors.toSet());
        RunStore.Recorded recorded = store.series(
                id,
                store.seriesNames(id).stream()
                        .map(SeriesName::path)
                        .filter(each -> wanted.contains(called.apply(each)))
                        .toList());
        int[] kept = Decimation.indices(
                recorded.times(),
                recorded.series().stream().map(CaseRun.Series::values).toList(),
                from,
                to,
                Math.clamp(slices, 1, MOST_SLICES));
        return new Recorded(
                at(recorded.times(), kept),
                recorded.series().stream()
                        .map(series -> new Recorded.Named(
                                called.apply(series.path()), series.unit(), at(series.values(), kept)))
                        .toList());
    }

    private static double[] at(double[] values, int[] indices) {
        return Arrays.stream(indices).mapToDouble(index -> values[index]).toArray();
    }

    @GetMapping("/p/{project}/{branch}/runs/{id}/series.csv")
    void csv(Workspace.Head head, @PathVariable long id, HttpServletResponse response) throws IOException {
        RunRecord run = find(head, id);
        RunStore.Recorded recorded = store.series(id);
        response.setContentType("text/csv");
        response.setCharacterEncoding(StandardCharsets.UTF_8);
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"run-" + run.id() + ".csv\"");
        try (PrintWriter out = response.getWriter()) {
            SeriesTable.write(recorded.times(), recorded.series(), out);
        }
    }

    private RunRecord find(Workspace.Head head, long id) {
        return store.find(head.branch(), id)
                .orElseThrow(() -> new NotFound("there is no run " + id + " on this branch"));
    }
}
