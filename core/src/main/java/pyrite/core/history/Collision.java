package pyrite.core.history;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Finds what others did since the snapshot an edit was made from that the edit would undo, take along or say a second
 * time.
 */
public final class Collision {
    private static final Set<Property<?>> REMARKS =
            Set.of(Property.NOTES, Property.TRAILING_NOTE, Property.SPELLINGS, Property.VISIBILITY);

    private static final ElementId MANAGED = LibraryNames.id("Specifications::Managed");

    private Collision() {}

    /**
     * @param since what changed between that snapshot and the head
     * @return the elements in the way: changed or removed by both, put below what the edit removes, or saying what the
     *     edit says where that is said once
     */
    public static List<ElementId> of(Model head, Collection<ElementId> since, Edit edit) {
        Set<ElementId> changed = new HashSet<>(since);
        Set<ElementId> inTheWay = new LinkedHashSet<>();
        edit.touched().stream().filter(changed::contains).forEach(inTheWay::add);
        if (!edit.remove().isEmpty()) {
            since.stream()
                    .filter(id -> head.has(id) && isBelow(head, id, edit.remove()))
                    .forEach(inTheWay::add);
        }
        inTheWay.addAll(saidAlready(head, since, edit));
        return List.copyOf(inTheWay);
    }

    /** What was said since that an edit says, too, where it is said once: the same link, the first text. */
    public static List<ElementId> saidAlready(Model head, Collection<ElementId> since, Edit edit) {
        Map<ElementId, List<Element>> added = edit.put().stream()
                .filter(element -> element.owner() != null && isNewThere(head, element))
                .collect(Collectors.groupingBy(element -> Objects.requireNonNull(element.owner())));
        Set<Object> said = added.values().stream()
                .flatMap(List::stream)
                .flatMap(element -> said(head, element, id -> added.getOrDefault(id, List.of())))
                .collect(Collectors.toSet());
        Set<ElementId> touched = edit.touched();
        return said.isEmpty()
                ? List.of()
                : since.stream()
                        .filter(id -> !touched.contains(id))
                        .flatMap(id -> head.find(id).stream())
                        .filter(element -> said(head, element, head::children).anyMatch(said::contains))
                        .map(Element::id)
                        .toList();
    }

    private static boolean isNewThere(Model head, Element element) {
        return head.find(element.id())
                .filter(known -> Objects.equals(known.owner(), element.owner()))
                .isEmpty();
    }

    private static boolean isBelow(Model head, ElementId id, Set<ElementId> removed) {
        for (@Nullable ElementId at = id; at != null; at = head.get(at).owner()) {
            if (removed.contains(at)) {
                return true;
            }
        }
        return false;
    }

    /** What an unnamed element says of its owner that is said once; nothing where it may be said again. */
    private static Stream<Object> said(Model model, Element element, Function<ElementId, List<Element>> children) {
        boolean mayRepeat = element.kind() == ElementKind.METADATA && !isManaged(model, element);
        if (mayRepeat || element.name() != null || element.shortName() != null) {
            return Stream.empty();
        }
        ElementKind kind = element.kind();
        List<Object> says = new ArrayList<>();
        says.add(Objects.requireNonNullElse(element.owner(), ""));
        says.add(kind);
        switch (kind) {
            case DOCUMENTATION -> says.add(element.get(Property.LOCALE).orElse(""));
            case SUBJECT, OBJECTIVE, METADATA -> {}
            default -> {
                if (!element.references(Property.REDEFINES).isEmpty()) {
                    says.add(element.references(Property.REDEFINES));
                } else if (kind.carriesLinks() || kind == ElementKind.BINDING || kind == ElementKind.CONNECTION) {
                    says.add(content(element));
                    says.add(children.apply(element.id()).stream()
                            .map(Collision::content)
                            .toList());
                } else {
                    return Stream.empty();
                }
            }
        }
        return Stream.of(says);
    }

    /** Whether metadata holds the attributes of a requirement, which are in one place. */
    private static boolean isManaged(Model model, Element metadata) {
        return metadata.references(Property.TYPES).stream()
                .flatMap(type -> model.find(type.target()).stream())
                .anyMatch(type -> model.inheritance().isA(type, MANAGED));
    }

    private static Map<Property<?>, Object> content(Element element) {
        return element.properties().entrySet().stream()
                .filter(entry -> !REMARKS.contains(entry.getKey()))
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }
}
