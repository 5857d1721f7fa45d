package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Namespaces;
import pyrite.core.model.Property;
import pyrite.core.model.PropertyMap;
import pyrite.core.model.Reference;

/**
 * Resolves the names of drafts to ids, in the model that they join. An import that is queried while it is being
 * resolved brings in nothing yet, which ends cycles. {@link DraftGenerals} finds what drafts inherit from.
 */
final class Resolver implements Namespaces {
    /** More than the library has, which is read on one thread. */
    private static final int WORTH_SHARING = 4000;

    private final Model base;
    private final Set<ElementId> replaced;
    private final Map<ElementId, Draft> drafts;
    private final List<Draft> all;
    private final List<Draft> imports;
    /** The drafts whose owners are in the model already, and those without one. */
    private final Map<ElementId, List<Element>> addedTo = new HashMap<>();

    private final List<Element> addedRoots = new ArrayList<>();
    private final Map<ElementId, Optional<ElementId>> importedBy = new ConcurrentHashMap<>();
    private final Map<Optional<ElementId>, Collection<String>> inScope = new HashMap<>();
    private final Names names = new Names(this);
    private final DraftGenerals inherited = new DraftGenerals(this);
    private volatile boolean isSettled;
    /** Whether an expression is read that somebody types into a field, where nothing can be imported. */
    private boolean isTyped;

    private Report faults = (_, _, _) -> {};

    /** Receives a fault: the draft, the place, and a supplier of the message. */
    interface Report {
        void accept(ElementId draft, Span span, Supplier<String> message);
    }

    /** Resolves names in a model that nothing joins. */
    Resolver(Model base) {
        this(base, new DraftCompletion(DraftCompletion.Ids.RANDOM, 0), Set.of());
    }

    /** @param replaced elements that the drafts take the place of, with all they own; no name leads to them any more */
    Resolver(Model base, DraftCompletion completion, Set<ElementId> replaced) {
        this.base = base;
        this.replaced = replaced;
        this.drafts = completion.byId();
        this.all = completion.drafts();
        this.imports = completion.imports();
        for (Draft draft : completion.tops()) {
            Element element = draft.element();
            (element.owner() == null ? addedRoots : addedTo.computeIfAbsent(element.owner(), _ -> new ArrayList<>()))
                    .add(element);
        }
    }

    /** The draft of an element that is being read; null if it stood in the model before. */
    @Nullable
    Draft draft(ElementId id) {
        return drafts.get(id);
    }

    void fault(Draft draft, Span span, Supplier<String> message) {
        faults.accept(draft.element().id(), span, message);
    }

    private static final List<String> UNITS = List.of(PrefixedUnits.SI, "Economics");

    /** The library packages that people know; others have some of the same names. */
    private static final Set<String> PREFERRED = Set.of("ScalarValues", "ISQ", "SI", "Dynamics", "RealFunctions");

    Names names() {
        return names;
    }

    Model base() {
        return base;
    }

    /**
     * All drafts as elements; faults are reported and the references concerned left out. What is imported is found
     * first, then what elements inherit from; with that known, the rest of each is found on its own and so on all
     * processors.
     *
     * @param report is called from several threads
     */
    List<Element> resolveAll(Report report) {
        faults = report;
        imports.forEach(draft -> imported(draft.element()));
        boolean shared = all.size() >= WORTH_SHARING;
        inherited.findAll(all, shared);
        isSettled = true;
        return (shared ? all.parallelStream() : all.stream()).map(this::resolve).toList();
    }

