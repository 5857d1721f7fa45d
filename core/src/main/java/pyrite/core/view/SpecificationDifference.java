package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Specification.Item;
import pyrite.core.trace.Links;

/** The differences between two states of a specification: added, removed, moved and changed lines, links included. */
public record SpecificationDifference(List<Line> lines) {

    /** The kind of difference. A line that moved and changed counts as changed, and says that it moved, too. */
    public enum Kind {
        ADDED,
        REMOVED,
        MOVED,
        CHANGED
    }

    /** A changed property. */
    public record Change(String property, List<TextDifference.Piece> pieces) {}

    /**
     * A line that differs.
     *
     * @param moved from where to where, in words; empty if it stayed
     */
    public record Line(
            ElementId id,
            Kind kind,
            Item.Type type,
            String tag,
            String title,
            String text,
            String moved,
            List<Change> changes) {}

    public static SpecificationDifference of(Model then, Model now, ElementId specification) {
        return new Builder(then, now).build(specification);
    }

    /** The lines of a kind, by its name. */
    public List<Line> of(String kind) {
        return lines.stream().filter(line -> line.kind().name().equals(kind)).toList();
    }

    /** What makes up a line: its element with its texts, values and constraints, and what carries its links. */
    public static Set<ElementId> parts(Model model, ElementId line) {
        Set<ElementId> parts = new LinkedHashSet<>();
        model.find(line).ifPresent(element -> {
            parts.add(line);
            model.children(line).stream()
                    .filter(child -> !Specification.isRequirement(child))
                    .flatMap(child -> model.subtree(child.id()).stream())
                    .forEach(part -> parts.add(part.id()));
            Links.in(model).of(element).forEach(link -> parts.add(link.carrier()));
        });
        return parts;
    }

    public boolean has(String kind) {
        return !of(kind).isEmpty();
    }

    private static final class Builder {
        private final Model then;
        private final Model now;
        private final Attributes attributesThen;
        private final Attributes attributesNow;

        Builder(Model then, Model now) {
            this.then = then;
            this.now = now;
            this.attributesThen = Attributes.in(then);
            this.attributesNow = Attributes.in(now);
        }

        SpecificationDifference build(ElementId specification) {
            Map<ElementId, Item> before = items(then, specification);
            Map<ElementId, Item> after = items(now, specification);
            Map<ElementId, ElementId> predecessorsThen = predecessors(before, after);
            Map<ElementId, ElementId> predecessorsNow = predecessors(after, before);
            List<Line> lines = new ArrayList<>();
            after.forEach((id, item) -> {
                Item old = before.get(id);
                if (old == null) {
                    lines.add(line(now, item, Kind.ADDED, "", List.of()));
                    return;
                }
                String moved = moved(old, item, predecessorsThen.get(id), predecessorsNow.get(id));
                List<Change> changes = changes(old.element(), item.element());
                if (!moved.isEmpty() || !changes.isEmpty()) {
                    lines.add(line(now, item, changes.isEmpty() ? Kind.MOVED : Kind.CHANGED, moved, changes));
                }
            });
            before.values().stream()
                    .filter(item -> !after.containsKey(item.element().id()))
                    .forEach(item -> lines.add(line(then, item, Kind.REMOVED, "", List.of())));
            return new SpecificationDifference(lines);
        }

        private static Map<ElementId, Item> items(Model model, ElementId specification) {
            Map<ElementId, Item> items = new LinkedHashMap<>();
            model.find(specification)
                    .flatMap(element -> Specification.of(model, element, false))
                    .ifPresent(found -> found.items(model)
                            .forEach(item -> items.put(item.element().id(), item)));
            return items;
        }

