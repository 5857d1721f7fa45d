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
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.view.Arranging;
import pyrite.core.view.BoxKey;
import pyrite.core.view.Diagram;
import pyrite.core.view.DiagramLayout;
import pyrite.core.view.Placement;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Showing;
import pyrite.core.view.ShownView;
import pyrite.core.view.ShownView.Form;

/** What a drawing shows, and how it is arranged. */
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
     * @param resized the keys of boxes that get a new size
     */
    record Asked(
            @NotNull Form form,
            @Nullable @Size(max = 500) List<String> open,
            @NotNull @Size(max = MOST_SEEN) Map<String, double[]> seen,
            @Nullable @Size(max = MOST_SEEN) List<String> resized) {}

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
                DiagramLayout.of(
                        diagram,
                        shown.placement(),
                        DrawingData.seen(asked.seen(), Objects.requireNonNullElse(asked.resized(), List.of()), renewed),
                        each -> layouts.get(each, DiagramLayout::best)),
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

    private ResponseEntity<Answer> commit(
            Workspace.Head head, Person person, int base, Edit edit, String summary, List<ElementId> made) {
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed", made);
    }
}
