package pyrite.app.links;

import org.springframework.stereotype.Component;
import pyrite.app.evidence.CoverageCache;
import pyrite.app.recheck.RecheckFilter;
import pyrite.app.recheck.Rechecks;
import pyrite.app.requirements.GridRows;
import pyrite.app.workspace.Query;
import pyrite.app.workspace.Workspace;
import pyrite.core.trace.SavedView;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceTable;

/** The current row count of a saved view, and its address. */
@Component
public class ViewCounts {
    private final CoverageCache coverages;
    private final GridRows grid;
    private final Rechecks rechecks;
    private final ElementSets sets;

    ViewCounts(CoverageCache coverages, GridRows grid, Rechecks rechecks, ElementSets sets) {
        this.sets = sets;
        this.coverages = coverages;
        this.grid = grid;
        this.rechecks = rechecks;
    }

    public static String address(Workspace.Head head, SavedView view) {
        if (view.page().equals(SavedView.DRAWING)) {
            return head.address(view.query());
        }
        return head.address(view.page() + (view.query().isEmpty() ? "" : "?" + view.query()));
    }

    /**
     * How many rows, gaps or links the view has; empty for what is no list, and for one that asks of something that is
     * gone.
     */
    public String of(Workspace.Head head, SavedView view) {
        try {
            Query query = Query.parse(view.query());
            return switch (view.page()) {
                case "trace" ->
                    Integer.toString(new TraceTable(query.all("col").stream()
                                    .filter(each -> !each.isBlank())
                                    .map(TraceTable.Column::parse)
                                    .toList())
                            .kept(
                                    TraceGraph.of(head.model()),
                                    sets.of(head, query.first("set")).toList())
                            .size());
                case "requirements" ->
                    Long.toString(
                            grid.requirements(head, GridRows.Asked.of(query)).count());
                case "coverage" -> Integer.toString(coverages.of(head).gaps().size());
                case "recheck" ->
                    Long.toString(rechecks.all(head).stream()
                            .filter(doubt -> RecheckFilter.of(query).takes(head.model(), doubt))
                            .count());
                default -> "";
            };
        } catch (RuntimeException _) {
            return "";
        }
    }
}
