package pyrite.app.changes;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** Lists revisions, and shows one with each element before and after. */
@Controller
class ChangesController {
    private static final int SHOWN = 200;
    private static final int SHOWN_ELEMENTS = 100;

    private final Pages pages;
    private final BranchStore branches;

    ChangesController(Pages pages, BranchStore branches) {
        this.pages = pages;
        this.branches = branches;
    }

    @GetMapping("/p/{project}/{branch}/changes")
    String list(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "0") int upTo,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.CHANGES, "Changes");
        int newest = upTo > 0 ? Math.min(upTo, head.number()) : head.number();
        page.addAttribute("entries", branches.revisions(head.branch(), newest, SHOWN));
        page.addAttribute("older", newest - SHOWN);
        return "changes/list";
    }

    /** One element before and after; the texts are empty where it was not there. */
    record Row(Element element, String before, String after) {}

    @GetMapping("/p/{project}/{branch}/changes/{number}")
    String show(Workspace.Head head, Person person, @PathVariable int number, org.springframework.ui.Model page) {
        BranchStore.Entry entry = branches.revision(head.branch(), number)
                .orElseThrow(() -> new NotFound("there is no revision r" + number + " on this branch"));
        pages.frame(page, head, person, Station.CHANGES, entry.revision().label());
        page.addAttribute("entry", entry);
        difference(head, number - 1, number, page);
        return "changes/revision";
    }

    /** What became of the model between two revisions, whichever comes first. */
    @GetMapping("/p/{project}/{branch}/changes/between")
    String between(
            Workspace.Head head,
            Person person,
            @RequestParam int from,
            @RequestParam(defaultValue = "0") int to,
            org.springframework.ui.Model page) {
        int last = to > 0 ? to : head.number();
        if (from < 0 || from > last || last > head.number()) {
            throw new NotFound("there are no revisions from r" + from + " to r" + last + " on this branch");
        }
        pages.frame(page, head, person, Station.CHANGES, "r" + from + " to r" + last);
        page.addAttribute("steps", branches.revisions(head.branch(), last, Math.min(SHOWN, last - from)));
        difference(head, from, last, page);
        return "changes/between";
    }

    private void difference(Workspace.Head head, int from, int to, org.springframework.ui.Model page) {
        List<ElementChange> changes =
                branches.difference(head.branch(), from, to).changes();
        page.addAttribute("from", from);
        page.addAttribute("to", to);
        page.addAttribute("count", changes.size());
        page.addAttribute(
                "rows",
                changes.stream()
                        .limit(SHOWN_ELEMENTS)
                        .map(change -> row(head.model(), change))
                        .toList());
    }

    private static Row row(Model model, ElementChange change) {
        Element shown = change.after() != null ? change.after() : java.util.Objects.requireNonNull(change.before());
        return new Row(shown, text(model, change.before()), text(model, change.after()));
    }

    /** The declaration as it was, with names as they are now; what it refers to may be gone by now. */
    private static String text(Model model, @Nullable Element element) {
        if (element == null) {
            return "";
        }
        Model with = model.with(List.of(element));
        boolean whole = element.outgoing().stream().allMatch(id -> with.find(id).isPresent())
                && (element.owner() == null || with.find(element.owner()).isPresent());
        return whole
                ? NotationWriter.declaration(with, element)
                : element.kind().title();
    }
}
