package pyrite.app.architecture;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.consolidation.Consolidation;
import pyrite.core.function.ExchangeTable;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.ExchangeTable.State;
import pyrite.core.function.PartTree;
import pyrite.core.function.WireUp;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.structure.ConnectorEnds;

/** Who exchanges what: the table that follows from functions and their performers, and wiring what nothing carries. */
@Controller
public class ExchangesController {
    private static final int MOST_ROWS = 500;
    private static final int DEEPEST = 9;

    private final Pages pages;
    private final Workspace workspace;

    ExchangesController(Pages pages, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
    }

    @Costly
    @GetMapping("/p/{project}/{branch}/exchanges")
    String exchanges(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            @RequestParam(defaultValue = "1") @Min(1) @Max(DEEPEST) int level,
            @RequestParam(defaultValue = "") String state,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Who exchanges what");
        page.addAttribute("functions", FunctionQuestion.functions(head.model()));
        page.addAttribute("wholes", FunctionQuestion.wholes(head.model()));
        page.addAttribute("level", level);
        page.addAttribute("states", State.values());
        page.addAttribute("state", state);
        FunctionQuestion question = FunctionQuestion.of(head, of, in).orElse(null);
        if (question != null) {
            ExchangeTable table = ExchangeTable.of(head.model(), question.function(), question.whole(), level);
            page.addAttribute("function", question.function());
            page.addAttribute("whole", question.whole());
            page.addAttribute("table", table);
            page.addAttribute(
                    "rows",
                    table.rows().stream()
                            .filter(row -> state.isEmpty() || row.state().name().equals(state))
                            .limit(MOST_ROWS)
                            .toList());
        }
        return "architecture/exchanges";
    }

    /**
     * A function that a part has.
     *
     * @param part the path of the part that performs it
     * @param events what of it use cases found as an event or message
     * @param values its attributes
     */
    public record Had(
            Element function,
            String part,
            List<String> receives,
            List<String> sends,
            List<String> events,
            List<String> values) {}

    /** The functions of a part, and what crosses its border by them. */
    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/exchanges")
    String ofPart(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Model model = head.model();
        Element element = head.element(id);
        if (element.kind() != ElementKind.PART && element.kind() != ElementKind.PART_DEFINITION) {
            throw new NotFound("parts exchange something, and " + new Labels(model).name(element) + " is "
                    + element.kind().titleWithArticle());
        }
        pages.frame(page, head, person, Station.ARCHITECTURE, new Labels(model).full(element) + " · Exchanges");
        page.addAttribute("element", element);
        Element whole = FunctionQuestion.around(model, element);
        PartTree tree = PartTree.of(model, whole);
        List<PartTree.Part> meant = tree.parts().stream()
                .filter(part -> model.inheritance().generals(part.element()).contains(element))
                .toList();
        page.addAttribute("functions", had(model, tree, meant));
        FunctionQuestion.functions(model).stream().findFirst().ifPresent(function -> {
            ExchangeTable table = ExchangeTable.of(model, function, whole, DEEPEST);
            page.addAttribute("function", function);
            page.addAttribute("whole", whole);
            page.addAttribute("table", table);
            page.addAttribute(
                    "rows",
                    table.rows().stream()
                            .filter(row -> isIn(row.sender(), meant) != isIn(row.receiver(), meant))
                            .limit(MOST_ROWS)
                            .toList());
        });
        return "architecture/part-exchanges";
    }

    private static boolean isIn(PartTree.@Nullable Part part, List<PartTree.Part> meant) {
        return part != null && meant.stream().anyMatch(part::isIn);
    }

    private static List<Had> had(Model model, PartTree tree, List<PartTree.Part> meant) {
        return tree.parts().stream()
                .filter(part -> isIn(part, meant))
                .flatMap(part -> model.inheritance().features(part.element()).stream()
                        .filter(feature -> feature.kind() == ElementKind.PERFORM && !model.isLibrary(feature.id()))
                        .map(perform -> new Had(
                                perform,
                                tree.path(part),
                                parameters(model, perform, "in"),
                                parameters(model, perform, "out"),
                                events(model, perform),
                                values(model, perform))))
                .toList();
    }

    private static List<String> events(Model model, Element function) {
        Consolidation consolidation = Consolidation.of(model);
        Labels labels = new Labels(model);
        return model.inheritance().features(function).stream()
                .filter(feature -> feature.get(Property.DIRECTION).isPresent())
                .flatMap(feature -> model.inheritance().generals(feature).stream())
                .filter(general -> consolidation.feature(general.id()).isPresent())
                .map(labels::name)
                .distinct()
                .toList();
    }

