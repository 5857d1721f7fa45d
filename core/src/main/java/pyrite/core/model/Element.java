package pyrite.core.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;

/**
 * One element of the model: immutable, of a kind, owned by another element or by the model itself ({@code owner} null).
 * {@code name} and {@code shortName} are as declared; {@link Names#effectiveName} also gives inherited ones.
 */
public record Element(
        ElementId id,
        ElementKind kind,
        @Nullable ElementId owner,
        Rank rank,
        @Nullable String name,
        @Nullable String shortName,
        Map<Property<?>, Object> properties) {

    public Element {
        properties = PropertyMap.copyOf(properties);
    }

    public static Element of(ElementKind kind, @Nullable ElementId owner, Rank rank, @Nullable String name) {
        return new Element(ElementId.fresh(), kind, owner, rank, name, null, Map.of());
    }

    @SuppressWarnings("unchecked")
    public <T> Optional<T> get(Property<T> property) {
        return Optional.ofNullable((T) properties.get(property));
    }

    /** The references of a property, none if it is not set. */
    public List<Reference> references(Property<List<Reference>> property) {
        @SuppressWarnings("unchecked")
        List<Reference> references = (List<Reference>) properties.get(property);
        return references == null ? List.of() : references;
    }

    /** The same element with the property set, or without it if {@code value} is null. */
    public <T> Element with(Property<T> property, @Nullable T value) {
        if (java.util.Objects.equals(properties.get(property), value)) {
            return this;
        }
        PropertyMap own = (PropertyMap) properties;
        return withAll(value == null ? own.without(property) : own.with(property, value));
    }

    /** The same element with these properties and no others. */
    public Element withAll(Map<Property<?>, Object> others) {
        return new Element(id, kind, owner, rank, name, shortName, others);
    }

    /** By the id alone: elements are looked for among others far oftener than two versions of one are told apart. */
    @Override
    public int hashCode() {
        return id.hashCode();
    }

    public Element withName(@Nullable String newName) {
        return new Element(id, kind, owner, rank, newName, shortName, properties);
    }

    public Element withOwner(@Nullable ElementId newOwner, Rank newRank) {
        return new Element(id, kind, newOwner, newRank, name, shortName, properties);
    }

    /** Every element this one refers to, in properties and in expressions; not its owner. */
    public List<ElementId> outgoing() {
        if (properties.isEmpty()) {
            return List.of();
        }
        List<ElementId> found = new ArrayList<>(4);
        forEachTarget(found::add);
        return found;
    }

    /** Hands over every element this one refers to, as {@link #outgoing} gives them. */
    void forEachTarget(Consumer<ElementId> each) {
        PropertyMap own = (PropertyMap) properties;
        for (int i = 0; i < own.size(); i++) {
            visit(own.value(i), each);
        }
    }

    private static void visit(Object value, Consumer<ElementId> each) {
        switch (value) {
            case Reference reference -> reference.chain().forEach(each);
            case List<?> list -> {
                for (int i = 0; i < list.size(); i++) {
                    visit(list.get(i), each);
                }
            }
            case FeatureValue featureValue -> visit(featureValue.expression(), each);
            case Expression expression ->
                expression.forEachReferent(referent -> {
                    if (referent instanceof ElementId target) {
                        each.accept(target);
                    }
                });
            default -> {}
        }
    }
}
