package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Baseline;
import pyrite.app.store.BaselineMapper;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.reuse.Moving;
import pyrite.core.reuse.Taking;
import pyrite.core.reuse.UsedLibrary;
import pyrite.core.verification.Judgement;

/** Library packages of other projects: found, used at a baseline, moved to a newer one or left. */
@Controller
class LibrariesController {
    private static final int MOST_SHOWN = 200;

    private final Pages pages;
    private final Workspace workspace;
    private final BranchStore branches;
    private final BaselineMapper baselines;
    private final SharedLibraries shared;

    LibrariesController(
            Pages pages, Workspace workspace, BranchStore branches, BaselineMapper baselines, SharedLibraries shared) {
        this.shared = shared;
        this.pages = pages;
        this.workspace = workspace;
        this.branches = branches;
        this.baselines = baselines;
    }

    /**
     * The libraries of one project that are used here.
     *
     * @param newest the newest baseline there; null if it has none, or the project is gone
     */
    public record Used(
            UsedLibrary.Pin pin,
            List<Part> packages,
            @Nullable Baseline newest,
            int putOff,
            String reason) {
        public boolean isBehind() {
            return newest != null && newest.number() > pin.revision();
        }

        public boolean isPutOff() {
            return newest != null && putOff >= newest.number();
        }
    }

    /** @param uses how many of its definitions are used outside of the libraries */
    public record Part(Element top, int definitions, int uses) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/libraries")
    String libraries(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String q,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Libraries");
        page.addAttribute("used", used(head));
        page.addAttribute("offers", shared.offers(head, q.strip()));
        page.addAttribute("query", q.strip());
        return "architecture/libraries";
    }

    private List<Used> used(Workspace.Head head) {
        return UsedLibrary.all(head.model()).stream()
                .collect(Collectors.groupingBy(UsedLibrary::pin))
                .entrySet()
                .stream()
                .map(entry -> new Used(
                        entry.getKey(),
                        entry.getValue().stream()
                                .map(library -> part(head.model(), library.top()))
                                .toList(),
                        shared.source(entry.getKey().project())
                                .flatMap(shared::newest)
                                .orElse(null),
                        entry.getValue().getFirst().putOff(),
                        entry.getValue().getFirst().reason()))
                .sorted(Comparator.comparing((Used each) -> each.pin().projectName())
                        .thenComparing(each -> each.pin().revision()))
                .toList();
    }

    private static Part part(Model model, Element top) {
        List<Element> definitions = SharedLibraries.definitions(model, top);
        int uses = (int) definitions.stream()
                .filter(definition -> model.referrers(definition.id()).stream()
                        .anyMatch(user ->
                                UsedLibrary.around(model, model.get(user)).isEmpty()))
                .count();
        return new Part(top, definitions.size(), uses);
    }

