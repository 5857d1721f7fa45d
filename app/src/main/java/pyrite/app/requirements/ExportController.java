package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.Spreadsheet;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Selection;

/** Exports the rows shown in the grid as a CSV file or a spreadsheet. */
@Controller
class ExportController {
    private final GridRows rows;
    private final Verdicts verdicts;

    ExportController(GridRows rows, Verdicts verdicts) {
        this.rows = rows;
        this.verdicts = verdicts;
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Requirements as comma-separated values, filtered as the grid is")
    @Costly
    @GetMapping({"/p/{project}/{branch}/requirements/export.csv", ApiAddress.BRANCH + "/requirements/export.csv"})
    void csv(Workspace.Head head, GridRows.Asked asked, HttpServletResponse response) throws IOException {
        Downloads.csv(response, "requirements", head, table(head, asked));
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "The same as a spreadsheet")
    @Costly
    @GetMapping({"/p/{project}/{branch}/requirements/export.xlsx", ApiAddress.BRANCH + "/requirements/export.xlsx"})
    void spreadsheet(Workspace.Head head, GridRows.Asked asked, HttpServletResponse response) throws IOException {
        Downloads.name(
                response,
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                "requirements",
                head,
                "xlsx");
        Spreadsheet.write(response.getOutputStream(), "Requirements", table(head, asked));
    }

    private List<List<String>> table(Workspace.Head head, GridRows.Asked asked) {
        Attributes attributes = Attributes.in(head.model());
        List<Attribute> columns = attributes.all();
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        Labels labels = new Labels(head.model());
        List<List<String>> table = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of("id", "section", "name", "text"));
        columns.forEach(column -> heading.add(column.name()));
        heading.add("verdict");
        table.add(heading);
        String section = "";
        for (Selection.Line line : rows.of(head, asked, attributes)) {
            if (line.item() == null) {
                continue;
            }
            Element element = line.item().element();
            switch (line.item().type()) {
                case HEADING -> section = (line.item().number() + " " + labels.name(element)).strip();
                case NOTE -> {}
                case REQUIREMENT ->
                    table.add(row(
                            head, attributes, columns, section, element, judged.getOrDefault(element.id(), List.of())));
            }
        }
        return table;
    }

    private static List<String> row(
            Workspace.Head head,
            Attributes attributes,
            List<Attribute> columns,
            String section,
            Element element,
            List<VerdictView> judged) {
        List<String> row = new ArrayList<>(List.of(
                RequirementIds.of(head.model(), element),
                section,
                Objects.requireNonNullElse(head.model().names().effectiveName(element), ""),
                RequirementText.of(head.model(), element)));
        columns.forEach(column -> row.add(attributes.value(element, column.name())));
        row.add(judged.stream().map(VerdictView::words).distinct().collect(Collectors.joining(", ")));
        return row;
    }
}
