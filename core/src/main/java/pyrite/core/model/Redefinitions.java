package pyrite.core.model;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * Keeps redefinitions at what is nearest. Where a feature is redefined between a definition and a special one that
 * redefines it already, the special one redefines the new redefinition, as it would if its text were read now: so what
 * is said in between reaches it, too.
 */
public final class Redefinitions {
    private Redefinitions() {}

    /** The edit, and with it what leads redefinitions further out to those that it adds. */
    public static Edit nearest(Model model, Edit edit) {
        Map<ElementId, Element> led = new LinkedHashMap<>();
        for (Element made : edit.put()) {
            if (made.owner() != null && model.find(made.id()).isEmpty()) {
                for (Reference redefined : made.references(Property.REDEFINES)) {
                    lead(model, redefined.target(), made, led);
                }
            }
        }
        edit.put().forEach(put -> led.remove(put.id()));
        edit.remove().forEach(led::remove);
        return led.isEmpty() ? edit : Edit.joined(List.of(edit, new Edit(List.copyOf(led.values()), edit.remove())));
    }

    private static void lead(Model model, ElementId redefined, Element made, Map<ElementId, Element> led) {
        for (ElementId id : model.referrers(redefined)) {
            Element other = led.getOrDefault(id, model.get(id));
            if (isRedefinition(other, redefined) && isFurtherOut(model, other, made)) {
                List<Reference> references = other.references(Property.REDEFINES).stream()
                        .map(reference -> reference.target().equals(redefined) ? Reference.to(made.id()) : reference)
                        .toList();
                led.put(id, other.with(Property.REDEFINES, references));
            }
        }
    }

    private static boolean isRedefinition(Element element, ElementId redefined) {
        return element.references(Property.REDEFINES).stream()
                .anyMatch(reference -> reference.target().equals(redefined));
    }

    private static boolean isFurtherOut(Model model, Element other, Element made) {
        ElementId around = Objects.requireNonNull(made.owner());
        return other.owner() != null
                && !model.isLibrary(other.id())
                && !other.owner().equals(around)
                && model.inheritance().isA(model.get(other.owner()), around);
    }
}
