package pyrite.app.requirements;

import java.util.Arrays;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.requirements.RequirementRows.Row;
import pyrite.app.requirements.RequirementRows.Selection;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;

/** The list of all requirements, or of those that stand in some way. */
@Controller
class RequirementsController {
    private final Pages pages;
    private final RequirementRows requirements;

    RequirementsController(Pages pages, RequirementRows requirements) {
        this.pages = pages;
        this.requirements = requirements;
    }

    /** A selection with how many requirements it takes, for the heading. */
    record Count(Selection selection, long count) {
    }

    @GetMapping("/p/{project}/{branch}/requirements")
    String list(Workspace.Head head, Person person, @RequestParam(defaultValue = "all") String show, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Requirements");
        Selection selected = Arrays.stream(Selection.values()).filter(each -> each.key().equals(show)).findFirst()
                .orElseThrow(() -> new NotFound("there is no selection of requirements called " + show));
        List<Row> rows = requirements.of(head);
        page.addAttribute("all", rows.size());
        page.addAttribute("rows", rows.stream().filter(selected::takes).toList());
        page.addAttribute("selected", selected);
        page.addAttribute("counts", Arrays.stream(Selection.values()).map(each -> new Count(each, each.count(rows)))
                .filter(count -> count.count() > 0 || count.selection() == selected).toList());
        return "requirements/list";
    }
}
