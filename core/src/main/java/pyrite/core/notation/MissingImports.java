package pyrite.core.notation;

import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** The imports that would bring a name into a text that does not know it. */
public final class MissingImports {
    private static final int MOST = 3;

    private MissingImports() {}

    /**
     * The qualified names of what has a name and stands in a package; what is of the project itself comes first.
     *
     * @param name without qualification
     */
    public static List<String> of(Model model, String name) {
        List<String> found = Stream.concat(
                        named(model, model.ownElements(), name),
                        named(model, model.library().ownElements(), name))
                .distinct()
                .limit(MOST)
                .toList();
        boolean isPrefixedUnit = found.isEmpty()
                && PrefixedUnits.ofSi(model.names(), model::find)
                        .find(Name.of(name))
                        .isPresent();
        return isPrefixedUnit ? List.of(PrefixedUnits.SI + "::*") : found;
    }

    private static Stream<String> named(Model model, Collection<Element> elements, String name) {
        return elements.stream()
                .filter(element -> name.equals(element.name()) || name.equals(element.shortName()))
                .filter(element -> isInPackage(model, element))
                .map(model.names()::qualifiedName)
                .sorted();
    }

    private static boolean isInPackage(Model model, Element element) {
        return element.owner() != null && model.get(element.owner()).kind().isPackage();
    }
}
