package pyrite.app.workspace;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;

@Controller
class HomeController {
    private final Workspace workspace;

    HomeController(Workspace workspace) {
        this.workspace = workspace;
    }

    @GetMapping("/")
    String home() {
        return "redirect:" + workspace.first().orElseThrow(() -> new NotFound("there is no project yet")).address() + "/overview";
    }

    @GetMapping("/p/{project}/{branch}")
    String branch(@PathVariable String project, @PathVariable String branch) {
        return "redirect:" + workspace.head(project, branch).branch().address() + "/overview";
    }
}
