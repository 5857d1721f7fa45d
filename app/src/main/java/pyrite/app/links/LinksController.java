package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.recheck.Rechecks;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.Linking;
import pyrite.core.trace.Links;

/** Links as data: the links of elements, possible links, adding and removing. */
@RestController
@Tag(name = ApiAddress.TRACING)
class LinksController {
    private static final int MOST_SHOWN = 60;
    private static final int MOST_AT_ONCE = 5000;

    private final Workspace workspace;
    private final Rechecks rechecks;
    private final ElementSets sets;

    LinksController(Workspace workspace, Rechecks rechecks, ElementSets sets) {
        this.sets = sets;
        this.workspace = workspace;
        this.rechecks = rechecks;
    }

    /** A possible end: its label, its text, and the words by which rules know it. */
    record End(String id, String label, String text, String family, String words) {}

    /** A link seen from one of its ends. */
    record LinkJson(
            String carrier,
            String kind,
            String words,
            boolean up,
            End other,
            String source,
            String target,
            boolean doubt) {}

    /** A kind of link and the directions in which the elements in question may have it. */
    record Way(String kind, String words, boolean out) {}

    private static End end(Model model, Labels labels, LinkRules rules, Element element) {
        return new End(
                element.id().toString(),
                Specification.isRequirement(element) ? labels.full(element) : labels.withOwner(element),
                RequirementText.of(model, element),
                labels.family(element),
                rules.words(element).iterator().next());
    }

    @Operation(summary = "The links of an element with their other ends")
    @GetMapping({"/p/{project}/{branch}/links/of.json", ApiAddress.BRANCH + "/links"})
    List<LinkJson> of(Workspace.Head head, @RequestParam String element) {
        Element at = head.element(element);
        Labels labels = new Labels(head.model());
        LinkRules rules = LinkRules.in(head.model());
        Set<Link> doubted =
                rechecks.of(head, at.id()).stream().map(doubt -> doubt.link()).collect(Collectors.toSet());
        return Links.in(head.model()).of(at).stream()
                .sorted(Comparator.comparing((Link link) -> !link.below().equals(at.id()))
                        .thenComparing(link -> link.words(at.id())))
                .map(link -> new LinkJson(
                        link.carrier().toString(),
                        link.kind().key(),
                        link.words(at.id()),
                        link.below().equals(at.id()),
                        end(head.model(), labels, rules, head.model().get(link.other(at.id()))),
                        link.source().toString(),
                        link.target().toString(),
                        doubted.contains(link)))
                .toList();
    }

    /** The kinds of links that rules allow to begin or end at elements like this one, whatever the other end. */
    @GetMapping("/p/{project}/{branch}/links/ways.json")
    List<Way> ways(Workspace.Head head, @RequestParam String element) {
        LinkRules rules = LinkRules.in(head.model());
        Set<String> words = rules.words(head.element(element));
        List<Way> ways = new ArrayList<>();
        for (LinkKind kind : LinkKind.all(head.model())) {
            ways.addAll(ways(
                    kind,
                    rules.of(kind).stream()
                            .anyMatch(rule -> rule.from().stream().anyMatch(words::contains)),
                    rules.of(kind).stream().anyMatch(rule -> rule.to().stream().anyMatch(words::contains))));
        }
        return ways;
    }

    /** The kinds that rules allow between elements like these two, either way. */
    @GetMapping("/p/{project}/{branch}/links/between.json")
    List<Way> between(Workspace.Head head, @RequestParam String left, @RequestParam String right) {
        LinkRules rules = LinkRules.in(head.model());
        Element from = head.element(left);
        Element to = head.element(right);
        List<Way> ways = new ArrayList<>();
        for (LinkKind kind : LinkKind.all(head.model())) {
            ways.addAll(ways(kind, rules.allows(kind, from, to), rules.allows(kind, to, from)));
        }
        return ways;
    }

    /** The directions of a kind; of one that says the same both ways, the first will do. */
    private static List<Way> ways(LinkKind kind, boolean out, boolean in) {
        boolean isSame = kind.forward().equals(kind.backward());
        return Stream.of(
                        out ? new Way(kind.key(), kind.forward(), true) : null,
                        in && !(out && isSame) ? new Way(kind.key(), kind.backward(), false) : null)
                .filter(Objects::nonNull)
                .toList();
    }

    /** The possible other ends, best first, and typed ids that match nothing. */
    record Candidates(List<End> ends, int more, List<String> unknown) {}

