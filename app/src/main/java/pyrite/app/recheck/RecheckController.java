package pyrite.app.recheck;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Downloads;
import pyrite.app.workspace.ElementRef;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.RecheckRecord;
import pyrite.core.view.TextDifference;

/** The links that need recheck, with what changed at which end, and confirming them. */
@Controller
@Tag(name = ApiAddress.TRACING)
class RecheckController {
    private static final int MOST_SHOWN = 100;

    private final Pages pages;
    private final Workspace workspace;
    private final BranchStore store;
    private final Rechecks rechecks;
    private final RecheckItems items;
    private final Verdicts verdicts;

    RecheckController(
            Pages pages,
            Workspace workspace,
            BranchStore store,
            Rechecks rechecks,
            RecheckItems items,
            Verdicts verdicts) {
        this.items = items;
        this.pages = pages;
        this.workspace = workspace;
        this.store = store;
        this.rechecks = rechecks;
        this.verdicts = verdicts;
    }

    @GetMapping("/p/{project}/{branch}/recheck")
    String recheck(
            Workspace.Head head,
            Person person,
            RecheckFilter filter,
            HttpServletRequest request,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Recheck");
        List<Agreements.Doubt> all = rechecks.all(head);
        List<Agreements.Doubt> chosen = chosen(head, filter);
        page.addAttribute("all", all.size());
        page.addAttribute("chosen", chosen.size());
        page.addAttribute(
                "items", items.of(head, chosen.stream().limit(MOST_SHOWN).toList()));
        page.addAttribute(
                "kinds",
                all.stream().map(doubt -> doubt.link().kind().key()).collect(Collectors.toCollection(TreeSet::new)));
        page.addAttribute(
                "causes",
                all.stream()
                        .flatMap(doubt -> doubt.changes().stream())
                        .map(Agreements.Change::property)
                        .collect(Collectors.toCollection(TreeSet::new)));
        page.addAttribute(
                "specifications",
                Specification.all(head.model()).stream()
                        .map(Specification::element)
                        .toList());
        page.addAttribute("filter", filter);
        page.addAttribute("query", Objects.requireNonNullElse(request.getQueryString(), ""));
        page.addAttribute("stale", stale(head));
        return "recheck/list";
    }

    /** A changed property, when the link was agreed and now. */
    record ChangeJson(
            ElementRef end,
            String property,
            String before,
            String after,
            @Nullable Integer revision,
            @Nullable String by) {}

    /**
     * @param link identifies it for confirming or keeping open
     * @param since the revision of its last agreement
     * @param keptOpen why it was left open; null if it was not examined
     */
    record DoubtJson(
            String link,
            String kind,
            ElementRef source,
            ElementRef target,
            int since,
            List<ChangeJson> changes,
            @Nullable String keptOpen) {}

    @Operation(summary = "The links that need recheck, with what changed at which end")
    @Costly
    @GetMapping(ApiAddress.BRANCH + "/rechecks")
    @ResponseBody
    List<DoubtJson> doubts(Workspace.Head head, @ParameterObject RecheckFilter filter) {
        Model model = head.model();
        return items.of(head, chosen(head, filter)).stream()
                .map(item -> new DoubtJson(
                        item.key(),
                        item.kind().key(),
                        ElementRef.of(model, item.source()),
                        ElementRef.of(model, item.target()),
                        item.since(),
                        item.changes().stream()
                                .map(change -> json(model, change))
                                .toList(),
                        item.kept() == null ? null : item.kept().note()))
                .toList();
    }

    private static ChangeJson json(Model model, RecheckItems.Change change) {
        return new ChangeJson(
                ElementRef.of(model, change.end()),
                change.property(),
                side(change, TextDifference.Kind.ADDED),
                side(change, TextDifference.Kind.REMOVED),
                change.by() == null ? null : change.by().revision().number(),
                change.by() == null ? null : change.by().authorName());
    }

    private List<Agreements.Doubt> chosen(Workspace.Head head, RecheckFilter filter) {
        return rechecks.all(head).stream()
                .filter(doubt -> filter.takes(head.model(), doubt))
                .sorted(order(head.model()))
                .toList();
    }

