package pyrite.app.runs;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Positive;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.execution.Bench;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Exploration;
import pyrite.core.execution.Subject;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.TextProblem;
import pyrite.core.sequence.SequenceStep;
import pyrite.core.sequence.SequenceText;
import pyrite.core.story.Story;
import pyrite.core.story.StoryComparison;
import pyrite.core.verification.Exploring;
import pyrite.core.verification.Playable;

/** The bench: a part is played by hand, and shows what it does. */
@Controller
class BenchController {
    private static final double DAY = 86_400;
    private static final int MOST_EVENTS = 5_000;
    private static final int MOST_STUCK = 200;
    private static final int MOST_WAYS = 20_000;
    private static final Duration PATIENCE = Duration.ofSeconds(20);
    /** So long a recording goes on behind what it shows, s. */
    private static final double AFTER = 1;

    private final Pages pages;
    private final Benches benches;
    private final Workspace workspace;

    BenchController(Pages pages, Benches benches, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
        this.benches = benches;
    }

    /** Where what was put on the bench is played, and the key by which a drawing shows it. */
    record Opened(String address, String key) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/bench")
    @ResponseBody
    ResponseEntity<Opened> open(Workspace.Head head, Person person, @PathVariable String id) {
        Element element = head.element(id);
        Benches.Seat seat = benches.open(head, person, element, DAY);
        return ResponseEntity.status(HttpStatus.CREATED)
                .body(new Opened(head.address("bench/" + seat.key()), seat.key()));
    }

    @GetMapping("/p/{project}/{branch}/bench/{key}")
    String show(Workspace.Head head, Person person, @PathVariable String key, org.springframework.ui.Model page) {
        Benches.Seat seat = benches.seat(head, person, key);
        pages.frame(page, head, person, Station.RUNS, "Bench");
        page.addAttribute("seat", key);
        page.addAttribute("element", seat.played());
        page.addAttribute("alone", seat.playable().isMade());
        page.addAttribute("revision", seat.revision());
        page.addAttribute("offers", seat.with(Bench::offers));
        page.addAttribute("inputs", seat.with(Bench::inputs));
        page.addAttribute("within", seat.with(Bench::sentWithin));
        Model model = head.model();
        page.addAttribute(
                "packages",
                model.ownElements(ElementKind.PACKAGE)
                        .sorted(Comparator.comparing(model.names()::qualifiedName))
                        .toList());
        page.addAttribute("home", home(model, seat.playable().part()));
        page.addAttribute("stories", tellable(model));
        return "runs/bench";
    }

    /** The package around a part; null if it stands in none of the project. */
    private static @Nullable ElementId home(Model model, Element part) {
        Element at = part;
        while (at != null && at.kind() != ElementKind.PACKAGE) {
            at = at.owner() == null ? null : model.find(at.owner()).orElse(null);
        }
        return at == null ? null : at.id();
    }

    /** What an event is about. */
    record About(String kind, String path, String part, String element, int parent) {}

    /**
     * What the page shows.
     *
     * @param next the next planned instant, s; null if nothing is planned
     * @param about the subjects of all events; empty if the page has them
     * @param events those since the last look: time, kind, subject, occasion, detail
     * @param size how many events there are in all
     * @param isOver whether nothing happens any more unless something comes from outside
     * @param stuck what waits then, and why
     * @param waiting what each element waits for then, control nodes among them
     * @param isOld whether the model was changed since
     */
    record State(
            double now,
            double horizon,
            @Nullable Double next,
            List<About> about,
            List<List<Object>> events,
            int size,
            List<Double> inputs,
            Map<String, String> values,
            boolean isOver,
            List<Stuck> stuck,
            Map<String, String> waiting,
            boolean isOld) {}

    /** One that waits, and what has become of those that could give what it waits for. */
    record Stuck(int subject, String what, boolean isInCircle, List<Why> why) {}

    /** @param subject -1 where there is none */
    record Why(int subject, String words) {}

