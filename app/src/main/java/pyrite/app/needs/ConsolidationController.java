package pyrite.app.needs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.recheck.Rechecks;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.consolidation.Consolidating;
import pyrite.core.consolidation.Consolidation;
import pyrite.core.consolidation.Consolidation.Group;
import pyrite.core.consolidation.Consolidation.State;
import pyrite.core.consolidation.Feature;
import pyrite.core.consolidation.Feature.Kind;
import pyrite.core.consolidation.Feature.Parameter;
import pyrite.core.consolidation.Feature.Place;
import pyrite.core.consolidation.United;
import pyrite.core.function.FunctionTree;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.story.UseCases;

/** What several use cases found, side by side, and the decisions that make one definition of the system of it. */
@Controller
class ConsolidationController {
    private static final int MOST_GROUPS = 300;
    private static final int MOST_AT_ONCE = 200;

    private final Pages pages;
    private final Workspace workspace;
    private final Rechecks rechecks;

    ConsolidationController(Pages pages, Workspace workspace, Rechecks rechecks) {
        this.pages = pages;
        this.workspace = workspace;
        this.rechecks = rechecks;
    }

    /** @param text what is said at the place */
    public record Origin(Element useCase, Element member, String text, boolean isNew, boolean isDoubted) {}

    /** @param parameters in words */
    public record Row(
            Feature feature, String name, List<String> remembered, List<String> parameters, List<Origin> origins) {}

    public record Block(Group group, State state, List<Row> rows) {
        /** What can be done about it without a question. */
        public boolean isAdoptable() {
            return rows.size() == 1 && group.state() != State.DECIDED;
        }
    }

