package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.requirements.NewIds;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.expression.Operator;
import pyrite.core.function.ExchangeTable;
import pyrite.core.function.FunctionPath;
import pyrite.core.function.FunctionPaths;
import pyrite.core.function.FunctionTree;
import pyrite.core.function.PartTree;
import pyrite.core.function.PathEditing;
import pyrite.core.function.PathEditing.Combination;
import pyrite.core.function.PathProposals;
import pyrite.core.function.PathProposals.Place;
import pyrite.core.function.PathRequirement;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;
import pyrite.core.specification.Specification;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Linking;
import pyrite.core.trace.Links;

/** Function paths: ways through functions and the parts that perform them, whether they hold, and what they combine. */
@Controller
class PathsController {
    private static final int DEEPEST = 9;

    private final Pages pages;
    private final Verdicts verdicts;
    private final Workspace workspace;
    private final NewIds newIds;

    PathsController(Pages pages, Verdicts verdicts, Workspace workspace, NewIds newIds) {
        this.pages = pages;
        this.verdicts = verdicts;
        this.workspace = workspace;
        this.newIds = newIds;
    }

    /** @param part the path of who performs it; empty if none is named */
    public record StageRow(Element element, String name, String part, boolean isBroken) {}

    /** A requirement that limits an attribute of a path, with its worst verdict. */
    public record Limit(Element requirement, Optional<VerdictView> verdict) {}

    /**
     * @param values what the attributes combine
     * @param realised the paths that this one is realised by, each with the stages that it leaves out
     * @param functionMarks the address of the drawing of functions with the path marked
     */
    public record Row(
            FunctionPath path,
            List<StageRow> stages,
            List<String> faults,
            List<Element> attributes,
            Map<Element, String> values,
            List<Limit> limits,
            Map<Element, List<String>> realised,
            String functionMarks,
            String partMarks) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/paths")
    String paths(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Function paths");
        List<FunctionPath> paths = new FunctionPaths(head.model()).all();
        page.addAttribute(
                "rows", paths.stream().map(path -> row(head, paths, path)).toList());
        FunctionQuestion.of(head, "", "").ifPresent(question -> {
            page.addAttribute("function", question.function());
            page.addAttribute("whole", question.whole());
        });
        return "architecture/paths";
    }

    private Row row(Workspace.Head head, List<FunctionPath> all, FunctionPath path) {
        Model model = head.model();
        PartTree tree = PartTree.of(model, path.whole());
        Labels labels = new Labels(model);
        List<StageRow> stages = path.stages().stream()
                .map(stage -> new StageRow(
                        stage.definition() == null ? stage.element() : stage.definition(),
                        labels.name(stage.definition() == null ? stage.element() : stage.definition()),
                        stage.part() == null ? "" : tree.path(stage.part()),
                        !stage.fault().isEmpty()))
                .toList();
        Map<Element, List<String>> realised = Links.in(model).of(path.path()).stream()
                .filter(link -> link.kind().equals(LinkKind.ALLOCATE)
                        && link.source().equals(path.path().id()))
                .flatMap(link -> all.stream().filter(other -> other.path().id().equals(link.target())))
                .collect(Collectors.toMap(
                        FunctionPath::path,
                        other -> PathEditing.unrealised(path, other),
                        (one, _) -> one,
                        LinkedHashMap::new));
        return new Row(
                path,
                stages,
                path.faults(),
                path.combined().stream().map(FunctionPath.Combined::attribute).toList(),
                values(model, path),
                limits(head, path),
                realised,
                path.function() == null ? "" : marks(path.function(), "flow", path, functionKeys(path)),
                marks(path.whole(), "inside", path, partKeys(path)));
    }

    /** What each attribute combines, as the notation says it. */
    private static Map<Element, String> values(Model model, FunctionPath path) {
        return path.combined().stream()
                .map(FunctionPath.Combined::attribute)
                .collect(Collectors.toMap(
                        attribute -> attribute,
                        attribute -> attribute
                                .get(Property.VALUE)
                                .map(value -> NotationWriter.expression(
                                        model, value.expression(), path.path().id()))
                                .orElse("not given")));
    }

    private List<Limit> limits(Workspace.Head head, FunctionPath path) {
        Map<ElementId, List<VerdictView>> all = verdicts.all(head);
        return PathRequirement.on(head.model(), path.path()).stream()
                .map(requirement -> new Limit(
                        requirement,
                        all.getOrDefault(requirement.id(), List.of()).stream().findFirst()))
                .toList();
    }

