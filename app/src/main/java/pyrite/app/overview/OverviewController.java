package pyrite.app.overview;

import java.util.List;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.links.ViewCounts;
import pyrite.app.recheck.Rechecks;
import pyrite.app.requirements.RequirementRows;
import pyrite.app.requirements.RequirementRows.Row;
import pyrite.app.requirements.RequirementRows.Show;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementKind;
import pyrite.core.trace.SavedView;

/** The first page: what needs attention, progress, and recent changes. */
@Controller
class OverviewController {
    private static final int MOST = 8;
    private static final int RUNS = 40;

    private final Pages pages;
    private final RequirementRows requirements;
    private final BranchStore branches;
    private final RunStore runs;
    private final Visits visits;
    private final ViewCounts views;
    private final Rechecks rechecks;

    OverviewController(
            Pages pages,
            RequirementRows requirements,
            BranchStore branches,
            RunStore runs,
            Visits visits,
            ViewCounts views,
            Rechecks rechecks) {
        this.pages = pages;
        this.requirements = requirements;
        this.branches = branches;
        this.runs = runs;
        this.visits = visits;
        this.views = views;
        this.rechecks = rechecks;
    }

    /** A number that links to its list. */
    record Figure(Show selection, long count) {}

    /** A pinned view with its count. */
    record Pinned(String name, String address, String count) {}

    /** The share of all requirements that reached a stage. */
    record Coverage(String words, Show leadsTo, long count, long of) {
        public int percent() {
            return of == 0 ? 0 : (int) (100 * count / of);
        }
    }

    @GetMapping("/p/{project}/{branch}/overview")
    String overview(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.OVERVIEW, "Overview");
        List<Row> rows = requirements.of(head);
        page.addAttribute("count", rows.size());
        page.addAttribute("needs", head.model().ownElements(ElementKind.CONCERN).count());
        page.addAttribute(
                "answered",
                rows.stream()
                        .flatMap(row -> row.needs().stream())
                        .filter(each -> each.kind() == ElementKind.CONCERN)
                        .distinct()
                        .count());
        page.addAttribute(
                "figures",
                Stream.of(Show.FAILING, Show.STALE, Show.OPEN, Show.UNSATISFIED, Show.UNVERIFIED, Show.UNASKED)
                        .map(selection -> new Figure(selection, selection.count(rows)))
                        .toList());
        page.addAttribute(
                "coverage",
                List.of(
                        coverage("satisfied by the design", Show.UNSATISFIED, rows),
                        coverage("verified", Show.UNVERIFIED, rows),
                        new Coverage("pass, by fresh evidence", Show.PASSING, Show.PASSING.count(rows), rows.size())));
        page.addAttribute(
                "failing",
                rows.stream()
                        .filter(row -> Show.FAILING.takes(row) || Show.STALE.takes(row))
                        .limit(MOST)
                        .toList());
        page.addAttribute("rechecks", rechecks.all(head).size());
        page.addAttribute(
                "pinned",
                SavedView.listed(head.model(), person.signIn()).stream()
                        .filter(SavedView::pinned)
                        .map(view -> new Pinned(view.name(), ViewCounts.address(head, view), views.of(head, view)))
                        .toList());
        page.addAttribute(
                "underWay",
                runs.newest(head.branch(), RUNS).stream()
                        .filter(RunRecord::isUnderWay)
                        .toList());
        news(head, head.past() ? 0 : visits.lastSeen(head, person), page);
        return "overview/overview";
    }

    private static Coverage coverage(String words, Show missing, List<Row> rows) {
        return new Coverage(words, missing, rows.size() - missing.count(rows), rows.size());
    }

    private void news(Workspace.Head head, int seen, org.springframework.ui.Model page) {
        int count = Math.max(0, head.number() - seen);
        page.addAttribute("news", branches.revisions(head.branch(), head.number(), Math.min(MOST, count)));
        page.addAttribute("newsCount", count);
        page.addAttribute("firstVisit", seen == 0);
    }
}
