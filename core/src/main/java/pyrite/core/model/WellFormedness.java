package pyrite.core.model;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Type;

/**
 * The rules that every model keeps, one method per rule. All violations are collected; each names the element at fault.
 */
public final class WellFormedness {
    /**
     * So many elements are checked in one go: enough to be worth handing to another processor, and more than the
     * library has, which is read on one thread.
     */
    private static final int SLICE = 4000;

    private final Model model;
    private final List<Problem> problems = new ArrayList<>();
    private final ExpressionRules expressions;
    private final ProblemNames names;
    private final ReferenceRules references;
    private final MemberRules membership;
    /** What the element just looked at refers to; one list for all. */
    private final List<ElementId> targets = new ArrayList<>();

    private final Consumer<ElementId> toTargets = targets::add;

    private WellFormedness(Model model) {
        this.model = model;
        this.references = new ReferenceRules(model);
        this.names = new ProblemNames(model);
        this.membership = new MemberRules(model);
        this.expressions = new ExpressionRules(model, references, problems);
    }

    /**
     * Checks the given elements of a snapshot, each on its own and so on all processors; problems come in the order of
     * the elements.
     */
    public static List<Problem> check(Model model, Collection<Element> elements) {
        List<Problem> problems = new ArrayList<>();
        slices(List.copyOf(elements))
                .parallel()
                .map(slice -> {
                    WellFormedness rules = new WellFormedness(model);
                    slice.forEach(rules::checkWithMembers);
                    return rules.problems;
                })
                .toList()
                .forEach(problems::addAll);
        WellFormedness top = new WellFormedness(model);
        top.namesAreUnique(model.ownRoots());
        problems.addAll(top.problems);
        return List.copyOf(problems);
    }

    /**
     * What is wrong with the expressions of elements that are known to be faulty otherwise. Expressions with names that
     * lead nowhere are left out, and so are types that are not known: nothing is reported that may only follow from
     * another fault.
     */
    static List<Problem> checkExpressions(Model model, Collection<Element> elements) {
        WellFormedness rules = new WellFormedness(model);
        elements.stream()
                .filter(element -> rules.expressionsOf(element).allMatch(WellFormedness::isResolved))
                .forEach(rules.expressions::fit);
        return rules.problems;
    }

    private Stream<Expression> expressionsOf(Element element) {
        return Stream.concat(
                element.get(Property.VALUE).map(FeatureValue::expression).stream(),
                element.get(Property.RESULT).stream());
    }

    private static boolean isResolved(Expression expression) {
        return expression.referents().stream().noneMatch(Name.class::isInstance);
    }

    private static <T> Stream<List<T>> slices(List<T> all) {
        return IntStream.rangeClosed(0, (all.size() - 1) / SLICE)
                .mapToObj(i -> all.subList(i * SLICE, Math.min(all.size(), (i + 1) * SLICE)));
    }

    private void checkWithMembers(Element element) {
        Map<String, Element> members = namesAreUnique(model.children(element.id()));
        if (ownerExistsAndMayOwn(element)) {
            checkElement(element, members);
        }
    }

    private void checkElement(Element element, Map<String, Element> members) {
        propertiesFit(element);
        TextRules.check(element).ifPresent(problems::add);
        if (referencesExist(element) && specializationHasNoCircle(element)) {
            generalsFit(element);
            multiplicityNarrows(element);
            nothingIsShadowed(element, members);
            problems.addAll(membership.of(element));
            redefinesSomethingInherited(element);
            redefinitionStaysOfItsKind(element);
            relationEndsFit(element);
            expressions.fit(element);
        }
    }

    private boolean ownerExistsAndMayOwn(Element element) {
        if (element.owner() == null) {
            return require(
                    ElementKind.PACKAGE.mayOwn(element.kind()),
                    element,
                    () -> "at the top stands what a package may own, which "
                            + element.kind().titleWithArticle() + " is not");
        }
        Element owner = model.find(element.owner()).orElse(null);
        if (owner == null) {
            problems.add(Problem.of(element, "its owner does not exist"));
            return false;
        }
        return require(
                owner.kind().mayOwn(element.kind()),
                element,
                () -> owner.kind().titleWithArticle() + " cannot own "
                        + element.kind().titleWithArticle());
    }

