package pyrite.app.links;

import org.springframework.stereotype.Component;
import pyrite.app.recheck.RecheckFilter;
import pyrite.app.recheck.Rechecks;
import pyrite.app.requirements.GridRows;
import pyrite.app.workspace.Query;
import pyrite.app.workspace.Workspace;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.SavedView;
import pyrite.core.trace.TraceTable;

/** What a kept view comes to now, as one number, and where it is opened. */
@Component
public class ViewCounts {
    private final Graphs graphs;
    private final GridRows grid;
    private final Rechecks rechecks;
    private final Sets sets;

    ViewCounts(Graphs graphs, GridRows grid, Rechecks rechecks, Sets sets) {
        this.sets = sets;
        this.graphs = graphs;
        this.grid = grid;
        this.rechecks = rechecks;
    }

    public static String address(Workspace.Head head, SavedView view) {
        return head.address(view.page() + (view.query().isEmpty() ? "" : "?" + view.query()));
    }

    /** How many rows, gaps or links the view has; empty for what is no list, and for one that asks of something that is gone. */
    public String of(Workspace.Head head, SavedView view) {
        try {
            Query query = Query.parse(view.query());
            return switch (view.page()) {
                case "trace" -> Integer.toString(new TraceTable(query.all("col").stream().filter(each -> !each.isBlank()).map(TraceTable.Column::parse).toList())
                        .rows(graphs.of(head), sets.of(head, new LinkRules(head.model()), query.first("set")).toList()).size());
                case "requirements" -> Long.toString(grid.requirements(head, GridRows.Asked.of(query)).count());
                case "coverage" -> Integer.toString(graphs.coverage(head).gaps().size());
                case "recheck" -> Long.toString(rechecks.all(head).stream().filter(doubt -> RecheckFilter.of(query).takes(head.model(), doubt)).count());
                default -> "";
            };
        } catch (RuntimeException _) {
            return "";
        }
    }
}
