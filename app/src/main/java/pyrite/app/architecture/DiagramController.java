package pyrite.app.architecture;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Person;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.expression.Keywords;
import pyrite.core.model.Element;
import pyrite.core.view.Diagram;
import pyrite.core.view.DiagramLayout;
import pyrite.core.view.GeneralView;

/**
 * The General view of an element as a drawing. The address says which boxes are open, so a drawing can be shared by its
 * address.
 */
@Controller
public class DiagramController {
    private static final int MOST_OPEN = 60;

    private final Pages pages;

    DiagramController(Pages pages) {
        this.pages = pages;
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/general")
    String general(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam(defaultValue = "") List<String> open,
            @RequestParam(defaultValue = "off") String split,
            org.springframework.ui.Model page) {
        Element element = head.element(id);
        Set<String> opened = open.stream().limit(MOST_OPEN).collect(Collectors.toCollection(LinkedHashSet::new));
        Diagram diagram = GeneralView.of(head.model(), element, opened);
        pages.frame(
                page, head, person, Station.ARCHITECTURE, new Labels(head.model()).full(element) + " · General view");
        page.addAttribute("element", element);
        page.addAttribute("diagram", diagram);
        page.addAttribute("layout", DiagramLayout.of(diagram));
        page.addAttribute("open", new Opened(opened, split.equals("on")));
        page.addAttribute("split", split.equals("on"));
        editor(head, person, element, page);
        return "architecture/general";
    }

    /** The text of an element in an editor. */
    @GetMapping("/p/{project}/{branch}/element/{id}/notation")
    String notation(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element element = head.element(id);
        pages.frame(page, head, person, Station.ARCHITECTURE, new Labels(head.model()).full(element) + " · Notation");
        page.addAttribute("element", element);
        editor(head, person, element, page);
        return "architecture/notation";
    }

    private static void editor(Workspace.Head head, Person person, Element element, org.springframework.ui.Model page) {
        page.addAttribute("words", String.join(" ", Keywords.RESERVED));
        page.addAttribute(
                "editable", person.mayEdit() && !head.past() && !head.model().isLibrary(element.id()));
    }

    /** The open boxes, and the query that opens one more or closes it with everything within. */
    public record Opened(Set<String> keys, boolean split) {
        public String toggled(String key) {
            Set<String> next = new LinkedHashSet<>(keys);
            if (!next.removeIf(each -> each.equals(key) || each.startsWith(key + "."))) {
                next.add(key);
            }
            Stream<String> both = split ? Stream.of("split=on") : Stream.empty();
            return Stream.concat(
                            both, next.stream().map(each -> "open=" + URLEncoder.encode(each, StandardCharsets.UTF_8)))
                    .collect(Collectors.joining("&", "?", ""));
        }

        /** A length for the drawing, with a point whatever the language of the machine. */
        public String px(double value) {
            return String.format(Locale.ROOT, "%.1f", value);
        }
    }
}