        /**
         * By each line the one before it with the same owner, among those that are in both; what came or went between
         * moves nothing.
         */
        private static Map<ElementId, ElementId> predecessors(Map<ElementId, Item> items, Map<ElementId, Item> others) {
            Map<ElementId, ElementId> last = new HashMap<>();
            Map<ElementId, ElementId> before = new HashMap<>();
            items.values().stream()
                    .filter(item -> others.containsKey(item.element().id())
                            && Objects.equals(
                                    item.element().owner(),
                                    others.get(item.element().id()).element().owner()))
                    .forEach(item -> {
                        ElementId at =
                                last.put(item.element().owner(), item.element().id());
                        if (at != null) {
                            before.put(item.element().id(), at);
                        }
                    });
            return before;
        }

        private String moved(Item old, Item item, @Nullable ElementId before, @Nullable ElementId now) {
            Element from = old.element();
            Element to = item.element();
            if (!Objects.equals(from.owner(), to.owner())) {
                return "from " + name(then, from.owner()) + " to " + name(this.now, to.owner());
            }
            // A neighbour that moved away is no move of this one: only what was given another rank moved.
            return from.rank().equals(to.rank()) || Objects.equals(before, now)
                    ? ""
                    : "to another place in " + name(this.now, to.owner());
        }

        private static String name(Model model, @Nullable ElementId id) {
            if (id == null) {
                return "the top of the model";
            }
            Element element = model.get(id);
            return Specification.isRequirement(element)
                    ? RequirementIds.of(model, element)
                    : Objects.requireNonNullElse(model.names().effectiveName(element), "");
        }

        private List<Change> changes(Element before, Element after) {
            List<Change> changes = new ArrayList<>();
            add(
                    changes,
                    "id",
                    Objects.requireNonNullElse(before.shortName(), ""),
                    Objects.requireNonNullElse(after.shortName(), ""));
            add(
                    changes,
                    "name",
                    Objects.requireNonNullElse(before.name(), ""),
                    Objects.requireNonNullElse(after.name(), ""));
            add(changes, "text", text(then, before), text(now, after));
            if (Specification.isRequirement(after)) {
                for (Attribute attribute : attributesNow.of(after)) {
                    add(
                            changes,
                            attribute.name(),
                            attributesThen.value(before, attribute.name()),
                            attributesNow.value(after, attribute));
                }
                addLines(changes, "constraints and values", formal(then, before), formal(now, after));
                addLines(changes, "links", links(then, before), links(now, after));
            }
            return changes;
        }

        private static void add(List<Change> changes, String property, String before, String after) {
            if (!before.equals(after)) {
                changes.add(new Change(property, TextDifference.of(before, after)));
            }
        }

        /** Of lines only those that one of the two lacks. */
        private static void addLines(List<Change> changes, String property, List<String> before, List<String> after) {
            add(changes, property, without(before, after), without(after, before));
        }

        private static String without(List<String> lines, List<String> others) {
            return lines.stream().filter(line -> !others.contains(line)).collect(Collectors.joining("\n"));
        }

        private static String text(Model model, Element element) {
            return element.get(Property.TEXT)
                    .orElseGet(() -> model.inheritance().documentation(element));
        }

        private static List<String> formal(Model model, Element requirement) {
            FeatureSheet sheet = FeatureSheet.of(model, requirement);
            List<String> lines = new ArrayList<>();
            sheet.attributes().forEach(attribute -> lines.add(attribute.name() + " = " + attribute.text()));
            sheet.equations().forEach(equation -> lines.add(equation.text()));
            return lines;
        }

        /** A line for each link, such as {@code satisfied by SurgeGate::leaf}. */
        private static List<String> links(Model model, Element requirement) {
            return Links.in(model).of(requirement).stream()
                    .map(link -> link.words(requirement.id()) + " " + name(model, link.other(requirement.id())))
                    .distinct()
                    .sorted()
                    .toList();
        }

        private static Line line(Model model, Item item, Kind kind, String moved, List<Change> changes) {
            Element element = item.element();
            boolean requirement = item.type() == Item.Type.REQUIREMENT;
            return new Line(
                    element.id(),
                    kind,
                    item.type(),
                    requirement ? RequirementIds.of(model, element) : item.number(),
                    Objects.requireNonNullElse(element.name(), ""),
                    text(model, element),
                    moved,
                    changes);
        }
    }
}
