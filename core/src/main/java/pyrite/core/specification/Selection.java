package pyrite.core.specification;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Specification.Item;

/**
 * Which lines of a specification to show, and in what order. Without order or groups, headings stay above what is found
 * below them.
 *
 * @param text a part of the id, the name or the text; empty for any
 * @param where conditions on the values of attributes
 * @param sort {@code id} or an attribute's name; empty for document order
 * @param group the attribute whose values become headings; empty for none
 */
public record Selection(String text, List<AttributeCondition> where, String sort, boolean descending, String group) {
    public static final Selection ALL = new Selection("", List.of(), "", false, "");

    /**
     * A line to show.
     *
     * @param item null for the heading of a group
     * @param label the value that a group has in common
     */
    public record Line(@Nullable Item item, String label) {}

    public boolean isPlain() {
        return text.isBlank() && where.isEmpty();
    }

    /** @param also what else a requirement must be */
    public List<Line> of(Model model, List<Item> items, Attributes attributes, @Nullable Predicate<Element> also) {
        Set<ElementId> kept =
                isPlain() && also == null ? null : matches(model, items, attributes, also == null ? _ -> true : also);
        if (sort.isEmpty() && group.isEmpty()) {
            return items.stream()
                    .filter(item -> kept == null || kept.contains(item.element().id()))
                    .map(item -> new Line(item, ""))
                    .toList();
        }
        List<Item> requirements = items.stream()
                .filter(item -> item.type() == Item.Type.REQUIREMENT
                        && (kept == null || kept.contains(item.element().id())))
                .map(item -> new Item(item.element(), item.type(), 0, item.number()))
                .toList();
        if (!sort.isEmpty()) {
            requirements = sorted(model, attributes, requirements);
        }
        return group.isEmpty()
                ? requirements.stream().map(item -> new Line(item, "")).toList()
                : grouped(requirements, attributes);
    }

    private Set<ElementId> matches(Model model, List<Item> items, Attributes attributes, Predicate<Element> also) {
        Set<ElementId> kept = new HashSet<>();
        Predicate<Element> valued = AttributeCondition.all(where, attributes);
        String requested = text.strip().toLowerCase(Locale.ROOT);
        for (Item item : items) {
            Element element = item.element();
            boolean fits = item.type() == Item.Type.REQUIREMENT
                    && (requested.isEmpty()
                            || reads(model, element).toLowerCase(Locale.ROOT).contains(requested))
                    && valued.test(element)
                    && also.test(element);
            if (fits) {
                kept.add(element.id());
                model.owners(element).forEach(owner -> kept.add(owner.id()));
            }
        }
        return kept;
    }

    private static String reads(Model model, Element element) {
        String name = model.names().effectiveName(element);
        return RequirementIds.of(model, element) + " " + (name == null ? "" : name) + " "
                + model.inheritance().documentation(element);
    }

    /** In the order of what stands in the column, which is looked up once for each row. */
    private List<Item> sorted(Model model, Attributes attributes, List<Item> items) {
        record Keyed(Item item, String value) {}

        if (attributes.all().stream()
                .anyMatch(each -> each.name().equals(sort) && each.type() == Attribute.Type.NUMBER)) {
            return sortedByNumber(attributes, items);
        }
        if (sort.equals("id")) {
            List<Item> byId = RequirementIds.sorted(items.stream(), item -> RequirementIds.of(model, item.element()));
            return descending ? byId.reversed() : byId;
        }
        Comparator<Keyed> order = Comparator.comparing(Keyed::value, order(attributes));
        return items.stream()
                .map(item -> new Keyed(item, attributes.value(item.element(), sort)))
                .sorted(descending ? order.reversed() : order)
                .map(Keyed::item)
                .toList();
    }

    /** By what the numbers are in SI, since 900 kg are less than 2 t; what has none comes last. */
    private List<Item> sortedByNumber(Attributes attributes, List<Item> items) {
        record Keyed(Item item, double number) {}

        Comparator<Keyed> order = Comparator.comparingDouble(Keyed::number);
        return items.stream()
                .map(item -> new Keyed(
                        item, attributes.magnitude(item.element(), sort).orElse(Double.POSITIVE_INFINITY)))
                .sorted(descending ? order.reversed() : order)
                .map(Keyed::item)
                .toList();
    }

    /** Choices in the order in which they are defined, what is empty last. */
    private Comparator<String> order(Attributes attributes) {
        List<String> choices = attributes.all().stream()
                .filter(each -> each.name().equals(sort))
                .flatMap(each -> each.choices().stream())
                .map(Attribute.Choice::name)
                .toList();
        Comparator<String> byChoice =
                Comparator.comparing((String value) -> value.isEmpty() ? Integer.MAX_VALUE : choices.indexOf(value));
        return choices.isEmpty() ? Comparator.naturalOrder() : byChoice;
    }

    private List<Line> grouped(List<Item> requirements, Attributes attributes) {
        Map<String, List<Item>> groups = new LinkedHashMap<>();
        attributes.all().stream()
                .filter(each -> each.name().equals(group))
                .flatMap(each -> each.choices().stream())
                .forEach(choice -> groups.put(choice.name(), new ArrayList<>()));
        requirements.forEach(
                item -> groups.computeIfAbsent(attributes.value(item.element(), group), _ -> new ArrayList<>())
                        .add(item));
        List<Line> lines = new ArrayList<>();
        groups.forEach((value, members) -> {
            if (!members.isEmpty()) {
                lines.add(new Line(null, (value.isEmpty() ? "no " + group : value) + " · " + members.size()));
                members.forEach(item -> lines.add(new Line(item, "")));
            }
        });
        return lines;
    }
}
