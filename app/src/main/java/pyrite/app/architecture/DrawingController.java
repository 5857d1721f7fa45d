package pyrite.app.architecture;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.behavior.Ordering;
import pyrite.core.function.Giving;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Rank;
import pyrite.core.specification.SubtreeCopy;
import pyrite.core.structure.Detaching;
import pyrite.core.structure.Extent;
import pyrite.core.structure.Pairing;
import pyrite.core.structure.Reending;
import pyrite.core.structure.Reuse;
import pyrite.core.structure.UseInContext;
import pyrite.core.structure.Wiring;
import pyrite.core.trace.Removal;
import pyrite.core.view.Arranging;
import pyrite.core.view.BoxKey;
import pyrite.core.view.Diagram;
import pyrite.core.view.DiagramLayout;
import pyrite.core.view.Placement;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Showing;
import pyrite.core.view.ShownView;
import pyrite.core.view.ShownView.Form;

/** What a drawing shows, and the edits that gestures on it make. */
@RestController
class DrawingController {
    private static final int MOST_SEEN = 20_000;
    private static final int MOST_CHANGED = 1_000;
    private static final int MOST_LAYOUTS = 60;

    /** Layouts of drawings that nobody arranged: most requests ask for one that was asked for before. */
    private final Cache<Diagram, DiagramLayout> layouts =
            Caffeine.newBuilder().maximumSize(MOST_LAYOUTS).build();

    private final Workspace workspace;

    DrawingController(Workspace workspace) {
        this.workspace = workspace;
    }

    /**
     * What a page asks for.
     *
     * @param open the keys of the open boxes; null for those that the view keeps open
     * @param seen where what the page shows stands now, so that it stays there: x, y, width, height by keys of boxes
     */
    record Asked(
            @NotNull Form form,
            @Nullable @Size(max = 500) List<String> open,
            @NotNull @Size(max = MOST_SEEN) Map<String, double[]> seen) {}

    @Costly
    @PostMapping("/p/{project}/{branch}/element/{id}/drawing.json")
    DrawingData drawing(Workspace.Head head, @PathVariable String id, @Valid @RequestBody Asked asked) {
        Element element = head.element(id);
        ShownView shown =
                ShownView.of(head.model(), element).orElseGet(() -> ShownView.of(head.model(), element, asked.form()));
        Set<String> open = asked.open() == null
                ? shown.openAtFirst(head.model())
                : asked.open().stream()
                        .map(key -> BoxKey.current(head.model(), key))
                        .collect(Collectors.toCollection(LinkedHashSet::new));
        Diagram diagram = shown.diagram(head.model(), open);
        Map<String, String> renewed = new HashMap<>();
        asked.seen().keySet().forEach(key -> {
            String now = BoxKey.current(head.model(), key);
            if (!now.equals(key)) {
                renewed.put(key, now);
            }
        });
        return DrawingData.of(
                shown.view() == null ? null : shown.view().id(),
                head.number(),
                diagram,
                shown.layout(head.model(), diagram)
                        .orElseGet(() -> DiagramLayout.of(
                                diagram,
                                shown.placement(),
                                DrawingData.places(asked.seen(), renewed),
                                each -> layouts.get(each, DiagramLayout::best))),
                shown.placement(),
                renewed);
    }

    /** A box or port that a person placed, sized, opened or hid; what is null stays. */
    record Changed(
            @NotNull @Size(max = 2000) String key,
            double @Nullable [] at,
            double @Nullable [] size,
            @Nullable Boolean open,
            @Nullable Boolean hidden) {
        Arranging.Change change() {
            return new Arranging.Change(
                    key,
                    at == null ? null : new Point(at[0], at[1]),
                    size == null ? null : new Placement.Size(size[0], size[1]),
                    open,
                    hidden);
        }

        boolean isSound() {
            return (at == null || at.length == 2 && finite(at)) && (size == null || size.length == 2 && finite(size));
        }
    }

