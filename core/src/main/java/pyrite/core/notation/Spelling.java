package pyrite.core.notation;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Writes names in the shortest form that has the same meaning at their place, and expressions with such names. Results
 * are remembered.
 */
final class Spelling {
    private final Model model;
    private final Names names;
    private final Map<Place, String> known = new HashMap<>();

    private record Place(ElementId target, @Nullable ElementId scope) {}

    Spelling(Model model) {
        this.model = model;
        this.names = model.names();
    }

    String reference(Reference reference, @Nullable ElementId scope) {
        return chain(reference.chain(), scope);
    }

    /**
     * What an element inherits from; what it redefines goes by its own name, because that is looked up among the
     * inherited.
     */
    String general(Element element, Property<?> property, Reference reference) {
        Element target = model.get(reference.target());
        String name = names.effectiveName(target);
        if (name == null || reference.chain().size() != 1) {
            return reference(reference, element.owner());
        }
        boolean inherited = property == Property.REDEFINES
                && element.owner() != null
                && names.resolveInherited(Name.of(name), element.owner())
                        .filter(target.id()::equals)
                        .isPresent();
        return inherited || isFurtherOut(element, name, target)
                ? Name.quoted(name)
                : reference(reference, element.owner());
    }

    /** Whether a name that is the element's own too means something further out; see {@link Resolver}. */
    private boolean isFurtherOut(Element element, String name, Element target) {
        if (!name.equals(names.effectiveName(element))) {
            return false;
        }
        for (ElementId at = element.owner(); at != null; at = model.get(at).owner()) {
            Optional<ElementId> found = names.resolve(Name.of(name), at);
            if (found.filter(element.id()::equals).isEmpty()) {
                return found.filter(target.id()::equals).isPresent();
            }
        }
        return false;
    }

    private String chain(List<? extends Referent> chain, @Nullable ElementId scope) {
        String first = name(chain.getFirst(), scope);
        return chain.size() == 1
                ? first
                : first + chain.stream().skip(1).map(step -> "." + step(step)).collect(Collectors.joining());
    }

    String name(Referent referent, @Nullable ElementId scope) {
        return referent instanceof ElementId id
                ? known.computeIfAbsent(new Place(id, scope), this::shortest)
                : referent.toString();
    }

    private String shortest(Place place) {
        Element target = model.get(place.target());
        Optional<Name> shortest = names.shortest(target, place.scope());
        return shortest.map(Name::toString).orElseGet(() -> fromTheTop(target));
    }

    /** A name that something nearer by hides is looked up from the top. */
    private String fromTheTop(Element target) {
        return names.shortest(target, null).map(name -> "$::" + name).orElseGet(() -> names.qualifiedName(target));
    }

    String step(Referent referent) {
        String name = referent instanceof ElementId id ? names.effectiveName(model.get(id)) : ((Name) referent).last();
        return Name.quoted(name == null ? "?" : name);
    }

    /** The scope in which a value's names are looked up. */
    String value(Element element, Expression expression) {
        return text(expression, names.valueScope(element));
    }

    String text(Expression expression, @Nullable ElementId scope) {
        return ExpressionText.of(expression, new ExpressionText.Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return Spelling.this.chain(reference.chain(), scope);
            }

            @Override
            public String name(String prefix, Referent referent) {
                return unitOrFunction(prefix, referent, scope);
            }

            @Override
            public String step(Referent referent) {
                return Spelling.this.step(referent);
            }
        });
    }

    /** Units go by their symbol where that means them, everything else by its shortest name. */
    private String unitOrFunction(String prefix, Referent referent, @Nullable ElementId scope) {
        if (referent instanceof ElementId id && model.get(id).shortName() instanceof String symbol) {
            boolean clear = !prefix.isEmpty()
                    || names.resolve(Name.of(symbol), scope).filter(id::equals).isPresent();
            if (clear) {
                return Name.quoted(prefix + symbol);
            }
        }
        return name(referent, scope);
    }
}
