package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Supplier;
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
import pyrite.core.view.BoxKey;
import pyrite.core.view.ShownView;

/** The edits that gestures on a drawing make in the model: connecting, using definitions, copying and removing. */
@RestController
class DrawingEditController {
    private static final int MOST_CHANGED = 1_000;

    private final Workspace workspace;

    DrawingEditController(Workspace workspace) {
        this.workspace = workspace;
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
    record Removable(
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
            @NotEmpty @Size(max = MOST_CHANGED) List<@Valid Removable> things,
            @NotNull Extent extent,
            @PositiveOrZero int base) {}

    /** Removes elements from the model, with the connections and links that lead to them. */
    @PostMapping("/p/{project}/{branch}/drawing/remove")
    ResponseEntity<Answer> remove(Workspace.Head head, Person person, @Valid @RequestBody Removed asked) {
        List<Removable> shared = asked.extent() == Extent.DEFINITION
                ? List.of()
                : asked.things().stream().filter(thing -> thing.isShared(head)).toList();
        if (shared.isEmpty()) {
            return removed(head, person, asked);
        }
        Removable fixed = shared.stream()
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
                .map(Removable::id)
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
                : (detached.along().isEmpty() ? " with " : " and ")
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
