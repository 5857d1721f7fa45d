package pyrite.core.exchange;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** The elements that are relationships, with their sources and targets. */
public final class Relationships {
    private final Model model;

    public Relationships(Model model) {
        this.model = model;
    }

    /** The end of a relationship at which an element stands. */
    public enum Direction {
        IN,
        OUT,
        BOTH
    }

    /** The relationships an element is an end of, in the order in which they refer to it. */
    public List<Element> of(ElementId id, Direction direction) {
        Set<Element> found = new LinkedHashSet<>();
        Stream<Element> candidates = Stream.concat(
                model.children(id).stream(),
                model.referrers(id).stream().sorted().map(model::get));
        candidates.map(this::relationship).filter(Objects::nonNull).forEach(relationship -> {
            if (direction != Direction.IN && sources(relationship).contains(id)
                    || direction != Direction.OUT && targets(relationship).contains(id)) {
                found.add(relationship);
            }
        });
        return List.copyOf(found);
    }

    private @Nullable Element relationship(Element element) {
        Element whole = element.kind() == ElementKind.CONNECTOR_END && element.owner() != null
                ? model.get(element.owner())
                : element;
        return sources(whole).isEmpty() && targets(whole).isEmpty() ? null : whole;
    }

    /** What a relationship leads from. */
    public List<ElementId> sources(Element element) {
        return switch (element.kind()) {
            case DEPENDENCY -> ends(element, Property.CLIENTS);
            case SATISFACTION ->
                element.get(Property.BY).map(by -> List.of(by.target())).orElseGet(() -> owner(element));
            case VERIFIED_REQUIREMENT, IMPORT, EXPOSURE, ALIAS -> owner(element);
            case BINDING -> end(element, Property.LEFT);
            case FLOW, SUCCESSION_FLOW, MESSAGE, SUCCESSION, TRANSITION -> end(element, Property.SOURCE);
            case CONNECTION, INTERFACE, ALLOCATION ->
                connected(element).stream().limit(1).toList();
            default -> List.of();
        };
    }

    /** What a relationship leads to. */
    public List<ElementId> targets(Element element) {
        return switch (element.kind()) {
            case DEPENDENCY -> ends(element, Property.SUPPLIERS);
            case SATISFACTION,
                    VERIFIED_REQUIREMENT,
                    IMPORT,
                    EXPOSURE,
                    ALIAS,
                    FLOW,
                    SUCCESSION_FLOW,
                    MESSAGE,
                    SUCCESSION,
                    TRANSITION -> end(element, Property.TARGET);
            case BINDING -> end(element, Property.RIGHT);
            case CONNECTION, INTERFACE, ALLOCATION ->
                connected(element).stream().skip(1).toList();
            default -> List.of();
        };
    }

    private List<ElementId> connected(Element connector) {
        List<ElementId> ends = new ArrayList<>();
        model.children(connector.id()).stream()
                .filter(child -> child.kind() == ElementKind.CONNECTOR_END)
                .forEach(end -> ends.addAll(end(end, Property.TARGET)));
        return ends;
    }

    private static List<ElementId> end(Element element, Property<Reference> property) {
        return element.get(property)
                .map(reference -> List.of(reference.target()))
                .orElse(List.of());
    }

    private static List<ElementId> ends(Element element, Property<List<Reference>> property) {
        return element.references(property).stream().map(Reference::target).toList();
    }

    private static List<ElementId> owner(Element element) {
        return element.owner() == null ? List.of() : List.of(element.owner());
    }
}