    private Element resolve(Draft draft) {
        Element element = draft.element();
        if (draft.references.isEmpty() && draft.formulas.isEmpty()) {
            return element;
        }
        PropertyMap properties = draft.properties();
        Spelled spelled = new Spelled(this);
        for (Map.Entry<Property<?>, List<Reference>> general :
                inherited.of(draft).entrySet()) {
            if (general.getKey() == Property.TARGET) {
                properties = properties.with(Property.TARGET, general.getValue().getFirst());
            } else if (general.getKey() != Property.VALUE && general.getKey() != Property.MARKS) {
                properties = properties.with(general.getKey(), general.getValue());
            }
        }
        for (Draft.Pending pending : draft.references) {
            if (!DraftGenerals.bears(draft, pending)) {
                Optional<Reference> end = end(draft, pending);
                properties = withEnd(end, pending.property(), properties);
                end.ifPresent(reference -> spelled.chain(pending.chain(), reference.chain()));
            }
        }
        inherited.of(draft).forEach((property, references) -> spelled.all(draft.pending(property), references));
        Faults.Report report = (span, message) -> faults.accept(element.id(), span, message);
        for (Draft.Formula formula : draft.formulas) {
            Expression expression = formula.expression()
                    .rewrite(new ExpressionResolver(
                            this,
                            scopeOf(draft, formula.property()),
                            formula.property() == Property.VALUE ? element : null,
                            Map.of(),
                            spelled,
                            report));
            properties = properties.with(
                    formula.property(),
                    formula.property() == Property.VALUE
                            ? new FeatureValue(Objects.requireNonNull(draft.valueKind), expression)
                            : expression);
        }
        return element.withAll(
                draft.isImport() || spelled.isEmpty()
                        ? properties
                        : properties.with(Property.SPELLINGS, spelled.text()));
    }

    @SuppressWarnings("unchecked")
    private static PropertyMap withEnd(Optional<Reference> end, Property<?> property, PropertyMap properties) {
        if (end.isEmpty() || property.shape() == Property.Shape.REFERENCE) {
            return end.isEmpty() ? properties : properties.with(property, end.get());
        }
        List<Reference> before = (List<Reference>) properties.get(property);
        List<Reference> further = List.of(end.get());
        return properties.with(property, before == null ? further : both(before, further));
    }

    static List<Reference> both(List<Reference> first, List<Reference> second) {
        List<Reference> all = new ArrayList<>(first);
        all.addAll(second);
        return List.copyOf(all);
    }

    /** Where the names in an expression are looked up: in the element for what it comes to, else where it stands. */
    private static @Nullable ElementId scopeOf(Draft draft, Property<?> property) {
        return property == Property.VALUE || property == Property.BOUNDS
                ? draft.element().owner()
                : draft.element().id();
    }

    Optional<Reference> end(Draft draft, Draft.Pending pending) {
        if (draft.isImport()) {
            return importedBy(draft, pending);
        }
        if (draft.kind == ElementKind.ALIAS) {
            Name name = (Name) pending.chain().getFirst();
            if (goesBy(draft, name.parts().getFirst())) {
                fault(
                        draft,
                        pending.span(),
                        () -> "'" + name.parts().getFirst() + "' means this alias itself here; write '"
                                + Names.FROM_THE_TOP + "::' and the path from the top");
                return Optional.empty();
            }
            Optional<ElementId> meant = imported(draft.element());
            if (meant.isPresent()) {
                return meant.map(Reference::to);
            }
        }
        // The names of a connector's ends are those around the connector, not those of its other ends.
        ElementId owner = draft.element().owner();
        ElementId scope = draft.kind == ElementKind.CONNECTOR_END && owner != null
                ? find(owner).orElseThrow().owner()
                : owner;
        Faults.Report report = (span, message) -> faults.accept(draft.element().id(), span, message);
        Optional<List<ElementId>> found = chain(pending.chain(), scope, pending.span(), report);
        Name first = (Name) pending.chain().getFirst();
        if (found.filter(List.of(draft.element().id())::equals).isPresent()) {
            Optional<Name> meant = further(draft.element(), first);
            if (meant.isPresent()) {
                fault(draft, pending.span(), () -> itself(first, meant.get()));
                return Optional.empty();
            }
        }
        return found.map(Reference::new);
    }

    private static boolean goesBy(Draft draft, String name) {
        return name.equals(draft.name) || name.equals(draft.shortName);
    }

    private static String itself(Name name, Name meant) {
        return "'" + name + "' means this element itself here; write '" + meant + "' for the one around it";
    }

    /** How to write a name that means the element it stands in, if it is to mean another one further out. */
    private Optional<Name> further(Element element, Name name) {
        for (ElementId at = element.owner();
                at != null;
                at = find(at).map(Element::owner).orElse(null)) {
            Optional<Name> meant = names.resolve(
                            name, find(at).map(Element::owner).orElse(null))
                    .filter(id -> !id.equals(element.id()))
                    .flatMap(this::find)
                    .flatMap(other -> names.shortest(other, element.owner()));
            if (meant.isPresent()) {
                return meant;
            }
        }
        return Optional.empty();
    }

