package pyrite.app.links;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.util.UriComponentsBuilder;
import pyrite.app.architecture.DrawingData;
import pyrite.app.evidence.CoverageCache;
import pyrite.app.evidence.StaleRuns;
import pyrite.app.needs.StoryCoverage;
import pyrite.app.requirements.RequirementRows;
import pyrite.app.store.Person;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.Impact;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceRows;
import pyrite.core.trace.TraceTable;
import pyrite.core.view.ImpactView;

/** The pages that query links: two lists to link, coverage, impact, the trace table and the matrix. */
@Controller
class TracePagesController {
    private static final int MOST_ROWS = 100;
    private static final int MOST_IN_CELL = 12;
    /** Of one row on the page, and in an export. */
    private static final int MOST_CELLS = 400;

    static final int MOST_EXPORTED = 20_000;
    private static final int MOST_COLUMNS = 20;
    private static final int MOST_GAPS = 500;
    private static final int MOST_OFFERED = 8;
    private static final List<String> STANDARD = List.of("frame<", "frame<;derive<", "frame<;derive<;satisfy<");

    private final Pages pages;
    private final CoverageCache coverages;
    private final StaleRuns staleRuns;
    private final ElementSets sets;
    private final RequirementRows requirements;
    private final StoryCoverage stories;

    TracePagesController(
            Pages pages,
            CoverageCache coverages,
            StaleRuns staleRuns,
            ElementSets sets,
            RequirementRows requirements,
            StoryCoverage stories) {
        this.stories = stories;
        this.requirements = requirements;
        this.sets = sets;
        this.pages = pages;
        this.coverages = coverages;
        this.staleRuns = staleRuns;
    }

    private void frame(org.springframework.ui.Model page, Workspace.Head head, Person person, String title) {
        pages.frame(page, head, person, Station.REQUIREMENTS, title);
        page.addAttribute("kinds", LinkKind.all(head.model()));
        page.addAttribute("sets", sets.all(head, person));
    }

    /** Two lists, to link what stands in one with what stands in the other. */
    @GetMapping("/p/{project}/{branch}/links")
    String lists(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        frame(page, head, person, "Link");
        return "links/lists";
    }

    @GetMapping("/p/{project}/{branch}/coverage")
    String coverage(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        frame(page, head, person, "Coverage");
        Coverage coverage = coverages.of(head);
        page.addAttribute("coverage", coverage);
        page.addAttribute("stories", stories.rows(head));
        page.addAttribute("gaps", coverage.gaps().stream().limit(MOST_GAPS).toList());
        return "links/coverage";
    }

    @GetMapping("/p/{project}/{branch}/impact")
    String impact(
            Workspace.Head head,
            Person person,
            ImpactQuestion question,
            HttpServletRequest request,
            org.springframework.ui.Model page) {
        frame(page, head, person, "Impact");
        ImpactQuestion.Named named = question.named(head);
        List<Element> from = named.elements();
        page.addAttribute("query", request.getQueryString());
        page.addAttribute("of", inWords(head, named));
        page.addAttribute("way", question.way());
        page.addAttribute("depth", question.depth());
        page.addAttribute("chosen", question.kind());
        page.addAttribute("unknown", named.unknown());
        page.addAttribute("from", from);
        if (from.isEmpty()) {
            page.addAttribute(
                    "failing",
                    requirements.of(head).stream()
                            .filter(RequirementRows.Show.FAILING::takes)
                            .limit(MOST_OFFERED)
                            .map(RequirementRows.Row::element)
                            .toList());
        } else {
            Impact impact = question.answer(TraceGraph.of(head.model()), from);
            page.addAttribute("impact", impact);
            page.addAttribute(
                    "changing", from.stream().map(each -> each.id().toString()).collect(Collectors.joining(" ")));
            page.addAttribute("layers", layers(head, impact));
            page.addAttribute("stale", staleRuns.touchedBy(head, from));
        }
        return "links/impact";
    }

    /** What links reach, as a drawing. */
    @Costly
    @GetMapping("/p/{project}/{branch}/impact/drawing.json")
    @ResponseBody
    DrawingData impactDrawing(Workspace.Head head, ImpactQuestion question) {
        Impact impact = question.answer(
                TraceGraph.of(head.model()), question.named(head).elements());
        return DrawingData.of(head.number(), ImpactView.of(head.model(), impact));
    }

    /** What was asked for as somebody would type it: by the ids and names that elements go by. */
    private static String inWords(Workspace.Head head, ImpactQuestion.Named named) {
        return Stream.concat(
                        named.elements().stream()
                                .map(element -> Stream.of(
                                                RequirementIds.of(head.model(), element),
                                                element.shortName(),
                                                element.name())
                                        .filter(word -> word != null && !word.isEmpty())
                                        .findFirst()
                                        .orElseGet(() -> element.id().toString())),
                        named.unknown().stream())
                .collect(Collectors.joining(", "));
    }

    /** Elements at the same distance in links. */
    public record Layer(int far, List<Element> elements) {
        public String words() {
            return far == 0
                    ? "what changes"
                    : Math.abs(far) + (Math.abs(far) == 1 ? " link " : " links ") + (far < 0 ? "up" : "down");
        }
    }

