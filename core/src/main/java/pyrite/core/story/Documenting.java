package pyrite.core.story;

import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;

/** Gives an element its text: its first documentation, or a new one before its other members. */
final class Documenting {
    private Documenting() {}

    /** What an edit puts so that an element has a text; nothing if it has none and gets none. */
    static List<Element> with(Model model, Element element, String text) {
        Element doc = model.has(element.id())
                ? model.children(element.id()).stream()
                        .filter(child -> child.kind() == ElementKind.DOCUMENTATION)
                        .findFirst()
                        .orElse(null)
                : null;
        if (doc != null) {
            return List.of(doc.with(Property.TEXT, text.strip()));
        }
        if (text.isBlank()) {
            return List.of();
        }
        List<Element> siblings = model.has(element.id()) ? model.children(element.id()) : List.of();
        Rank rank = siblings.isEmpty()
                ? Rank.between(null, null)
                : Rank.between(null, siblings.getFirst().rank());
        return List.of(
                Element.of(ElementKind.DOCUMENTATION, element.id(), rank, null).with(Property.TEXT, text.strip()));
    }
}
