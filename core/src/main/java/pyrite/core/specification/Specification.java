package pyrite.core.specification;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.IncrementalIndex;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;

/**
 * A specification: a package marked with metadata of that type. Packages in it are its headings, comments its notes, in
 * the order of the model.
 *
 * @param prefix the prefix of its requirement ids; empty if it gives none
 * @param level the level of its requirements, used in link rules: need, system, subsystem …; empty if none
 */
public record Specification(Element element, String prefix, String level) {
    /** One line of a specification. */
    public record Item(Element element, Type type, int depth, String number) {
        /** Headings have section numbers, requirements have ids. */
        public enum Type {
            HEADING,
            REQUIREMENT,
            NOTE
        }
    }

    /** All specifications of a model in the order in which they stand, which is that of the levels as a rule. */
    public static List<Specification> all(Model model) {
        List<Element> order = model.ownRoots();
        return Metadata.usages(model, Metadata.SPECIFICATION).stream()
                .filter(metadata -> !model.isLibrary(metadata.id()))
                .map(metadata -> of(model, metadata))
                .filter(Objects::nonNull)
                .sorted(Comparator.comparing((Specification each) -> order.indexOf(top(model, each.element())))
                        .thenComparing(each -> each.element().rank()))
                .toList();
    }

    private static @Nullable Specification of(Model model, Element metadata) {
        Element carrier = metadata.owner() == null ? null : model.get(metadata.owner());
        return carrier == null || !carrier.kind().isPackage()
                ? null
                : new Specification(
                        carrier, Metadata.text(model, metadata, "prefix"), Metadata.text(model, metadata, "level"));
    }

    private static Element top(Model model, Element element) {
        List<Element> owners = model.owners(element);
        return owners.isEmpty() ? element : owners.getLast();
    }

    /** Whether a package is a specification, and which. */
    public static Optional<Specification> of(Model model, @Nullable Element carrier, boolean orAround) {
        for (Element at = carrier; at != null; at = at.owner() == null ? null : model.get(at.owner())) {
            Optional<Element> mark =
                    at.kind().isPackage() ? Metadata.of(model, at, Metadata.SPECIFICATION) : Optional.empty();
            if (mark.isPresent()) {
                return Optional.ofNullable(of(model, mark.get()));
            }
            if (!orAround) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }

    /** The specification an element stands in. */
    public static Optional<Specification> around(Model model, Element element) {
        return of(model, element, true);
    }

    public static boolean isRequirement(Element element) {
        return element.kind().isRequirement();
    }

    public String title(Model model) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }

    /**
     * Its headings, requirements and notes, each before what stands below it. Found once for a snapshot, and for those
     * after it that leave them as they are.
     */
    public List<Item> items(Model model) {
        return model.derived(Listed.class, _ -> new Listed(new ConcurrentHashMap<>()))
                .bySpecification()
                .computeIfAbsent(element.id(), _ -> {
                    List<Item> items = new ArrayList<>();
                    collect(model, element, 0, "", items);
                    return List.copyOf(items);
                });
    }

    /** The items of the specifications listed so far. */
    private record Listed(Map<ElementId, List<Item>> bySpecification) implements IncrementalIndex {
        private static final Set<ElementKind> SHOWN = EnumSet.of(
                ElementKind.PACKAGE,
                ElementKind.LIBRARY_PACKAGE,
                ElementKind.COMMENT,
                ElementKind.METADATA,
                ElementKind.METADATA_DEFINITION);

        @Override
        public @Nullable Listed after(Model next, Difference difference) {
            return difference.changes().stream()
                            .flatMap(change -> Stream.of(
                                    Objects.requireNonNullElse(change.before(), change.after()),
                                    Objects.requireNonNullElse(change.after(), change.before())))
                            .anyMatch(each -> isRequirement(each) || SHOWN.contains(each.kind()))
                    ? null
                    : this;
        }
    }

    /** The requirements alone, in their order. */
    public List<Element> requirements(Model model) {
        return items(model).stream()
                .filter(item -> item.type() == Item.Type.REQUIREMENT)
                .map(Item::element)
                .toList();
    }

    private static void collect(Model model, Element owner, int depth, String number, List<Item> items) {
        int headings = 0;
        for (Element child : model.children(owner.id())) {
            if (child.kind() == ElementKind.PACKAGE
                    && Metadata.of(model, child, Metadata.SPECIFICATION).isEmpty()) {
                String own = number + (number.isEmpty() ? "" : ".") + ++headings;
                items.add(new Item(child, Item.Type.HEADING, depth, own));
                collect(model, child, depth + 1, own, items);
            } else if (isRequirement(child)) {
                items.add(new Item(child, Item.Type.REQUIREMENT, depth, ""));
                collect(model, child, depth + 1, number, items);
            } else if (child.kind() == ElementKind.COMMENT) {
                items.add(new Item(child, Item.Type.NOTE, depth, ""));
            }
        }
    }

    /** The largest number an id with this prefix has in the snapshot; 0 if there is none. */
    public static int highest(Model model, String prefix) {
        return model.ownElements(ElementKind.REQUIREMENTS)
                .map(Element::shortName)
                .filter(Objects::nonNull)
                .flatMap(id -> RequirementIds.parse(id).stream())
                .filter(id -> id.prefix().equals(prefix))
                .mapToInt(RequirementIds.Numbered::number)
                .max()
                .orElse(0);
    }
}
