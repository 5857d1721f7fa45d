package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.expression.Name;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Names;
import pyrite.core.model.Property;

/**
 * Resolves the names in an expression from where it stands. Parameters of enclosing bodies come before all other names.
 * A name that cannot be resolved is reported and stays a name.
 */
final class ExpressionResolver implements Expression.Rewriter {
    private static final List<String> SEEN_EVERYWHERE =
            List.of("ControlFunctions", "SequenceFunctions", "NumericalFunctions");

    private final Resolver resolver;
    private final Names names;
    private final @Nullable ElementId scope;
    /** The element whose value it is; null for another expression. */
    private final @Nullable Element valued;

    private final Map<String, Expression.Parameter> locals;
    private final Spelled spelled;
    private final Faults.Report report;

    ExpressionResolver(
            Resolver resolver,
            @Nullable ElementId scope,
            @Nullable Element valued,
            Map<String, Expression.Parameter> locals,
            Spelled spelled,
            Faults.Report report) {
        this.resolver = resolver;
        this.names = resolver.names();
        this.scope = scope;
        this.valued = valued;
        this.locals = locals;
        this.spelled = spelled;
        this.report = report;
    }

    @Override
    public Expression feature(FeatureReference reference) {
        String first = ((Name) reference.chain().getFirst()).last();
        if (locals.containsKey(first)) {
            return local(reference, first);
        }
        Faults.Report unlessUnit = (span, message) -> {
            if (prefixedUnit(reference).isEmpty() && operator(reference).isEmpty()) {
                report.fault(span, message);
            }
        };
        return resolver.chain(reference.chain(), scope, reference.span(), unlessUnit)
                .<Expression>map(ids -> found(reference, ids))
                .or(() -> operator(reference))
                .or(() -> prefixedUnit(reference))
                .orElse(reference);
    }

    /** The function of an operator, as in {@code x->reduce '+'}. */
    private Optional<Expression> operator(FeatureReference reference) {
        Name name = (Name) reference.chain().getFirst();
        return reference.chain().size() > 1 || Operator.binary(name.last()) == null
                ? Optional.empty()
                : everywhere(name).map(id -> new FeatureReference(List.of(id), reference.span()));
    }

    private Expression found(FeatureReference reference, List<ElementId> ids) {
        Name name = (Name) reference.chain().getFirst();
        if (valued != null && !resolver.meansTheSameWithin(valued, name, ids.getFirst(), reference.span(), report)) {
            return reference;
        }
        spelled.chain(reference.chain(), ids);
        return new FeatureReference(List.copyOf(ids), reference.span());
    }

    /** The steps behind a parameter are members of its type, where that is said. */
    private Expression local(FeatureReference reference, String name) {
        FeatureReference parameter = new FeatureReference(List.of(new Expression.Local(name)), reference.span());
        List<Referent> steps = reference.chain().subList(1, reference.chain().size());
        return steps.isEmpty()
                ? parameter
                : new Expression.Access(parameter, steps(parameter, steps, reference.span()), reference.span());
    }

    @Override
    public Expression unit(FeatureReference reference) {
        return unitNamed(reference);
    }

    @Override
    public Referent function(Referent function, Span span) {
        Name name = (Name) function;
        Optional<ElementId> found =
                names.resolveFunction(name, scope).or(() -> everywhere(name)).or(() -> names.resolve(name, scope));
        if (found.isEmpty()) {
            report.fault(span, () -> "there is no function '" + name + "'" + resolver.meant(name, scope));
        }
        found.ifPresent(id -> spelled.name(name, id));
        return found.<Referent>map(id -> id).orElse(name);
    }

    /** The functions of sequences need no import. */
    private Optional<ElementId> everywhere(Name name) {
        return name.parts().size() > 1
                ? Optional.empty()
                : SEEN_EVERYWHERE.stream()
                        .flatMap(library -> names.resolveFunction(Name.of(library, name.last()), null).stream())
                        .findFirst();
    }

    @Override
    public Referent type(Referent type, Span span) {
        Name name = (Name) type;
        Optional<ElementId> found = names.resolve(name, scope);
        if (found.isEmpty()) {
            report.fault(span, () -> "there is no '" + name + "' here" + resolver.meant(name, scope));
        }
        found.ifPresent(id -> spelled.name(name, id));
        return found.<Referent>map(id -> id).orElse(name);
    }

    @Override
    public List<Referent> steps(Expression source, List<Referent> steps, Span span) {
        ElementId at = carrier(source);
        List<Referent> found = new ArrayList<>();
        for (Referent step : steps) {
            String name = ((Name) step).last();
            Optional<ElementId> next = at == null ? Optional.empty() : names.member(at, name);
            if (next.isEmpty()) {
                ElementId from = at;
                report.fault(span, () -> noStep(from, name));
                return steps;
            }
            spelled.step((Name) step, next.get());
            found.add(next.get());
            at = next.get();
        }
        return found;
    }

    private String noStep(@Nullable ElementId from, String name) {
        return from == null
                ? "it is not known here what '" + name + "' would be a feature of; give the type, as in 'in x : Type;'"
                : "'" + resolver.find(from).map(names::effectiveName).orElse("it") + "' has no '" + name + "'"
                        + SimilarNames.to(name, names.membersOf(from));
    }

