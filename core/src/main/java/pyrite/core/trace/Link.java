package pyrite.core.trace;

import pyrite.core.model.ElementId;

/**
 * A directed link between two elements. Its carrier may join several pairs, so a link is identified by carrier, source
 * and target.
 *
 * @param carrier the element that makes the link: a dependency, a satisfaction …
 */
public record Link(ElementId carrier, LinkKind kind, ElementId source, ElementId target) {

    /** The end that is not this one. */
    public ElementId other(ElementId end) {
        return source.equals(end) ? target : source;
    }

    /** The end that stands above: what the other comes from. */
    public ElementId above() {
        return kind.upward() ? target : source;
    }

    /** The end that stands below: what realises, refines or proves the other. */
    public ElementId below() {
        return kind.upward() ? source : target;
    }

    /**
     * How the other end is to this one, seen from here: "derived into" from the original, "derives from" from the
     * derived.
     */
    public String words(ElementId from) {
        return source.equals(from) ? kind.forward() : kind.backward();
    }
}
