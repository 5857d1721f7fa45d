package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import pyrite.app.evidence.VerdictView;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.candidate.CandidateTable;
import pyrite.core.candidate.Candidates;
import pyrite.core.candidate.Criterion;
import pyrite.core.candidate.Weighing;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.specification.ExternalReference;
import tools.jackson.databind.json.JsonMapper;

/** Real products that could fill a part's role: compared, weighed, chosen with a reason, the choice undone. */
@Controller
class CandidatesController {
    private static final int MOST_CRITERIA = 50;

    private final Pages pages;
    private final Workspace workspace;
    private final JsonMapper json;

    CandidatesController(Pages pages, Workspace workspace, JsonMapper json) {
        this.json = json;
        this.pages = pages;
        this.workspace = workspace;
    }

    /** A candidate at the head of its column. */
    public record Column(CandidateTable.Row row, List<ExternalReference> references, boolean isFirst, String score) {}

    /** A requirement with what each candidate makes of it; null where nothing can be said. */
    public record Judged(Element requirement, List<@Nullable VerdictView> verdicts) {}

    /** An attribute with its values, and how much it counts. */
    public record Quantity(String name, String unit, int weight, boolean isMoreBetter, List<@Nullable Double> values) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/candidates")
    String candidates(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element part = part(head, id);
        Labels labels = new Labels(head.model());
        pages.frame(page, head, person, Station.ARCHITECTURE, labels.full(part) + " · Candidates");
        page.addAttribute("element", part);
        Element role = Candidates.role(head.model(), part).orElse(null);
        page.addAttribute("role", role);
        if (role != null) {
            CandidateTable table = CandidateTable.of(head.model(), part);
            page.addAttribute("columns", columns(head, labels, table));
            page.addAttribute("quantities", quantities(table));
            page.addAttribute("judged", judged(head, table));
            page.addAttribute("byRun", table.byRun());
            page.addAttribute("turns", turns(labels, table));
            page.addAttribute("reason", Candidates.reason(head.model(), part));
            page.addAttribute("asked", asked(table));
            page.addAttribute("isWeighed", table.weighing().best().isPresent());
        }
        return "architecture/candidates";
    }

    private static Element part(Workspace.Head head, String id) {
        Element part = head.element(id);
        if (part.kind() != ElementKind.PART) {
            throw new NotFound(new Labels(head.model()).name(part) + " is "
                    + part.kind().titleWithArticle() + "; candidates are compared for a part");
        }
        return part;
    }

    private static List<Column> columns(Workspace.Head head, Labels labels, CandidateTable table) {
        List<Column> columns = new ArrayList<>();
        OptionalInt best = table.weighing().best();
        int product = 0;
        for (CandidateTable.Row row : table.rows()) {
            if (row.product() == null) {
                columns.add(new Column(row, List.of(), false, ""));
                continue;
            }
            columns.add(new Column(
                    row,
                    ExternalReference.of(head.model(), row.product()),
                    best.isPresent() && best.getAsInt() == product,
                    String.format(Locale.ROOT, "%.2f", table.weighing().scores().get(product))));
            product++;
        }
        return columns;
    }

    private static List<Quantity> quantities(CandidateTable table) {
        List<Quantity> quantities = new ArrayList<>();
        table.quantities().forEach((name, unit) -> {
            Criterion criterion = table.criteria().stream()
                    .filter(each -> each.quantity().equals(name))
                    .findFirst()
                    .orElse(new Criterion(name, 0, false));
            List<@Nullable Double> values = new ArrayList<>();
            table.rows().forEach(row -> values.add(row.values().get(name)));
            quantities.add(new Quantity(name, unit.symbol(), criterion.weight(), criterion.isMoreBetter(), values));
        });
        return quantities;
    }

    private static List<Judged> judged(Workspace.Head head, CandidateTable table) {
        return table.requirements().stream()
                .map(requirement -> {
                    List<@Nullable VerdictView> verdicts = new ArrayList<>();
                    table.rows().forEach(row -> {
                        var judgement = row.verdicts().get(requirement.id());
                        verdicts.add(judgement == null ? null : VerdictView.of(judgement, head.number()));
                    });
                    return new Judged(requirement, verdicts);
                })
                .toList();
    }

