package pyrite.app.needs;

import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.requirements.RequirementRows;
import pyrite.app.store.Person;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;

@Controller
class NeedsController {
    private static final int MOST_ROWS = 200;

    private final Pages pages;
    private final RequirementRows requirements;

    NeedsController(Pages pages, RequirementRows requirements) {
        this.pages = pages;
        this.requirements = requirements;
    }

    @GetMapping("/p/{project}/{branch}/needs")
    String list(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "0") int from,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.NEEDS, "Needs");
        List<NeedRows.Row> rows = NeedRows.of(head.model(), requirements.of(head));
        int first = Math.max(0, Math.min(from, Math.max(0, rows.size() - 1)));
        page.addAttribute("total", rows.size());
        page.addAttribute("from", first);
        page.addAttribute("most", MOST_ROWS);
        page.addAttribute("rows", rows.subList(first, Math.min(rows.size(), first + MOST_ROWS)));
        return "needs/list";
    }
}
