package pyrite.app.runs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
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
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceEditing;
import pyrite.core.view.BoxKey;
import pyrite.core.view.SequenceLayout;
import pyrite.core.view.ShownView;

/** The edits that gestures on the drawing of a recording make. Heights are px from the top of the drawing. */
@RestController
class SequenceEditController {
    private static final int LONGEST_KEY = 2_000;
    private static final int LONGEST_TEXT = 20_000;
    private static final int MOST_PARTS = 500;
    private static final int DEEPEST = 8;

    private final Workspace workspace;

    SequenceEditController(Workspace workspace) {
        this.workspace = workspace;
    }

    /** The recording that an element is or that a view shows. */
    private static Element recording(Workspace.Head head, String id) {
        Element element = head.element(id);
        return ShownView.of(head.model(), element).map(ShownView::exposed).orElse(List.of(element)).stream()
                .filter(each -> Sequence.isRecording(head.model(), each))
                .findFirst()
                .orElseThrow(() -> new NotFound("a sequence is drawn of a recording; this is "
                        + element.kind().titleWithArticle()));
    }

    private static double row(@Nullable Double height) {
        return height == null ? SequenceEditing.LAST : (height - SequenceLayout.FIRST) / SequenceLayout.ROW;
    }

    /**
     * @param from the key of a lifeline, as {@code to}
     * @param height where it is dropped; null puts it behind everything else
     */
    record NewMessage(
            @NotNull @Size(max = LONGEST_KEY) String from,
            @NotNull @Size(max = LONGEST_KEY) String to,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @Nullable Double height,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/message")
    ResponseEntity<Answer> message(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewMessage message) {
        return edit(
                head,
                person,
                id,
                message.base(),
                editing -> editing.message(
                        head.way(message.from()), head.way(message.to()), message.text(), row(message.height())));
    }

    /** @param on the key of a lifeline */
    record NewEvent(
            @NotNull @Size(max = LONGEST_KEY) String on,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/event")
    ResponseEntity<Answer> event(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewEvent event) {
        return edit(
                head,
                person,
                id,
                event.base(),
                editing -> editing.event(head.way(event.on()), event.text(), SequenceEditing.LAST));
    }

    record NewPlace(
            @NotNull String member,
            double height,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/place")
    ResponseEntity<Answer> place(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewPlace place) {
        return edit(
                head,
                person,
                id,
                place.base(),
                editing -> editing.place(head.element(place.member()), row(place.height())));
    }

    /** @param to the key of the lifeline that one end leads to from now on */
    record NewEnd(
            @NotNull String member,
            @NotNull @Size(max = LONGEST_KEY) String to,
            boolean isSource,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/reend")
    ResponseEntity<Answer> reend(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewEnd end) {
        return edit(
                head,
                person,
                id,
                end.base(),
                editing -> editing.reend(head.element(end.member()), end.isSource(), head.way(end.to())));
    }

    /** What a step says, to be changed. */
    record Content(String text) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/sequence/says.json")
    ResponseEntity<?> says(
            Workspace.Head head, @PathVariable String id, @RequestParam(defaultValue = "") String member) {
        try {
            SequenceEditing editing = new SequenceEditing(head.model(), recording(head, id));
            return ResponseEntity.ok(new Content(editing.says(head.element(member))));
        } catch (IllegalArgumentException | ModelFault none) {
            return Answer.unprocessable(none);
        }
    }

    record NewContent(
            @NotNull String member,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/say")
    ResponseEntity<Answer> say(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody NewContent content) {
        return edit(
                head,
                person,
                id,
                content.base(),
                editing -> editing.say(head.element(content.member()), content.text()));
    }

    record Removed(
            @NotEmpty @Size(max = 1_000) List<String> members,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/sequence/remove")
    ResponseEntity<Answer> remove(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Removed asked) {
        Element recording = recording(head, id);
        Set<ElementId> gone = new HashSet<>();
        for (String member : asked.members()) {
            Element step = head.element(member);
            if (!Objects.equals(step.owner(), recording.id())) {
                return Answer.unprocessable("this step comes from another recording; remove it there");
            }
            gone.add(step.id());
        }
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        asked.base(),
                        new Edit(List.of(), gone),
                        person,
                        (gone.size() == 1 ? "step" : gone.size() + " steps") + " of " + recording.name() + " removed"),
                "nothing changed");
    }

    /** A part that can have a lifeline. */
    record Offered(String path, String key) {}

    /** The parts of the system that a recording plays, from the outside in. */
    @GetMapping("/p/{project}/{branch}/element/{id}/sequence/parts.json")
    List<Offered> parts(Workspace.Head head, @PathVariable String id) {
        Model model = head.model();
        List<ElementId> system = Sequence.system(model, recording(head, id));
        List<Offered> offered = new ArrayList<>();
        if (!system.isEmpty()) {
            offer(model, system, "", offered);
        }
        return offered;
    }

    /**
     * What can happen on the part of a lifeline, as {@link #event} takes it: its states and steps from the outside in.
     */
    @GetMapping("/p/{project}/{branch}/element/{id}/sequence/happenings.json")
    List<String> happenings(Workspace.Head head, @PathVariable String id, @RequestParam(defaultValue = "") String on) {
        recording(head, id);
        List<String> happenings = new ArrayList<>();
        happen(head.model(), head.model().get(head.way(on).getLast()), "", 0, happenings);
        return happenings;
    }

    private static void happen(Model model, Element around, String path, int depth, List<String> happenings) {
        for (Element feature : model.inheritance().features(around)) {
            String name = model.names().effectiveName(feature);
            boolean isBehavior = switch (feature.kind()) {
                case EXHIBIT, STATE, PERFORM, ACTION -> true;
                default -> false;
            };
            if (isBehavior && name != null && !model.isLibrary(feature.id()) && happenings.size() < MOST_PARTS) {
                happenings.add(path + name);
                if (depth < DEEPEST) {
                    happen(model, feature, path + name + ".", depth + 1, happenings);
                }
            }
        }
    }

    private static void offer(Model model, List<ElementId> way, String path, List<Offered> offered) {
        for (Element feature : model.inheritance().features(model.get(way.getLast()))) {
            if (feature.kind() == ElementKind.PART && !model.isLibrary(feature.id()) && offered.size() < MOST_PARTS) {
                List<ElementId> inner = new ArrayList<>(way);
                inner.add(feature.id());
                String name = path + model.names().effectiveName(feature);
                offered.add(new Offered(name, BoxKey.of(inner)));
                if (inner.size() < DEEPEST) {
                    offer(model, inner, name + ".", offered);
                }
            }
        }
    }

    private ResponseEntity<Answer> edit(
            Workspace.Head head,
            Person person,
            String id,
            int base,
            Function<SequenceEditing, SequenceEditing.Made> act) {
        try {
            SequenceEditing.Made made = act.apply(new SequenceEditing(head.model(), recording(head, id)));
            return Answer.of(
                    head,
                    workspace.commit(head.branch(), base, made.edit(), person, made.summary()),
                    "nothing changed");
        } catch (IllegalArgumentException | ModelFault refused) {
            return Answer.unprocessable(refused);
        }
    }
}
