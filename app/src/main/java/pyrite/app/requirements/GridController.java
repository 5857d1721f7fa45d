package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.recheck.Rechecks;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Property;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Selection;
import pyrite.core.specification.Specification.Item;
import pyrite.core.trace.Link;
import pyrite.core.trace.Links;

/** The rows of the requirements grid, in windows. */
@RestController
@Tag(name = ApiAddress.TRACING)
class GridController {
    private static final int MOST_ROWS = 300;

    private final GridRows rows;
    private final Verdicts verdicts;
    private final Rechecks rechecks;

    GridController(GridRows rows, Verdicts verdicts, Rechecks rechecks) {
        this.rows = rows;
        this.verdicts = verdicts;
        this.rechecks = rechecks;
    }

    /** The number of links of one kind in one direction; {@code words} is their relation to this requirement. */
    record Count(String words, int count, boolean up) {}

    record Verdict(String kind, String words, boolean stale, String margin, String subject) {
        static Verdict of(VerdictView view) {
            return new Verdict(view.kind().word(), view.words(), view.stale(), view.marginText(), view.subject());
        }
    }

    /**
     * @param type heading, requirement, note or group
     * @param text as edited
     * @param shown the text with the values of the formal side inserted
     */
    record Row(
            String id,
            String type,
            int depth,
            String number,
            String tag,
            String name,
            String text,
            String shown,
            Map<String, String> attributes,
            List<Count> links,
            List<Verdict> verdicts,
            int recheck) {}

    /**
     * A window of rows.
     *
     * @param spine one letter for the type of every row, so that row heights are known: h, r, n or g
     * @param requirements the number of rows that are requirements
     * @param index of the requested row; -1 if it is not found
     */
    record Window(int total, int requirements, String spine, int from, int index, List<Row> rows) {}

    @Operation(summary = "The lines of a specification or of all, filtered, ordered and grouped as the grid shows them")
    @GetMapping({"/p/{project}/{branch}/requirements/rows.json", ApiAddress.BRANCH + "/requirements"})
    Window rows(
            Workspace.Head head,
            @ParameterObject GridRows.Asked asked,
            @RequestParam(defaultValue = "0") int from,
            @RequestParam(defaultValue = "100") int count,
            @RequestParam(defaultValue = "") String around) {
        Attributes attributes = Attributes.in(head.model());
        List<Selection.Line> all = rows.of(head, asked, attributes);
        int index = around.isEmpty()
                ? -1
                : IntStream.range(0, all.size())
                        .filter(i -> isOf(all.get(i), around))
                        .findFirst()
                        .orElse(-1);
        int size = Math.max(0, Math.min(count, MOST_ROWS));
        int first = Math.max(0, Math.min(index < 0 ? from : index - size / 2, all.size()));
        Renderer renderer = new Renderer(head, attributes);
        return new Window(
                all.size(),
                (int) all.stream()
                        .filter(line -> line.item() != null && line.item().type() == Item.Type.REQUIREMENT)
                        .count(),
                all.stream().map(GridController::letter).collect(Collectors.joining()),
                first,
                index,
                all.subList(first, Math.min(all.size(), first + size)).stream()
                        .map(renderer::row)
                        .toList());
    }

    private static boolean isOf(Selection.Line line, String id) {
        return line.item() != null && line.item().element().id().toString().equals(id);
    }

    private static String letter(Selection.Line line) {
        return line.item() == null
                ? "g"
                : switch (line.item().type()) {
                    case HEADING -> "h";
                    case REQUIREMENT -> "r";
                    case NOTE -> "n";
                };
    }

    private final class Renderer {
        private final Workspace.Head head;
        private final Attributes attributes;
        private final Labels labels;
        private final Links links;
        private final Map<ElementId, List<VerdictView>> judged;

        Renderer(Workspace.Head head, Attributes attributes) {
            this.head = head;
            this.attributes = attributes;
            this.labels = new Labels(head.model());
            this.links = Links.in(head.model());
            this.judged = verdicts.all(head);
        }

        Row row(Selection.Line line) {
            Item item = line.item();
            if (item == null) {
                return new Row("", "group", 0, "", "", line.label(), "", "", Map.of(), List.of(), List.of(), 0);
            }
            Element element = item.element();
            return switch (item.type()) {
                case HEADING ->
                    new Row(
                            id(element),
                            "heading",
                            item.depth(),
                            item.number(),
                            "",
                            labels.name(element),
                            head.model().inheritance().documentation(element),
                            "",
                            Map.of(),
                            List.of(),
                            List.of(),
                            0);
                case NOTE ->
                    new Row(
                            id(element),
                            "note",
                            item.depth(),
                            "",
                            "",
                            "",
                            element.get(Property.TEXT).orElse(""),
                            "",
                            Map.of(),
                            List.of(),
                            List.of(),
                            0);
                case REQUIREMENT ->
                    new Row(
                            id(element),
                            "requirement",
                            item.depth(),
                            "",
                            RequirementIds.of(head.model(), element),
                            java.util.Objects.requireNonNullElse(
                                    head.model().names().effectiveName(element), ""),
                            head.model().inheritance().documentation(element),
                            RequirementText.of(head.model(), element),
                            attributes(element),
                            counts(element),
                            judged.getOrDefault(element.id(), List.of()).stream()
                                    .map(Verdict::of)
                                    .toList(),
                            rechecks.of(head, element.id()).size());
            };
        }

        private static String id(Element element) {
            return element.id().toString();
        }

        private Map<String, String> attributes(Element element) {
            Map<String, String> values = new LinkedHashMap<>();
            for (Attribute attribute : attributes.of(element)) {
                String value = attributes.value(element, attribute);
                if (!value.isEmpty()) {
                    values.put(attribute.name(), value);
                }
            }
            return values;
        }

        private List<Count> counts(Element element) {
            Map<String, Integer> up = new LinkedHashMap<>();
            Map<String, Integer> down = new LinkedHashMap<>();
            for (Link link : links.of(element)) {
                (link.below().equals(element.id()) ? up : down).merge(link.words(element.id()), 1, Integer::sum);
            }
            List<Count> counts = new ArrayList<>();
            up.forEach((words, count) -> counts.add(new Count(words, count, true)));
            down.forEach((words, count) -> counts.add(new Count(words, count, false)));
            return counts;
        }
    }
}