    /** The element whose features an expression's values have; null where that cannot be told. */
    private @Nullable ElementId carrier(Expression source) {
        return switch (source) {
            case FeatureReference r when r.last() instanceof ElementId id -> id;
            case FeatureReference r
            when r.last() instanceof Expression.Local(String name) ->
                locals.get(name) != null && locals.get(name).type() instanceof ElementId id ? id : null;
            case Expression.Access a when a.chain().getLast() instanceof ElementId id -> id;
            case Expression.Item item -> carrier(item.sequence());
            case Expression.Filtered f when f.selects() -> carrier(f.receiver());
            case Expression.Filtered f -> carrier(f.body().result());
            case Expression.ArrowInvocation a -> carrier(a.receiver());
            case Expression.Classification c when c.type() instanceof ElementId id -> id;
            case Expression.Construction c when c.type() instanceof ElementId id -> id;
            case Expression.Invocation i when i.function() instanceof ElementId id -> given(id, new HashSet<>());
            case Expression.Sequence s
            when !s.items().isEmpty() -> carrier(s.items().getFirst());
            default -> null;
        };
    }

    /**
     * What a calculation gives: its own or inherited return parameter, or the calculation itself where it says none.
     */
    private ElementId given(ElementId calculation, Set<ElementId> seen) {
        Optional<ElementId> own = resolver.children(calculation).stream()
                .filter(each ->
                        each.get(Property.DIRECTION).filter("return"::equals).isPresent())
                .map(Element::id)
                .findFirst();
        if (own.isPresent() || !seen.add(calculation)) {
            return own.orElse(calculation);
        }
        return resolver.find(calculation).stream()
                .flatMap(element -> resolver.generals(element).stream())
                .map(general -> given(general, seen))
                .filter(found -> !seen.contains(found))
                .findFirst()
                .orElse(calculation);
    }

    @Override
    public Expression.Rewriter inside(Expression.Body body) {
        Map<String, Expression.Parameter> all = new HashMap<>(locals);
        body.parameters().forEach(parameter -> all.put(parameter.name(), typed(parameter)));
        return new ExpressionResolver(resolver, scope, valued, all, spelled, report);
    }

    /**
     * The parameter with its type as an id, found without complaint: the complaint comes where the type is rewritten.
     */
    private Expression.Parameter typed(Expression.Parameter parameter) {
        return parameter.type() instanceof Name name
                ? new Expression.Parameter(
                        parameter.name(), names.resolve(name, scope).orElse(null))
                : parameter;
    }

    private Expression unitNamed(FeatureReference reference) {
        Name name = (Name) reference.last();
        Optional<ElementId> direct = names.resolve(name, scope)
                .map(found -> resolver.base().library().find(found).isPresent()
                        ? found
                        : names.resolve(Name.of(PrefixedUnits.SI, name.last()), null)
                                .orElse(found))
                .or(() -> resolver.unitAnywhere(name));
        if (direct.isPresent()) {
            spelled.unit("", name, direct.get());
            return new UnitReference("", direct.get(), reference.span());
        }
        Optional<Expression> prefixed = prefixedUnit(reference);
        if (prefixed.isPresent()) {
            return prefixed.get();
        }
        Optional<Expression> derived = derivedUnit(name, reference.span());
        if (derived.isPresent()) {
            return derived.get();
        }
        if (PrefixedUnits.LOGARITHMIC.contains(name.last())) {
            report.fault(
                    reference.span(),
                    () -> "'" + name
                            + "' is a logarithmic unit: levels do not add and scale as quantities do; write the ratio "
                            + "itself, for instance 10^(3 / 10) for 3 dB of power");
            return reference;
        }
        report.fault(reference.span(), () -> noUnit(name));
        return reference;
    }

    /** Where a unit is that is not known here; which is like it, if there is none. */
    private String noUnit(Name name) {
        String units = "'private import " + Resolver.packageOf(names, name) + "::*;'";
        boolean isElsewhere = names.resolve(Name.of(Resolver.packageOf(names, name), name.last()), null)
                        .isPresent()
                || PrefixedUnits.ofSi(names, resolver::find).find(name).isPresent();
        String similar = SimilarNames.to(
                name.last(),
                names.membersOf(names.resolve(Name.of(PrefixedUnits.SI), null).orElseThrow()));
        return isElsewhere
                ? "there is no unit '" + name + "' here; " + units + " brings it"
                : "there is no unit '" + name + "'" + (similar.isEmpty() ? "; units come with " + units : similar);
    }

    /**
     * A derived unit that goes by what it is made of, as the standard's library names them: {@code 'N⋅m'},
     * {@code 'm/s²'}.
     */
    private Optional<Expression> derivedUnit(Name name, Span span) {
        Optional<String> product = UnitName.asExpression(name.last());
        if (product.isEmpty()) {
            return Optional.empty();
        }
        try {
            ExpressionResolver inTheName = new ExpressionResolver(
                    resolver, scope, valued, locals, spelled, (_, message) -> report.fault(span, message));
            return Optional.of(
                    ExpressionParser.whole(Tokens.of(product.get())).rewrite(new Expression.UnitRewriter(inTheName)));
        } catch (Cursor.SyntaxFault _) {
            return Optional.empty();
        }
    }

    private Optional<Expression> prefixedUnit(FeatureReference reference) {
        if (reference.chain().size() > 1) {
            return Optional.empty();
        }
        Name name = (Name) reference.last();
        return new PrefixedUnits(each -> names.resolve(each, scope), resolver::find)
                .find(name)
                .map(found -> {
                    spelled.unit(found.prefix(), name, found.unit());
                    return new UnitReference(found.prefix(), found.unit(), reference.span());
                });
    }
}