    /**
     * Whether a name in a value means the same in its element, where it is looked up first (KerML 8.2.3.5), as where
     * the element stands; reported if it does not.
     */
    boolean meansTheSameWithin(Element element, Name name, ElementId meant, Span span, Faults.Report report) {
        if (meant.equals(element.id())) {
            Optional<Name> other = further(element, name);
            other.ifPresent(further -> report.fault(span, () -> itself(name, further)));
            return other.isEmpty();
        }
        Optional<ElementId> within = names.isWithin(element.id(), name.parts().getFirst())
                ? names.resolve(name, element.id()).filter(id -> !id.equals(meant))
                : Optional.empty();
        within.ifPresent(inside -> report.fault(
                span,
                () -> "'" + name + "' means '"
                        + find(inside).map(names::qualifiedName).orElse("something else")
                        + "' here, because a value's names are looked up in its element first; write '"
                        + find(meant).map(names::qualifiedName).orElse("the whole path") + "'"));
        return within.isEmpty();
    }

    /**
     * All names that could be written in a scope, found once for each: a text may have very many faults in one place.
     */
    Collection<String> inScope(@Nullable ElementId scope) {
        return inScope.computeIfAbsent(Optional.ofNullable(scope), _ -> names.inScope(scope));
    }

    private Optional<Reference> importedBy(Draft draft, Draft.Pending pending) {
        Optional<ElementId> found = imported(draft.element());
        Name name = (Name) pending.chain().getFirst();
        if (found.isEmpty()) {
            fault(
                    draft,
                    pending.span(),
                    () -> "there is no '" + name + "' to import" + SimilarNames.to(name.last(), inScope(null)));
        }
        return found.map(Reference::to);
    }

    /**
     * The expression with every name in it resolved within {@code scope}; what cannot be is reported and stays a name.
     */
    Expression resolve(Expression expression, @Nullable ElementId scope, Faults.Report report) {
        isTyped = true;
        return expression.rewrite(new ExpressionResolver(this, scope, null, Map.of(), new Spelled(this), report));
    }

    /** The unit of a name from a package of units; empty in a text, which imports what it names. */
    Optional<ElementId> unitAnywhere(Name name) {
        return !isTyped || name.parts().size() > 1
                ? Optional.empty()
                : UNITS.stream()
                        .flatMap(units -> names.resolve(Name.of(units, name.last()), null).stream())
                        .findFirst();
    }

    /** The package of units that an import would bring a name from. */
    static String packageOf(Names names, Name name) {
        return UNITS.stream()
                .filter(units ->
                        names.resolve(Name.of(units, name.last()), null).isPresent())
                .findFirst()
                .orElse(PrefixedUnits.SI);
    }

    Optional<List<ElementId>> chain(List<Referent> chain, @Nullable ElementId scope, Span span, Faults.Report report) {
        Name first = (Name) chain.getFirst();
        Optional<ElementId> at = names.resolve(first, scope);
        if (at.isEmpty()) {
            at = names.resolveFunction(first, scope).or(() -> renamed(first, scope));
        }
        if (at.isEmpty()) {
            report.fault(
                    span,
                    () -> hidden(first, scope)
                            .orElseGet(() -> "there is no '" + first + "' here" + meant(first, scope)));
            return Optional.empty();
        }
        if (chain.size() == 1) {
            return at.map(List::of);
        }
        List<ElementId> ids = new ArrayList<>(List.of(at.get()));
        for (Referent step : chain.subList(1, chain.size())) {
            String name = ((Name) step).last();
            ElementId from = ids.getLast();
            Optional<ElementId> next = names.member(from, name).or(() -> renamed(from, name));
            if (next.isEmpty()) {
                String owner = find(from).map(names::effectiveName).orElse("it");
                report.fault(
                        span,
                        () -> names.hidden(from, name).isPresent()
                                ? "'" + name + "' is private in '" + owner + "'; make it public there"
                                : "'" + owner + "' has no '" + name + "'"
                                        + SimilarNames.to(name, names.membersOf(from)));
                return Optional.empty();
            }
            ids.add(next.get());
        }
        return Optional.of(ids);
    }