    private void propertiesFit(Element element) {
        PropertyMap properties = (PropertyMap) element.properties();
        for (int i = 0; i < properties.size(); i++) {
            Property<?> property = properties.key(i);
            if (!element.kind().takes(property)) {
                problems.add(Problem.at(
                        element,
                        property,
                        element.kind().titleWithArticle() + " has no " + property.key()
                                + (property == Property.TYPES && element.kind().isDefinition()
                                        ? "; a definition specialises another one with ':>'"
                                        : "")));
            }
        }
    }

    private boolean referencesExist(Element element) {
        targets.clear();
        element.forEachTarget(toTargets);
        boolean exist = true;
        for (int i = 0; i < targets.size(); i++) {
            exist &= model.has(targets.get(i));
        }
        return require(exist, element, () -> "refers to something that no longer exists");
    }

    private boolean specializationHasNoCircle(Element element) {
        boolean circle = false;
        List<ElementId> generals = model.generals(element);
        for (int i = 0; i < generals.size(); i++) {
            Element general = model.isLibrary(generals.get(i)) ? null : model.get(generals.get(i));
            circle |= general != null && model.inheritance().generals(general).contains(element);
        }
        return require(!circle, element, () -> names.of(element) + " specialises itself, directly or in a circle");
    }

    private void generalsFit(Element element) {
        List<Reference> types = element.references(Property.TYPES);
        for (int i = 0; i < types.size(); i++) {
            typeFits(element, model.get(types.get(i).target()));
        }
        List<Reference> specialized = element.references(Property.SPECIALIZES);
        for (int i = 0; i < specialized.size(); i++) {
            Element general = model.get(specialized.get(i).target());
            if (element.kind().isDefinition() && !general.kind().isDefinition()) {
                at(
                        element,
                        Property.SPECIALIZES,
                        "a definition specialises a definition, but " + names.of(general) + " is "
                                + (general.kind().isUsage()
                                        ? "a usage"
                                        : general.kind().titleWithArticle()));
            } else if (element.kind().isDefinition()) {
                definitionsFit(element, general);
            }
            if (!element.kind().isDefinition() && !general.kind().isFeature()) {
                at(
                        element,
                        Property.SPECIALIZES,
                        "a usage subsets a usage, but " + names.of(general)
                                + (general.kind().isDefinition()
                                        ? " is a definition; use : to type by it"
                                        : " is " + general.kind().titleWithArticle()));
            }
        }
    }

    /** Data and what exists in time have nothing in common; the values of an enumeration are all there are. */
    private void definitionsFit(Element element, Element general) {
        boolean marked =
                element.kind() == ElementKind.MARKED_DEFINITION || general.kind() == ElementKind.MARKED_DEFINITION;
        if (!marked && ReferenceRules.isData(element.kind()) != ReferenceRules.isData(general.kind())) {
            at(
                    element,
                    Property.SPECIALIZES,
                    "data and what exists in time have nothing in common: "
                            + element.kind().titleWithArticle() + " cannot specialise "
                            + general.kind().titleWithArticle());
        }
        if (general.kind() == ElementKind.ENUMERATION_DEFINITION
                && element.kind() == ElementKind.ENUMERATION_DEFINITION) {
            at(
                    element,
                    Property.SPECIALIZES,
                    "the values of " + names.of(general)
                            + " are all there are; an enumeration cannot specialise another one");
        }
    }

    private void conjugationFits(Element element, Element type) {
        boolean conjugated = element.get(Property.CONJUGATED).orElse(false)
                || element.references(Property.CONJUGATES).stream()
                        .anyMatch(reference -> reference.target().equals(type.id()));
        if (conjugated && type.kind().isDefinition() && type.kind() != ElementKind.PORT_DEFINITION) {
            at(
                    element,
                    Property.TYPES,
                    "'~' conjugates a port definition, but " + names.of(type) + " is "
                            + type.kind().titleWithArticle());
        }
    }

    private void typeFits(Element element, Element type) {
        conjugationFits(element, type);
        if (!type.kind().isDefinition()) {
            at(
                    element,
                    Property.TYPES,
                    "a type is a definition, but " + names.of(type) + " is "
                            + type.kind().titleWithArticle() + "; use :> to subset it");
            return;
        }
        for (Element general : model.inheritance().generals(type)) {
            if (mayHaveType(element.kind(), general.kind())) {
                return;
            }
        }
        at(
                element,
                Property.TYPES,
                element.kind().titleWithArticle() + " cannot be typed by "
                        + type.kind().titleWithArticle());
    }

