package pyrite.app.workspace;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import pyrite.app.store.Person;

@Controller
class HomeController {
    private final Workspace workspace;

    HomeController(Workspace workspace) {
        this.workspace = workspace;
    }

    @GetMapping("/")
    String home(Person person) {
        return workspace
                .whereLeft(person)
                .map(branch -> "redirect:" + branch.address() + "/overview")
                .orElse("redirect:/projects");
    }

    @GetMapping("/p/{project}/{branch}")
    String branch(@PathVariable String project, @PathVariable String branch) {
        return "redirect:" + workspace.head(project, branch).branch().address() + "/overview";
    }
}