    @GetMapping("/p/{project}/{branch}/bench/{key}/state.json")
    @ResponseBody
    State state(
            Workspace.Head head, Person person, @PathVariable String key, @RequestParam(defaultValue = "0") int since) {
        Benches.Seat seat = benches.seat(head, person, key);
        return seat.with(bench -> state(head, seat, bench, since));
    }

    private static State state(Workspace.Head head, Benches.Seat seat, Bench bench, int since) {
        EventLog log = bench.log();
        List<Subject> subjects = log.subjects();
        int from = Math.max(Math.clamp(since, 0, log.size()), log.size() - MOST_EVENTS);
        return new State(
                bench.now(),
                bench.horizon(),
                Double.isInfinite(bench.next()) ? null : Double.valueOf(bench.next()),
                since > 0
                        ? List.of()
                        : IntStream.range(0, subjects.size())
                                .mapToObj(i -> new About(
                                        subjects.get(i).kind().name(),
                                        subjects.get(i).path(),
                                        Subject.part(subjects, i),
                                        stored(
                                                head,
                                                seat,
                                                subjects.get(i).element().toString()),
                                        subjects.get(i).parent()))
                                .toList(),
                log.slice(from, log.size()).stream()
                        .map(event -> List.<Object>of(
                                event.time(), event.kind().name(), event.subject(), event.occasion(), event.detail()))
                        .toList(),
                log.size(),
                bench.inputs().stream()
                        .map(input -> Double.isNaN(input.value()) ? 0 : input.value())
                        .toList(),
                bench.values(),
                bench.isOver(),
                bench.standstill().entries().stream()
                        .limit(MOST_STUCK)
                        .map(entry -> new Stuck(
                                entry.subject(),
                                entry.what(),
                                entry.isInCircle(),
                                entry.givers().stream()
                                        .map(giver -> new Why(giver.subject(), giver.why()))
                                        .toList()))
                        .toList(),
                bench.stuck().entrySet().stream()
                        .limit(MOST_STUCK)
                        .collect(Collectors.toMap(each -> each.getKey().toString(), Map.Entry::getValue)),
                head.number() > seat.revision());
    }

    /** What was made to be played is nothing but what it was made for. */
    private static String stored(Workspace.Head head, Benches.Seat seat, String element) {
        return element.isEmpty() || head.model().find(ElementId.parse(element)).isPresent()
                ? element
                : seat.played().id().toString();
    }

    @GetMapping("/p/{project}/{branch}/bench/{key}/timeline.json")
    @ResponseBody
    TimelinePicture timeline(
            Workspace.Head head,
            Person person,
            @PathVariable String key,
            @RequestParam(defaultValue = "-Infinity") double from,
            @RequestParam(defaultValue = "Infinity") double to,
            @RequestParam(defaultValue = "800") int slices,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String kind,
            @RequestParam(defaultValue = "part") String group) {
        Benches.Seat seat = benches.seat(head, person, key);
        return seat.with(bench -> TimelinePicture.of(
                        bench.log(),
                        0,
                        Math.max(bench.now(), 1),
                        new TimelinePicture.Window(from, to, slices),
                        new TimelinePicture.Wanted(text, kind, group),
                        ValueRows.ofItems(bench.log(), bench.now()))
                .leadingTo(element -> stored(head, seat, element)));
    }

    /**
     * How far time is to pass.
     *
     * @param until s; null for no end but the horizon
     * @param toEvent whether it ends with the next event
     */
    record Advance(@Nullable Double until, boolean toEvent, int since) {}

    @PostMapping("/p/{project}/{branch}/bench/{key}/advance")
    @ResponseBody
    State advance(Workspace.Head head, Person person, @PathVariable String key, @RequestBody Advance asked) {
        Benches.Seat seat = benches.seat(head, person, key);
        return seat.with(bench -> {
            double until = asked.until() == null ? bench.horizon() : asked.until();
            if (asked.toEvent()) {
                bench.advanceToEvent(until);
            } else {
                bench.advance(until);
            }
            return state(head, seat, bench, asked.since());
        });
    }

