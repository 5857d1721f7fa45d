package pyrite.core.notation;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
import pyrite.core.model.SpelledNames;

/**
 * Writes names so that they mean the same at their place: as their author wrote them where that still holds, else in
 * the shortest form; and expressions with such names. Results are remembered.
 */
final class Spelling {
    private final Model model;
    private final Names names;
    private final Map<Place, String> known = new HashMap<>();

    private record Place(
            ElementId target,
            @Nullable ElementId scope,
            @Nullable ElementId from) {}

    Spelling(Model model) {
        this.model = model;
        this.names = model.names();
    }

    /** A reference in the declaration of an element, looked up from where that stands. */
    String reference(Element element, Reference reference) {
        return reference(element, reference, element.owner());
    }

    String reference(Element element, Reference reference, @Nullable ElementId scope) {
        return chain(new Writing(SpelledNames.of(element), element.id(), scope), reference.chain());
    }

    /**
     * What an element inherits from; what it redefines goes by its own name, because that is looked up among the
     * inherited.
     */
    String general(Element element, Property<?> property, Reference reference) {
        ElementId owner = element.owner();
        if (property != Property.REDEFINES || reference.chain().size() != 1 || owner == null) {
            return reference(element, reference);
        }
        Element target = model.get(reference.target());
        String kept = SpelledNames.of(element).of(target.id());
        String name = names.effectiveName(target);
        return means(kept, target.id(), spelled -> redefined(spelled, owner))
                .or(() -> means(
                        name == null ? null : Name.quoted(name),
                        target.id(),
                        spelled -> names.resolveInherited(spelled, owner)))
                .orElseGet(() -> reference(element, reference));
    }

    private Optional<ElementId> redefined(Name name, ElementId owner) {
        return name.parts().size() == 1 ? names.resolveInherited(name, owner) : names.resolve(name, owner);
    }

    /** How a spelling is looked up. */
    private interface Lookup {
        Optional<ElementId> find(Name name);
    }

    /** A spelling where it means a target. */
    private static Optional<String> means(@Nullable String spelling, ElementId target, Lookup lookup) {
        return Optional.ofNullable(spelling)
                .filter(text -> lookup.find(name(text)).filter(target::equals).isPresent());
    }

    private static Name name(String spelling) {
        return new Cursor(Tokens.of(spelling)).requireQualifiedName();
    }

    /** A name as the notation writes it. */
    static String text(Name name) {
        return name.parts().size() > 1 && name.parts().getFirst().equals(Names.FROM_THE_TOP)
                ? Names.FROM_THE_TOP + "::"
                        + new Name(name.parts().subList(1, name.parts().size()))
                : name.toString();
    }

    private String chain(Writing place, List<? extends Referent> chain) {
        StringBuilder text = new StringBuilder(name(place, chain.getFirst()));
        for (int i = 1; i < chain.size(); i++) {
            text.append('.').append(step(place.kept, chain.get(i - 1), chain.get(i)));
        }
        return text.toString();
    }

    /** What an import brings in, looked up as {@link Names#imported} does. */
    String imported(Element element, Reference reference) {
        ElementId target = reference.target();
        return means(SpelledNames.of(element).imported(), target, name -> imported(name, element.owner(), target))
                .orElseGet(() -> {
                    ElementId owner = element.owner();
                    return name(
                            new Writing(
                                    new SpelledNames(),
                                    element.id(),
                                    owner == null ? null : model.get(owner).owner()),
                            target);
                });
    }

    private Optional<ElementId> imported(Name name, @Nullable ElementId owner, ElementId target) {
        return names.importedAlias(name, owner)
                .filter(target::equals)
                .or(() -> names.imported(name, owner))
                .or(() -> new PrefixedUnits(each -> names.imported(each, owner), model::find)
                        .find(name)
                        .map(PrefixedUnits.Found::unit));
    }

    /**
     * Where names are written.
     *
     * @param from the element that refers by them; null if it is none
     * @param scope where they are looked up
     */
    private record Writing(
            SpelledNames kept,
            @Nullable ElementId from,
            @Nullable ElementId scope) {}

