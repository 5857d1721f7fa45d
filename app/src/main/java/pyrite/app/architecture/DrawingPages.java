package pyrite.app.architecture;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.store.Person;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.expression.Keywords;
import pyrite.core.function.FunctionPaths;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.trace.SavedView;
import pyrite.core.verification.Playable;
import pyrite.core.view.ShownView;
import pyrite.core.view.ShownView.Form;

/**
 * The pages with a drawing or a text of an element. What is drawn is fetched by the page, see {@link DrawingData}. The
 * address says which boxes are open, so a drawing can be shared by its address.
 */
@Controller
class DrawingPages {
    private final Pages pages;

    DrawingPages(Pages pages) {
        this.pages = pages;
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/general")
    String general(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam(defaultValue = "off") String split,
            org.springframework.ui.Model page) {
        boolean isSplit = split.equals("on");
        return drawing(head, person, head.element(id), Form.GENERAL, isSplit, isSplit ? "split" : "general", page);
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/inside")
    String inside(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "off") String split,
            org.springframework.ui.Model page) {
        page.addAttribute("path", path.isEmpty() ? null : head.element(path));
        page.addAttribute("marks", marks(head, path));
        return drawing(head, person, withInside(head, id), Form.INTERCONNECTION, split.equals("on"), "inside", page);
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/context")
    String context(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        return drawing(head, person, withInside(head, id), Form.CONTEXT, false, "context", page);
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/flow")
    String flow(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String bench,
            @RequestParam(defaultValue = "off") String split,
            org.springframework.ui.Model page) {
        page.addAttribute("path", path.isEmpty() ? null : head.element(path));
        page.addAttribute("marks", marks(head, path));
        page.addAttribute("bench", bench);
        Element element = head.element(id);
        if (!ShownView.hasSteps(element)) {
            throw new NotFound("such a view shows the steps of an action or use case, and "
                    + new Labels(head.model()).name(element) + " is "
                    + element.kind().titleWithArticle());
        }
        return drawing(head, person, element, Form.ACTION_FLOW, split.equals("on"), "flow", page);
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/states")
    String states(
            Workspace.Head head,
            Person person,
            @PathVariable String id,
            @RequestParam(defaultValue = "") String bench,
            @RequestParam(defaultValue = "off") String split,
            org.springframework.ui.Model page) {
        page.addAttribute("bench", bench);
        Element element = head.element(id);
        if (!ShownView.hasStates(element)) {
            throw new NotFound("such a view shows the states within a state, and "
                    + new Labels(head.model()).name(element) + " is "
                    + element.kind().titleWithArticle());
        }
        return drawing(head, person, element, Form.STATE_TRANSITION, split.equals("on"), "states", page);
    }

    private static Element withInside(Workspace.Head head, String id) {
        Element element = head.element(id);
        if (!ShownView.hasInside(element)) {
            throw new NotFound("such a view shows a part or an item, and "
                    + new Labels(head.model()).name(element) + " is "
                    + element.kind().titleWithArticle());
        }
        return element;
    }

    /** A view that is an element of the model. */
    @GetMapping("/p/{project}/{branch}/drawing/{id}")
    String view(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element view = head.element(id);
        Form form = ShownView.of(head.model(), view)
                .map(ShownView::form)
                .orElseThrow(() -> new NotFound("this element is no view that is drawn"));
        return drawing(head, person, view, form, false, "drawing", page);
    }

    /**
     * What a drawing marks of a function path; empty if none is asked for.
     *
     * @param id of the path
     */
    private static String marks(Workspace.Head head, String id) {
        return id.isEmpty()
                ? ""
                : new FunctionPaths(head.model())
                        .of(head.element(id)).marked().stream()
                                .map(ElementId::toString)
                                .collect(Collectors.joining(" "));
    }

    private String drawing(
            Workspace.Head head,
            Person person,
            Element element,
            Form form,
            boolean split,
            String tab,
            org.springframework.ui.Model page) {
        pages.frame(
                page,
                head,
                person,
                Station.ARCHITECTURE,
                new Labels(head.model()).full(element)
                        + (element.kind() == ElementKind.VIEW ? "" : " · " + form.title()));
        page.addAttribute("element", element);
        page.addAttribute("form", form);
        page.addAttribute("tab", tab);
        boolean isBehavior = form == Form.ACTION_FLOW || form == Form.STATE_TRANSITION;
        page.addAttribute("playable", isBehavior && Playable.isOfKind(element.kind()));
        page.addAttribute("empty", empty(form));
        page.addAttribute("split", split);
        page.addAttribute("into", into(head.model(), element, form));
        editor(head, person, element, page);
        return "architecture/drawing";
    }

    /** Where something is added that goes into no box: the element, or the package that a view stands in. */
    private static Element into(Model model, Element element, Form form) {
        if (form == Form.STATE_TRANSITION || form == Form.ACTION_FLOW) {
            return ShownView.of(model, element)
                    .flatMap(shown -> shown.exposed().stream().findFirst())
                    .orElse(element);
        }
        return element.kind() == ElementKind.VIEW && element.owner() != null ? model.get(element.owner()) : element;
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

    /** A drawn view in the list of views. */
    public record ListedView(Element view, String form, String place, int exposed) {}

    @GetMapping("/p/{project}/{branch}/drawings")
    String drawings(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.ARCHITECTURE, "Drawings");
        Labels labels = new Labels(head.model());
        List<ListedView> views = ShownView.all(head.model()).stream()
                .map(view -> ShownView.of(head.model(), view).orElseThrow())
                .map(shown -> new ListedView(
                        Objects.requireNonNull(shown.view()),
                        shown.form().title(),
                        head.model().names().qualifiedName(shown.view()),
                        shown.exposed().size()))
                .sorted(Comparator.comparing(ListedView::place))
                .toList();
        page.addAttribute("views", views);
        page.addAttribute("labels", labels);
        page.addAttribute(
                "bookmarks",
                SavedView.listed(head.model(), person.signIn()).stream()
                        .filter(view -> view.page().equals(SavedView.DRAWING))
                        .toList());
        return "architecture/drawings";
    }

    /** What to do where nothing is drawn yet. */
    private static String empty(Form form) {
        return switch (form) {
            case GENERAL ->
                "Nothing in here has a box of its own. Definitions, parts, items, actions, states and requirements do.";
            case ACTION_FLOW -> "There are no steps yet. Add, or the key A, makes the first.";
            case STATE_TRANSITION -> "There are no states yet. Add, or the key A, makes the first.";
            case INTERCONNECTION, CONTEXT ->
                "There are no parts yet. Add, or the key A, makes one; Bring in shows definitions to drag here.";
            default -> "There is nothing to show yet.";
        };
    }
}
