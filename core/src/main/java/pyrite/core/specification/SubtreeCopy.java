package pyrite.core.specification;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Body;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/** Copies elements with all they own. References between copied elements lead to the copies. */
public final class SubtreeCopy {
    private final Model model;
    private final Supplier<String> ids;
    private final Map<ElementId, ElementId> copies = new HashMap<>();
    /** The names that copies at the top have got already. */
    private final Set<String> given = new HashSet<>();

    /** @param ids gives the id of each copied requirement */
    public SubtreeCopy(Model model, Supplier<String> ids) {
        this.model = model;
        this.ids = ids;
    }

    List<Element> of(Element top, Rank rank) {
        return of(List.of(top), top.owner(), List.of(rank));
    }

    /**
     * @param owner what gets the copies
     * @param ranks their places, one for each of {@code tops}
     */
    public List<Element> of(List<Element> tops, @Nullable ElementId owner, List<Rank> ranks) {
        List<Element> copied = new ArrayList<>();
        for (int i = 0; i < tops.size(); i++) {
            Element top = tops.get(i);
            for (Element original : model.subtree(top.id())) {
                boolean isTop = original.equals(top);
                if (isTop) {
                    copied.add(copy(original, owner, ranks.get(i), freeName(original, owner)));
                } else if (!isLink(original) && copies.containsKey(original.owner())) {
                    copied.add(copy(original, copies.get(original.owner()), original.rank(), original.name()));
                }
            }
        }
        return copied.stream().map(this::redirected).toList();
    }

    private Element copy(Element original, @Nullable ElementId owner, Rank rank, @Nullable String name) {
        ElementId id = ElementId.fresh();
        copies.put(original.id(), id);
        String shortName = original.shortName() != null && Specification.isRequirement(original)
                ? ids.get()
                : original.shortName();
        return new Element(id, original.kind(), owner, rank, name, shortName, original.properties());
    }

    private static boolean isLink(Element element) {
        return switch (element.kind()) {
            case DEPENDENCY, SATISFACTION, FRAMED_CONCERN, VERIFIED_REQUIREMENT, ALLOCATION -> true;
            default -> false;
        };
    }

    private @Nullable String freeName(Element original, @Nullable ElementId owner) {
        String name = original.name();
        if (name == null) {
            return null;
        }
        Set<String> taken = new HashSet<>(given);
        if (owner != null) {
            taken.addAll(model.names().membersOf(owner));
        }
        String free = Names.free(taken, name);
        given.add(free);
        return free;
    }

    private Element redirected(Element copy) {
        Element redirected = copy;
        for (Map.Entry<Property<?>, Object> entry : copy.properties().entrySet()) {
            redirected = set(redirected, entry.getKey(), value(entry.getValue()));
        }
        return redirected;
    }

    @SuppressWarnings("unchecked")
    private static <T> Element set(Element element, Property<T> property, Object value) {
        return element.with(property, (T) value);
    }

    private Object value(Object value) {
        return switch (value) {
            case Reference reference ->
                new Reference(reference.chain().stream()
                        .map(id -> copies.getOrDefault(id, id))
                        .toList());
            case List<?> list -> list.stream().map(this::value).toList();
            case FeatureValue given ->
                new FeatureValue(given.kind(), given.expression().rewrite(new ToCopies()));
            case Expression expression -> expression.rewrite(new ToCopies());
            default -> value;
        };
    }

    private Referent copyOf(Referent referent) {
        return referent instanceof ElementId id ? copies.getOrDefault(id, id) : referent;
    }

    private final class ToCopies implements Expression.Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            return new FeatureReference(
                    reference.chain().stream().map(SubtreeCopy.this::copyOf).toList(), reference.span());
        }

        @Override
        public Expression unit(FeatureReference reference) {
            return reference;
        }

        @Override
        public Referent function(Referent function, Span span) {
            return copyOf(function);
        }

        @Override
        public Referent type(Referent type, Span span) {
            return copyOf(type);
        }

        @Override
        public List<Referent> steps(Expression source, List<Referent> chain, Span span) {
            return chain.stream().map(SubtreeCopy.this::copyOf).toList();
        }

        @Override
        public Expression.Rewriter inside(Body body) {
            return this;
        }
    }
}
