package pyrite.app.architecture;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import pyrite.app.store.Person;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** The outline: packages and what they own, as far down as structure goes. */
@Controller
class ArchitectureController {
    private static final Set<ElementKind> INNER = EnumSet.of(ElementKind.REFERENCE, ElementKind.SUBJECT, ElementKind.OBJECTIVE,
            ElementKind.REQUIRED_CONSTRAINT, ElementKind.ASSUMED_CONSTRAINT, ElementKind.PAYLOAD, ElementKind.METADATA);

    private final Pages pages;

    ArchitectureController(Pages pages) {
        this.pages = pages;
    }

    /** A line of the outline; {@code depth} counts from 0, {@code leaf} has nothing below it. */
    record Line(Element element, int depth, boolean leaf, String name, String keyword, String type) {
    }

    @GetMapping("/p/{project}/{branch}/architecture")
    String outline(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Architecture");
        List<Line> lines = new ArrayList<>();
        head.model().ownRoots().forEach(root -> collect(head.model(), root, 0, lines));
        page.addAttribute("lines", lines);
        page.addAttribute("definitions", lines.stream().filter(line -> line.element().kind().isDefinition()).count());
        return "architecture/outline";
    }

    private static void collect(Model model, Element element, int depth, List<Line> lines) {
        List<Element> below = model.children(element.id()).stream().filter(ArchitectureController::isShown).toList();
        String name = model.names().effectiveName(element);
        lines.add(new Line(element, depth, below.isEmpty(), name == null ? "‹" + element.kind().title() + "›" : name,
                element.kind().isDefinition() ? element.kind().keyword() + " def" : element.kind().keyword(), type(model, element)));
        below.forEach(child -> collect(model, child, depth + 1, lines));
    }

    /** What people look for by name; parameters and the inner parts of requirements and cases are on the element's own page. */
    private static boolean isShown(Element element) {
        ElementKind kind = element.kind();
        return kind.isPackage() || kind.isDefinition() || kind == ElementKind.ASSERTED_CONSTRAINT
                || kind.isUsage() && !INNER.contains(kind) && (element.name() != null || kind == ElementKind.ATTRIBUTE);
    }

    /** What follows the name in the notation: types and value. */
    private static String type(Model model, Element element) {
        String head = NotationWriter.head(model, element);
        int sign = head.indexOf(" : ");
        int value = head.indexOf(" = ");
        int from = sign >= 0 ? sign : value;
        return from < 0 ? "" : head.substring(from + 1);
    }
}
