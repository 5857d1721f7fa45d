package pyrite.core.exchange;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;

/**
 * Elements as JSON objects of the Systems Modeling API (OMG Systems Modeling API and Services 1.0, clause 7), in the
 * form of maps, lists, strings, numbers and booleans. Metaclasses and attributes have the standard's names. Where the
 * standard has a separate element for something that Pyrite keeps as a property (a specialisation, a multiplicity, an
 * expression), the property appears under the standard's name for that end, expressions in the textual notation.
 */
public final class ElementJson {
    public static final String ID = "@id";
    static final String TYPE = "@type";
    static final String MEMBERSHIP = "owningMembership";
    /** What follows from the rest; it is written, and not looked at when it is read. */
    static final Set<String> DERIVED =
            Set.of(ID, "elementId", "name", "shortName", "qualifiedName", "ownedElement", "documentation");
    /** Attributes that the standard calls otherwise than Pyrite. */
    private static final Map<Property<?>, String> NAMES = Map.ofEntries(
            Map.entry(Property.TYPES, "type"),
            Map.entry(Property.CONJUGATED, "isConjugated"),
            Map.entry(Property.SPECIALIZES, "general"),
            Map.entry(Property.REDEFINES, "redefinedFeature"),
            Map.entry(Property.REFERS, "referencedFeature"),
            Map.entry(Property.CROSSES, "crossedFeature"),
            Map.entry(Property.ABSTRACT, "isAbstract"),
            Map.entry(Property.VARIATION, "isVariation"),
            Map.entry(Property.VARIANT, "isVariant"),
            Map.entry(Property.DERIVED, "isDerived"),
            Map.entry(Property.END, "isEnd"),
            Map.entry(Property.REFERENTIAL, "isReference"),
            Map.entry(Property.INDIVIDUAL, "isIndividual"),
            Map.entry(Property.PORTION, "portionKind"),
            Map.entry(Property.ORDERED, "isOrdered"),
            Map.entry(Property.NONUNIQUE, "isNonunique"),
            Map.entry(Property.PARALLEL, "isParallel"),
            Map.entry(Property.NEGATED, "isNegated"),
            Map.entry(Property.STANDARD, "isStandard"),
            Map.entry(Property.ALL, "isImportAll"),
            Map.entry(Property.TEXT, "body"),
            Map.entry(Property.ABOUT, "annotatedElement"),
            Map.entry(Property.BY, "satisfyingFeature"),
            Map.entry(Property.CLIENTS, "client"),
            Map.entry(Property.SUPPLIERS, "supplier"));

    private static final Map<String, Property<?>> BY_NAME = byName();

    private final Model model;

    public ElementJson(Model model) {
        this.model = model;
    }

    static String nameOf(Property<?> property) {
        return NAMES.getOrDefault(property, property.key());
    }

    static @Nullable Property<?> withName(String name) {
        return BY_NAME.get(name);
    }

    private static Map<String, Property<?>> byName() {
        Map<String, Property<?>> all = new HashMap<>(Property.all().stream()
                .filter(property -> !NAMES.containsKey(property))
                .collect(Collectors.toMap(Property::key, Function.identity())));
        NAMES.forEach((property, name) -> all.put(name, property));
        return Map.copyOf(all);
    }

    /** {@code {"@id": …}}. */
    public static Map<String, Object> reference(ElementId id) {
        return Map.of(ID, id.toString());
    }

    /** An element with all that is its own and what follows from where it stands. */
    public Map<String, @Nullable Object> write(Element element) {
        Map<String, @Nullable Object> json = new LinkedHashMap<>();
        Metaclass metaclass = Metaclass.of(element.kind());
        json.put(ID, element.id().toString());
        json.put(TYPE, metaclass.type());
        json.put("elementId", element.id().toString());
        json.put("owner", element.owner() == null ? null : reference(element.owner()));
        if (metaclass.membership() != null) {
            json.put(
                    MEMBERSHIP,
                    metaclass.role() == null
                            ? Map.of(TYPE, metaclass.membership())
                            : Map.of(TYPE, metaclass.membership(), "kind", metaclass.role()));
        }
        json.put("declaredName", element.name());
        json.put("declaredShortName", element.shortName());
        json.put("name", model.names().effectiveName(element));
        json.put("shortName", element.shortName());
        json.put("qualifiedName", model.names().qualifiedName(element));
        element.properties().forEach((property, value) -> json.put(nameOf(property), write(element, property, value)));
        List<Element> owned = model.children(element.id());
        json.put(
                "ownedElement",
                owned.stream().map(child -> reference(child.id())).toList());
        json.put(
                "documentation",
                owned.stream()
                        .filter(child -> child.kind() == ElementKind.DOCUMENTATION)
                        .map(child -> reference(child.id()))
                        .toList());
        return json;
    }

    private Object write(Element element, Property<?> property, Object value) {
        return switch (property.shape()) {
            case TEXT, CHOICE, FLAG -> value;
            case REFERENCE -> write((Reference) value);
            case REFERENCES ->
                ((List<?>) value)
                        .stream().map(reference -> write((Reference) reference)).toList();
            case EXPRESSION -> text(element, property, (Expression) value);
            case VALUE -> {
                FeatureValue featureValue = (FeatureValue) value;
                yield Map.of(
                        "isInitial",
                        featureValue.kind().isInitial(),
                        "isDefault",
                        isDefault(featureValue.kind()),
                        "expression",
                        text(element, property, featureValue.expression()));
            }
            case MULTIPLICITY -> {
                Multiplicity multiplicity = (Multiplicity) value;
                yield Map.of(
                        "lowerBound",
                        multiplicity.lower(),
                        "upperBound",
                        multiplicity.upper() == Multiplicity.MANY ? "*" : multiplicity.upper());
            }
        };
    }

    static boolean isDefault(FeatureValue.Kind kind) {
        return kind == FeatureValue.Kind.DEFAULT || kind == FeatureValue.Kind.DEFAULT_INITIAL;
    }

    /** A chain of features is the last of them with the way to it. */
    private static Map<String, Object> write(Reference reference) {
        return reference.chain().size() == 1
                ? reference(reference.target())
                : Map.of(
                        ID,
                        reference.target().toString(),
                        "chainingFeature",
                        reference.chain().stream().map(ElementJson::reference).toList());
    }

    private String text(Element element, Property<?> property, Expression expression) {
        return NotationWriter.expression(model, expression, scope(model, element, property));
    }

    /** Where the names in an expression are looked up: in the element for what it comes to, else where it stands. */
    static @Nullable ElementId scope(Model model, Element element, Property<?> property) {
        return property == Property.VALUE || property == Property.BOUNDS ? element.owner() : element.id();
    }

    /** The attributes that an element of its kind can be written with, in the order of their names. */
    static List<String> attributes(Element element) {
        List<String> names = new ArrayList<>(List.of("declaredName", "declaredShortName", "owner"));
        Property.all().stream()
                .filter(element.kind()::takes)
                .map(ElementJson::nameOf)
                .sorted()
                .forEach(names::add);
        return names;
    }
}
