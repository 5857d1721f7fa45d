package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.function.FunctionTree;
import pyrite.core.function.Giving;
import pyrite.core.function.PartTree;
import pyrite.core.function.Performers;
import pyrite.core.model.Element;

/** Functions with the parts that perform them; giving functions to parts. */
@Controller
class FunctionsController {
    private static final int MOST_ROWS = 500;

    private static final int MOST_COLUMNS = 120;

    private final Pages pages;
    private final Workspace workspace;

    FunctionsController(Pages pages, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
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
        page.addAttribute("functions", FunctionQuestion.functions(head.model()));
        page.addAttribute("wholes", FunctionQuestion.wholes(head.model()));
        FunctionQuestion.of(head, of, in).ifPresent(question -> {
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

    /**
     * A row of the matrix.
     *
     * @param marks for each column: own, around or nothing
     */
    public record MatrixLine(Line line, List<String> marks) {}

    /** Functions against parts: which part performs what, to be given and taken by a click. */
    @Costly
    @GetMapping("/p/{project}/{branch}/functions/matrix")
    String matrix(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            @RequestParam(defaultValue = "false") boolean all,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Functions and parts");
        page.addAttribute("functions", FunctionQuestion.functions(head.model()));
        page.addAttribute("wholes", FunctionQuestion.wholes(head.model()));
        page.addAttribute("all", all);
        FunctionQuestion.of(head, of, in).ifPresent(question -> {
            FunctionTree tree = FunctionTree.of(head.model(), question.function());
            PartTree parts = PartTree.of(head.model(), question.whole());
            Performers performers = Performers.of(head.model(), parts);
            List<Line> lines = tree.uses().stream()
                    .limit(MOST_ROWS)
                    .map(use -> line(tree, performers, use))
                    .toList();
            List<PartTree.Part> columns = columns(parts, lines, all);
            page.addAttribute("function", question.function());
            page.addAttribute("whole", question.whole());
            page.addAttribute("parts", parts);
            page.addAttribute("columns", columns);
            page.addAttribute("more", parts.parts().size() - 1 > columns.size());
            page.addAttribute(
                    "lines",
                    lines.stream()
                            .map(line -> new MatrixLine(
                                    line,
                                    columns.stream()
                                            .map(part -> mark(line, part))
                                            .toList()))
                            .toList());
        });
        return "architecture/functions-matrix";
    }

    private static String mark(Line line, PartTree.Part part) {
        return line.parts().contains(part) ? "own" : line.around().contains(part) ? "around" : "";
    }

    /** The parts that perform something, or all. */
    private static List<PartTree.Part> columns(PartTree parts, List<Line> lines, boolean all) {
        Set<PartTree.Part> performing = lines.stream()
                .flatMap(line -> Stream.concat(line.parts().stream(), line.around().stream()))
                .collect(Collectors.toSet());
        return parts.parts().stream()
                .filter(part -> !part.way().isEmpty() && (all || performing.contains(part)))
                .limit(MOST_COLUMNS)
                .toList();
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
        Optional<Element> whole = in.isEmpty()
                ? FunctionQuestion.wholes(head.model()).stream().findFirst()
                : Optional.of(head.element(in));
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
