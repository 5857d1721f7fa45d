package pyrite.app.requirements;

import java.util.Arrays;
import java.util.List;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import pyrite.app.requirements.RequirementRows.Show;
import pyrite.app.store.Person;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Model;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Specification;
import tools.jackson.databind.json.JsonMapper;

/** Specifications as a grid to edit or a document to read. */
@Controller
class RequirementsController {
    private static final int MOST_IN_DOCUMENT = 3000;

    private final Pages pages;
    private final SpecificationLines lines;
    private final DocumentText documents;
    private final JsonMapper json;

    RequirementsController(Pages pages, SpecificationLines lines, DocumentText documents, JsonMapper json) {
        this.pages = pages;
        this.lines = lines;
        this.documents = documents;
        this.json = json;
    }

    /** A specification to choose. */
    public record Choice(String id, String title, String prefix, String level) {}

    /** The properties of an attribute that the grid needs. */
    record Column(String name, String type, List<String> choices, String unit) {
        static Column of(Attribute attribute) {
            return new Column(
                    attribute.name(),
                    attribute.type().name().toLowerCase(java.util.Locale.ROOT),
                    attribute.choices().stream().map(Attribute.Choice::name).toList(),
                    attribute.unit());
        }
    }

    static List<Choice> choices(Model model) {
        Labels labels = new Labels(model);
        return Specification.all(model).stream()
                .map(each -> new Choice(
                        each.element().id().toString(), labels.name(each.element()), each.prefix(), each.level()))
                .toList();
    }

    @GetMapping("/p/{project}/{branch}/requirements")
    String requirements(
            Workspace.Head head,
            Person person,
            @RequestParam(defaultValue = "") String spec,
            @RequestParam(defaultValue = "all") String show,
            @RequestParam(defaultValue = "grid") String as,
            @RequestParam(defaultValue = Attributes.STATUS) List<String> attribute,
            org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Requirements");
        if (Arrays.stream(Show.values()).noneMatch(each -> each.key().equals(show))) {
            throw new NotFound("there is no selection of requirements called " + show);
        }
        page.addAttribute("specifications", choices(head.model()));
        page.addAttribute("spec", spec);
        page.addAttribute("empty", lines.of(head, spec).isEmpty());
        if (as.equals("document")) {
            var items = lines.of(head, spec);
            List<String> known = Attributes.in(head.model()).all().stream()
                    .map(Attribute::name)
                    .toList();
            List<String> shown = attribute.stream().filter(known::contains).toList();
            page.addAttribute("attributes", known);
            page.addAttribute("shown", shown);
            page.addAttribute(
                    "paragraphs",
                    documents.of(head, items.subList(0, Math.min(items.size(), MOST_IN_DOCUMENT)), shown));
            page.addAttribute("more", Math.max(0, items.size() - MOST_IN_DOCUMENT));
            return "requirements/document";
        }
        List<Column> columns =
                Attributes.in(head.model()).all().stream().map(Column::of).toList();
        page.addAttribute("columns", columns);
        page.addAttribute("columnsJson", json.writeValueAsString(columns));
        page.addAttribute("shows", Show.values());
        page.addAttribute("show", show);
        return "requirements/grid";
    }
}