    private static String marks(Element drawn, String form, FunctionPath path, Stream<String> open) {
        return "element/" + drawn.id() + "/" + form + "?path=" + path.path().id()
                + open.distinct().map(key -> "&open=" + key).collect(Collectors.joining());
    }

    /** The boxes around what is marked. */
    private static Stream<String> functionKeys(FunctionPath path) {
        return path.stages().stream()
                .flatMap(stage -> stage.uses().stream())
                .flatMap(use -> around(path.function(), use.way()));
    }

    private static Stream<String> partKeys(FunctionPath path) {
        return path.stages().stream()
                .map(FunctionPath.Stage::part)
                .filter(Objects::nonNull)
                .flatMap(part -> around(path.whole(), part.way()));
    }

    private static Stream<String> around(@Nullable Element top, List<ElementId> way) {
        List<String> keys = new ArrayList<>();
        StringBuilder key = new StringBuilder(top == null ? "" : top.id().toString());
        way.stream().limit(Math.max(0, way.size() - 1)).forEach(id -> {
            key.append('.').append(id);
            keys.add(key.toString());
        });
        return keys.stream();
    }

    /** @param key what identifies the function */
    record Function(String key, String name) {}

    /** @param places the functions on the way and who performs them */
    record Way(List<Named> places) {}

    record Named(
            @NotNull @Size(max = 500) String function,
            @NotNull @Size(max = 500) String part) {}

    /** @param ways from the one function to the other, if both are given */
    record Ways(List<Function> functions, List<Way> ways) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/paths/ways.json")
    @ResponseBody
    Ways ways(
            Workspace.Head head,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String in,
            @RequestParam(defaultValue = "9") @Min(1) @Max(DEEPEST) int depth,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to) {
        FunctionQuestion question = FunctionQuestion.of(head, of, in).orElse(null);
        if (question == null) {
            return new Ways(List.of(), List.of());
        }
        ExchangeTable table = ExchangeTable.of(head.model(), question.function(), question.whole(), DEEPEST);
        PathProposals proposals = PathProposals.of(table, depth);
        List<FunctionTree.Use> uses =
                proposals.places().stream().map(Place::use).distinct().toList();
        Optional<FunctionTree.Use> first = use(table, uses, from);
        Optional<FunctionTree.Use> last = use(table, uses, to);
        return new Ways(
                uses.stream()
                        .map(use -> new Function(
                                table.functions().path(use), table.functions().path(use)))
                        .sorted(Comparator.comparing(Function::name))
                        .toList(),
                first.isEmpty() || last.isEmpty()
                        ? List.of()
                        : proposals.between(first.get(), last.get()).stream()
                                .map(way -> new Way(way.stream()
                                        .map(place -> named(table, place))
                                        .toList()))
                                .toList());
    }

    private static Optional<FunctionTree.Use> use(ExchangeTable table, List<FunctionTree.Use> uses, String path) {
        return uses.stream()
                .filter(use -> table.functions().path(use).equals(path))
                .findFirst();
    }

    private static Named named(ExchangeTable table, Place place) {
        return new Named(
                table.functions().path(place.use()),
                place.part() == null ? "" : table.parts().path(place.part()));
    }

