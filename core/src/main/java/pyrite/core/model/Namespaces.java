package pyrite.core.model;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** What looking up a name needs to know of the elements; answered by a {@link Model} or while one is being read. */
public interface Namespaces {
    Optional<Element> find(ElementId id);

    /**
     * Who answers for the names in {@code owner}: for elements of the library the library's own {@link Names}, which keep
     * what they found for every snapshot; null stands for those that belong to these namespaces.
     */
    @Nullable Names namesIn(ElementId owner);

    /** What an element owns, in order. */
    List<Element> children(ElementId owner);

    /** The elements nothing owns: the packages at the top. */
    List<Element> roots();

    /** What an element inherits from directly: its types, what it specialises or subsets, what it redefines. */
    List<ElementId> generals(Element element);

    /** What an element redefines. */
    List<ElementId> redefined(Element element);

    /** What an import names, if it is known. */
    Optional<ElementId> imported(Element importElement);

    /** The name an element goes by where it declares none: that of what it redefines. */
    @Nullable String inheritedName(Element element);
}
