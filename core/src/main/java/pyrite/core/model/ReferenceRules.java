package pyrite.core.model;

import static pyrite.core.model.ElementKind.*;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import pyrite.core.expression.Referent;

/**
 * The rules of the standard about what a reference may lead to, one row each, by the names that the standard gives them
 * (SysML 2.0, 8.3; KerML 1.0, 8.3).
 */
final class ReferenceRules {
    /**
     * A rule of the table.
     *
     * @param name the constraint in the standard
     * @param of the kind of elements it is about
     * @param says what the reference has to lead to, behind {@code "what is … "}
     */
    record Row(String name, ElementKind of, Property<Reference> property, String says, Predicate<ElementKind> allows) {}

    static final List<Row> TABLE = List.of(
            row("validatePerformActionUsageReference", PERFORM, "performed is an action", ACTION_DEFINITION),
            row("validateExhibitStateUsageReference", EXHIBIT, "exhibited is a state", STATE_DEFINITION),
            row(
                    "validateIncludeUseCaseUsageReference",
                    INCLUDED_USE_CASE,
                    "included is a use case",
                    USE_CASE_DEFINITION),
            row(
                    "validateAssertConstraintUsageReference",
                    ASSERTED_CONSTRAINT,
                    "asserted is a constraint",
                    CONSTRAINT_DEFINITION),
            row(
                    "validateRequirementConstraintMembership",
                    REQUIRED_CONSTRAINT,
                    "required is a constraint",
                    CONSTRAINT_DEFINITION),
            row(
                    "validateRequirementConstraintMembership",
                    ASSUMED_CONSTRAINT,
                    "assumed is a constraint",
                    CONSTRAINT_DEFINITION),
            row("validateFramedConcernMembership", FRAMED_CONCERN, "framed is a concern", CONCERN_DEFINITION),
            // Accept, send and the other actions without a keyword of their own are occurrences, too.
            new Row(
                    "validateEventOccurrenceUsageReference",
                    EVENT,
                    Property.TARGET,
                    "an event is an occurrence",
                    kind -> isA(kind, OCCURRENCE_DEFINITION)
                            || kind.isUsage() && kind.family() == ElementKind.Family.BEHAVIOR),
            row("validateViewRenderingMembership", VIEW_RENDERING, "rendered by is a rendering", RENDERING_DEFINITION),
            new Row(
                    "validateSatisfyRequirementUsage",
                    SATISFACTION,
                    Property.BY,
                    "satisfies is a usage",
                    ElementKind::isFeature),
            feature("checkConnectorTypeFeaturing", CONNECTOR_END, Property.TARGET, "connected is a usage"),
            feature("checkConnectorTypeFeaturing", BINDING, Property.LEFT, "bound is a usage"),
            feature("checkConnectorTypeFeaturing", BINDING, Property.RIGHT, "bound is a usage"),
            feature("checkConnectorTypeFeaturing", FLOW, Property.SOURCE, "flows come from is a usage"),
            feature("checkConnectorTypeFeaturing", FLOW, Property.TARGET, "flows lead to is a usage"),
            feature("checkConnectorTypeFeaturing", MESSAGE, Property.SOURCE, "messages come from is a usage"),
            feature("checkConnectorTypeFeaturing", MESSAGE, Property.TARGET, "messages lead to is a usage"),
            feature("validateAssignmentActionUsageReferent", ASSIGNMENT, Property.TARGET, "assigned to is a usage"));

    /** The references that lead to features of what stands around, as names in expressions do. */
    private static final List<Property<Reference>> FEATURES =
            List.of(Property.LEFT, Property.RIGHT, Property.SOURCE, Property.BY);

    private final Model model;

    ReferenceRules(Model model) {
        this.model = model;
    }

    private static Row row(String name, ElementKind of, String says, ElementKind definition) {
        return new Row(name, of, Property.TARGET, says, kind -> isA(kind, definition));
    }

    private static Row feature(String name, ElementKind of, Property<Reference> property, String says) {
        return new Row(name, of, property, says, ElementKind::isFeature);
    }

    /** Whether usages of a kind are typed by definitions of another, or of a special case of it; references may be. */
    static boolean isA(ElementKind usage, ElementKind definition) {
        if (usage == REFERENCE || usage == SUBJECT) {
            return true;
        }
        boolean step = definition == ACTION_DEFINITION && usage.body() == Body.ACTION && usage.isUsage();
        for (ElementKind at = usage.definition(); at != null && !step; at = at.general()) {
            if (at == definition) {
                return true;
            }
        }
        return step;
    }

