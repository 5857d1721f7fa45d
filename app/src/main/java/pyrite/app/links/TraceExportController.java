package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.evidence.CoverageCache;
import pyrite.app.evidence.StaleRuns;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.Impact;
import pyrite.core.trace.Matrix;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceRows;
import pyrite.core.trace.TraceTable;

/** Complete link tables as CSV files. */
@Controller
class TraceExportController {
    private final CoverageCache coverages;
    private final StaleRuns staleRuns;
    private final ElementSets sets;

    TraceExportController(CoverageCache coverages, StaleRuns staleRuns, ElementSets sets) {
        this.coverages = coverages;
        this.staleRuns = staleRuns;
        this.sets = sets;
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "A trace table as comma-separated values, a line for each way")
    @Costly
    @GetMapping({"/p/{project}/{branch}/trace/export.csv", ApiAddress.BRANCH + "/trace/export.csv"})
    void trace(
            Workspace.Head head,
            @RequestParam String set,
            @RequestParam(required = false) List<String> col,
            HttpServletResponse response)
            throws IOException {
        TraceTable table = TracePagesController.table(col == null ? List.of() : col);
        Labels labels = new Labels(head.model());
        Attributes attributes = Attributes.in(head.model());
        List<List<String>> rows = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of("from"));
        table.columns()
                .forEach(column -> heading.add(
                        column.steps().stream().map(TraceTable.Step::toString).collect(Collectors.joining(" "))
                                + (column.show().isEmpty() ? "" : " " + column.show())));
        rows.add(heading);
        TraceGraph graph = TraceGraph.of(head.model());
        for (Element start : table.kept(graph, sets.of(head, set).toList())) {
            List<List<TraceRows.Cell>> ways =
                    TraceRows.of(table, graph, start.id(), Integer.MAX_VALUE, TracePagesController.MOST_EXPORTED);
            for (List<@Nullable Element> found :
                    TraceRows.filled(ways, table.columns().size())) {
                List<String> line = new ArrayList<>(List.of(labels.full(start)));
                for (int i = 0; i < found.size(); i++) {
                    Element each = found.get(i);
                    line.add(
                            each == null
                                    ? ""
                                    : (labels.full(each) + " "
                                                    + TracePagesController.shown(
                                                            head,
                                                            attributes,
                                                            each,
                                                            table.columns()
                                                                    .get(i)
                                                                    .show()))
                                            .strip());
                }
                rows.add(line);
            }
            if (TraceRows.leftOut(ways) > 0) {
                rows.add(List.of(labels.full(start), "and " + TraceRows.leftOut(ways) + " more, which are left out"));
            }
        }
        Downloads.csv(response, "trace", head, rows);
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "A matrix as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/matrix/export.csv", ApiAddress.BRANCH + "/matrix/export.csv"})
    void matrix(
            Workspace.Head head,
            @RequestParam String rows,
            @RequestParam String columns,
            @RequestParam String kind,
            HttpServletResponse response)
            throws IOException {
        Labels labels = new Labels(head.model());
        List<Element> across = sets.of(head, columns).toList();
        Matrix matrix =
                Matrix.of(TraceGraph.of(head.model()), sets.of(head, rows).toList(), across, kind, false);
        List<List<String>> table = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of(kind));
        across.forEach(each -> heading.add(labels.full(each)));
        table.add(heading);
        for (int i = 0; i < matrix.rows().size(); i++) {
            List<String> line =
                    new ArrayList<>(List.of(labels.full(matrix.rows().get(i))));
            Matrix.Cells cells = matrix.cells().get(i);
            for (int c = 0; c < across.size(); c++) {
                line.add(cells.out().contains(c) ? "leads to" : cells.in().contains(c) ? "comes from" : "");
            }
            table.add(line);
        }
        Downloads.csv(response, "matrix", head, table);
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "What lacks coverage as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/coverage/export.csv", ApiAddress.BRANCH + "/coverage/export.csv"})
    void coverage(Workspace.Head head, HttpServletResponse response) throws IOException {
        Labels labels = new Labels(head.model());
        Coverage coverage = coverages.of(head);
        List<List<String>> table = new ArrayList<>(List.of(List.of("requirement", "what", "there", "expected")));
        coverage.gaps()
                .forEach(gap -> table.add(List.of(
                        labels.full(gap.element()),
                        gap.words(),
                        Integer.toString(gap.there()),
                        Integer.toString(gap.expected()))));
        coverage.unasked().forEach(each -> table.add(List.of(labels.full(each), "unasked", "", "")));
        coverage.broken()
                .forEach(each -> table.add(
                        List.of(labels.full(each.element()), "chain breaks at " + labels.full(each.at()), "", "")));
        Downloads.csv(response, "coverage", head, table);
    }

    /**
     * What is reached with how far it is, the nearest first; the links that would need recheck; the verdicts that would
     * go stale.
     */
    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "What an impact reaches as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/impact/export.csv", ApiAddress.BRANCH + "/impact/export.csv"})
    void impact(Workspace.Head head, ImpactQuestion question, HttpServletResponse response) throws IOException {
        Labels labels = new Labels(head.model());
        List<Element> from = question.named(head).elements();
        Impact impact = question.answer(TraceGraph.of(head.model()), from);
        List<List<String>> rows = new ArrayList<>(List.of(List.of("what", "element", "way", "links away", "text")));
        impact.reached().entrySet().stream()
                .sorted(Map.Entry.comparingByValue(Comparator.comparing(Math::abs)))
                .forEach(entry -> {
                    Element element = head.model().get(entry.getKey());
                    int far = entry.getValue();
                    rows.add(List.of(
                            "reached",
                            labels.full(element),
                            far < 0 ? "up" : far > 0 ? "down" : "",
                            Integer.toString(Math.abs(far)),
                            RequirementText.of(head.model(), element)));
                });
        impact.recheck()
                .forEach(link -> rows.add(List.of(
                        "would need recheck",
                        labels.full(head.model().get(link.source())) + " "
                                + link.kind().forward() + " "
                                + labels.full(head.model().get(link.target())),
                        "",
                        "",
                        "")));
        staleRuns
                .touchedBy(head, from)
                .forEach(each -> rows.add(List.of(
                        "verdict would go stale", labels.full(each), "", "", RequirementText.of(head.model(), each))));
        Downloads.csv(response, "impact", head, rows);
    }
}