    private static List<Layer> layers(Workspace.Head head, Impact impact) {
        Map<Integer, List<Element>> byFar = impact.reached().entrySet().stream()
                .collect(Collectors.groupingBy(
                        Map.Entry::getValue,
                        java.util.TreeMap::new,
                        Collectors.mapping(entry -> head.model().get(entry.getKey()), Collectors.toList())));
        return byFar.entrySet().stream()
                .map(entry -> new Layer(entry.getKey(), RequirementIds.sorted(head.model(), entry.getValue().stream())))
                .toList();
    }

    /**
     * A cell of the table.
     *
     * @param shown what the column shows of the element found
     * @param through the ways to it in words; empty where it is found at once
     */
    public record Cell(TraceRows.Cell cell, String shown, String through) {}

    /** @param rows one at least */
    public record Line(Element start, List<List<Cell>> rows) {}

    /** @param col path columns as {@link TraceTable.Column#parse} takes them */
    @Costly
    @GetMapping("/p/{project}/{branch}/trace")
    String trace(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String set,
            @RequestParam(required = false) List<String> col,
            @RequestParam(defaultValue = "0") int from,
            org.springframework.ui.Model page) {
        frame(page, head, person, "Trace table");
        String chosen = set.isEmpty()
                ? Specification.all(head.model()).stream()
                        .findFirst()
                        .map(each -> each.element().id().toString())
                        .orElse("~requirement")
                : set;
        TraceTable table = table(col == null ? STANDARD : col);
        TraceGraph graph = TraceGraph.of(head.model());
        List<Element> rows = table.kept(graph, sets.of(head, chosen).toList());
        Attributes attributes = Attributes.in(head.model());
        int first = Math.max(0, Math.min(from, Math.max(0, rows.size() - 1)));
        page.addAttribute("set", chosen);
        page.addAttribute(
                "queryOf",
                UriComponentsBuilder.newInstance()
                        .queryParam("set", chosen)
                        .queryParam("col", (Object[]) (col == null ? STANDARD : col).toArray())
                        .encode()
                        .build()
                        .getQuery());
        page.addAttribute("columns", table.columns());
        page.addAttribute("attributes", attributes.all());
        page.addAttribute("total", rows.size());
        page.addAttribute("from", first);
        page.addAttribute("most", MOST_ROWS);
        page.addAttribute(
                "rows",
                rows.stream()
                        .skip(first)
                        .limit(MOST_ROWS)
                        .map(start -> line(head, attributes, table, graph, start))
                        .toList());
        return "links/trace";
    }

    static TraceTable table(List<String> columns) {
        if (columns.size() > MOST_COLUMNS) {
            throw new ResponseStatusException(
                    HttpStatus.BAD_REQUEST, "a trace table has at most " + MOST_COLUMNS + " columns");
        }
        try {
            return new TraceTable(columns.stream()
                    .filter(each -> !each.isBlank())
                    .map(TraceTable.Column::parse)
                    .toList());
        } catch (IllegalArgumentException fault) {
            throw new ResponseStatusException(HttpStatus.BAD_REQUEST, fault.getMessage());
        }
    }

    private static Line line(
            Workspace.Head head, Attributes attributes, TraceTable table, TraceGraph graph, Element start) {
        Labels labels = new Labels(head.model());
        return new Line(
                start,
                TraceRows.of(table, graph, start.id(), MOST_IN_CELL, MOST_CELLS).stream()
                        .map(row -> row.stream()
                                .map(cell -> new Cell(
                                        cell,
                                        cell.found() == null
                                                ? ""
                                                : shown(
                                                        head,
                                                        attributes,
                                                        cell.found(),
                                                        table.columns()
                                                                .get(cell.column())
                                                                .show()),
                                        through(labels, cell.through())))
                                .toList())
                        .toList());
    }

    /** "through S-1 ▸ S-4, or S-2"; empty where one way leads through nothing. */
    static String through(Labels labels, List<List<Element>> ways) {
        return ways.isEmpty() || ways.stream().anyMatch(List::isEmpty)
                ? ""
                : ways.stream()
                        .map(way -> way.stream().map(labels::tag).collect(Collectors.joining(" ▸ ")))
                        .distinct()
                        .collect(Collectors.joining(", or ", "through ", ""));
    }

    /** What a cell found, in the order of the ids. */
    static Stream<Element> inOrder(Workspace.Head head, List<ElementId> found) {
        return RequirementIds.sorted(head.model(), found.stream().map(head.model()::get)).stream();
    }

    static String shown(Workspace.Head head, Attributes attributes, Element element, String show) {
        return switch (show) {
            case "" -> "";
            case "text" -> RequirementText.of(head.model(), element);
            default -> Specification.isRequirement(element) ? attributes.value(element, show) : "";
        };
    }

    @GetMapping("/p/{project}/{branch}/matrix")
    String matrix(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String rows,
            @RequestParam(defaultValue = "") String columns,
            @RequestParam(defaultValue = "") String kind,
            org.springframework.ui.Model page) {
        frame(page, head, person, "Matrix");
        List<Specification> all = Specification.all(head.model());
        Labels labels = new Labels(head.model());
        page.addAttribute("labels", labels);
        page.addAttribute(
                "rows",
                !rows.isEmpty()
                        ? rows
                        : all.isEmpty()
                                ? "~requirement"
                                : all.get(Math.min(1, all.size() - 1))
                                        .element()
                                        .id()
                                        .toString());
        page.addAttribute(
                "columns",
                !columns.isEmpty()
                        ? columns
                        : all.isEmpty()
                                ? "~need"
                                : all.getFirst().element().id().toString());
        page.addAttribute("kind", kind.isEmpty() ? "frame" : kind);
        return "links/matrix";
    }
}
