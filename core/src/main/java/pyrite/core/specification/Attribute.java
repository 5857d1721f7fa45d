package pyrite.core.specification;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;

/**
 * Something that is kept about every requirement: a feature of the metadata definition {@code Managed} or of one that
 * specialises it.
 *
 * @param required whether it must be given before a requirement leaves the draft
 * @param choices what it can be, if it is one of several
 * @param unit the unit of a number, empty if it has none
 * @param byDefault what holds where nothing is given; empty if nothing does
 */
public record Attribute(
        Element feature,
        String name,
        Type type,
        boolean required,
        List<Choice> choices,
        String unit,
        String byDefault) {
    /** What its values are. */
    public enum Type {
        TEXT,
        NUMBER,
        CHOICE,
        DATE,
        PERSON,
        TRUTH
    }

    /** One value of an enumeration. */
    public record Choice(Element element, String name) {}

    public @Nullable Choice choice(String name) {
        return choices.stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .orElse(null);
    }
}