    record Made(
            @NotNull String of,
            @NotNull String in,
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 4000) String text,
            @NotEmpty @Size(max = 100) List<@Valid Named> places,
            @PositiveOrZero int base) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/paths/make")
    ResponseEntity<Answer> make(Workspace.Head head, Person person, @Valid @RequestBody Made asked) {
        Element function = head.element(asked.of());
        Element whole = head.element(asked.in());
        FunctionTree functions = FunctionTree.of(head.model(), function);
        PartTree parts = PartTree.of(head.model(), whole);
        return commit(
                head, person, asked.base(), "function path " + asked.name().strip() + " made", () -> {
                    List<PathEditing.Wish> wishes = asked.places().stream()
                            .map(named -> new PathEditing.Wish(
                                    functions.uses().stream()
                                            .filter(use -> functions.path(use).equals(named.function()))
                                            .findFirst()
                                            .orElseThrow(() -> new IllegalArgumentException(
                                                    named.function() + " is no longer part of " + function.name())),
                                    named.part().isEmpty() ? null : part(parts, named.part())))
                            .toList();
                    return new PathEditing(head.model()).make(whole, asked.name(), asked.text(), wishes);
                });
    }

    private static PartTree.Part part(PartTree parts, String path) {
        return parts.parts().stream()
                .filter(each -> parts.path(each).equals(path))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no part " + path + " any more"));
    }

    record Choices(
            List<String> attributes, List<Choice> combinations, List<Choice> specifications, List<Choice> others) {}

    record Choice(String id, String name) {}

    /** What a path can combine, where a requirement on it can stand, and the paths that may realise it. */
    @GetMapping("/p/{project}/{branch}/paths/{id}/choices.json")
    @ResponseBody
    Choices choices(Workspace.Head head, @PathVariable String id) {
        Model model = head.model();
        FunctionPath path = path(head, id);
        Labels labels = new Labels(model);
        return new Choices(
                new PathEditing(model).attributes(path),
                Stream.of(Combination.values())
                        .map(each -> new Choice(each.name(), each.title()))
                        .toList(),
                Specification.all(model).stream()
                        .filter(specification -> !specification.level().equals("need")
                                && !model.isLibrary(specification.element().id()))
                        .map(specification -> new Choice(
                                specification.element().id().toString(), labels.name(specification.element())))
                        .toList(),
                FunctionPaths.elements(model).stream()
                        .filter(other -> !other.equals(path.path()))
                        .map(other -> new Choice(other.id().toString(), labels.name(other)))
                        .toList());
    }

    private static FunctionPath path(Workspace.Head head, String id) {
        Element element = head.element(id);
        if (!FunctionPaths.isPath(head.model(), element)) {
            throw new NotFound(new Labels(head.model()).name(element) + " is no function path");
        }
        return new FunctionPaths(head.model()).of(element);
    }

    record Combined(
            @NotNull @Size(max = 200) String attribute,
            @NotNull Combination combination,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/paths/{id}/combine")
    ResponseEntity<Answer> combine(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Combined asked) {
        FunctionPath path = path(head, id);
        return commit(
                head,
                person,
                asked.base(),
                path.path().name() + ": " + asked.attribute() + " "
                        + asked.combination().title() + " along the path",
                () -> new PathEditing(head.model()).combine(path, asked.attribute(), asked.combination()));
    }

    record Required(
            @NotNull @Size(max = 200) String attribute,
            @NotNull @Size(max = 2) String operator,
            @NotNull @Size(max = 500) String limit,
            @NotNull String specification,
            @NotNull @Size(max = 4000) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/paths/{id}/require")
    ResponseEntity<Answer> require(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Required asked) {
        FunctionPath path = path(head, id);
        Element specification = head.element(asked.specification());
        String number = newIds.take(head, specification, 1).getFirst();
        return commit(
                head, person, asked.base(), number + " limits " + path.path().name(), () -> {
                    Element attribute = path.combined().stream()
                            .map(FunctionPath.Combined::attribute)
                            .filter(each -> asked.attribute().equals(each.name()))
                            .findFirst()
                            .orElseThrow(() -> new IllegalArgumentException(
                                    "the path has no attribute '" + asked.attribute() + "'; let it combine one first"));
                    if (asked.text().isBlank()) {
                        throw new IllegalArgumentException("a requirement needs a text");
                    }
                    return PathRequirement.make(
                            head.model(),
                            path,
                            new PathRequirement.Wish(
                                    attribute,
                                    Stream.of(Operator.values())
                                            .filter(each -> each.isOrdering()
                                                    && each.symbol().equals(asked.operator()))
                                            .findFirst()
                                            .orElseThrow(() -> new IllegalArgumentException(
                                                    "a limit compares with <=, <, >= or >, not with "
                                                            + asked.operator())),
                                    asked.limit(),
                                    specification,
                                    number,
                                    asked.text()));
                });
    }

    record Realised(
            @NotNull String by,
            boolean realised,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/paths/{id}/realise")
    ResponseEntity<Answer> realise(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Realised asked) {
        FunctionPath path = path(head, id);
        FunctionPath by = path(head, asked.by());
        Linking linking = new Linking(head.model());
        Linking.Request request = new Linking.Request(LinkKind.ALLOCATE, path.path(), by.path());
        return commit(
                head,
                person,
                asked.base(),
                path.path().name()
                        + (asked.realised() ? " is realised by " : " is no longer realised by ")
                        + by.path().name(),
                () -> {
                    if (!asked.realised()) {
                        return linking.find(request)
                                .map(link -> linking.remove(List.of(link)))
                                .orElseThrow(() -> new IllegalArgumentException("the link is gone already"));
                    }
                    Linking.Proposal made = linking.make(List.of(request));
                    if (!made.refused().isEmpty()) {
                        throw new IllegalArgumentException(made.refused().getFirst());
                    }
                    return made.edit();
                });
    }

    private ResponseEntity<Answer> commit(
            Workspace.Head head, Person person, int base, String summary, Supplier<Edit> making) {
        Edit edit;
        try {
            edit = making.get();
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed");
    }
}