    /** An item for the system. */
    record Given(int offer, Map<String, Double> values, int since) {}

    @PostMapping("/p/{project}/{branch}/bench/{key}/give")
    @ResponseBody
    State give(Workspace.Head head, Person person, @PathVariable String key, @RequestBody Given given) {
        Benches.Seat seat = benches.seat(head, person, key);
        return seat.with(bench -> {
            if (given.offer() < 0 || given.offer() >= bench.offers().size()) {
                throw new IllegalArgumentException("there is nothing like that to give");
            }
            bench.give(given.offer(), given.values());
            return state(head, seat, bench, given.since());
        });
    }

    /** Another value for an attribute. */
    record Setting(int input, double value, int since) {}

    @PostMapping("/p/{project}/{branch}/bench/{key}/set")
    @ResponseBody
    State set(Workspace.Head head, Person person, @PathVariable String key, @RequestBody Setting asked) {
        Benches.Seat seat = benches.seat(head, person, key);
        return seat.with(bench -> {
            if (asked.input() < 0 || asked.input() >= bench.inputs().size() || !Double.isFinite(asked.value())) {
                throw new IllegalArgumentException("there is nothing like that to set");
            }
            bench.set(asked.input(), asked.value());
            return state(head, seat, bench, asked.since());
        });
    }

    /**
     * How a session is to be kept.
     *
     * @param owner the package it is to stand in
     * @param tolerance s
     * @param way which of the ways that were found by exploring; of no account for what was played
     */
    record Kept(
            @NotBlank @Size(max = 200) String name,
            @NotNull String owner,
            @PositiveOrZero double tolerance,
            @NotNull @Size(max = 2_000) String remark,
            @PositiveOrZero int way) {}

    /** Writes what was played into the model, as a recording that can be replayed. */
    @PostMapping("/p/{project}/{branch}/bench/{key}/recording")
    @ResponseBody
    ResponseEntity<Answer> keep(
            Workspace.Head head, Person person, @PathVariable String key, @Valid @RequestBody Kept kept) {
        Benches.Seat seat = benches.seat(head, person, key);
        return keep(
                head,
                person,
                kept,
                seat.with(bench -> session(kept, seat, bench.now(), seat.notes().steps(), seat.told())));
    }

    private static SequenceText.Session session(
            Kept kept, Benches.Seat seat, double lasts, List<SequenceStep> steps, List<SequenceText.Told> told) {
        if (seat.playable().isMade()) {
            throw new IllegalArgumentException("a recording is of a part of the model, and this is played alone;"
                    + " add a part that has it, and play that");
        }
        return new SequenceText.Session(
                kept.name().strip(), seat.playable().part(), lasts, kept.tolerance(), 1, kept.remark(), steps, told);
    }

    /** A step of a use case that is told now. */
    record Telling(@NotNull String step) {}

    /** The steps that were told, and how that stands to the story. */
    record ToldSoFar(List<String> steps, String sentence) {}

    @PostMapping("/p/{project}/{branch}/bench/{key}/tell")
    @ResponseBody
    ToldSoFar tell(Workspace.Head head, Person person, @PathVariable String key, @Valid @RequestBody Telling telling) {
        Benches.Seat seat = benches.seat(head, person, key);
        Element step = head.element(telling.step());
        seat.with(bench -> seat.told().add(new SequenceText.Told(bench.now(), step)));
        List<Element> steps = seat.told().stream().map(SequenceText.Told::step).toList();
        return new ToldSoFar(
                steps.stream().map(each -> each.id().toString()).toList(),
                StoryComparison.of(head.model(), steps)
                        .map(StoryComparison::sentence)
                        .orElse("this is a step of no story"));
    }

    /** A use case whose steps can be told while playing. */
    record Tellable(Element useCase, List<Story.Line> lines) {}

