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
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.function.ExchangeTable;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.ExchangeTable.State;
import pyrite.core.function.FunctionTree;
import pyrite.core.function.Giving;
import pyrite.core.function.PartTree;
import pyrite.core.function.Performers;
import pyrite.core.function.WireUp;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.structure.ConnectorEnds;

/** Functions with the parts that perform them, and who exchanges what by it. */
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

    /** What a table is of; what is not chosen is chosen by what fits. */
    private record Question(Element function, Element whole) {}

    /** The functions that are made of others, those with the most first, and the wholes that have parts. */
    private static List<Element> functions(Model model) {
        return FunctionTree.tops(model).stream()
                .filter(function -> !model.isLibrary(function.id()))
                .filter(function -> !FunctionTree.of(model, function).top().isLeaf())
                .sorted(Comparator.comparingInt(
                        function -> -FunctionTree.of(model, function).uses().size()))
                .toList();
    }

    /** The definitions and parts with the most performing parts in them, best first. */
    private static List<Element> wholes(Model model) {
        Set<Element> performing = new HashSet<>();
        model.ownElements(ElementKind.PERFORM)
                .flatMap(perform -> model.owners(perform).stream().limit(1))
                .forEach(performing::add);
        List<Element> definitions = model.ownElements(ElementKind.PART_DEFINITION)
                .filter(definition -> model.inheritance().features(definition).stream()
                        .anyMatch(feature -> feature.kind() == ElementKind.PART && !model.isLibrary(feature.id())))
                .toList();
        Map<Element, Long> counts = new LinkedHashMap<>();
        definitions.forEach(definition -> counts.put(
                definition,
                PartTree.of(model, definition).parts().stream()
                        .filter(part -> model.inheritance().generals(part.element()).stream()
                                .anyMatch(performing::contains))
                        .count()));
        return definitions.stream()
                .sorted(Comparator.comparing((Element definition) -> -counts.getOrDefault(definition, 0L))
                        .thenComparing(definition -> -depth(model, definition)))
                .toList();
    }

    /** Of two wholes with the same performers, the smaller is meant. */
    private static int depth(Model model, Element definition) {
        return -PartTree.of(model, definition).parts().size();
    }

    private static Optional<Question> question(Workspace.Head head, String of, String in) {
        Model model = head.model();
        Optional<Element> function =
                of.isEmpty() ? functions(model).stream().findFirst() : Optional.of(head.element(of));
        Optional<Element> whole = in.isEmpty() ? wholes(model).stream().findFirst() : Optional.of(head.element(in));
        return function.flatMap(f -> whole.map(w -> new Question(f, w)));
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
        page.addAttribute("functions", functions(head.model()));
        page.addAttribute("wholes", wholes(head.model()));
        page.addAttribute("level", level);
        page.addAttribute("states", State.values());
        page.addAttribute("state", state);
        Question question = question(head, of, in).orElse(null);
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
        question(head, of, in).ifPresent(question -> {
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

    /**
     * A function in the tree.
     *
     * @param parts the paths of the parts that perform it of their own accord
     * @param around the paths of those that perform it because they perform the function around it
     */
    public record Line(
            Element function,
            int depth,
            String path,
            List<PartTree.Part> parts,
            List<PartTree.Part> around,
            boolean isMadeOfOthers) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/functions")
    String functions(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Functions");
        page.addAttribute("functions", functions(head.model()));
        page.addAttribute("wholes", wholes(head.model()));
        question(head, of, in).ifPresent(question -> {
            FunctionTree tree = FunctionTree.of(head.model(), question.function());
            PartTree parts = PartTree.of(head.model(), question.whole());
            Performers performers = Performers.of(head.model(), parts);
            page.addAttribute("function", question.function());
            page.addAttribute("whole", question.whole());
            page.addAttribute("parts", parts);
            page.addAttribute(
                    "lines",
                    tree.uses().stream()
                            .limit(MOST_ROWS)
                            .map(use -> line(tree, performers, use))
                            .toList());
            page.addAttribute("unrealised", unrealised(tree, performers));
            page.addAttribute("apart", performers.apart(tree));
        });
        return "architecture/functions";
    }

    private static Line line(FunctionTree tree, Performers performers, FunctionTree.Use use) {
        List<PartTree.Part> own = List.copyOf(performers.own(use));
        return new Line(
                use.function(),
                use.way().size(),
                tree.path(use),
                own,
                own.isEmpty() ? List.copyOf(performers.of(use)) : List.of(),
                !use.isLeaf());
    }

    /** The functions without functions in them that nobody performs. */
    private static List<String> unrealised(FunctionTree tree, Performers performers) {
        return tree.uses().stream()
                .filter(use -> use.isLeaf() && performers.of(use).isEmpty())
                .map(tree::path)
                .toList();
    }

    /** @param part the part that is to perform the function */
    record Given(
            @NotNull String function,
            @NotNull String part,
            @PositiveOrZero int base) {}

    /** The parts that can be given a function, by their paths. */
    record Choice(String id, String label) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/functions/parts.json")
    ResponseEntity<List<Choice>> parts(Workspace.Head head, @RequestParam(defaultValue = "") String in) {
        Optional<Element> whole =
                in.isEmpty() ? wholes(head.model()).stream().findFirst() : Optional.of(head.element(in));
        return ResponseEntity.ok(whole.stream()
                .flatMap(each -> {
                    PartTree parts = PartTree.of(head.model(), each);
                    return parts.parts().stream()
                            .map(part -> new Choice(part.element().id().toString(), parts.path(part)));
                })
                .limit(MOST_ROWS)
                .toList());
    }

    @PostMapping("/p/{project}/{branch}/functions/give")
    ResponseEntity<Answer> give(Workspace.Head head, Person person, @Valid @RequestBody Given given) {
        return change(head, person, given, true);
    }

    @PostMapping("/p/{project}/{branch}/functions/take")
    ResponseEntity<Answer> take(Workspace.Head head, Person person, @Valid @RequestBody Given given) {
        return change(head, person, given, false);
    }

    private ResponseEntity<Answer> change(Workspace.Head head, Person person, Given given, boolean isGiven) {
        Element function = head.element(given.function());
        Element part = head.element(given.part());
        Giving.Made made;
        try {
            made = isGiven ? Giving.give(head.model(), function, part) : Giving.take(head.model(), function, part);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), given.base(), made.edit(), person, made.summary()),
                "nothing changed");
    }
}