    /** The links that need recheck, a row for each property that changed at an end. */
    @Operation(summary = "What needs recheck as comma-separated values")
    @Costly
    @GetMapping({"/p/{project}/{branch}/recheck/export.csv", ApiAddress.BRANCH + "/rechecks/export.csv"})
    void export(Workspace.Head head, RecheckFilter filter, HttpServletResponse response) throws IOException {
        Labels labels = new Labels(head.model());
        List<List<String>> rows = new ArrayList<>(List.of(List.of(
                "from",
                "link",
                "to",
                "agreed at",
                "changed end",
                "property",
                "before",
                "after",
                "by",
                "when",
                "kept open because")));
        for (RecheckItems.Item item : items.of(head, chosen(head, filter))) {
            for (RecheckItems.Change change : item.changes()) {
                rows.add(List.of(
                        labels.full(item.source()),
                        item.kind().forward(),
                        labels.full(item.target()),
                        "r" + item.since(),
                        labels.full(change.end()),
                        change.property(),
                        side(change, TextDifference.Kind.ADDED),
                        side(change, TextDifference.Kind.REMOVED),
                        change.by() == null ? "" : change.by().authorName(),
                        change.by() == null ? "" : change.by().revision().at().toString(),
                        item.kept() == null ? "" : item.kept().note()));
            }
        }
        Downloads.csv(response, "recheck", head, rows);
    }

    /** One side of a difference: all of it but what only the other side has. */
    private static String side(RecheckItems.Change change, TextDifference.Kind without) {
        return change.pieces().stream()
                .filter(piece -> piece.kind() != without)
                .map(TextDifference.Piece::text)
                .collect(Collectors.joining());
    }

    private static Comparator<Agreements.Doubt> order(Model model) {
        return Comparator.comparing(
                        (Agreements.Doubt doubt) -> id(model, doubt.link().target()), RequirementIds.ORDER)
                .thenComparing(doubt -> id(model, doubt.link().source()), RequirementIds.ORDER);
    }

    private static String id(Model model, ElementId id) {
        return RequirementIds.of(model, model.get(id));
    }

    /** Requirements whose evidence went stale: another matter than links in doubt, but settled by the same people. */
    private List<Element> stale(Workspace.Head head) {
        return RequirementIds.sorted(
                head.model(),
                verdicts.all(head).entrySet().stream()
                        .filter(entry -> entry.getValue().stream().anyMatch(VerdictView::stale))
                        .map(entry -> head.model().get(entry.getKey())));
    }

    /** The examined links, by their keys, with a note. */
    record LookedAt(
            @NotEmpty @Size(max = 20_000) Set<String> links,
            @NotNull @Size(max = 2000) String note,
            @PositiveOrZero int base) {}

    @Operation(summary = "Confirm links that need recheck; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/recheck/confirm", ApiAddress.BRANCH + "/rechecks/confirm"})
    @ResponseBody
    ResponseEntity<Answer> confirm(Workspace.Head head, Person person, @Valid @RequestBody LookedAt lookedAt) {
        return record(head, person, lookedAt, "confirm", RecheckRecord::confirmed);
    }

    @Operation(summary = "Leave links that need recheck open, with a note; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/recheck/keep", ApiAddress.BRANCH + "/rechecks/keep"})
    @ResponseBody
    ResponseEntity<Answer> keepOpen(Workspace.Head head, Person person, @Valid @RequestBody LookedAt lookedAt) {
        return record(head, person, lookedAt, "keep it open", RecheckRecord::keptOpen);
    }

    private interface Recording {
        RecheckRecord of(Model model, Collection<Agreements.Doubt> doubts, int at, String note);
    }

    private ResponseEntity<Answer> record(
            Workspace.Head head, Person person, LookedAt lookedAt, String then, Recording recording) {
        List<Agreements.Doubt> doubts = rechecks.all(head).stream()
                .filter(doubt -> lookedAt.links().contains(RecheckItems.key(doubt)))
                .toList();
        if (doubts.isEmpty()) {
            return Answer.unprocessable("these links need no recheck any more");
        }
        if (lookedAt.base() < head.number() && hasMoved(head, lookedAt.base(), doubts)) {
            return Answer.unprocessable(
                    "an end has changed again since this page was loaded; look at it once more, then " + then);
        }
        RecheckRecord record =
                recording.of(head.model(), doubts, head.number(), Objects.requireNonNull(lookedAt.note()));
        return Answer.of(
                head,
                workspace.commit(head.branch(), head.number(), record.edit(), person, record.summary()),
                "nothing changed");
    }

    private boolean hasMoved(Workspace.Head head, int base, List<Agreements.Doubt> doubts) {
        Set<ElementId> parts = doubts.stream()
                .flatMap(doubt -> doubt.changes().stream())
                .flatMap(change -> head.model().subtree(change.end()).stream())
                .map(Element::id)
                .collect(Collectors.toSet());
        return store.changedSince(head.branch(), base).stream().anyMatch(parts::contains);
    }
}
