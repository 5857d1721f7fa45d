package pyrite.app.architecture;

import java.util.Arrays;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementKind;
import pyrite.core.view.Outline;

/** The outline of packages and their structure. The page loads it in pieces. */
@Controller
class ArchitectureController {
    private static final int MOST_FOUND = 400;

    private final Pages pages;

    ArchitectureController(Pages pages) {
        this.pages = pages;
    }

    @GetMapping("/p/{project}/{branch}/architecture")
    String outline(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Architecture");
        Map<ElementKind, Integer> kinds = new Outline(head.model()).kinds();
        page.addAttribute("kinds", kinds);
        page.addAttribute(
                "definitions",
                kinds.entrySet().stream()
                        .filter(entry -> entry.getKey().isDefinition())
                        .mapToInt(Map.Entry::getValue)
                        .sum());
        page.addAttribute(
                "elements", kinds.values().stream().mapToInt(Integer::intValue).sum());
        return "architecture/outline";
    }

    /** What an element owns, or the top; with a text or a kind to look for, what matches anywhere. */
    @GetMapping("/p/{project}/{branch}/architecture/outline.json")
    @ResponseBody
    Outline.Found lines(
            Workspace.Head head,
            @RequestParam(required = false) @Nullable String of,
            @RequestParam(defaultValue = "") String text,
            @RequestParam(defaultValue = "") String kind) {
        Outline outline = new Outline(head.model());
        if (!text.isBlank() || !kind.isEmpty()) {
            return outline.find(text, kind.isEmpty() ? null : kind(kind), MOST_FOUND);
        }
        var lines = outline.below(of == null ? null : head.element(of).id());
        return new Outline.Found(lines, lines.size());
    }

    private static ElementKind kind(String name) {
        return Arrays.stream(ElementKind.values())
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new NotFound("there is no kind of element called " + name));
    }
}
