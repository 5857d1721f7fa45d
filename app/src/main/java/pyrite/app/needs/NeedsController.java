package pyrite.app.needs;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.requirements.RequirementRows;
import pyrite.app.store.Person;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;

@Controller
class NeedsController {
    private final Pages pages;
    private final RequirementRows requirements;

    NeedsController(Pages pages, RequirementRows requirements) {
        this.pages = pages;
        this.requirements = requirements;
    }

    @GetMapping("/p/{project}/{branch}/needs")
    String list(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.NEEDS, "Needs");
        page.addAttribute("rows", NeedRows.of(head.model(), requirements.of(head)));
        return "needs/list";
    }
}
