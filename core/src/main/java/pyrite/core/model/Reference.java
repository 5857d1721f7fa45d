package pyrite.core.model;

import java.util.List;

/** A reference from one element to another, possibly along a feature chain: {@code a.b.c} as the ids of a, b and c. */
public record Reference(List<ElementId> chain) {
    public Reference {
        chain = List.copyOf(chain);
        if (chain.isEmpty()) {
            throw new IllegalArgumentException("a reference names at least one element");
        }
    }

    public static Reference to(ElementId target) {
        return new Reference(List.of(target));
    }

    /** What is referred to in the end. */
    public ElementId target() {
        return chain.getLast();
    }
}
