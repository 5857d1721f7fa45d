package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Property;
import pyrite.core.model.PropertyMap;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * An element as read: its references are still names, and it holds its members. It becomes an element with an id when
 * the whole text has been read.
 */
final class Draft implements ReadResult.Place {
    /** A reference as written. */
    record Pending(Property<?> property, List<Referent> chain, Span span) {
        String lastName() {
            return ((Name) chain.getLast()).last();
        }
    }

    /** An expression as written. */
    record Formula(Property<?> property, Expression expression) {}

    ElementKind kind;
    final @Nullable Draft owner;
    final List<Draft> children = new ArrayList<>(0);
    private PropertyMap properties = PropertyMap.EMPTY;
    final List<Pending> references = new ArrayList<>(1);
    List<Formula> formulas = List.of();
    FeatureValue.@Nullable Kind valueKind;

    @Nullable
    String name;

    @Nullable
    String shortName;

    Span head = Span.NONE;
    /** What it inherits from as far as that is known; null until it is found. */
    volatile @Nullable Map<Property<?>, List<Reference>> generals;

    private @Nullable Element element;
    private @Nullable Source source;

    Draft(ElementKind kind, @Nullable Draft owner) {
        this.kind = kind;
        this.owner = owner;
        if (owner != null) {
            owner.children.add(this);
        }
    }

    <T> void set(Property<T> property, T value) {
        properties = properties.with(property, value);
    }

    /** Takes a property out; null if it is not set. */
    @SuppressWarnings("unchecked")
    <T> @Nullable T remove(Property<T> property) {
        T value = (T) properties.get(property);
        properties = properties.without(property);
        return value;
    }

    /** What it says of itself that needs no name to be found. */
    PropertyMap properties() {
        return properties;
    }

    void refer(Property<?> property, List<Referent> chain, Span span) {
        references.add(new Pending(property, chain, span));
    }

    void formula(Property<?> property, Expression expression) {
        if (formulas.isEmpty()) {
            formulas = new ArrayList<>(1);
        }
        formulas.add(new Formula(property, expression));
    }

    boolean has(Property<?> property) {
        boolean found = properties.containsKey(property);
        for (int i = 0; i < formulas.size() && !found; i++) {
            found = formulas.get(i).property() == property;
        }
        for (int i = 0; i < references.size() && !found; i++) {
            found = references.get(i).property() == property;
        }
        return found;
    }

    List<Pending> pending(Property<?> property) {
        List<Pending> found = List.of();
        for (Pending reference : references) {
            if (reference.property() == property) {
                found = found.isEmpty() ? new ArrayList<>(1) : found;
                found.add(reference);
            }
        }
        return found;
    }

    /** The name it goes by: its own, or that of what it redefines. */
    @Nullable
    String calledBy() {
        if (name != null) {
            return name;
        }
        for (Pending reference : references) {
            if (reference.property() == Property.REDEFINES) {
                return reference.lastName();
            }
        }
        return null;
    }

    boolean isImport() {
        return kind == ElementKind.IMPORT || kind == ElementKind.EXPOSURE;
    }

    /** Whether others are found through it by their names. */
    boolean bringsInOthers() {
        return isImport() || kind == ElementKind.ALIAS;
    }

    /** Makes the element, with an id and a place among its siblings; references and expressions are still left out. */
    void complete(Source text, ElementId id, @Nullable ElementId ownerId, Rank rank) {
        source = text;
        element = new Element(id, kind, ownerId, rank, name, shortName, properties);
    }

    boolean isComplete() {
        return element != null;
    }

    /** What it owns, as elements. */
    List<Element> elements() {
        if (children.isEmpty()) {
            return List.of();
        }
        List<Element> elements = new ArrayList<>(children.size());
        for (Draft child : children) {
            elements.add(child.element());
        }
        return elements;
    }

    @Override
    public Source source() {
        return Objects.requireNonNull(source);
    }

    @Override
    public Span span() {
        return head;
    }

    /** @throws NullPointerException if it is not {@link #complete} yet */
    Element element() {
        return Objects.requireNonNull(element);
    }
}
