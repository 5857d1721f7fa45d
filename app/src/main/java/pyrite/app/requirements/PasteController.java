package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.specification.ColumnGuess;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.specification.TableImport;

/** Receives rows copied from a spreadsheet. */
@RestController
@Tag(name = ApiAddress.TRACING)
class PasteController {
    private static final int MOST_ROWS = 20_000;

    private final Workspace workspace;
    private final NewIds ids;

    PasteController(Workspace workspace, NewIds ids) {
        this.workspace = workspace;
        this.ids = ids;
    }

    /** Rows of cells to insert behind the anchor; the first row may name the columns. */
    record Pasted(
            @NotNull String anchor,
            @NotEmpty @Size(max = MOST_ROWS) List<@Size(max = 200) List<@Size(max = 100_000) String>> rows,
            @PositiveOrZero int base) {}

    @Operation(summary = "Add rows of a table, cells by tabulators; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/requirements/paste", ApiAddress.BRANCH + "/requirements/paste"})
    ResponseEntity<Answer> paste(Workspace.Head head, Person person, @Valid @RequestBody Pasted pasted) {
        Element anchor = head.element(pasted.anchor());
        Structuring structuring = new Structuring(head.model());
        Structuring.Place place = Specification.of(head.model(), anchor, false).isPresent()
                ? structuring.below(anchor)
                : structuring.after(anchor);
        TableImport.Mapping mapping = ColumnGuess.of(head.model(), pasted.rows());
        TableImport.Plan plan = TableImport.plan(
                head.model(), place, mapping, pasted.rows(), count -> ids.take(head, place.owner(), count));
        if (!plan.problems().isEmpty()) {
            return Answer.unprocessable(plan.problems().getFirst().inWords());
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), pasted.base(), plan.edit(), person, plan.summary()),
                "these rows say nothing new",
                plan.added());
    }
}
