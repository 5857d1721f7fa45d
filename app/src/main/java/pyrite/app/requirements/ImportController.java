package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.multipart.MultipartFile;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.CsvTable;
import pyrite.core.exchange.XlsxTable;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.ColumnGuess;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.specification.TableImport;

/**
 * Imports a workbook or CSV file into a specification: first a preview of additions and changes, then the import. The
 * file is sent with each request, so nothing is kept in between.
 */
@Controller
class ImportController {
    private static final int MOST_ROWS = 20_000;
    private static final int MOST_SHOWN = 300;
    /** Stands for ids where an import is only looked at; they are taken when it is done. */
    private static final String NEW = "new";

    private final Pages pages;
    private final Workspace workspace;
    private final SpecificationLines lines;
    private final NewIds ids;

    ImportController(Pages pages, Workspace workspace, SpecificationLines lines, NewIds ids) {
        this.pages = pages;
        this.workspace = workspace;
        this.lines = lines;
        this.ids = ids;
    }

    @GetMapping("/p/{project}/{branch}/requirements/import")
    String page(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String spec,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Import");
        page.addAttribute("specifications", RequirementsController.choices(head.model()));
        page.addAttribute("spec", spec);
        return "requirements/import";
    }

    private static List<List<String>> read(byte[] bytes) {
        return XlsxTable.isOne(bytes) ? XlsxTable.read(bytes, MOST_ROWS) : CsvTable.read(bytes, MOST_ROWS);
    }

    /** The effect of importing a file. */
    record Preview(
            List<String> first,
            List<String> mapping,
            boolean headed,
            List<String> meanings,
            int rows,
            int added,
            int changed,
            List<TableImport.Change> changes,
            List<TableImport.RowProblem> problems) {}

    /** @param columns what each column is taken for, by commas; empty to guess */
    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "What a workbook (.xlsx) or CSV file would add and change; takes an engineer")
    @Costly
    @PostMapping(
            path = {
                "/p/{project}/{branch}/requirements/import/preview",
                ApiAddress.BRANCH + "/requirements/import/preview"
            },
            consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseBody
    ResponseEntity<?> preview(
            Workspace.Head head,
            @RequestParam MultipartFile file,
            @RequestParam String spec,
            @RequestParam(defaultValue = "") String columns,
            @RequestParam(defaultValue = "true") boolean headed)
            throws IOException {
        try {
            List<List<String>> rows = read(file.getBytes());
            TableImport.Mapping mapping = mapping(head, rows, columns, headed);
            TableImport.Plan plan = plan(head, spec, mapping, rows, false);
            return ResponseEntity.ok(new Preview(
                    rows.getFirst(),
                    mapping.columns(),
                    mapping.headed(),
                    meanings(head),
                    rows.size() - (mapping.headed() ? 1 : 0),
                    plan.added().size(),
                    plan.changed(),
                    plan.changes().stream().limit(MOST_SHOWN).toList(),
                    plan.problems().stream().limit(MOST_SHOWN).toList()));
        } catch (CsvTable.TableFault fault) {
            return ResponseEntity.status(HttpStatus.UNPROCESSABLE_CONTENT)
                    .body(Answer.refused(fault.getMessage(), List.of()));
        }
    }

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Import a workbook (.xlsx) or CSV file into a specification; takes an engineer")
    @Costly
    @PostMapping(
            path = {"/p/{project}/{branch}/requirements/import", ApiAddress.BRANCH + "/requirements/import"},
            consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    @ResponseBody
    ResponseEntity<Answer> take(
            Workspace.Head head,
            Person person,
            @RequestParam MultipartFile file,
            @RequestParam String spec,
            @RequestParam String columns,
            @RequestParam boolean headed,
            @RequestParam int base)
            throws IOException {
        try {
            List<List<String>> rows = read(file.getBytes());
            TableImport.Plan plan = plan(head, spec, mapping(head, rows, columns, headed), rows, true);
            return plan.problems().isEmpty()
                    ? Answer.of(
                            head,
                            workspace.commit(head.branch(), base, plan.edit(), person, plan.summary()),
                            "the table says nothing new")
                    : Answer.unprocessable(plan.problems().getFirst().inWords());
        } catch (CsvTable.TableFault fault) {
            return Answer.unprocessable(fault);
        }
    }

    private TableImport.Plan plan(
            Workspace.Head head, String spec, TableImport.Mapping mapping, List<List<String>> rows, boolean done) {
        Specification specification = lines.one(head, spec);
        Structuring.Place place = new Structuring(head.model()).below(specification.element());
        return TableImport.plan(
                head.model(),
                place,
                mapping,
                rows,
                count -> done
                        ? ids.take(head, specification.element(), count)
                        : IntStream.range(0, count).mapToObj(_ -> NEW).toList());
    }

    private static TableImport.Mapping mapping(
            Workspace.Head head, List<List<String>> rows, String columns, boolean headed) {
        return columns.isEmpty()
                ? ColumnGuess.of(head.model(), rows)
                : new TableImport.Mapping(
                        Arrays.stream(columns.split(",", -1)).map(String::strip).toList(), headed);
    }

    private static List<String> meanings(Workspace.Head head) {
        List<String> meanings = new java.util.ArrayList<>(
                List.of(TableImport.IGNORED, TableImport.ID, TableImport.TEXT, TableImport.NAME, TableImport.HEADING));
        Attributes.in(head.model()).all().stream().map(Attribute::name).forEach(meanings::add);
        return meanings;
    }
}
