package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Matrix;
import pyrite.core.trace.TraceGraph;

/** The cells of a matrix, in windows of rows. */
@RestController
@Tag(name = ApiAddress.TRACING)
class MatrixController {
    private static final int MOST_ROWS = 200;

    private final ElementSets sets;

    MatrixController(ElementSets sets) {
        this.sets = sets;
    }

    record Heading(String id, String tag, String title) {}

    /** A window of a matrix: all column headings, and the rows from an index on. */
    record Window(int rows, List<Heading> columns, int from, List<Heading> lines, List<Matrix.Cells> cells) {}

    @Operation(summary = "A window of a matrix of two sets")
    @Costly
    @GetMapping({"/p/{project}/{branch}/matrix.json", ApiAddress.BRANCH + "/matrix"})
    Window matrix(
            Workspace.Head head,
            @RequestParam String rows,
            @RequestParam String columns,
            @RequestParam String kind,
            @RequestParam(defaultValue = "false") boolean implied,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "100") int count) {
        List<Element> all = sets.of(head, rows).toList();
        int first = Math.max(0, Math.min(from, all.size()));
        List<Element> shown = all.subList(first, Math.min(all.size(), first + Math.max(0, Math.min(count, MOST_ROWS))));
        List<Element> across = sets.of(head, columns).toList();
        Matrix matrix = Matrix.of(TraceGraph.of(head.model()), shown, across, kind, implied);
        Labels labels = new Labels(head.model());
        return new Window(
                all.size(),
                first == 0
                        ? across.stream()
                                .map(each -> heading(head, labels, each))
                                .toList()
                        : List.of(),
                first,
                shown.stream().map(each -> heading(head, labels, each)).toList(),
                matrix.cells());
    }

    private static Heading heading(Workspace.Head head, Labels labels, Element element) {
        boolean requirement = Specification.isRequirement(element);
        return new Heading(
                element.id().toString(),
                requirement ? RequirementIds.of(head.model(), element) : labels.name(element),
                requirement ? RequirementText.of(head.model(), element) : labels.withOwner(element));
    }
}
