package pyrite.app.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.runs.Jobs;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.RequirementIds;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.SeriesTable;

/** Work beyond elements: writing notation, undo and redo, running cases, reading verdicts. */
@RestController
@RequestMapping(ApiAddress.BRANCH)
@Tag(name = ApiAddress.WORK)
class WorkApi {
    private static final int LONGEST_TEXT = 12_000_000;
    private static final int MOST_RUNS = 200;

    private final ApiBranches branches;
    private final Workspace workspace;
    private final Verdicts verdicts;
    private final RunStore runs;
    private final Jobs jobs;
    private final CommitAnswers answers;

    WorkApi(
            ApiBranches branches,
            Workspace workspace,
            Verdicts verdicts,
            RunStore runs,
            Jobs jobs,
            CommitAnswers answers) {
        this.answers = answers;
        this.branches = branches;
        this.workspace = workspace;
        this.verdicts = verdicts;
        this.runs = runs;
        this.jobs = jobs;
    }

    /**
     * @param element the element whose text this is and whose members it replaces; without it the text is added at the
     *     top of the model
     * @param previousCommit the commit from which the element's text was read; later changes elsewhere are kept
     */
    record Text(
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @Nullable String element,
            @Nullable @Size(max = 1000) String description,
            ApiRecords.@Nullable Id previousCommit) {}

    @Operation(
            summary =
                    "Write notation: the new text of an element, whose parts keep their ids, or packages to add; takes an engineer")
    @Costly
    @PostMapping("/notation")
    ResponseEntity<?> write(Workspace.Head head, Person person, @Valid @RequestBody Text requested) {
        if (requested.element() != null && requested.previousCommit() == null) {
            throw new IllegalArgumentException(
                    "say with previousCommit from which commit the text of the element was read, so that nobody's changes since are lost");
        }
        Workspace.Head base = requested.previousCommit() == null
                ? head
                : branches.at(
                        head.branch().projectUuid(), requested.previousCommit().id());
        if (base.branch().id() != head.branch().id()) {
            throw new NotFound("the previous commit is of another branch");
        }
        Source source = new Source("text", requested.text());
        ReadResult reading = requested.element() == null
                ? NotationReader.readMembers(base.model(), null, source)
                : NotationReader.readBack(base.model(), List.of(base.element(requested.element())), source);
        if (!reading.isGood()) {
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    reading.problems().getFirst().toString());
            problem.setProperty("problems", reading.problems());
            return ResponseEntity.of(problem).build();
        }
        return answers.of(
                head,
                workspace.commit(
                        head.branch(),
                        base.number(),
                        reading.edit(),
                        person,
                        requested.description() == null ? "notation written over the API" : requested.description()));
    }

    @Operation(summary = "Undo your newest edit; takes an engineer")
    @PostMapping("/undo")
    ResponseEntity<?> undo(Workspace.Head head, Person person) {
        return answers.of(head, workspace.undo(head.branch(), person));
    }

    @Operation(summary = "Redo the edit you undid last; takes an engineer")
    @PostMapping("/redo")
    ResponseEntity<?> redo(Workspace.Head head, Person person) {
        return answers.of(head, workspace.redo(head.branch(), person));
    }

    /**
     * A requirement with one of its verdicts; {@code verdict} is pass, fail, inconclusive or error, null if it was not
     * judged yet.
     */
    record RequirementVerdict(
            String requirement,
            String id,
            String name,
            @Nullable String verdict,
            boolean stale,
            @Nullable Double margin,
            String unit,
            String reason,
            String subject,
            @Nullable Long run) {}

    @Operation(summary = "Every requirement with its verdicts in force")
    @Costly
    @GetMapping("/verdicts")
    List<RequirementVerdict> verdicts(Workspace.Head head) {
        var judged = verdicts.all(head);
        return head.model()
                .ownElements(ElementKind.REQUIREMENT)
                .flatMap(requirement -> {
                    List<VerdictView> views = judged.getOrDefault(requirement.id(), List.of());
                    return views.isEmpty()
                            ? Stream.of(verdict(head, requirement, null))
                            : views.stream().map(view -> verdict(head, requirement, view));
                })
                .sorted(Comparator.comparing(RequirementVerdict::id, RequirementIds.ORDER))
                .toList();
    }

    private static RequirementVerdict verdict(Workspace.Head head, Element requirement, @Nullable VerdictView view) {
        String id = RequirementIds.of(head.model(), requirement);
        String name = head.model().names().qualifiedName(requirement);
        return view == null
                ? new RequirementVerdict(requirement.id().toString(), id, name, null, false, null, "", "", "", null)
                : new RequirementVerdict(
                        requirement.id().toString(),
                        id,
                        name,
                        view.kind().word(),
                        view.stale(),
                        view.margin(),
                        view.unit(),
                        view.reason(),
                        view.subject(),
                        view.run());
    }

    /** The status of a run; {@code progress} from 0 to 1 while it is running. */
    record RunJson(
            long id,
            String element,
            String name,
            int revision,
            String state,
            String message,
            Instant started,
            @Nullable Instant ended,
            double progress) {}

    private RunJson json(RunRecord run) {
        return new RunJson(
                run.id(),
                run.caseId().toString(),
                run.caseName(),
                run.revisionNumber(),
                run.status().word(),
                run.message(),
                run.startedAt(),
                run.endedAt(),
                run.isUnderWay() ? jobs.progress(run.id()).orElse(0) : 1);
    }

    @Operation(summary = "The newest runs")
    @GetMapping("/runs")
    List<RunJson> runs(Workspace.Head head) {
        return runs.newest(head.branch(), MOST_RUNS).stream().map(this::json).toList();
    }

    /** @param element the case to run */
    record Start(@NotNull String element) {}

    @Operation(summary = "Run a case; takes an engineer")
    @PostMapping("/runs")
    ResponseEntity<RunJson> start(Workspace.Head head, Person person, @Valid @RequestBody Start requested) {
        Element usage = head.element(requested.element());
        if (!CaseSetup.isRunnable(head.model(), usage)) {
            throw new NotFound(usage.kind().titleWithArticle() + " " + usage.name() + " is no case that can be run");
        }
        return ResponseEntity.status(HttpStatus.CREATED).body(json(runs.get(jobs.start(head, usage, person))));
    }

    @Operation(summary = "One run")
    @GetMapping("/runs/{id}")
    RunJson run(Workspace.Head head, @PathVariable long id) {
        return json(find(head, id));
    }

    @Operation(summary = "Stop a run, or take it out of the queue; takes an engineer")
    @PostMapping("/runs/{id}/cancel")
    ResponseEntity<Void> cancel(Workspace.Head head, @PathVariable long id) {
        jobs.cancel(find(head, id).id());
        return ResponseEntity.accepted().build();
    }

    @Operation(summary = "What a run recorded as comma-separated values, all series or those named by path")
    @Costly
    @GetMapping(path = "/runs/{id}/series", produces = "text/csv;charset=UTF-8")
    String series(Workspace.Head head, @PathVariable long id, @RequestParam Optional<List<String>> path) {
        long run = find(head, id).id();
        RunStore.Recorded recorded = path.map(paths -> runs.series(run, paths)).orElseGet(() -> runs.series(run));
        StringWriter text = new StringWriter();
        SeriesTable.write(recorded.times(), recorded.series(), new PrintWriter(text));
        return text.toString();
    }

    private RunRecord find(Workspace.Head head, long id) {
        return runs.find(head.branch(), id)
                .orElseThrow(() -> new NotFound("there is no run " + id + " on this branch"));
    }
}