    private String name(Writing place, Referent referent) {
        if (!(referent instanceof ElementId id)) {
            return referent.toString();
        }
        return means(
                        place.kept.of(id),
                        id,
                        name -> names.resolve(name, place.scope)
                                .filter(id::equals)
                                .or(() -> names.resolveFunction(name, place.scope)))
                .orElseGet(() -> known.computeIfAbsent(new Place(id, place.scope, place.from), this::shortest));
    }

    private String shortest(Place place) {
        Element target = model.get(place.target());
        Optional<Name> shortest = names.shortest(target, place.scope(), place.from());
        return shortest.map(Name::toString).orElseGet(() -> fromTheTop(target));
    }

    /** A name that something nearer by hides is looked up from the top. */
    private String fromTheTop(Element target) {
        return names.shortest(target, null)
                .map(name -> Names.FROM_THE_TOP + "::" + name)
                .orElseGet(() -> names.qualifiedName(target));
    }

    private String step(SpelledNames kept, Referent from, Referent referent) {
        return referent instanceof ElementId id && from instanceof ElementId owner
                ? means(kept.step(id), id, name -> names.member(owner, name.last()))
                        .orElseGet(() -> step(owner, id))
                : step(referent);
    }

    /** The name of a member, or that of an alias where the member goes by no other there. */
    private String step(ElementId owner, ElementId id) {
        String own = step(id);
        return isMember(owner, names.effectiveName(model.get(id)), id)
                ? own
                : names.membersOf(owner).stream()
                        .filter(name -> isMember(owner, name, id))
                        .sorted()
                        .findFirst()
                        .map(Name::quoted)
                        .orElse(own);
    }

    private boolean isMember(ElementId owner, @Nullable String name, ElementId id) {
        return name != null && names.member(owner, name).filter(id::equals).isPresent();
    }

    private String step(Referent referent) {
        if (!(referent instanceof ElementId id)) {
            return Name.quoted(((Name) referent).last());
        }
        Element element = model.get(id);
        String name = names.effectiveName(element);
        String some = name == null ? element.shortName() : name;
        return Name.quoted(some == null ? "?" : some);
    }

    /** A value of an element, whose names are looked up from where it stands. */
    String value(Element element, Expression expression) {
        return text(new Writing(SpelledNames.of(element), element.id(), element.owner()), expression);
    }

    /** Another expression of an element, whose names are looked up within it. */
    String text(Element element, Expression expression) {
        return text(new Writing(SpelledNames.of(element), null, element.id()), expression);
    }

    /** An expression of no element, as it would be written in a scope. */
    String text(Expression expression, @Nullable ElementId scope) {
        return text(new Writing(new SpelledNames(), null, scope), expression);
    }

    private String text(Writing place, Expression expression) {
        return ExpressionText.of(expression, new ExpressionText.Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return Spelling.this.chain(place, reference.chain());
            }

            @Override
            public String name(String prefix, Referent referent) {
                return unitOrFunction(place, prefix, referent);
            }

            @Override
            public String step(Referent referent) {
                String spelled = referent instanceof ElementId id ? place.kept.step(id) : null;
                return spelled == null ? Spelling.this.step(referent) : spelled;
            }
        });
    }

    private boolean meansUnit(String spelling, ElementId unit, @Nullable ElementId scope) {
        return names.resolve(name(spelling), scope).filter(unit::equals).isPresent();
    }

    /** Units go by their symbol where that means them, everything else by its shortest name. */
    private String unitOrFunction(Writing place, String prefix, Referent referent) {
        if (referent instanceof ElementId id && model.get(id).shortName() instanceof String symbol) {
            String spelled = place.kept.unit(prefix, id);
            if (spelled != null && (!prefix.isEmpty() || meansUnit(spelled, id, place.scope))) {
                return spelled;
            }
            boolean clear = !prefix.isEmpty()
                    || names.resolve(Name.of(symbol), place.scope)
                            .filter(id::equals)
                            .isPresent();
            if (clear) {
                return Name.quoted(prefix + symbol);
            }
        }
        return name(place, referent);
    }
}
