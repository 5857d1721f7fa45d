package pyrite.app.links;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.CsvTable;
import pyrite.core.model.Element;
import pyrite.core.specification.Attributes;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.Matrix;
import pyrite.core.trace.TraceTable;

/** The tables that are found from links, as CSV files with all their rows. */
@Controller
class TraceExportController {
    private final Graphs graphs;

    TraceExportController(Graphs graphs) {
        this.graphs = graphs;
    }

    @GetMapping("/p/{project}/{branch}/trace/export.csv")
    void trace(Workspace.Head head, @RequestParam String set, @RequestParam(required = false) List<String> col, HttpServletResponse response) throws IOException {
        TraceTable table = TracePagesController.table(col == null ? List.of() : col);
        Labels labels = new Labels(head.model());
        Attributes attributes = new Attributes(head.model());
        List<List<String>> rows = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of("from"));
        table.columns().forEach(column -> heading.add(column.steps().stream().map(TraceTable.Step::toString).collect(Collectors.joining(" ")) + (column.show().isEmpty() ? "" : " " + column.show())));
        rows.add(heading);
        for (TraceTable.Row row : table.rows(graphs.of(head), Sets.of(head, new LinkRules(head.model()), set).toList())) {
            List<String> line = new ArrayList<>(List.of(labels.full(row.start())));
            for (int i = 0; i < row.cells().size(); i++) {
                String show = table.columns().get(i).show();
                line.add(TracePagesController.inOrder(head, row.cells().get(i)).map(each -> (labels.full(each) + " " + TracePagesController.shown(head, attributes, each, show)).strip())
                        .collect(Collectors.joining("\n")));
            }
            rows.add(line);
        }
        send(response, "trace", head, rows);
    }

    @GetMapping("/p/{project}/{branch}/matrix/export.csv")
    void matrix(Workspace.Head head, @RequestParam String rows, @RequestParam String columns, @RequestParam String kind, HttpServletResponse response) throws IOException {
        LinkRules rules = new LinkRules(head.model());
        Labels labels = new Labels(head.model());
        List<Element> across = Sets.of(head, rules, columns).toList();
        Matrix matrix = Matrix.of(graphs.of(head), Sets.of(head, rules, rows).toList(), across, kind, false);
        List<List<String>> table = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of(kind));
        across.forEach(each -> heading.add(labels.full(each)));
        table.add(heading);
        for (int i = 0; i < matrix.rows().size(); i++) {
            List<String> line = new ArrayList<>(List.of(labels.full(matrix.rows().get(i))));
            Matrix.Cells cells = matrix.cells().get(i);
            for (int c = 0; c < across.size(); c++) {
                line.add(cells.out().contains(c) ? "leads to" : cells.in().contains(c) ? "comes from" : "");
            }
            table.add(line);
        }
        send(response, "matrix", head, table);
    }

    @GetMapping("/p/{project}/{branch}/coverage/export.csv")
    void coverage(Workspace.Head head, HttpServletResponse response) throws IOException {
        Labels labels = new Labels(head.model());
        Coverage coverage = graphs.coverage(head);
        List<List<String>> table = new ArrayList<>(List.of(List.of("requirement", "what", "there", "expected")));
        coverage.gaps().forEach(gap -> table.add(List.of(labels.full(gap.element()), gap.words(), Integer.toString(gap.there()), Integer.toString(gap.expected()))));
        coverage.unasked().forEach(each -> table.add(List.of(labels.full(each), "unasked", "", "")));
        coverage.broken().forEach(each -> table.add(List.of(labels.full(each.element()), "chain breaks at " + labels.full(each.at()), "", "")));
        send(response, "coverage", head, table);
    }

    private static void send(HttpServletResponse response, String what, Workspace.Head head, List<List<String>> rows) throws IOException {
        response.setContentType("text/csv;charset=UTF-8");
        response.setHeader("Content-Disposition", "attachment; filename=\"" + what + "-r" + head.number() + ".csv\"");
        response.getOutputStream().write(CsvTable.write(rows).getBytes(StandardCharsets.UTF_8));
    }
}