    /** A usage is typed by definitions of its kind or of a special case of it; one without a kind of its own by any. */
    private static boolean mayHaveType(ElementKind usage, ElementKind definition) {
        ElementKind requested = usage.definition();
        if (requested == null) {
            return true;
        }
        for (ElementKind at = definition; at != null; at = at.general()) {
            if (at == requested) {
                return true;
            }
        }
        return false;
    }

    /** What redefines or subsets stays within the multiplicity it narrows (KerML 8.3.3.1.9). */
    private void multiplicityNarrows(Element element) {
        Multiplicity own = element.get(Property.MULTIPLICITY).orElse(null);
        if (own == null) {
            return;
        }
        for (Reference redefined : element.references(Property.REDEFINES)) {
            narrows(element, own, model.get(redefined.target()), true);
        }
        for (Reference subset : element.references(Property.SPECIALIZES)) {
            narrows(element, own, model.get(subset.target()), false);
        }
    }

    private void narrows(Element element, Multiplicity own, Element general, boolean redefines) {
        Multiplicity wide =
                model.inheritance().nearest(general, Property.MULTIPLICITY).orElse(null);
        if (wide != null && (!own.isAtMost(wide) || redefines && own.lower() < wide.lower())) {
            at(
                    element,
                    Property.MULTIPLICITY,
                    "[" + own + "] is not within [" + wide + "] of " + names.of(general) + ", which "
                            + (redefines ? "it redefines" : "it subsets"));
        }
    }

    /** A member that goes by the name of an inherited one either redefines it or has another name. */
    private void nothingIsShadowed(Element element, Map<String, Element> members) {
        List<Element> generals =
                members.isEmpty() ? List.of() : model.inheritance().generals(element);
        Set<String> met = new HashSet<>(0);
        for (int i = 1; i < generals.size(); i++) {
            for (Element inherited : model.children(generals.get(i).id())) {
                String name = inherited.name();
                if (name == null || Names.isPrivate(inherited)) {
                    continue;
                }
                Element member = members.get(name);
                if (member != null
                        && member.kind().isUsage()
                        && inherited.kind().isUsage()
                        && name.equals(member.name())
                        && met.add(name)) {
                    isNotShadowed(inherited, element, member);
                }
            }
        }
    }

    private void isNotShadowed(Element inherited, Element by, Element member) {
        if (!model.inheritance().redefined(member).contains(inherited)
                && model.inheritance().features(by).contains(inherited)) {
            problems.add(Problem.of(
                    member,
                    "'" + member.name() + "' is inherited from "
                            + names.of(model.get(Objects.requireNonNull(inherited.owner()))) + " already; write ':>> "
                            + member.name() + "' to redefine it, or give it another name"));
        }
    }

    private void redefinesSomethingInherited(Element element) {
        if (element.owner() == null || element.references(Property.REDEFINES).isEmpty()) {
            return;
        }
        Element owner = model.get(element.owner());
        for (Reference reference : element.references(Property.REDEFINES)) {
            Element redefined = model.get(reference.target());
            if (!isInherited(redefined, owner) && !model.inheritance().implies(owner, redefined)) {
                at(
                        element,
                        Property.REDEFINES,
                        names.of(redefined) + " is not inherited by " + names.of(owner)
                                + ", so it cannot be redefined there");
            }
        }
    }

    /** What redefines a feature takes its place: it is of its kind and has its direction (KerML 8.3.3.3.7). */
    private void redefinitionStaysOfItsKind(Element element) {
        for (Reference reference : element.references(Property.REDEFINES)) {
            Element redefined = model.get(reference.target());
            if (!mayTakeThePlaceOf(element.kind(), redefined.kind())) {
                at(
                        element,
                        Property.REDEFINES,
                        element.kind().titleWithArticle() + " cannot redefine " + names.of(redefined) + ", which is "
                                + redefined.kind().titleWithArticle());
            }
            String direction = element.get(Property.DIRECTION).orElse(null);
            String before =
                    model.inheritance().nearest(redefined, Property.DIRECTION).orElse(null);
            if (direction != null && before != null && !direction.equals(before) && !before.equals("inout")) {
                at(
                        element,
                        Property.REDEFINES,
                        names.of(redefined) + " has the direction '" + before + "', which stays; it cannot be '"
                                + direction + "' here");
            }
        }
    }

