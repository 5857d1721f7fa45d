package pyrite.core.model;

import java.nio.charset.StandardCharsets;
import java.util.UUID;
import pyrite.core.expression.Referent;

/** The lasting identity of an element; survives renaming, moving and reading its text again. */
public record ElementId(UUID value) implements Referent, Comparable<ElementId> {

    public static ElementId random() {
        return new ElementId(UUID.randomUUID());
    }

    /** The id of a library element, the same in every installation: derived from its qualified name. */
    public static ElementId ofLibrary(String qualifiedName) {
        return new ElementId(UUID.nameUUIDFromBytes(("pyrite.library:" + qualifiedName).getBytes(StandardCharsets.UTF_8)));
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static ElementId parse(String text) {
        return new ElementId(UUID.fromString(text));
    }

    @Override
    public int compareTo(ElementId other) {
        return value.compareTo(other.value);
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