    /** What the page asks of a new product: the names of the attributes and their units. */
    private String asked(CandidateTable table) {
        List<Map<String, String>> asked = new ArrayList<>();
        table.quantities().forEach((name, unit) -> asked.add(Map.of("name", name, "unit", unit.symbol())));
        return json.writeValueAsString(asked);
    }

    /** One sentence for each weight at which another candidate comes first. */
    private static List<String> turns(Labels labels, CandidateTable table) {
        List<CandidateTable.Row> products = table.products();
        return table.weighing().turns().stream()
                .map(turn -> sentence(labels, table.criteria().get(turn.column()), turn, products))
                .toList();
    }

    private static String sentence(
            Labels labels, Criterion criterion, Weighing.Turn turn, List<CandidateTable.Row> products) {
        Element other = Objects.requireNonNull(products.get(turn.candidate()).product());
        return "With " + criterion.quantity() + (turn.isAbove() ? " above " : " below ") + labels.number(turn.weight())
                + " instead of " + criterion.weight() + ", " + labels.name(other) + " comes first.";
    }

    record Weight(
            @NotBlank @Size(max = 200) String quantity,
            @PositiveOrZero @Max(Criterion.MOST) int weight,
            boolean isMoreBetter) {}

    record Weights(
            @NotNull @Size(max = MOST_CRITERIA) List<@Valid Weight> criteria,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/candidates/weigh")
    ResponseEntity<Answer> weigh(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Weights asked) {
        Element part = part(head, id);
        List<Criterion> criteria = asked.criteria().stream()
                .map(each -> new Criterion(each.quantity(), each.weight(), each.isMoreBetter()))
                .toList();
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        asked.base(),
                        Criterion.keep(head.model(), part, criteria),
                        person,
                        "weights of the candidates for " + new Labels(head.model()).name(part) + " changed"),
                "nothing changed");
    }

    /** @param candidate null to take the choice back */
    record Chosen(
            @Nullable String candidate,
            @NotNull @Size(max = 2000) String reason,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/candidates/choose")
    ResponseEntity<Answer> choose(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Chosen chosen) {
        Element part = part(head, id);
        Labels labels = new Labels(head.model());
        if (chosen.reason().isBlank()) {
            return Answer.unprocessable("a choice is kept with its reason; say in a few words why");
        }
        if (chosen.candidate() == null && Candidates.chosen(head.model(), part).isEmpty()) {
            return Answer.unprocessable("no product is chosen for " + labels.name(part));
        }
        if (chosen.candidate() == null) {
            return save(
                    head,
                    person,
                    chosen.base(),
                    Candidates.takeBack(head.model(), part),
                    "choice for " + labels.name(part) + " undone: "
                            + chosen.reason().strip());
        }
        Element candidate = head.element(chosen.candidate());
        return Candidates.of(head.model(), part).contains(candidate)
                ? save(
                        head,
                        person,
                        chosen.base(),
                        Candidates.choose(head.model(), part, candidate, chosen.reason()),
                        labels.name(candidate) + " chosen for " + labels.name(part) + ": "
                                + chosen.reason().strip())
                : Answer.unprocessable(labels.name(candidate) + " is not on offer for " + labels.name(part));
    }

    private ResponseEntity<Answer> save(Workspace.Head head, Person person, int base, Edit edit, String summary) {
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed");
    }

    record Product(
            @NotBlank @Size(max = 200) String name,
            @NotNull @Size(max = 200) String supplier,
            @NotNull @Size(max = 2000) String address,
            @NotNull @Size(max = MOST_CRITERIA) Map<@Size(max = 200) String, @Size(max = 1000) String> values,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/candidates/add")
    ResponseEntity<Answer> add(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Product product) {
        Element part = part(head, id);
        Candidates.Product wished = new Candidates.Product(
                product.name().strip(),
                product.supplier().strip(),
                product.address().strip(),
                product.values());
        return switch (Candidates.add(head.model(), part, wished)) {
            case Candidates.Offer.Refused(String reason) -> Answer.unprocessable(reason);
            case Candidates.Offer.Made(Edit edit, ElementId _) ->
                save(
                        head,
                        person,
                        product.base(),
                        edit,
                        wished.name() + " added as a candidate for " + new Labels(head.model()).name(part));
        };
    }
}