    /**
     * Data and what exists in time have nothing in common; else a usage may be of a special case of the other's kind.
     */
    private static boolean mayTakeThePlaceOf(ElementKind kind, ElementKind redefined) {
        ElementKind requested = redefined.definition();
        ElementKind own = kind.definition();
        if (requested == null || own == null) {
            return true;
        }
        boolean data = ReferenceRules.isData(requested);
        return data == ReferenceRules.isData(own)
                && (data || ReferenceRules.isA(kind, requested) || ReferenceRules.isA(redefined, own));
    }

    private boolean isInherited(Element feature, Element by) {
        for (Element general : model.inheritance().generals(by)) {
            if (general.id().equals(feature.owner()) && general != by) {
                return true;
            }
        }
        return false;
    }

    private void relationEndsFit(Element element) {
        Element target =
                element.get(Property.TARGET).map(r -> model.get(r.target())).orElse(null);
        if (target != null
                && (element.kind() == ElementKind.SATISFACTION || element.kind() == ElementKind.VERIFIED_REQUIREMENT)) {
            require(
                    target.kind().isSatisfiable(),
                    element,
                    () -> "what is "
                            + (element.kind() == ElementKind.SATISFACTION ? "satisfied" : "verified")
                            + " is a requirement, but "
                            + names.of(target) + " is " + target.kind().titleWithArticle());
        }
        problems.addAll(references.of(element));
        problems.addAll(references.reach(element));
        if (element.kind() == ElementKind.BINDING) {
            bothEndsHaveTheSameType(element);
        }
        if (element.kind() == ElementKind.SUCCESSION || element.kind() == ElementKind.TRANSITION) {
            isStep(element, Property.SOURCE);
            isStep(element, Property.TARGET);
        }
    }

    /** Steps follow steps: what begins and ends in time, which attributes, definitions and packages do not. */
    private void isStep(Element element, Property<Reference> property) {
        Element end = element.get(property).map(r -> model.get(r.target())).orElse(null);
        if (end == null) {
            return;
        }
        boolean fits =
                end.kind().isUsage() && end.kind() != ElementKind.ATTRIBUTE && end.kind() != ElementKind.ENUMERATION;
        if (!fits) {
            at(
                    element,
                    property,
                    "a " + element.kind().title() + " joins steps such as actions or states, but " + names.of(end)
                            + " is " + end.kind().titleWithArticle());
        }
    }

    private void bothEndsHaveTheSameType(Element binding) {
        Type left = binding.get(Property.LEFT)
                .map(r -> model.environment().typeOf(r.target()))
                .orElse(Type.UNKNOWN);
        Type right = binding.get(Property.RIGHT)
                .map(r -> model.environment().typeOf(r.target()))
                .orElse(Type.UNKNOWN);
        boolean fit = left instanceof Type.Unknown
                || right instanceof Type.Unknown
                || left instanceof Type.Thing && right instanceof Type.Thing
                || left.equals(right);
        require(fit, binding, () -> left + " and " + right + " cannot be bound");
    }

    /** The siblings by their names. */
    private Map<String, Element> namesAreUnique(List<Element> siblings) {
        if (siblings.isEmpty()) {
            return Map.of();
        }
        Map<String, Element> taken = HashMap.newHashMap(siblings.size());
        for (Element element : siblings) {
            String name = model.names().effectiveName(element);
            isFree(element.shortName(), element, taken);
            if (!Objects.equals(name, element.shortName())) {
                isFree(name, element, taken);
            }
        }
        return taken;
    }

    private void isFree(@Nullable String name, Element element, Map<String, Element> taken) {
        Element first = name == null ? null : taken.putIfAbsent(name, element);
        if (first != null) {
            problems.add(Problem.of(
                    element,
                    "the name '" + name + "' is already taken by "
                            + first.kind().titleWithArticle() + " beside it"));
        }
    }

    private boolean require(boolean holds, Element element, Supplier<String> message) {
        if (!holds) {
            problems.add(Problem.of(element, message.get()));
        }
        return holds;
    }

    private void at(Element element, Property<?> property, String message) {
        problems.add(Problem.at(element, property, message));
    }
}
