package pyrite.app.requirements;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Property;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.RichText;
import pyrite.core.specification.Specification.Item;

/** A specification as paragraphs to read. */
@Component
class DocumentText {
    private final Verdicts verdicts;

    DocumentText(Verdicts verdicts) {
        this.verdicts = verdicts;
    }

    /**
     * One paragraph.
     *
     * @param level of a heading, 2 to 6
     * @param html the text as safe HTML
     * @param values those of the attributes that were chosen, without empty ones
     */
    public record Paragraph(
            ElementId id,
            Item.Type type,
            int level,
            String number,
            String tag,
            String name,
            String html,
            List<Value> values,
            List<VerdictView> verdicts) {}

    public record Value(String attribute, String value) {}

    /** @param shown the names of the attributes to show with requirements */
    List<Paragraph> of(Workspace.Head head, List<Item> items, List<String> shown) {
        Attributes attributes = Attributes.in(head.model());
        Labels labels = new Labels(head.model());
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        return items.stream()
                .map(item -> {
                    Element element = item.element();
                    boolean requirement = item.type() == Item.Type.REQUIREMENT;
                    String text = item.type() == Item.Type.NOTE
                            ? element.get(Property.TEXT).orElse("")
                            : RequirementText.of(head.model(), element);
                    return new Paragraph(
                            element.id(),
                            item.type(),
                            Math.min(6, item.depth() + 2),
                            item.number(),
                            requirement ? RequirementIds.of(head.model(), element) : "",
                            item.type() == Item.Type.HEADING
                                    ? labels.name(element)
                                    : Objects.requireNonNullElse(
                                            head.model().names().effectiveName(element), ""),
                            RichText.html(text, head.branch().address()),
                            requirement ? values(attributes, element, shown) : List.of(),
                            judged.getOrDefault(element.id(), List.of()));
                })
                .toList();
    }

    private static List<Value> values(Attributes attributes, Element requirement, List<String> shown) {
        return shown.stream()
                .map(name -> new Value(name, attributes.value(requirement, name)))
                .filter(value -> !value.value().isEmpty())
                .toList();
    }
}
