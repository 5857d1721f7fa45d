package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
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
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Selection;
import pyrite.core.trace.Links;

/** Exports the rows shown in the grid as a CSV file or a spreadsheet. */
@Controller
class ExportController {
    private static final Set<String> ONLY_WHEN_ASKED = Set.of("links", "margin");

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
    void csv(
            Workspace.Head head,
            GridRows.Asked asked,
            @RequestParam(defaultValue = "") String columns,
            HttpServletResponse response)
            throws IOException {
        Downloads.csv(response, "requirements", head, table(head, asked, columns));
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "The same as a spreadsheet")
    @Costly
    @GetMapping({"/p/{project}/{branch}/requirements/export.xlsx", ApiAddress.BRANCH + "/requirements/export.xlsx"})
    void spreadsheet(
            Workspace.Head head,
            GridRows.Asked asked,
            @RequestParam(defaultValue = "") String columns,
            HttpServletResponse response)
            throws IOException {
        Downloads.name(
                response,
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                "requirements",
                head,
                "xlsx");
        Spreadsheet.write(response.getOutputStream(), "Requirements", table(head, asked, columns));
    }

    /** A column of the file and what it has of a requirement. */
    private record Column(String heading, Function<Element, String> value) {}

    /**
     * The columns that are asked for, as the grid writes them: {@code tag~76,text,attribute:status}; all by default.
     */
    private List<Column> columns(Workspace.Head head, Attributes attributes, String layout) {
        Model model = head.model();
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        Map<String, Column> known = new LinkedHashMap<>();
        known.put("tag", new Column("id", element -> RequirementIds.of(model, element)));
        known.put(
                "name",
                new Column(
                        "name",
                        element -> Objects.requireNonNullElse(model.names().effectiveName(element), "")));
        known.put("text", new Column("text", element -> RequirementText.of(model, element)));
        for (Attribute attribute : attributes.all()) {
            known.put(
                    "attribute:" + attribute.name(),
                    new Column(attribute.name(), element -> attributes.value(element, attribute.name())));
        }
        known.put("links", new Column("links", element -> links(model, element)));
        known.put("verdict", new Column("verdict", element -> of(judged, element, VerdictView::words)));
        known.put("margin", new Column("margin", element -> of(judged, element, VerdictView::marginText)));
        if (layout.isBlank()) {
            return known.entrySet().stream()
                    .filter(entry -> !ONLY_WHEN_ASKED.contains(entry.getKey()))
                    .map(Map.Entry::getValue)
                    .toList();
        }
        return Arrays.stream(layout.split(","))
                .map(part -> URLDecoder.decode(part.replaceFirst("~\\d+$", ""), StandardCharsets.UTF_8))
                .map(known::get)
                .filter(Objects::nonNull)
                .toList();
    }

    private static String of(
            Map<ElementId, List<VerdictView>> judged, Element element, Function<VerdictView, String> words) {
        return judged.getOrDefault(element.id(), List.of()).stream()
                .map(words)
                .distinct()
                .collect(Collectors.joining(", "));
    }

    private static String links(Model model, Element element) {
        Labels labels = new Labels(model);
        return Links.in(model).of(element).stream()
                .map(link -> link.words(element.id()) + " " + labels.tag(model.get(link.other(element.id()))))
                .distinct()
                .collect(Collectors.joining("; "));
    }

    /** The requirements that the grid shows; the section each stands in comes behind its id. */
    private List<List<String>> table(Workspace.Head head, GridRows.Asked asked, String layout) {
        Attributes attributes = Attributes.in(head.model());
        List<Column> columns = columns(head, attributes, layout);
        Labels labels = new Labels(head.model());
        List<List<String>> table = new ArrayList<>();
        table.add(row(columns, "section", Column::heading));
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
                    table.add(row(columns, section, column -> column.value().apply(element)));
            }
        }
        return table;
    }

    private static List<String> row(List<Column> columns, String section, Function<Column, String> cell) {
        List<String> row = new ArrayList<>(columns.stream().map(cell).toList());
        row.add(Math.min(1, row.size()), section);
        return row;
    }
}