    static boolean isData(ElementKind definition) {
        return definition == ATTRIBUTE_DEFINITION || definition == ENUMERATION_DEFINITION;
    }

    private static final Map<ElementKind, List<Row>> BY_KIND = TABLE.stream()
            .collect(Collectors.groupingBy(Row::of, () -> new EnumMap<>(ElementKind.class), Collectors.toList()));

    /** What is wrong with the references of an element. */
    List<Problem> of(Element element) {
        List<Row> rows = BY_KIND.get(element.kind());
        return rows == null
                ? List.of()
                : rows.stream().flatMap(row -> violation(row, element).stream()).toList();
    }

    private Optional<Problem> violation(Row row, Element element) {
        return element.get(row.property)
                .map(reference -> model.get(reference.target()))
                .filter(target -> !row.allows.test(target.kind()))
                .map(target -> Problem.at(
                        element,
                        row.property,
                        "what is " + row.says + ", but '" + name(target) + "' is "
                                + target.kind().titleWithArticle()));
    }

    /**
     * A feature of a type is reached from within that type or along a chain of features, not by a path through the type
     * (KerML 8.3.3.3, checkFeatureReferenceExpression… and checkConnectorTypeFeaturing).
     */
    List<Problem> reach(Element element) {
        // An allocation says something of definitions: it is meant for what every instance of them has.
        boolean connected = element.kind() == CONNECTOR_END
                && element.owner() != null
                && model.get(element.owner()).kind() != ALLOCATION;
        List<Property<Reference>> properties = connected ? List.of(Property.TARGET) : FEATURES;
        if (!hasAny(element, properties)) {
            return List.of();
        }
        return properties.stream()
                .flatMap(property -> element.get(property).stream()
                        .flatMap(reference -> unreachable(reference.chain(), element).stream()
                                .map(message -> Problem.at(element, property, message))))
                .toList();
    }

    private static boolean hasAny(Element element, List<Property<Reference>> properties) {
        for (int i = 0; i < properties.size(); i++) {
            if (element.properties().containsKey(properties.get(i))) {
                return true;
            }
        }
        return false;
    }

    /** What is wrong with the way to a feature from an element; empty if nothing is. */
    Optional<String> unreachable(List<? extends Referent> chain, Element from) {
        if (!(chain.getFirst() instanceof ElementId first)) {
            return Optional.empty();
        }
        Element feature = model.get(first);
        if (chain.size() > 1 && feature.kind().isDefinition()) {
            return Optional.of("'" + name(feature) + "' is a definition and has no features of its own to reach; "
                    + "begin with a usage of it");
        }
        Element owner = feature.owner() == null ? null : model.get(feature.owner());
        if (owner == null || !belongsToEach(feature, owner) || isWithin(from, owner, feature)) {
            return Optional.empty();
        }
        return Optional.of(
                owner.kind().isDefinition()
                        ? "'" + name(feature) + "' is a feature of '" + name(owner)
                                + "', of which there may be several; name it along a usage, as in 'usage."
                                + name(feature)
                                + "'"
                        : "'" + name(feature) + "' is reached along its owner: write '" + name(owner) + "."
                                + name(feature) + "'");
    }

    /** Whether every instance of the owner has one of its own: not so values of enumerations, variants and members. */
    private static boolean belongsToEach(Element feature, Element owner) {
        return feature.kind().isUsage()
                && !owner.kind().isPackage()
                && owner.kind() != ENUMERATION_DEFINITION
                && owner.kind() != METADATA
                && feature.kind() != ENUMERATION
                && !feature.get(Property.VARIANT).orElse(false);
    }

    private boolean isWithin(Element from, Element type, Element feature) {
        for (Element at = from; at != null; at = at.owner() == null ? null : model.get(at.owner())) {
            if (at.equals(type)
                    || model.inheritance().isA(at, type.id())
                    || model.inheritance().implies(at, feature)) {
                return true;
            }
        }
        return false;
    }

    private String name(Element element) {
        String name = model.names().effectiveName(element);
        return name == null ? "the " + element.kind().title() : name;
    }
}