    private static List<Tellable> tellable(Model model) {
        return Stream.of(ElementKind.USE_CASE_DEFINITION, ElementKind.USE_CASE)
                .flatMap(model::ownElements)
                .map(useCase -> new Tellable(
                        useCase,
                        Story.of(model, useCase).lines().stream()
                                .filter(line -> model.names().effectiveName(line.step()) != null)
                                .toList()))
                .filter(tellable -> !tellable.lines().isEmpty())
                .sorted(Comparator.comparing(tellable -> model.names().qualifiedName(tellable.useCase())))
                .toList();
    }

    private ResponseEntity<Answer> keep(Workspace.Head head, Person person, Kept kept, SequenceText.Session session) {
        String text = new SequenceText(head.model()).of(session);
        return switch (new Authoring(head.model()).members(head.element(kept.owner()), text)) {
            case Authoring.Proposal.Rejected(List<TextProblem> problems) ->
                Answer.unprocessable(problems.getFirst().message(), problems);
            case Authoring.Proposal.Accepted(Edit edit, var _) ->
                Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                head.number(),
                                edit,
                                person,
                                "recording " + kept.name().strip() + " saved"),
                        "nothing changed",
                        edit.put().stream()
                                .filter(element -> element.kind() == ElementKind.VERIFICATION)
                                .map(Element::id)
                                .toList());
        };
    }

    /**
     * How far to explore.
     *
     * @param moves how many things come after each other at the most
     * @param horizon s
     */
    record Far(@Min(1) @Max(40) int moves, @Positive double horizon) {}

    /** Something that can happen and should not, and what leads there. */
    record Danger(String kind, String what, List<String> way, boolean isReplayable) {}

    record Unreached(String path, String element) {}

    /** @param asked the requirements that were asked in every situation */
    record Explored(
            List<Danger> found, List<Unreached> unreached, List<String> asked, int situations, boolean isComplete) {}

    /** Tries all orders of events, from the first instant on. */
    @PostMapping("/p/{project}/{branch}/bench/{key}/explore")
    @ResponseBody
    Explored explore(Workspace.Head head, Person person, @PathVariable String key, @Valid @RequestBody Far far) {
        Benches.Seat seat = benches.seat(head, person, key);
        Playable now = Playable.of(head.model(), head.element(seat.played().id().toString()));
        Exploring exploring = Exploring.of(
                now.model(),
                now.part(),
                new Exploration.Bounds(far.moves(), MOST_WAYS, far.horizon(), PATIENCE),
                RunControl.NONE);
        Exploration.Result result = exploring.explore();
        seat.explored(new Benches.Explored(exploring, result));
        return new Explored(
                result.found().stream()
                        .map(found ->
                                new Danger(found.kind().name(), found.what(), found.words(), found.isReplayable()))
                        .toList(),
                result.unreached().stream()
                        .map(subject -> new Unreached(
                                subject.path(),
                                stored(head, seat, subject.element().toString())))
                        .toList(),
                exploring.asked(),
                result.situations(),
                result.isComplete());
    }

    /** Keeps a way that was found as a recording. */
    @PostMapping("/p/{project}/{branch}/bench/{key}/explored")
    @ResponseBody
    ResponseEntity<Answer> keepWay(
            Workspace.Head head, Person person, @PathVariable String key, @Valid @RequestBody Kept kept) {
        Benches.Seat seat = benches.seat(head, person, key);
        Benches.Explored explored = seat.explored();
        int index = kept.way();
        if (explored == null || index >= explored.result().found().size()) {
            return Answer.unprocessable("this was not found any more; explore again");
        }
        Exploring.Told told =
                explored.exploring().tell(explored.result().found().get(index).way());
        return keep(head, person, kept, session(kept, seat, told.ends() + AFTER, told.steps(), List.of()));
    }

    @ExceptionHandler({ModelFault.class, RunFailure.class, IllegalArgumentException.class})
    ResponseEntity<Answer> refused(RuntimeException fault) {
        return Answer.unprocessable(fault);
    }
}
