package pyrite.core.model;

import java.util.Arrays;
import java.util.Collections;
import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The columns of the {@link ElementKind} table that most rows leave empty: what pages, drawings and links need to know.
 *
 * @param title the kind in words, such as "accept action"; null if its keyword says it
 * @param compartment the heading under which a drawing lists its usages in the box of their owner; null for none
 */
record KindTraits(
        Set<Trait> traits, @Nullable String title, @Nullable String compartment) {
    static final KindTraits NONE = new KindTraits(Set.of(), null, null);

    /** A fact about a kind. */
    enum Trait {
        /** A usage that has a box of its own in a General view; other usages are lines in the box of their owner. */
        BOX,
        /** A usage that is listed on the page of its owner and not in the outline. */
        INNER,
        /** Shown in the outline even without a name. */
        UNNAMED_IN_OUTLINE,
        /** Has a section of its own on the page of its owner, or none because it is shown otherwise. */
        OWN_SECTION,
        /** States a need or a requirement, so it stands in specifications and counts in coverage. */
        REQUIREMENT,
        /** States a need: what stakeholders want. */
        NEED,
        /** What a satisfaction or verification may name. */
        SATISFIABLE,
        /** Makes a link between other elements. */
        CARRIES_LINKS,
        /** Stands in its owner for something that is declared elsewhere, often under the same name. */
        ROLE,
        /** A usage that is no occurrence, so nothing follows it in time; or one whose place is fixed. */
        NOT_A_STEP
    }

    static KindTraits traits(Trait... traits) {
        return new KindTraits(Collections.unmodifiableSet(EnumSet.copyOf(Arrays.asList(traits))), null, null);
    }

    static KindTraits titled(String title) {
        return new KindTraits(Set.of(), title, null);
    }

    static KindTraits listedUnder(String heading) {
        return new KindTraits(Set.of(), null, heading);
    }

    KindTraits and(Trait... more) {
        return new KindTraits(traits(more).traits, title, compartment);
    }

    KindTraits andTitle(String words) {
        return new KindTraits(traits, words, compartment);
    }

    KindTraits andListedUnder(String heading) {
        return new KindTraits(traits, title, heading);
    }
}
