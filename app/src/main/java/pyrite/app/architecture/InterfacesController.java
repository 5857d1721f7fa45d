package pyrite.app.architecture;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import pyrite.app.store.Person;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.finding.Mends;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.structure.Fit;
import pyrite.core.structure.Flows;
import pyrite.core.structure.InterfaceTable;

/** Who talks to whom in a part, a package or the whole project, as a table and as an N² chart. */
@Controller
class InterfacesController {
    /** A chart of more parties is read in its CSV. */
    private static final int MOST_PARTIES = 40;

    private static final int MOST_IN_EXPORT = 500;
    private static final int MOST_ROWS = 500;
    private static final int MOST_MENDED = 50;

    private final Pages pages;

    InterfacesController(Pages pages) {
        this.pages = pages;
    }

    @GetMapping("/p/{project}/{branch}/interfaces")
    String interfaces(
            Workspace.Head head,
            Person person,
            @RequestParam(required = false) @Nullable String of,
            org.springframework.ui.Model page) {
        Element holder = of == null ? null : head.element(of);
        Labels labels = new Labels(head.model());
        pages.frame(
                page,
                head,
                person,
                Station.ARCHITECTURE,
                holder == null ? "Interfaces" : "Interfaces of " + labels.name(holder));
        InterfaceTable table = table(head, holder);
        page.addAttribute("holder", holder);
        page.addAttribute("total", table.rows().size());
        List<InterfaceTable.Row> rows = table.rows().stream().limit(MOST_ROWS).toList();
        page.addAttribute("rows", rows);
        page.addAttribute("flows", flows(head, rows));
        page.addAttribute("mends", mends(head, rows));
        page.addAttribute(
                "misfits",
                table.rows().stream().filter(row -> !row.misfits().isEmpty()).count());
        page.addAttribute("parties", table.parties());
        // Parties of one name in several parts are not the same.
        page.addAttribute("isOfOnePart", holder != null && !holder.kind().isPackage());
        page.addAttribute("hasChart", table.parties().size() <= MOST_PARTIES);
        page.addAttribute("chart", table.chart());
        return "architecture/interfaces";
    }

    /** The flows that connections allow and that are not there, by the connection. */
    private static Map<ElementId, List<Flows.Proposal>> flows(Workspace.Head head, List<InterfaceTable.Row> rows) {
        Map<ElementId, List<Flows.Proposal>> flows = new HashMap<>();
        rows.forEach(row -> flows.put(row.connector().id(), Flows.proposed(head.model(), row.connector())));
        return flows;
    }

    /** What would mend a misfit, by the connection and the key of the finding. */
    private static Map<ElementId, Map<String, List<Mends.Mend>>> mends(
            Workspace.Head head, List<InterfaceTable.Row> rows) {
        Map<ElementId, Map<String, List<Mends.Mend>>> mends = new HashMap<>();
        rows.stream()
                .filter(row -> !row.misfits().isEmpty())
                .limit(MOST_MENDED)
                .forEach(row ->
                        mends.put(row.connector().id(), FindingsController.mends(head.model(), row.connector())));
        return mends;
    }

    private static InterfaceTable table(Workspace.Head head, @Nullable Element holder) {
        return holder == null ? InterfaceTable.of(head.model()) : InterfaceTable.of(head.model(), holder);
    }

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "The interfaces of a part, a package or the project as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/interfaces/export.csv", ApiAddress.BRANCH + "/interfaces/export.csv"})
    void export(
            Workspace.Head head,
            @RequestParam(required = false) @Nullable String of,
            @RequestParam(defaultValue = "false") boolean chart,
            HttpServletResponse response)
            throws IOException {
        InterfaceTable table = table(head, of == null ? null : head.element(of));
        Downloads.csv(
                response,
                chart ? "interfaces-chart" : "interfaces",
                head,
                chart ? chart(table) : rows(new Labels(head.model()), table));
    }

    private static List<List<String>> rows(Labels labels, InterfaceTable table) {
        List<List<String>> rows = new ArrayList<>(
                List.of(List.of("in", "from", "its port", "to", "its port", "typed by", "carries", "fit")));
        table.rows()
                .forEach(row -> rows.add(List.of(
                        labels.full(row.holder()),
                        row.one().party(),
                        row.one().port(),
                        row.other().party(),
                        row.other().port(),
                        row.type() == null ? "" : labels.name(row.type()),
                        carried(row),
                        row.fits()
                                ? "fits"
                                : row.misfits().stream()
                                        .map(Fit.Misfit::sentence)
                                        .collect(Collectors.joining("\n")))));
        return rows;
    }

    private static String carried(InterfaceTable.Row row) {
        return row.carried().stream().map(InterfaceTable.Carried::words).collect(Collectors.joining("\n"));
    }

    private static List<List<String>> chart(InterfaceTable table) {
        List<List<String>> rows = new ArrayList<>();
        List<String> parties = table.parties();
        if (parties.size() > MOST_IN_EXPORT) {
            throw new ResponseStatusException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "a chart has at most " + MOST_IN_EXPORT + " parties, and here are " + parties.size()
                            + "; export the table, or the chart of a part inside");
        }
        Map<String, Map<String, List<InterfaceTable.Row>>> chart = table.chart();
        List<String> heading = new ArrayList<>(List.of("from \\ to"));
        heading.addAll(parties);
        rows.add(heading);
        for (String from : parties) {
            List<String> line = new ArrayList<>(List.of(from));
            for (String to : parties) {
                line.add(chart.getOrDefault(from, Map.of()).getOrDefault(to, List.of()).stream()
                        .map(InterfacesController::carried)
                        .collect(Collectors.joining("\n")));
            }
            rows.add(line);
        }
        return rows;
    }
}
