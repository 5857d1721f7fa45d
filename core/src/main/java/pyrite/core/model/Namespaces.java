package pyrite.core.model;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What name resolution needs to know about elements; implemented by {@link Model} and by a text that is being read. */
public interface Namespaces {
    Optional<Element> find(ElementId id);

    /**
     * Who answers for the names in {@code owner}: for elements of the library the library's own {@link Names}, which
     * keep what they found for every snapshot; null stands for those that belong to these namespaces.
     */
    @Nullable
    Names namesIn(ElementId owner);

    /** What an element owns, in order. */
    List<Element> children(ElementId owner);

    /** The elements nothing owns: the packages at the top. */
    List<Element> roots();

    /**
     * What an element inherits from directly: its types, what it specialises or subsets, what it redefines, what it
     * stands for.
     */
    List<ElementId> generals(Element element);

    /** Whether what elements inherit from and import is known for good. */
    default boolean isSettled() {
        return true;
    }

    /** Whether what one element inherits from is known for good. */
    default boolean isSettled(Element element) {
        return true;
    }

    /**
     * What an element inherits from because of where it stands: a value of an enumeration is one of it, a portion is
     * the same occurrence as what it is a portion of (SysML 2.0, enumerations; KerML, portions); null for all else.
     */
    default @Nullable ElementId generalAround(Element element) {
        ElementId owner = element.owner();
        if (owner == null) {
            return null;
        }
        boolean portion = element.get(Property.PORTION).isPresent();
        if (!portion && element.kind() != ElementKind.ENUMERATION) {
            return null;
        }
        ElementKind around = find(owner).map(Element::kind).orElse(ElementKind.PACKAGE);
        return (portion ? !around.isPackage() : around == ElementKind.ENUMERATION_DEFINITION) ? owner : null;
    }

    /**
     * Whether an element that says no type has that of its value: all but attributes, whose values have no features
     * (KerML, feature values).
     */
    static boolean takesTypeOfValue(ElementKind kind) {
        return kind.isUsage() && kind != ElementKind.ATTRIBUTE && kind != ElementKind.ENUMERATION;
    }

    /**
     * What an element inherits from because of a mark: what the mark's metadata names as its base type, or the types of
     * that where the element is a definition (SysML 2.0, 7.27, semantic metadata); null if it names none.
     *
     * @param base the element that the metadata names; null if it names none
     */
    default @Nullable ElementId generalByMark(Element marked, @Nullable ElementId base) {
        Element named = base == null ? null : find(base).orElse(null);
        if (named == null || !marked.kind().isDefinition()) {
            return named == null ? null : base;
        }
        return named.kind().isDefinition()
                ? base
                : generals(named).stream()
                        .filter(general -> find(general)
                                .filter(e -> e.kind().isDefinition())
                                .isPresent())
                        .findFirst()
                        .orElse(null);
    }

    /** What an element redefines. */
    List<ElementId> redefined(Element element);

    /** What an import names, if it is known. */
    Optional<ElementId> imported(Element importElement);

    /** The name an element goes by where it declares none: that of what it redefines. */
    @Nullable
    String inheritedName(Element element);
}
