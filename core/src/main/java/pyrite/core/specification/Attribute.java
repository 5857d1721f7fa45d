package pyrite.core.specification;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;

/**
 * An attribute that is managed for every requirement: a feature of the metadata definition {@code Managed} or of one
 * that specialises it.
 *
 * @param required whether it must be given before a requirement leaves the status draft
 * @param choices the permitted values of a choice
 * @param unit the unit of a number; empty if it has none
 * @param byDefault the value that holds where none is given; empty if there is none
 */
public record Attribute(
        Element feature,
        String name,
        Type type,
        boolean required,
        List<Choice> choices,
        String unit,
        String byDefault) {
    /** The type of its values. */
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
