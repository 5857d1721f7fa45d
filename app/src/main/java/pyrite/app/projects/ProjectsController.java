package pyrite.app.projects;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;

/** Lists projects and creates new ones. */
@Controller
class ProjectsController {
    private final BranchStore branches;
    private final Projects projects;

    ProjectsController(BranchStore branches, Projects projects) {
        this.branches = branches;
        this.projects = projects;
    }

    @GetMapping("/projects")
    String list(Person person, Model page) {
        page.addAttribute("person", person);
        page.addAttribute("branches", branches.all());
        page.addAttribute("mayCreate", person.role().compareTo(Person.Role.LEAD) >= 0);
        return "projects/list";
    }

    @PostMapping("/projects")
    String begin(Person person, @RequestParam String name, RedirectAttributes redirect) {
        try {
            return "redirect:" + projects.begin(person, name).address() + "/overview";
        } catch (IllegalArgumentException refused) {
            redirect.addFlashAttribute("refused", refused.getMessage());
            return "redirect:/projects";
        }
    }
}