    record Wished(
            @NotBlank @Size(max = 100) String project,
            @NotBlank @Size(max = 100) String top,
            @PositiveOrZero int number,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/libraries/use")
    ResponseEntity<Answer> use(Workspace.Head head, Person person, @Valid @RequestBody Wished wished) {
        Branch source = sourceOf(wished.project());
        Baseline baseline = baseline(source, wished.number());
        Model model = shared.at(source, baseline.number());
        Element top = ElementId.read(wished.top())
                .flatMap(model::find)
                .orElseThrow(() -> new NotFound("the project has no such package at " + baseline.name()));
        return switch (Taking.take(head.model(), model, top, pin(source, baseline))) {
            case Taking.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case Taking.Result.Made(Edit edit, List<String> packages) ->
                save(
                        head,
                        person,
                        wished.base(),
                        edit,
                        String.join(" and ", packages) + " of " + source.projectName() + " used at " + baseline.name());
        };
    }

    private Branch sourceOf(String project) {
        return shared.source(project).orElseThrow(() -> new NotFound("there is no such project any more"));
    }

    private Baseline baseline(Branch source, int number) {
        return baselines.of(source.id()).stream()
                .filter(each -> each.number() == number)
                .findFirst()
                .orElseThrow(() -> new NotFound(source.projectName() + " has no baseline at r" + number));
    }

    private static UsedLibrary.Pin pin(Branch source, Baseline baseline) {
        return new UsedLibrary.Pin(
                source.projectUuid().toString(), source.projectName(), baseline.name(), baseline.number());
    }

    private ResponseEntity<Answer> save(Workspace.Head head, Person person, int base, Edit edit, String summary) {
        return Answer.of(head, workspace.commit(head.branch(), base, edit, person, summary), "nothing changed");
    }

    @Costly
    @GetMapping("/p/{project}/{branch}/libraries/move")
    String move(Workspace.Head head, Person person, @RequestParam String from, org.springframework.ui.Model page) {
        Branch source = sourceOf(from);
        List<UsedLibrary> libraries = UsedLibrary.of(head.model(), from);
        Baseline newest = shared.newest(source).orElse(null);
        if (libraries.isEmpty() || newest == null) {
            throw new NotFound("nothing of " + source.projectName() + " is used here");
        }
        pages.frame(page, head, person, Station.ARCHITECTURE, "Move to " + newest.name());
        page.addAttribute("source", source);
        page.addAttribute("newest", newest);
        page.addAttribute(
                "pin",
                libraries.stream()
                        .map(UsedLibrary::pin)
                        .filter(pin -> pin.revision() != newest.number())
                        .findFirst()
                        .orElse(libraries.getFirst().pin()));
        Model later = shared.at(source, newest.number());
        page.addAttribute("texts", new Texts(head.model(), later));
        page.addAttribute("moving", Moving.of(head.model(), later, pin(source, newest)));
        return "architecture/move";
    }

    /** The notation of a definition before and after a move. */
    public record Texts(Model now, Model later) {
        public String before(Moving.Change change) {
            return text(now, change.before());
        }

        public String after(Moving.Change change) {
            return text(later, change.after());
        }

        public Element requirement(Judgement judgement) {
            return now.get(judgement.requirement());
        }

        private static String text(Model model, @Nullable Element element) {
            return element == null ? "" : NotationWriter.write(model, List.of(element));
        }
    }

    record Move(
            @NotBlank @Size(max = 100) String project,
            @PositiveOrZero int number,
            @NotNull @Size(max = 2000) String reason,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/libraries/move")
    ResponseEntity<Answer> move(Workspace.Head head, Person person, @Valid @RequestBody Move move) {
        Branch source = sourceOf(move.project());
        Baseline baseline = baseline(source, move.number());
        Moving moving = Moving.of(head.model(), shared.at(source, baseline.number()), pin(source, baseline));
        return moving.breaks().isEmpty()
                ? save(
                        head,
                        person,
                        move.base(),
                        moving.edit(),
                        source.projectName() + " moved to " + baseline.name() + ": "
                                + (moving.changes().size() == 1
                                        ? "1 definition changed"
                                        : moving.changes().size() + " definitions changed"))
                : Answer.unprocessable(
                        moving.breaks().getFirst().reason() + "; change that first, or stay at the older baseline");
    }

    @PostMapping("/p/{project}/{branch}/libraries/put-off")
    ResponseEntity<Answer> putOff(Workspace.Head head, Person person, @Valid @RequestBody Move move) {
        Branch source = sourceOf(move.project());
        Baseline baseline = baseline(source, move.number());
        return move.reason().isBlank()
                ? Answer.unprocessable("say in a few words why it waits")
                : save(
                        head,
                        person,
                        move.base(),
                        UsedLibrary.putOff(head.model(), move.project(), baseline.number(), move.reason()),
                        baseline.name() + " of " + source.projectName() + " put off: "
                                + move.reason().strip());
    }

    @PostMapping("/p/{project}/{branch}/libraries/leave")
    ResponseEntity<Answer> leave(Workspace.Head head, Person person, @Valid @RequestBody Move move) {
        List<UsedLibrary> libraries = UsedLibrary.of(head.model(), move.project()).stream()
                .filter(library -> library.pin().revision() == move.number())
                .toList();
        if (libraries.isEmpty()) {
            throw new NotFound("nothing of that project is used here at that baseline");
        }
        String names = libraries.stream()
                .map(library -> String.valueOf(library.top().name()))
                .collect(Collectors.joining(" and "));
        Set<ElementId> tops =
                libraries.stream().map(library -> library.top().id()).collect(Collectors.toSet());
        return libraries.stream()
                        .anyMatch(library -> part(head.model(), library.top()).uses() > 0)
                ? Answer.unprocessable("some of " + names + " is used here; replace it first")
                : save(head, person, move.base(), new Edit(List.of(), tops), names + " no longer used");
    }

    /** What refers to a definition in a project that uses its package. */
    public record Use(Branch branch, String baseline, List<Place> places) {}

    public record Place(String name, String address) {}

    @Costly
    @GetMapping("/p/{project}/{branch}/element/{id}/uses")
    String uses(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element element = head.element(id);
        String project = UsedLibrary.around(head.model(), element)
                .map(library -> library.pin().project())
                .orElse(head.branch().projectUuid().toString());
        pages.frame(
                page,
                head,
                person,
                Station.ARCHITECTURE,
                new Labels(head.model()).name(element) + " · Uses in all projects");
        page.addAttribute("element", element);
        page.addAttribute("uses", uses(element, project));
        return "architecture/uses";
    }

    private List<Use> uses(Element element, String project) {
        List<Use> uses = new ArrayList<>();
        for (Branch branch : branches.all()) {
            Workspace.Head other = workspace.head(branch.id());
            List<UsedLibrary> libraries = UsedLibrary.of(other.model(), project);
            boolean isSource = branch.projectUuid().toString().equals(project);
            if (!other.model().has(element.id()) || libraries.isEmpty() && !isSource) {
                continue;
            }
            Labels labels = new Labels(other.model());
            List<Place> places = other.model().referrers(element.id()).stream()
                    .map(other.model()::get)
                    .filter(user ->
                            isSource || UsedLibrary.around(other.model(), user).isEmpty())
                    .map(user -> new Place(labels.withOwner(user), other.address("element/" + user.id())))
                    .sorted(Comparator.comparing(Place::name))
                    .limit(MOST_SHOWN)
                    .toList();
            uses.add(new Use(branch, isSource ? "" : libraries.getFirst().pin().baseline(), places));
        }
        return uses;
    }
}
