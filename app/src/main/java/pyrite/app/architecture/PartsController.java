package pyrite.app.architecture;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.Person;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.view.PartLimits;
import pyrite.core.view.PartsTable;
import pyrite.core.view.ShownView;

/** The parts of something with chosen attributes, their sums, and the requirements that limit these. */
@Controller
class PartsController {
    private static final int MOST_COLUMNS = 8;
    private static final List<String> USUAL = List.of("mass", "cost", "price", "power", "ratedPower");

    private final Pages pages;
    private final Verdicts verdicts;

    PartsController(Pages pages, Verdicts verdicts) {
        this.pages = pages;
        this.verdicts = verdicts;
    }

    /** A requirement that limits a column, with its worst verdict. */
    public record Limit(Element requirement, Optional<VerdictView> verdict) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/parts")
    String parts(
            Workspace.Head head,
            Person person,
            @RequestParam String of,
            @RequestParam(defaultValue = "") List<String> show,
            org.springframework.ui.Model page) {
        Element root = root(head, of);
        PartsTable table = table(head, root, show);
        pages.frame(page, head, person, Station.ARCHITECTURE, new Labels(head.model()).full(root) + " · Parts");
        page.addAttribute("element", root);
        page.addAttribute("table", table);
        page.addAttribute("shown", new Shown(List.copyOf(table.columns().keySet())));
        page.addAttribute("limits", limits(head, root, table.columns().keySet()));
        return "architecture/parts";
    }

    private static Element root(Workspace.Head head, String of) {
        Element root = head.element(of);
        if (!ShownView.hasInside(root)) {
            throw new NotFound(new Labels(head.model()).name(root) + " is "
                    + root.kind().titleWithArticle() + " and has no parts");
        }
        return root;
    }

    /** With the attributes asked for; with none of these, the usual ones that some part has. */
    private static PartsTable table(Workspace.Head head, Element root, List<String> show) {
        List<String> named = show.stream()
                .filter(name -> !name.isBlank())
                .distinct()
                .limit(MOST_COLUMNS)
                .toList();
        return PartsTable.of(head.model(), root, show.isEmpty() ? USUAL : named);
    }

    private List<Limit> limits(Workspace.Head head, Element root, Set<String> columns) {
        Map<ElementId, List<VerdictView>> all = verdicts.all(head);
        return PartLimits.of(head.model(), root, columns).stream()
                .map(requirement -> new Limit(
                        requirement,
                        all.getOrDefault(requirement.id(), List.of()).stream().findFirst()))
                .toList();
    }

    /** The names of the columns, and the query that shows one more or less. */
    public record Shown(List<String> names) {
        public String with(String name) {
            List<String> more = new ArrayList<>(names);
            more.add(name);
            return query(more);
        }

        public String without(String name) {
            return query(names.stream().filter(each -> !each.equals(name)).toList());
        }

        public String same() {
            return query(names);
        }

        private static String query(List<String> names) {
            return names.isEmpty()
                    ? "&show="
                    : names.stream()
                            .map(name -> "&show=" + URLEncoder.encode(name, StandardCharsets.UTF_8))
                            .collect(Collectors.joining());
        }
    }

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "The parts of something with attributes and their sums as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/parts/export.csv", ApiAddress.BRANCH + "/parts/export.csv"})
    void export(
            Workspace.Head head,
            @RequestParam String of,
            @RequestParam(defaultValue = "") List<String> show,
            HttpServletResponse response)
            throws IOException {
        PartsTable table = table(head, root(head, of), show);
        Labels labels = new Labels(head.model());
        List<List<String>> rows = new ArrayList<>();
        List<String> heading = new ArrayList<>(List.of("part", "type", "multiplicity", "count"));
        table.columns().forEach((name, unit) -> {
            heading.add(name + " of one" + in(unit));
            heading.add(name + " of all" + in(unit));
        });
        rows.add(heading);
        for (PartsTable.Row row : table.rows()) {
            List<String> cells = new ArrayList<>(List.of(
                    row.path().isEmpty() ? row.name() : row.path(),
                    row.type() == null ? "" : labels.name(row.type()),
                    row.multiplicity(),
                    row.count().map(String::valueOf).orElse("")));
            table.columns().keySet().forEach(name -> {
                PartsTable.Cell cell = Objects.requireNonNull(row.cells().get(name));
                cells.add(cell.each() == null ? "" : String.valueOf(cell.each()));
                cells.add(cell.sum() == null ? "" : String.valueOf(cell.sum()));
            });
            rows.add(cells);
        }
        Downloads.csv(response, "parts", head, rows);
    }

    private static String in(DisplayUnit unit) {
        return unit.symbol().isEmpty() ? "" : " [" + unit.symbol() + "]";
    }
}
