package pyrite.app.links;

import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.util.MultiValueMap;
import org.springframework.web.util.UriComponentsBuilder;
import pyrite.app.recheck.Rechecks;
import pyrite.app.requirements.GridRows;
import pyrite.app.store.Person;
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

    ViewCounts(Graphs graphs, GridRows grid, Rechecks rechecks) {
        this.graphs = graphs;
        this.grid = grid;
        this.rechecks = rechecks;
    }

    /** The views somebody may see listed: those that are shared, and their own. */
    public List<SavedView> listed(Workspace.Head head, Person person) {
        return SavedView.all(head.model()).stream().filter(view -> view.shared() || view.owner().equals(person.signIn())).toList();
    }

    public static String address(Workspace.Head head, SavedView view) {
        return head.address(view.page() + (view.query().isEmpty() ? "" : "?" + view.query()));
    }

    /** How many rows, gaps or links the view has; empty for what is no list, and for one that asks of something that is gone. */
    public String of(Workspace.Head head, SavedView view) {
        try {
            MultiValueMap<String, String> query = UriComponentsBuilder.newInstance().query(view.query()).build().getQueryParams();
            return switch (view.page()) {
                case "trace" -> Integer.toString(new TraceTable(columns(query).stream().map(TraceTable.Column::parse).toList())
                        .rows(graphs.of(head), Sets.of(head, new LinkRules(head.model()), decoded(query.getFirst("set"))).toList()).size());
                case "requirements" -> Long.toString(grid.count(head, new GridRows.Asked(decoded(query.getFirst("spec")), decoded(query.getFirst("q")),
                        query.getOrDefault("where", List.of()).stream().map(ViewCounts::decoded).toList(), query.getFirst("show"), query.getFirst("sort"), query.getFirst("group"))));
                case "coverage" -> Integer.toString(graphs.coverage(head).gaps().size());
                case "recheck" -> Integer.toString(rechecks.all(head).size());
                default -> "";
            };
        } catch (RuntimeException _) {
            return "";
        }
    }

    private static List<String> columns(MultiValueMap<String, String> query) {
        return query.getOrDefault("col", List.of()).stream().map(ViewCounts::decoded).filter(each -> !each.isBlank()).toList();
    }

    private static String decoded(String text) {
        return text == null ? "" : java.net.URLDecoder.decode(text, java.nio.charset.StandardCharsets.UTF_8);
    }
}
