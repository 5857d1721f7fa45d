package pyrite.app.workspace;

import java.util.List;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;

/**
 * A reference to an element in an answer to a program.
 *
 * @param element the id of the element
 * @param id the id people know it by, such as MG-1; empty if it has none
 * @param name its qualified name
 */
public record ElementRef(String element, String id, String name) {
    public static ElementRef of(Model model, Element element) {
        return new ElementRef(
                element.id().toString(),
                RequirementIds.of(model, element),
                model.names().qualifiedName(element));
    }

    public static List<ElementRef> of(Model model, Stream<Element> elements) {
        return elements.map(element -> of(model, element)).toList();
    }
}
