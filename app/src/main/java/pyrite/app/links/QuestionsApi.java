package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.evidence.CoverageCache;
import pyrite.app.evidence.StaleRuns;
import pyrite.app.store.Person;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.ElementRef;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.Attributes;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.Impact;
import pyrite.core.trace.Link;
import pyrite.core.trace.SavedView;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceRows;
import pyrite.core.trace.TraceTable;

/** The content of the link pages for programs: coverage, trace table, impact, saved views. */
@RestController
@RequestMapping(ApiAddress.BRANCH)
@Tag(name = ApiAddress.TRACING)
class QuestionsApi {
    private static final int MOST_ROWS = 1000;

    private final CoverageCache coverages;
    private final StaleRuns staleRuns;
    private final ElementSets sets;
    private final ViewCounts counts;

    QuestionsApi(CoverageCache coverages, StaleRuns staleRuns, ElementSets sets, ViewCounts counts) {
        this.coverages = coverages;
        this.staleRuns = staleRuns;
        this.sets = sets;
        this.counts = counts;
    }

    /** One specification in numbers; -1 where nothing is expected. */
    record CoverageRow(
            ElementRef specification,
            int requirements,
            int asked,
            int derived,
            int satisfied,
            int verified,
            int passing) {}

    /** @param link the relation of the missing links, seen from the requirement */
    record GapJson(ElementRef requirement, String link, int there, int expected) {}

    /** An upward chain that ends before a level where it may end. */
    record BrokenJson(ElementRef requirement, ElementRef breaksAt) {}

    record CoverageJson(
            List<CoverageRow> specifications, List<GapJson> gaps, List<ElementRef> unasked, List<BrokenJson> broken) {}

    @Operation(summary = "How far the requirements of each specification are carried, and what is missing")
    @Costly
    @GetMapping("/coverage")
    CoverageJson coverage(Workspace.Head head) {
        Model model = head.model();
        Coverage coverage = coverages.of(head);
        return new CoverageJson(
                coverage.rows().stream()
                        .map(row -> new CoverageRow(
                                ElementRef.of(model, row.specification().element()),
                                row.all(),
                                row.asked(),
                                row.derived(),
                                row.satisfied(),
                                row.verified(),
                                row.passing()))
                        .toList(),
                coverage.gaps().stream()
                        .map(gap -> new GapJson(
                                ElementRef.of(model, gap.element()), gap.words(), gap.there(), gap.expected()))
                        .toList(),
                ElementRef.of(model, coverage.unasked().stream()),
                coverage.broken().stream()
                        .map(broken -> new BrokenJson(
                                ElementRef.of(model, broken.element()), ElementRef.of(model, broken.at())))
                        .toList());
    }

    /** An element found by a path column; {@code shown} is its text or requested attribute. */
    record FoundJson(ElementRef found, String shown) {}

    /**
     * @param cells what each column finds, in all
     * @param ways the same way by way: for each way what each column finds on it, null where it finds nothing
     */
    record TraceRow(ElementRef start, List<List<FoundJson>> cells, List<List<@Nullable ElementRef>> ways) {}

    /** @param total the number of rows, of which these begin with the one at {@code from} */
    record TraceJson(int total, int from, List<TraceRow> rows) {}

    @Operation(summary = "Rows of a trace table: from a set of elements along path columns such as 'frame<;derive<'")
    @Costly
    @GetMapping("/trace")
    TraceJson trace(
            Workspace.Head head,
            @RequestParam String set,
            @RequestParam(required = false) List<String> col,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "100") int count) {
        TraceTable table = TracePagesController.table(col == null ? List.of() : col);
        TraceGraph graph = TraceGraph.of(head.model());
        Attributes attributes = Attributes.in(head.model());
        List<Element> starts = table.kept(graph, sets.of(head, set).toList());
        int first = Math.max(0, Math.min(from, starts.size()));
        int size = Math.max(0, Math.min(count, MOST_ROWS));
        return new TraceJson(
                starts.size(),
                first,
                starts.stream()
                        .skip(first)
                        .limit(size)
                        .map(start -> row(head, attributes, table, graph, start))
                        .toList());
    }

    private static TraceRow row(
            Workspace.Head head, Attributes attributes, TraceTable table, TraceGraph graph, Element start) {
        TraceTable.Row row = table.row(graph, start);
        List<List<FoundJson>> cells = new ArrayList<>();
        for (int i = 0; i < table.columns().size(); i++) {
            String show = table.columns().get(i).show();
            cells.add(TracePagesController.inOrder(head, row.cells().get(i))
                    .map(element -> new FoundJson(
                            ElementRef.of(head.model(), element),
                            TracePagesController.shown(head, attributes, element, show)))
                    .toList());
        }
        List<List<@Nullable ElementRef>> ways = new ArrayList<>();
        for (List<@Nullable Element> way : TraceRows.filled(
                TraceRows.of(table, graph, start.id(), Integer.MAX_VALUE, TracePagesController.MOST_EXPORTED),
                table.columns().size())) {
            List<@Nullable ElementRef> refs = new ArrayList<>();
            way.forEach(each -> refs.add(each == null ? null : ElementRef.of(head.model(), each)));
            ways.add(refs);
        }
        return new TraceRow(ElementRef.of(head.model(), row.start()), cells, ways);
    }

    record LinkJson(String kind, ElementRef source, ElementRef target) {
        static LinkJson of(Model model, Link link) {
            return new LinkJson(
                    link.kind().key(),
                    ElementRef.of(model, model.get(link.source())),
                    ElementRef.of(model, model.get(link.target())));
        }
    }

    /** @param links its distance in links, negative upward, 0 for the changed elements */
    record ReachedJson(ElementRef element, int links) {}

    /**
     * @param unknown names that match nothing
     * @param recheck the links that would need recheck
     * @param stale the requirements whose verdicts would become stale
     */
    record ImpactJson(
            List<ReachedJson> reached,
            List<LinkJson> links,
            List<LinkJson> recheck,
            List<ElementRef> stale,
            List<String> unknown) {}

    @Operation(summary = "What a change of some elements would reach, put in doubt and make stale")
    @Costly
    @GetMapping("/impact")
    ImpactJson impact(Workspace.Head head, @ParameterObject ImpactQuestion question) {
        Model model = head.model();
        ImpactQuestion.Named named = question.named(head);
        Impact impact = question.answer(TraceGraph.of(model), named.elements());
        return new ImpactJson(
                impact.reached().entrySet().stream()
                        .sorted(Map.Entry.comparingByValue(Comparator.<Integer, Integer>comparing(Math::abs)))
                        .map(entry ->
                                new ReachedJson(ElementRef.of(model, model.get(entry.getKey())), entry.getValue()))
                        .toList(),
                impact.links().stream().map(link -> LinkJson.of(model, link)).toList(),
                impact.recheck().stream().map(link -> LinkJson.of(model, link)).toList(),
                ElementRef.of(model, staleRuns.touchedBy(head, named.elements()).stream()),
                named.unknown());
    }

    /** @param count the current number of rows; empty if it is not a number */
    record ViewJson(
            ElementRef view, String page, String query, String owner, boolean shared, boolean pinned, String count) {}

    @Operation(summary = "The views you may open")
    @Costly
    @GetMapping("/views")
    List<ViewJson> views(Workspace.Head head, Person person) {
        return SavedView.listed(head.model(), person.signIn()).stream()
                .map(view -> new ViewJson(
                        ElementRef.of(head.model(), view.element()),
                        view.page(),
                        view.query(),
                        view.owner(),
                        view.shared(),
                        view.pinned(),
                        counts.of(head, view)))
                .toList();
    }
}