    private static List<String> values(Model model, Element function) {
        Labels labels = new Labels(model);
        return model.inheritance().features(function).stream()
                .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE && !model.isLibrary(feature.id()))
                .map(labels::name)
                .toList();
    }

    private static List<String> parameters(Model model, Element function, String direction) {
        Labels labels = new Labels(model);
        return model.inheritance().features(function).stream()
                .filter(feature -> !model.isLibrary(feature.id())
                        && feature.get(Property.DIRECTION)
                                .filter(way -> way.equals(direction) || way.equals("inout"))
                                .isPresent())
                .map(labels::name)
                .toList();
    }

    /** The name of a connection, else what it joins. */
    public static String words(Model model, Element connector) {
        return connector.name() != null
                ? connector.name()
                : ConnectorEnds.of(model, connector).stream()
                        .map(end -> end.chain().stream()
                                .map(id -> new Labels(model).name(id))
                                .collect(Collectors.joining(".")))
                        .collect(Collectors.joining(" to "));
    }

    @Costly
    @GetMapping("/p/{project}/{branch}/exchanges/export.csv")
    void export(
            Workspace.Head head,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            @RequestParam(defaultValue = "1") @Min(1) @Max(DEEPEST) int level,
            HttpServletResponse response)
            throws IOException {
        List<List<String>> lines = new ArrayList<>(List.of(
                List.of("what", "from function", "from part", "to function", "to part", "state", "carried by")));
        FunctionQuestion.of(head, of, in).ifPresent(question -> {
            ExchangeTable table = ExchangeTable.of(head.model(), question.function(), question.whole(), level);
            table.rows()
                    .forEach(row -> lines.add(List.of(
                            table.name(row),
                            table.functions().path(row.from()),
                            row.fromPart() == null ? "" : table.parts().path(row.fromPart()),
                            table.functions().path(row.to()),
                            row.toPart() == null ? "" : table.parts().path(row.toPart()),
                            row.state().title(),
                            row.carriedBy().stream()
                                    .map(carrier -> words(head.model(), carrier))
                                    .collect(Collectors.joining(", ")))));
        });
        Downloads.csv(response, "exchanges", head, lines);
    }

    /**
     * What identifies a row: the functions by their paths, the parts that perform them, and what goes.
     *
     * @param from the path of the function that sends
     */
    record Named(
            @NotNull @Size(max = 500) String from,
            @NotNull @Size(max = 500) String to,
            @NotNull @Size(max = 500) String sender,
            @NotNull @Size(max = 500) String receiver,
            @NotNull @Size(max = 500) String what) {}

    record Wired(
            @NotNull String of,
            @NotNull String in,
            @NotEmpty @Size(max = 200) List<@Valid Named> rows,
            boolean preview,
            @PositiveOrZero int base) {}

    /** What would be added. */
    record Preview(List<WireUp.Addition> additions, List<String> summaries) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/exchanges/wire")
    ResponseEntity<?> wire(Workspace.Head head, Person person, @Valid @RequestBody Wired asked) {
        ExchangeTable table =
                ExchangeTable.of(head.model(), head.element(asked.of()), head.element(asked.in()), DEEPEST);
        List<Row> rows = new ArrayList<>();
        for (Named named : asked.rows()) {
            Row row = table.rows().stream()
                    .filter(each -> named(table, each).equals(named))
                    .findFirst()
                    .orElse(null);
            if (row == null) {
                return Answer.unprocessable(named.what() + " from " + named.from() + " to " + named.to()
                        + " is no longer exchanged so; the table shows what is");
            }
            rows.add(row);
        }
        WireUp.Proposal proposal;
        try {
            proposal = WireUp.of(table, rows);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return asked.preview()
                ? ResponseEntity.ok(new Preview(proposal.additions(), proposal.summaries()))
                : Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                asked.base(),
                                proposal.edit(),
                                person,
                                rows.size() == 1
                                        ? String.join("; ", proposal.summaries())
                                        : rows.size() + " exchanges wired in "
                                                + new Labels(head.model())
                                                        .name(table.parts().whole())),
                        "nothing changed");
    }

    static Named named(ExchangeTable table, Row row) {
        return new Named(
                table.functions().path(row.from()),
                table.functions().path(row.to()),
                row.sender() == null ? "" : table.parts().path(row.sender()),
                row.receiver() == null ? "" : table.parts().path(row.receiver()),
                table.name(row));
    }
}
