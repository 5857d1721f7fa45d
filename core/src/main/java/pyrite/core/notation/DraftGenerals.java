package pyrite.core.notation;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Namespaces;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The generals of drafts. They are found on demand, because resolving a name may need the generals of any other draft.
 * A draft whose generals are requested while they are being found has none yet, which ends cycles. Without cycles the
 * result does not depend on the order, so the search runs in parallel; cycles are then resolved sequentially.
 */
final class DraftGenerals {
    static final List<Property<List<Reference>>> PROPERTIES =
            List.of(Property.REDEFINES, Property.REFERS, Property.SPECIALIZES, Property.TYPES);

    private final Resolver resolver;
    /** The drafts of which a thread is finding what they inherit from. */
    private final ThreadLocal<Set<Draft>> open = ThreadLocal.withInitial(HashSet::new);
    /** Whether several threads are at work, which leave alone what goes in a circle. */
    private volatile boolean passesCircles;

    DraftGenerals(Resolver resolver) {
        this.resolver = resolver;
    }

    /** The generals of a draft are requested while they are being found. */
    private static final class Circle extends RuntimeException {
        static final Circle MET = new Circle();

        private Circle() {
            super(null, null, false, false);
        }
    }

    /** Whether what a reference leads to is inherited from. */
    static boolean bears(Draft draft, Draft.Pending pending) {
        return PROPERTIES.contains(pending.property()) || standsForIt(draft, pending);
    }

    /**
     * Whether an element names with it what it stands for, as in {@code perform a.b}; it has the features of that
     * (KerML, reference subsetting).
     */
    private static boolean standsForIt(Draft draft, Draft.Pending pending) {
        return pending.property() == Property.TARGET && draft.kind.shortKeyword() != null;
    }

    /** Whether what a draft inherits from is known for good. */
    static boolean isKnown(Draft draft) {
        return draft.generals != null || hasNone(draft);
    }

    private static boolean hasNone(Draft draft) {
        return draft.references.isEmpty() && draft.formulas.isEmpty();
    }

    /** @param shared whether it is so many drafts that all processors work on them */
    void findAll(List<Draft> all, boolean shared) {
        Collection<Draft> left = all;
        if (shared) {
            passesCircles = true;
            left = all.parallelStream().filter(draft -> !isFound(draft)).toList();
            passesCircles = false;
        }
        left.forEach(this::of);
    }

    private boolean isFound(Draft draft) {
        try {
            of(draft);
            return true;
        } catch (Circle _) {
            open.get().clear();
            return false;
        }
    }

    /**
     * By the property that says so; {@link Property#VALUE} stands for a type taken from the value,
     * {@link Property#TARGET} for what is stood for.
     */
    Map<Property<?>, List<Reference>> of(Draft draft) {
        Map<Property<?>, List<Reference>> known = draft.generals;
        if (known != null) {
            return known;
        }
        if (hasNone(draft)) {
            return Map.of();
        }
        Set<Draft> inWork = open.get();
        if (!inWork.add(draft)) {
            if (passesCircles) {
                throw Circle.MET;
            }
            return Map.of();
        }
        known = find(draft);
        draft.generals = known;
        inWork.remove(draft);
        return known;
    }

    private Map<Property<?>, List<Reference>> find(Draft draft) {
        Map<Property<?>, List<Reference>> found = Map.of();
        for (Draft.Pending pending : draft.references) {
            if (bears(draft, pending)) {
                found = with(found, pending.property(), general(draft, pending));
            }
        }
        for (Draft.Pending pending : draft.references) {
            if (pending.property() == Property.MARKS) {
                Optional<Reference> base = byMark(draft, pending).map(Reference::to);
                found = with(found, Property.MARKS, base);
            }
        }
        FeatureReference value = typedByValue(draft);
        if (value != null) {
            // Whatever is wrong with the value is told when it is resolved as such.
            found = with(
                    found,
                    Property.VALUE,
                    resolver.chain(value.chain(), draft.element().owner(), value.span(), (_, _) -> {})
                            .filter(chain ->
                                    !chain.getFirst().equals(draft.element().id()))
                            .map(Reference::new));
        }
        return found;
    }

    private Optional<ElementId> byMark(Draft draft, Draft.Pending mark) {
        return resolver.chain(mark.chain(), draft.element().owner(), mark.span(), (_, _) -> {})
                .flatMap(found -> resolver.baseType(found.getLast()))
                .flatMap(base -> Optional.ofNullable(resolver.generalByMark(draft.element(), base)));
    }

    /** As a rule there is one; more are put into a map of their own. */
    private static Map<Property<?>, List<Reference>> with(
            Map<Property<?>, List<Reference>> known, Property<?> property, Optional<Reference> further) {
        if (further.isEmpty()) {
            return known;
        }
        List<Reference> added = List.of(further.get());
        if (known.isEmpty()) {
            return Map.of(property, added);
        }
        Map<Property<?>, List<Reference>> all = new HashMap<>(known);
        all.merge(property, added, Resolver::both);
        return all;
    }

    /** The value that gives an element its type, because nothing else does; null if none does. */
    private static @Nullable FeatureReference typedByValue(Draft draft) {
        if (draft.formulas.isEmpty() || !Namespaces.takesTypeOfValue(draft.kind)) {
            return null;
        }
        for (Draft.Pending pending : draft.references) {
            if (pending.property() == Property.TYPES || pending.property() == Property.SPECIALIZES) {
                return null;
            }
        }
        for (Draft.Formula formula : draft.formulas) {
            if (formula.property() == Property.VALUE
                    && formula.expression() instanceof FeatureReference reference
                    && reference.chain().getFirst() instanceof Name) {
                return reference;
            }
        }
        return null;
    }

    private Optional<Reference> general(Draft draft, Draft.Pending pending) {
        ElementId owner = draft.element().owner();
        if (pending.property() == Property.REDEFINES
                && pending.chain().size() == 1
                && owner != null
                && pending.chain().getFirst() instanceof Name name
                && name.parts().size() == 1) {
            Optional<ElementId> inherited = resolver.names().resolveInherited(name, owner);
            if (inherited.isEmpty() && !lacksGenerals(owner)) {
                resolver.fault(
                        draft,
                        pending.span(),
                        () -> "there is no inherited '" + name.last() + "' to redefine"
                                + SimilarNames.to(name.last(), inheritedNames(owner)));
            }
            return inherited.map(Reference::to);
        }
        return resolver.end(draft, pending);
    }

    /** Whether something that an element is to inherit from was not found; that is told there, and once. */
    private boolean lacksGenerals(ElementId id) {
        Draft draft = resolver.draft(id);
        return draft != null
                && !open.get().contains(draft)
                && draft.references.stream().filter(each -> bears(draft, each)).count()
                        > of(draft).entrySet().stream()
                                .filter(each -> !each.getKey().equals(Property.VALUE))
                                .filter(each -> !each.getKey().equals(Property.MARKS))
                                .mapToLong(each -> each.getValue().size())
                                .sum();
    }

    private List<String> inheritedNames(ElementId owner) {
        Optional<Element> element = resolver.find(owner);
        return element.stream()
                .flatMap(e -> resolver.generals(e).stream())
                .flatMap(g -> resolver.names().membersOf(g).stream())
                .toList();
    }
}