    /** What may be meant by a name that is not found: the values of an enumeration, an import, a similar name. */
    String meant(Name name, @Nullable ElementId scope) {
        List<String> parts = name.parts();
        if (parts.size() > 1) {
            Optional<ElementId> enumeration = names.resolve(new Name(parts.subList(0, parts.size() - 1)), scope)
                    .filter(id -> find(id).filter(e -> e.kind() == ElementKind.ENUMERATION_DEFINITION)
                            .isPresent());
            if (enumeration.isPresent()) {
                return "; the values of '" + parts.get(parts.size() - 2) + "' are "
                        + String.join(", ", names.membersOf(enumeration.get()));
            }
        }
        String bringing = bringing(parts.getFirst());
        return bringing.isEmpty() ? SimilarNames.to(name.last(), inScope(scope)) : bringing;
    }

    /** The import that would bring in a name: from a package at the top that has it for others. */
    private String bringing(String name) {
        return roots().stream()
                .filter(root -> root.kind().isPackage())
                .filter(root -> names.member(root.id(), name).isPresent()
                        || names.functionIn(root.id(), name).isPresent())
                .flatMap(root -> Optional.ofNullable(root.name()).stream())
                .min(Comparator.comparing(root -> !PREFERRED.contains(root)))
                .map(root -> "; 'private import " + Name.quoted(root) + "::*;' brings it")
                .orElse("");
    }

    /** Says so where a qualified name leads to something that is private. */
    private Optional<String> hidden(Name name, @Nullable ElementId scope) {
        List<String> parts = name.parts();
        return parts.size() < 2
                ? Optional.empty()
                : names.resolve(new Name(parts.subList(0, parts.size() - 1)), scope)
                        .filter(owner -> names.hidden(owner, name.last()).isPresent())
                        .map(_ -> "'" + name.last() + "' is private in '" + parts.get(parts.size() - 2)
                                + "'; make it public there");
    }

    /**
     * What went by a name before the text was edited and goes by another one now: who renames a thing where it is
     * declared means it elsewhere too.
     */
    private Optional<ElementId> renamed(Name name, @Nullable ElementId scope) {
        ElementId known = scope;
        while (known != null && base.find(known).isEmpty()) {
            known = find(known).map(Element::owner).orElse(null);
        }
        return replaced.isEmpty()
                ? Optional.empty()
                : base.names().resolve(name, known).filter(drafts::containsKey);
    }

    private Optional<ElementId> renamed(ElementId owner, String name) {
        return replaced.isEmpty() || base.find(owner).isEmpty()
                ? Optional.empty()
                : base.names().member(owner, name).filter(drafts::containsKey);
    }

    @Override
    public Optional<Element> find(ElementId id) {
        Draft draft = drafts.get(id);
        return draft != null ? Optional.of(draft.element()) : base.find(id);
    }

    @Override
    public @Nullable Names namesIn(ElementId owner) {
        return base.namesIn(owner);
    }

    @Override
    public List<Element> children(ElementId owner) {
        Draft draft = drafts.get(owner);
        return draft != null ? draft.elements() : joined(base.children(owner), addedTo.getOrDefault(owner, List.of()));
    }

    @Override
    public List<Element> roots() {
        return joined(base.roots(), addedRoots);
    }

    private List<Element> joined(List<Element> known, List<Element> added) {
        if (added.isEmpty() && replaced.isEmpty()) {
            return known;
        }
        List<Element> all = new ArrayList<>(known);
        all.removeIf(element -> replaced.contains(element.id()));
        all.addAll(added);
        return all;
    }