    /** The corners of a line: x and y of each in turn. */
    record Bent(
            @NotNull @Size(max = 4000) String edge,
            @NotNull @Size(max = 80) double[] via) {
        Arranging.Bend bend() {
            Point[] points = new Point[via.length / 2];
            Arrays.setAll(points, i -> new Point(via[2 * i], via[2 * i + 1]));
            return new Arranging.Bend(edge, List.of(points));
        }
    }

    private static boolean finite(double[] numbers) {
        return Arrays.stream(numbers).allMatch(number -> Math.abs(number) < 1e6);
    }

    record Arrangement(
            @NotNull Form form,
            @NotNull @Size(max = MOST_CHANGED) List<@Valid Changed> changes,
            @NotNull @Size(max = MOST_CHANGED) List<@Valid Bent> bends,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/arrange")
    ResponseEntity<Answer> arrange(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Arrangement asked) {
        boolean isSound = asked.changes().stream().allMatch(Changed::isSound)
                && asked.bends().stream().allMatch(bent -> bent.via().length % 2 == 0 && finite(bent.via()));
        if (!isSound) {
            return Answer.unprocessable("a place is two numbers, x and y, in px");
        }
        Arranging.Arranged arranged;
        try {
            arranged = Arranging.arrange(
                    head.model(),
                    head.element(id),
                    asked.form(),
                    asked.changes().stream().map(Changed::change).toList(),
                    asked.bends().stream().map(Bent::bend).toList());
        } catch (IllegalArgumentException unknown) {
            return Answer.unprocessable(unknown);
        }
        String name = String.valueOf(arranged.view().name());
        String summary =
                arranged.isNew() ? "view " + name + " made, to keep the arrangement" : "view " + name + " arranged";
        return commit(
                head,
                person,
                asked.base(),
                arranged.edit(),
                summary,
                List.of(arranged.view().id()));
    }

    /** A compartment or relation, and whether the view shows it. */
    record Part(String name, boolean isShown) {}

    /** What can be shown or left out, and how deep parts are open at first. */
    record Shows(List<Part> compartments, List<Part> relations, int depth) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/drawing/showing.json")
    Shows shows(Workspace.Head head, @PathVariable String id, @RequestParam Form form) {
        Element element = head.element(id);
        ShownView shown =
                ShownView.of(head.model(), element).orElseGet(() -> ShownView.of(head.model(), element, form));
        Showing showing = shown.showing(head.model());
        Showing.Choices choices = Showing.choices(shown.whole(head.model(), shown.openAtFirst(head.model())));
        return new Shows(parts(choices.compartments(), showing), parts(choices.relations(), showing), showing.depth());
    }

    private static List<Part> parts(List<String> names, Showing showing) {
        return names.stream()
                .map(name -> new Part(name, !showing.without().contains(name)))
                .toList();
    }

    record LeftOut(
            @NotNull Form form,
            @NotNull @Size(max = 100) Set<@Size(max = 100) String> without,
            @Min(0) @Max(Showing.DEEPEST) int depth,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/showing")
    ResponseEntity<Answer> show(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody LeftOut asked) {
        Arranging.Arranged arranged = Arranging.leaveOut(
                head.model(), head.element(id), asked.form(), new Showing(asked.without(), asked.depth()));
        String name = String.valueOf(arranged.view().name());
        return commit(
                head,
                person,
                asked.base(),
                arranged.edit(),
                (arranged.isNew() ? "view " + name + " made: " : "view " + name + ": ")
                        + (asked.without().isEmpty()
                                ? "nothing left out"
                                : "without " + String.join(", ", new TreeSet<>(asked.without()))),
                List.of(arranged.view().id()));
    }

    record OfForm(@NotNull Form form, @PositiveOrZero int base) {}

    /** Gives everything back to the layout. */
    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/free")
    ResponseEntity<Answer> free(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody OfForm asked) {
        Element element = head.element(id);
        Element view = ShownView.of(head.model(), element)
                .orElseGet(() -> ShownView.of(head.model(), element, asked.form()))
                .view();
        return view == null
                ? ResponseEntity.ok(Answer.refused("nothing is placed by hand here", List.of()))
                : commit(
                        head,
                        person,
                        asked.base(),
                        Arranging.freed(head.model(), view),
                        "view " + view.name() + " laid out anew",
                        List.of());
    }

    record Ends(
            @NotNull @Size(max = 2000) String from,
            @NotNull @Size(max = 2000) String to,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    /** The ports among which a person has to choose. */
    record Choice(boolean saved, String message, List<PortPair> pairs) {}

    record PortPair(String from, String to, String words) {}

    @PostMapping("/p/{project}/{branch}/drawing/connect")
    ResponseEntity<?> connect(Workspace.Head head, Person person, @Valid @RequestBody Ends ends) {
        Element one = head.model().get(head.way(ends.from()).getLast());
        Element other = head.model().get(head.way(ends.to()).getLast());
        if (Ordering.areSteps(head.model(), List.of(one, other))) {
            Labels labels = new Labels(head.model());
            return order(
                    head,
                    person,
                    ends.base(),
                    () -> Ordering.connect(head.model(), one, other),
                    labels.name(other) + " comes behind " + labels.name(one));
        }
        return switch (wired(head, ends.from(), ends.to(), null, ends.extent())) {
            case Wiring.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Wiring.Result.Made(Edit edit, ElementId connector, String summary) ->
                commit(head, person, ends.base(), edit, summary, List.of(connector));
            case Wiring.Result.Several(List<Wiring.Pair> pairs) ->
                ResponseEntity.ok(new Choice(
                        false,
                        "several ports fit",
                        pairs.stream()
                                .map(pair -> new PortPair(
                                        BoxKey.of(pair.one()),
                                        BoxKey.of(pair.other()),
                                        pair.oneName() + " to " + pair.otherName()))
                                .toList()));
        };
    }

    /** What could belong together at two ports; nothing where names meet already. */
    @GetMapping("/p/{project}/{branch}/drawing/pairing.json")
    ResponseEntity<Pairing> pairing(Workspace.Head head, @RequestParam String from, @RequestParam String to) {
        Element one = head.element(from);
        Element other = head.element(to);
        return one.kind() == ElementKind.PORT && other.kind() == ElementKind.PORT
                ? Pairing.of(head.model(), one, other)
                        .map(ResponseEntity::ok)
                        .orElseGet(() -> ResponseEntity.noContent().build())
                : ResponseEntity.noContent().build();
    }

    /** @param pairs the name at the second port by the name at the first */
    record Paired(
            @NotNull @Size(max = 2000) String from,
            @NotNull @Size(max = 2000) String to,
            @NotNull @Size(max = 200) String definition,
            @NotNull @Size(max = 500) Map<String, String> pairs,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/drawing/pair")
    ResponseEntity<Answer> pair(Workspace.Head head, Person person, @Valid @RequestBody Paired asked) {
        Wiring.Naming naming = new Wiring.Naming(asked.definition().strip(), asked.pairs());
        return switch (wired(head, asked.from(), asked.to(), naming, asked.extent())) {
            case Wiring.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Wiring.Result.Made(Edit edit, ElementId connector, String summary) ->
                commit(head, person, asked.base(), edit, summary, List.of(connector));
            case Wiring.Result.Several _ -> Answer.unprocessable("name both ports");
        };
    }

    private static Wiring.Result wired(
            Workspace.Head head, String from, String to, Wiring.@Nullable Naming naming, Extent extent) {
        try {
            return Wiring.connect(head.model(), head.way(from), head.way(to), naming, extent);
        } catch (IllegalArgumentException refused) {
            return new Wiring.Result.Refused(String.valueOf(refused.getMessage()));
        }
    }

    /** @param to the key of the end that takes the place of the one that was let go */
    record Moved(
            @NotNull @Size(max = 2000) String stays,
            @NotNull @Size(max = 2000) String to,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/reend")
    ResponseEntity<Answer> reend(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Moved moved) {
        Wiring.Result result;
        try {
            result = Reending.reconnect(
                    head.model(), head.element(id), head.way(moved.stays()), head.way(moved.to()), moved.extent());
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return switch (result) {
            case Wiring.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Wiring.Result.Made(Edit edit, ElementId connector, String summary) ->
                commit(head, person, moved.base(), edit, summary, List.of(connector));
            case Wiring.Result.Several _ -> Answer.unprocessable("several ports fit; drop it on one of them");
        };
    }

    /** @param into the key of what gets a usage of the definition */
    record Used(
            @NotNull String definition,
            @NotNull @Size(max = 2000) String into,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/drawing/use")
    ResponseEntity<Answer> use(Workspace.Head head, Person person, @Valid @RequestBody Used used) {
        Element definition = head.element(used.definition());
        List<ElementId> way = head.way(used.into());
        Element into = head.model().get(way.getLast());
        // A function that comes to a part is not contained in it but performed by it.
        if (definition.kind() == ElementKind.ACTION_DEFINITION && ShownView.hasInside(into)) {
            return perform(head, person, definition, into, used.base());
        }
        Reuse.Result result;
        try {
            result = Reuse.of(head.model(), definition, way, used.extent());
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        return switch (result) {
            case Reuse.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Reuse.Result.Made(Edit edit, ElementId usage, String summary) ->
                commit(head, person, used.base(), edit, summary, List.of(usage));
        };
    }

    private ResponseEntity<Answer> perform(
            Workspace.Head head, Person person, Element function, Element part, int base) {
        try {
            Giving.Made made = Giving.give(head.model(), function, part);
            return commit(
                    head,
                    person,
                    base,
                    made.edit(),
                    made.summary(),
                    made.edit().put().stream().map(Element::id).toList());
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
    }

    record Exposed(
            @NotNull Form form,
            @NotEmpty @Size(max = MOST_CHANGED) List<String> ids,
            @PositiveOrZero int base) {}

    /** Shows elements in a view that it does not show yet. */
    @PostMapping("/p/{project}/{branch}/element/{id}/drawing/show")
    ResponseEntity<Answer> show(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Exposed asked) {
        List<Element> shown = asked.ids().stream().map(head::element).toList();
        Arranging.Arranged arranged = Arranging.show(head.model(), head.element(id), asked.form(), shown);
        return commit(
                head,
                person,
                asked.base(),
                arranged.edit(),
                shown.size() + (shown.size() == 1 ? " element" : " elements") + " shown in view "
                        + arranged.view().name(),
                List.of(arranged.view().id()));
    }

    /** @param into the key of what gets the copies */
    record Copied(
            @NotEmpty @Size(max = MOST_CHANGED) List<String> ids,
            @NotNull @Size(max = 2000) String into,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    /** Makes new elements like some that there are, with what connects them among each other. */
    @PostMapping("/p/{project}/{branch}/drawing/copy")
    ResponseEntity<Answer> copy(Workspace.Head head, Person person, @Valid @RequestBody Copied asked) {
        List<Element> elements =
                asked.ids().stream().distinct().map(head::element).toList();
        if (elements.stream().anyMatch(element -> element.kind().isRequirement())) {
            return Answer.unprocessable(
                    "requirements are copied in the Requirements station, where the copies get ids of their own");
        }
        List<ElementId> way = head.way(asked.into());
        UseInContext use;
        try {
            use = asked.extent() == Extent.USE
                    ? UseInContext.of(head.model(), way)
                    : UseInContext.ofDefinition(head.model(), way);
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
        Element into = use.element();
        List<Element> tops = Detaching.withConnectors(head.model(), elements);
        List<Element> copies = new SubtreeCopy(use.model(), () -> "")
                .of(tops, into.id(), Rank.after(use.model().rankAtEnd(into.id()), tops.size()));
        return commit(
                head,
                person,
                asked.base(),
                use.with(new Edit(copies, Set.of())),
                elements.size() + (elements.size() == 1 ? " copy" : " copies") + " added to "
                        + new Labels(use.model()).name(into),
                copies.stream()
                        .filter(copy -> into.id().equals(copy.owner()))
                        .map(Element::id)
                        .toList());
    }

    /** @param way the key of the box or port, of a line that of one of its ends */
    record Gone(
            @NotNull String id, @NotNull @Size(max = 2000) String way) {
        /** Whether it comes from a definition, so that other uses have it, too. */
        boolean isShared(Workspace.Head head) {
            List<ElementId> at = head.way(way);
            return isLine(head)
                    ? !Reending.isOwn(head.model(), head.element(id), at)
                    : !UseInContext.isOwn(head.model(), at);
        }

        /** Whether it is something that one use can be without. */
        boolean mayBeMissing(Workspace.Head head) {
            return switch (head.element(id).kind()) {
                case PART, PORT, ITEM, OCCURRENCE -> true;
                default -> false;
            };
        }

        String comesFrom(Workspace.Head head) {
            Element element = head.element(id);
            Labels labels = new Labels(head.model());
            Element general = head.model().owners(element).stream()
                    .filter(owner -> owner.kind().isDefinition())
                    .findFirst()
                    .orElseGet(() -> head.model().get(Objects.requireNonNull(element.owner())));
            return "'" + labels.name(element) + "' comes from " + labels.name(general)
                    + ", which others use, too; remove it there";
        }

        boolean isLine(Workspace.Head head) {
            return !head.way(way).getLast().equals(head.element(id).id());
        }
    }

    record Removed(
            @NotEmpty @Size(max = MOST_CHANGED) List<@Valid Gone> things,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    /** Removes elements from the model, with the connections and links that lead to them. */
    @PostMapping("/p/{project}/{branch}/drawing/remove")
    ResponseEntity<Answer> remove(Workspace.Head head, Person person, @Valid @RequestBody Removed asked) {
        List<Gone> shared = asked.extent() == Extent.DEFINITION
                ? List.of()
                : asked.things().stream().filter(thing -> thing.isShared(head)).toList();
        if (shared.isEmpty()) {
            return removed(head, person, asked);
        }
        Gone fixed = shared.stream()
                .filter(thing -> thing.isLine(head) || !thing.mayBeMissing(head))
                .findFirst()
                .orElse(null);
        if (fixed != null) {
            return Answer.unprocessable(fixed.comesFrom(head));
        }
        if (shared.size() < asked.things().size()) {
            return Answer.unprocessable(
                    "some of it stands here alone and some comes from a definition; remove one after the other");
        }
        List<List<ElementId>> ways =
                shared.stream().map(thing -> head.way(thing.way())).toList();
        return switch (UseInContext.without(head.model(), ways)) {
            case UseInContext.Without.Refused(String reason) -> Answer.unprocessable(reason);
            case UseInContext.Without.Made(Edit edit, String summary) ->
                commit(head, person, asked.base(), edit, summary, List.of());
        };
    }

    private ResponseEntity<Answer> removed(Workspace.Head head, Person person, Removed asked) {
        List<Element> elements = asked.things().stream()
                .map(Gone::id)
                .distinct()
                .map(head::element)
                .toList();
        if (Ordering.areSteps(head.model(), elements)) {
            return order(
                    head,
                    person,
                    asked.base(),
                    () -> Ordering.remove(head.model(), elements),
                    elements.size() == 1
                            ? "step " + new Labels(head.model()).name(elements.getFirst()) + " removed"
                            : elements.size() + " steps removed");
        }
        Detaching detached = Detaching.of(head.model(), elements);
        Removal removal = Removal.of(head.model(), detached.tops());
        String links = removal.links().isEmpty()
                ? ""
                : (detached.connectors() == 0 ? " with " : " and ")
                        + removal.links().size()
                        + (removal.links().size() == 1 ? " link" : " links");
        return commit(head, person, asked.base(), removal.edit(), detached.summary(head.model()) + links, List.of());
    }

    private ResponseEntity<Answer> order(
            Workspace.Head head, Person person, int base, Supplier<Edit> act, String summary) {
        try {
            return commit(head, person, base, act.get(), summary, List.of());
        } catch (IllegalArgumentException refused) {
            return Answer.unprocessable(refused);
        }
    }

    private ResponseEntity<Answer> commit(
            Workspace.Head head, Person person, int base, Edit edit, String summary, List<ElementId> made) {
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed", made);
    }
}