    /** @param q a part of the id, the name or the text; or ids by commas or spaces */
    @Operation(summary = "What may be the other end of a link")
    @GetMapping({"/p/{project}/{branch}/links/candidates.json", ApiAddress.BRANCH + "/links/candidates"})
    Candidates candidates(
            Workspace.Head head,
            @RequestParam String element,
            @RequestParam String kind,
            @RequestParam boolean out,
            @RequestParam(defaultValue = "") String q) {
        Model model = head.model();
        Element from = head.element(element);
        LinkKind requested = kind(model, kind);
        LinkRules rules = LinkRules.in(model);
        Labels labels = new Labels(model);
        List<String> typed = Arrays.stream(q.strip().split("[\\s,;]+"))
                .filter(each -> !each.isEmpty())
                .toList();
        Map<String, Element> byId = typed.isEmpty() ? Map.of() : byId(model, typed);
        if (!byId.isEmpty() && (typed.size() > 1 || typed.stream().allMatch(byId::containsKey))) {
            return new Candidates(
                    typed.stream()
                            .distinct()
                            .filter(byId::containsKey)
                            .map(byId::get)
                            .map(each -> end(model, labels, rules, each))
                            .toList(),
                    0,
                    typed.stream()
                            .distinct()
                            .filter(each -> !byId.containsKey(each))
                            .toList());
        }
        String text = q.strip().toLowerCase(Locale.ROOT);
        List<Element> fitting = RequirementIds.sorted(
                model,
                model.ownElements().stream()
                        .filter(each -> each.name() != null || each.shortName() != null)
                        .filter(each -> out ? rules.allows(requested, from, each) : rules.allows(requested, each, from))
                        .filter(each ->
                                text.isEmpty() || reads(model, labels, each).contains(text)));
        if (!text.isEmpty()) {
            Predicate<Element> isNamedSo =
                    each -> labels.full(each).toLowerCase(Locale.ROOT).contains(text);
            fitting = fitting.stream()
                    .sorted(Comparator.comparing(each -> !isNamedSo.test(each)))
                    .toList();
        }
        return new Candidates(
                fitting.stream()
                        .limit(MOST_SHOWN)
                        .map(each -> end(model, labels, rules, each))
                        .toList(),
                Math.max(0, fitting.size() - MOST_SHOWN),
                RequirementIds.parse(q.strip()).isPresent() && fitting.isEmpty() ? List.of(q.strip()) : List.of());
    }

    private static String reads(Model model, Labels labels, Element element) {
        return (labels.withOwner(element) + " "
                        + (Specification.isRequirement(element) ? RequirementText.of(model, element) : ""))
                .toLowerCase(Locale.ROOT);
    }

    private static Map<String, Element> byId(Model model, List<String> ids) {
        Set<String> requested = Set.copyOf(ids);
        return model.ownElements(ElementKind.REQUIREMENTS)
                .filter(each -> each.shortName() != null && requested.contains(each.shortName()))
                .collect(Collectors.toMap(Element::shortName, each -> each, (a, _) -> a));
    }

    static LinkKind kind(Model model, String key) {
        return LinkKind.named(model, key).orElseThrow(() -> new NotFound("there is no kind of link called " + key));
    }

    /** Links to make: from each source to each target. */
    record Request(
            @NotNull String kind,
            @NotEmpty @Size(max = MOST_AT_ONCE) List<String> sources,
            @NotEmpty @Size(max = MOST_AT_ONCE) List<String> targets,
            @PositiveOrZero int base) {}

    @Operation(summary = "Link elements, several to several; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/links/add", ApiAddress.BRANCH + "/links"})
    ResponseEntity<Answer> add(Workspace.Head head, Person person, @Valid @RequestBody Request requested) {
        if ((long) requested.sources().size() * requested.targets().size() > MOST_AT_ONCE) {
            return Answer.unprocessable("at most " + MOST_AT_ONCE + " links are made at once");
        }
        LinkKind kind = kind(head.model(), requested.kind());
        List<Element> targets = requested.targets().stream().map(head::element).toList();
        Linking linking = new Linking(head.model());
        Linking.Proposal proposal = linking.make(requested.sources().stream()
                .map(head::element)
                .flatMap(source -> targets.stream().map(target -> new Linking.Request(kind, source, target)))
                .toList());
        if (!proposal.refused().isEmpty()) {
            int others = proposal.refused().size() - 1;
            return Answer.unprocessable(proposal.refused().getFirst()
                    + (others == 0 ? "" : "; and " + others + " more would break a rule, so none was made"));
        }
        return Answer.of(
                head,
                workspace.commit(head.branch(), requested.base(), proposal.edit(), person, proposal.summary()),
                "they are linked this way already");
    }

    /** A link to remove. */
    record Named(
            @NotNull String carrier,
            @NotNull String source,
            @NotNull String target) {}

    record Removed(
            @NotEmpty @Size(max = MOST_AT_ONCE) List<@Valid Named> links,
            @PositiveOrZero int base) {}

    @Operation(summary = "Remove links; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/links/remove", ApiAddress.BRANCH + "/links/remove"})
    ResponseEntity<Answer> remove(Workspace.Head head, Person person, @Valid @RequestBody Removed requested) {
        Links links = Links.in(head.model());
        Set<Link> removed = new LinkedHashSet<>();
        for (Named named : requested.links()) {
            links.carriedBy(head.element(named.carrier())).stream()
                    .filter(link -> link.source().toString().equals(named.source())
                            && link.target().toString().equals(named.target()))
                    .forEach(removed::add);
        }
        if (removed.isEmpty()) {
            return Answer.unprocessable("this link is there no more");
        }
        Linking linking = new Linking(head.model());
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        requested.base(),
                        linking.remove(List.copyOf(removed)),
                        person,
                        linking.removalSummary(List.copyOf(removed))),
                "nothing changed");
    }

    /**
     * What stands in one of the two lists: a specification's requirements, or all elements that rules know by a word.
     */
    @GetMapping("/p/{project}/{branch}/links/list.json")
    Candidates list(
            Workspace.Head head,
            @RequestParam(defaultValue = "") String set,
            @RequestParam(defaultValue = "") String q) {
        Model model = head.model();
        LinkRules rules = LinkRules.in(model);
        Labels labels = new Labels(model);
        String text = q.strip().toLowerCase(Locale.ROOT);
        List<Element> all = sets.of(head, set)
                .filter(each -> text.isEmpty() || reads(model, labels, each).contains(text))
                .toList();
        return new Candidates(
                all.stream()
                        .limit(1000)
                        .map(each -> end(model, labels, rules, each))
                        .toList(),
                Math.max(0, all.size() - 1000),
                List.of());
    }
}