    @Override
    public List<ElementId> generals(Element element) {
        Draft draft = drafts.get(element.id());
        if (draft == null) {
            return base.generals(element);
        }
        Map<Property<?>, List<Reference>> generals = inherited.of(draft);
        ElementId around = generalAround(element);
        if (generals.isEmpty()) {
            return around == null ? List.of() : List.of(around);
        }
        List<ElementId> targets = new ArrayList<>(2);
        for (Property<?> property : DraftGenerals.PROPERTIES) {
            generals.getOrDefault(property, List.of()).forEach(reference -> targets.add(reference.target()));
        }
        generals.getOrDefault(Property.TARGET, List.of()).forEach(reference -> targets.add(reference.target()));
        generals.getOrDefault(Property.MARKS, List.of()).forEach(reference -> targets.add(reference.target()));
        if (around != null) {
            targets.add(around);
        }
        generals.getOrDefault(Property.VALUE, List.of()).forEach(reference -> targets.add(reference.target()));
        return targets;
    }

    /** What metadata names as its base type; see {@link Namespaces#generalByMark}. */
    Optional<ElementId> baseType(ElementId metadata) {
        return children(metadata).stream()
                .filter(child -> LibraryNames.BASE_TYPE.equals(names.effectiveName(child)))
                .flatMap(child -> baseType(child, metadata).stream())
                .findFirst();
    }

    private Optional<ElementId> baseType(Element child, ElementId metadata) {
        Draft draft = drafts.get(child.id());
        Optional<Expression> value = draft == null
                ? child.get(Property.VALUE).map(FeatureValue::expression)
                : draft.formulas.stream()
                        .filter(formula -> formula.property() == Property.VALUE)
                        .map(Draft.Formula::expression)
                        .findFirst();
        return value.filter(Expression.Classification.class::isInstance)
                .map(classification -> ((Expression.Classification) classification).operand())
                .filter(Expression.FeatureReference.class::isInstance)
                .map(Expression.FeatureReference.class::cast)
                // A parameter of an expression is no type.
                .filter(reference -> !(reference.chain().getFirst() instanceof Expression.Local))
                .flatMap(reference -> reference.last() instanceof ElementId id
                        ? Optional.of(id)
                        : chain(reference.chain(), metadata, reference.span(), (_, _) -> {})
                                .map(List::getLast));
    }

    @Override
    public boolean isSettled() {
        return isSettled;
    }

    @Override
    public boolean isSettled(Element element) {
        Draft draft = isSettled ? null : drafts.get(element.id());
        return draft == null || DraftGenerals.isKnown(draft);
    }

    @Override
    public List<ElementId> redefined(Element element) {
        Draft draft = drafts.get(element.id());
        return draft == null
                ? base.redefined(element)
                : inherited.of(draft).getOrDefault(Property.REDEFINES, List.of()).stream()
                        .map(Reference::target)
                        .toList();
    }

    @Override
    public Optional<ElementId> imported(Element importElement) {
        Draft draft = drafts.get(importElement.id());
        if (draft == null) {
            return base.imported(importElement);
        }
        Optional<ElementId> known = importedBy.putIfAbsent(importElement.id(), Optional.empty());
        if (known == null) {
            known = target(draft);
            importedBy.put(importElement.id(), known);
        }
        return known;
    }

    private Optional<ElementId> target(Draft draft) {
        if (draft.pending(Property.TARGET).isEmpty()) {
            return Optional.empty();
        }
        Name name = (Name) draft.pending(Property.TARGET).getFirst().chain().getFirst();
        ElementId owner = draft.element().owner();
        if (draft.kind == ElementKind.ALIAS) {
            return names.resolve(name, owner).or(() -> names.resolveFunction(name, owner));
        }
        Optional<ElementId> alias = "one".equals(draft.properties().get(Property.REACH))
                ? names.importedAlias(name, owner)
                : Optional.empty();
        return alias.or(() -> names.imported(name, owner)).or(() -> prefixedUnit(name, owner));
    }

    private Optional<ElementId> prefixedUnit(Name name, @Nullable ElementId owner) {
        return new PrefixedUnits(each -> names.imported(each, owner), this::find)
                .find(name)
                .map(PrefixedUnits.Found::unit);
    }

    @Override
    public @Nullable String inheritedName(Element element) {
        Draft draft = drafts.get(element.id());
        if (draft == null) {
            return base.inheritedName(element);
        }
        List<Draft.Pending> redefined = draft.pending(Property.REDEFINES);
        return redefined.isEmpty() ? null : redefined.getFirst().lastName();
    }
}