    @Costly
    @GetMapping("/p/{project}/{branch}/consolidation")
    String page(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String home,
            @RequestParam(defaultValue = "") String whole,
            @RequestParam(defaultValue = "") String state,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.NEEDS, "Consolidation");
        Model model = head.model();
        List<Block> blocks = Consolidation.of(model).groups().stream()
                .map(group -> block(head, group))
                .toList();
        page.addAttribute(
                "blocks",
                blocks.stream()
                        .filter(block -> state.isEmpty() || block.state().name().equals(state))
                        .limit(MOST_GROUPS)
                        .collect(Collectors.groupingBy(
                                block -> block.group().kind(), TreeMap::new, Collectors.toList())));
        page.addAttribute("total", blocks.size());
        page.addAttribute(
                "counts", blocks.stream().collect(Collectors.groupingBy(Block::state, Collectors.counting())));
        page.addAttribute(
                "plain",
                blocks.stream()
                        .filter(block -> block.isAdoptable() && block.group().kind() != Kind.FLOW)
                        .map(block ->
                                block.rows().getFirst().feature().element().id().toString())
                        .limit(MOST_AT_ONCE)
                        .collect(Collectors.joining(",")));
        page.addAttribute("states", State.values());
        page.addAttribute("state", state);
        page.addAttribute("homes", homes(model));
        page.addAttribute(
                "home", home.isEmpty() ? homes(model).stream().findFirst().orElse(null) : chosen(head, home));
        page.addAttribute("wholes", wholes(model));
        page.addAttribute(
                "whole", whole.isEmpty() ? wholes(model).stream().findFirst().orElse(null) : chosen(head, whole));
        return "needs/consolidation";
    }

    private static @Nullable Element chosen(Workspace.Head head, @Nullable String id) {
        return id == null || id.isEmpty() || id.equals("none") ? null : head.element(id);
    }

    private Block block(Workspace.Head head, Group group) {
        Consolidation consolidation = Consolidation.of(head.model());
        List<Row> rows = group.members().stream()
                .map(feature -> new Row(
                        feature,
                        consolidation.name(feature),
                        consolidation.remembered(feature),
                        feature.parameters().stream()
                                .map(parameter -> words(head.model(), parameter))
                                .toList(),
                        origins(head, consolidation, feature)))
                .toList();
        boolean isDoubted = rows.stream().flatMap(row -> row.origins().stream()).anyMatch(Origin::isDoubted);
        return new Block(group, group.state() == State.DECIDED && isDoubted ? State.CHANGED : group.state(), rows);
    }

    private static String words(Model model, Parameter parameter) {
        return parameter.inWords(model) + (parameter.isOptional() ? " (optional)" : "");
    }

    private List<Origin> origins(Workspace.Head head, Consolidation consolidation, Feature feature) {
        boolean isDecided = feature.places().stream()
                .anyMatch(place -> consolidation.origin(place).isPresent());
        return feature.places().stream()
                .map(place -> new Origin(
                        place.useCase(),
                        place.member(),
                        text(head.model(), place),
                        isDecided && consolidation.origin(place).isEmpty(),
                        consolidation
                                .origin(place)
                                .filter(link -> rechecks.of(head, place.member().id()).stream()
                                        .anyMatch(doubt -> doubt.link().equals(link)))
                                .isPresent()))
                .toList();
    }

    private static String text(Model model, Place place) {
        String said = model.inheritance().documentation(place.member());
        return said.isBlank() ? new Labels(model).name(place.member()) : said;
    }

    /** Where definitions of the system stand: the packages with the most functions that hold no use case. */
    private static List<Element> homes(Model model) {
        Set<ElementId> ofUseCases = UseCases.all(model).stream()
                .map(Element::owner)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        Map<Element, Long> counts = model.ownElements(
                        Set.of(ElementKind.ACTION_DEFINITION, ElementKind.ITEM_DEFINITION))
                .flatMap(definition -> Optional.ofNullable(definition.owner()).stream())
                .filter(owner -> !ofUseCases.contains(owner))
                .map(model::get)
                .filter(owner -> owner.kind().isPackage())
                .collect(Collectors.groupingBy(Function.identity(), LinkedHashMap::new, Collectors.counting()));
        return counts.entrySet().stream()
                .sorted(Map.Entry.<Element, Long>comparingByValue().reversed())
                .map(Map.Entry::getKey)
                .toList();
    }

    /** Functions that are not what a step became: those of the whole first, then those with the most inside. */
    private static List<Element> wholes(Model model) {
        Consolidation consolidation = Consolidation.of(model);
        List<Element> tops = FunctionTree.tops(model);
        return model.ownElements(ElementKind.ACTION_DEFINITION)
                .filter(definition -> consolidation.feature(definition.id()).isEmpty() && definition.name() != null)
                .sorted(Comparator.comparing((Element definition) -> !tops.contains(definition))
                        .thenComparing(
                                definition -> -model.children(definition.id()).size())
                        .thenComparing(model.names()::qualifiedName))
                .toList();
    }

    /** @param sources by the feature that has it */
    record Unit(String name, boolean optional, Map<String, Source> sources) {}

    record Source(String id, String words) {}

    record Named(String id, String name) {}

    /** @param existing definitions of the system that it may be, too */
    record Proposal(String kind, List<Named> features, List<Named> existing, List<Unit> parameters) {}

    /** How features would be one: what each of them is called, and their parameters united. */
    @GetMapping("/p/{project}/{branch}/consolidation/one.json")
    @ResponseBody
    Proposal one(Workspace.Head head, @RequestParam @Size(max = MOST_AT_ONCE) List<String> features) {
        Consolidation consolidation = Consolidation.of(head.model());
        List<Feature> known = features(head, features);
        return new Proposal(
                known.getFirst().kind().title(),
                known.stream().map(each -> named(consolidation, each)).toList(),
                consolidation.existing(known).stream()
                        .filter(each -> !known.contains(each))
                        .map(each -> named(consolidation, each))
                        .toList(),
                United.of(known).stream()
                        .map(united -> unit(head.model(), known, united))
                        .toList());
    }

    private static Named named(Consolidation consolidation, Feature feature) {
        return new Named(feature.element().id().toString(), consolidation.name(feature));
    }

    private static Unit unit(Model model, List<Feature> features, United united) {
        Map<String, Source> sources = new LinkedHashMap<>();
        united.sources()
                .forEach(source -> features.stream()
                        .filter(feature -> feature.parameters().contains(source))
                        .findFirst()
                        .ifPresent(feature -> sources.put(
                                feature.element().id().toString(),
                                new Source(source.element().id().toString(), words(model, source)))));
        return new Unit(united.name(), united.isOptional(), sources);
    }

    private static List<Feature> features(Workspace.Head head, List<String> ids) {
        Consolidation consolidation = Consolidation.of(head.model());
        Kind kind = ids.stream()
                .flatMap(id -> consolidation.feature(head.element(id).id()).stream())
                .map(Feature::kind)
                .findFirst()
                .orElseThrow(() -> new NotFound("none of this was found in a use case"));
        return ids.stream()
                .map(id -> consolidation
                        .featureOrStanding(head.element(id).id(), kind)
                        .orElseThrow(() -> new NotFound(
                                new Labels(head.model()).name(head.element(id)) + " was found in no use case")))
                .toList();
    }

    record Adopted(
            @NotEmpty @Size(max = MOST_AT_ONCE) List<String> features,
            @Nullable String home,
            @Nullable String whole,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/consolidation/adopt")
    ResponseEntity<Answer> adopt(Workspace.Head head, Person person, @Valid @RequestBody Adopted asked) {
        List<Feature> features = asked.features().stream()
                .map(id -> features(head, List.of(id)).getFirst())
                .toList();
        return decide(
                head,
                person,
                asked.base(),
                features.size() == 1
                        ? name(head, features.getFirst()) + " taken over from "
                                + useCases(features.getFirst().useCases())
                        : features.size() + " features of use cases taken over",
                () -> new Consolidating(head.model(), chosen(head, asked.home()), chosen(head, asked.whole()))
                        .adopt(features));
    }

    private static String name(Workspace.Head head, Feature feature) {
        return Consolidation.of(head.model()).name(feature);
    }

    private static String useCases(List<Element> useCases) {
        return useCases.stream().map(each -> String.valueOf(each.name())).collect(Collectors.joining(", "));
    }

    record Wish(
            @NotNull @Size(max = 200) String name,
            boolean optional,
            @NotEmpty @Size(max = 100) List<@NotNull String> sources) {}

    /** @param features the one whose definition stays first */
    record Unified(
            @NotEmpty @Size(max = MOST_AT_ONCE) List<String> features,
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) List<@Valid Wish> parameters,
            @Nullable String home,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/consolidation/unify")
    ResponseEntity<Answer> unify(Workspace.Head head, Person person, @Valid @RequestBody Unified asked) {
        List<Feature> features = features(head, new ArrayList<>(new LinkedHashSet<>(asked.features())));
        List<Parameter> known = features.stream()
                .flatMap(feature -> feature.parameters().stream())
                .toList();
        List<United> parameters = asked.parameters().stream()
                .map(wish -> new United(
                        wish.name().strip(),
                        wish.sources().stream()
                                .map(id -> known.stream()
                                        .filter(each ->
                                                each.element().id().toString().equals(id))
                                        .findFirst()
                                        .orElseThrow(() -> new NotFound("a parameter is no longer there; look again")))
                                .toList(),
                        wish.optional()))
                .toList();
        return decide(
                head,
                person,
                asked.base(),
                features.stream().map(each -> name(head, each)).distinct().collect(Collectors.joining(", "))
                        + " made one: " + asked.name().strip(),
                () -> new Consolidating(head.model(), chosen(head, asked.home()), null)
                        .unify(features, asked.name(), parameters));
    }

    /** @param names new ones, by the feature */
    record Apart(
            @NotEmpty @Size(max = 20) List<String> features,
            @NotNull @Size(max = 20) Map<String, @NotNull @Size(max = 200) String> names,
            @NotNull @Size(max = 2000) String reason,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/consolidation/apart")
    ResponseEntity<Answer> apart(Workspace.Head head, Person person, @Valid @RequestBody Apart asked) {
        List<Feature> features = features(head, asked.features());
        Map<Element, String> names = new LinkedHashMap<>();
        asked.names().forEach((id, name) -> names.put(head.element(id), name));
        return decide(
                head,
                person,
                asked.base(),
                features.stream().map(each -> name(head, each)).collect(Collectors.joining(" and "))
                        + " are different things"
                        + (asked.reason().isBlank() ? "" : ": " + asked.reason().strip()),
                () -> new Consolidating(head.model(), null, null).apart(features, names, asked.reason()));
    }

    private ResponseEntity<Answer> decide(
            Workspace.Head head, Person person, int base, String summary, java.util.function.Supplier<Edit> decision) {
        Edit edit;
        try {
            edit = decision.get();
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return Answer.of(
                head, workspace.commit(head.branch(), base, edit, person, summary), "this was decided already");
    }
}
