package pyrite.core.behavior;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * What an accept action or a transition waits for (SysML 2.0, 7.17.8 and 7.18.3). What it says itself takes the place
 * of what it inherits as a whole: an event of its own does not come through the port of an inherited one.
 *
 * @param declaring the element that says it, itself or what it inherits from
 * @param kind {@code accept}, {@code when}, {@code at} or {@code after}
 * @param content the condition or time; null for an item
 * @param via the port; null for any way
 * @param payload what the accepted item becomes; null where nothing is accepted
 */
public record Accepting(
        Element declaring,
        String kind,
        @Nullable Expression content,
        @Nullable Expression via,
        @Nullable Element payload) {

    public static Optional<Accepting> of(Model model, Element element) {
        return model.inheritance()
                .owning(element, Property.TRIGGER)
                .map(declaring -> new Accepting(
                        declaring,
                        declaring.get(Property.TRIGGER).orElseThrow(),
                        declaring.get(Property.CONTENT).orElse(null),
                        declaring.get(Property.VIA).orElse(null),
                        payload(model, element, declaring)));
    }

    private static @Nullable Element payload(Model model, Element element, Element declaring) {
        return model.children(declaring.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .findFirst()
                .map(payload ->
                        model.inheritance().effective(element, payload.id()).orElse(payload))
                .orElse(null);
    }

    /** Whether whatever happens is accepted by both or by neither, as far as it can be told before a run. */
    public boolean isSameAs(Accepting other) {
        return kind.equals(other.kind)
                && Objects.equals(content, other.content)
                && Objects.equals(via, other.via)
                && types().equals(other.types());
    }

    private List<ElementId> types() {
        return payload == null
                ? List.of()
                : payload.references(Property.TYPES).stream()
                        .map(Reference::target)
                        .toList();
    }
}
