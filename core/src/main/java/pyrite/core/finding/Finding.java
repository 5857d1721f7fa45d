package pyrite.core.finding;

import pyrite.core.model.ElementId;

/**
 * Something that a check noticed.
 *
 * @param element what it was found at
 * @param about what of the element is meant, where there may be several, such as the name of a port; else empty
 * @param sentence says what is wrong
 */
public record Finding(Rule rule, ElementId element, String about, String sentence) {
    /** Tells it from the others at the same element; a waiver keeps it. */
    public String key() {
        return about.isEmpty() ? rule.key() : rule.key() + ":" + about;
    }
}
