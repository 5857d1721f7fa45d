package pyrite.core.specification;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.ExplainedException;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.BooleanLiteral;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Span;
import pyrite.core.expression.Type;
import pyrite.core.expression.Unit;
import pyrite.core.expression.Value;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;

/**
 * The requirement attributes of one snapshot. Values are read and written as text: the name of a choice, a number with
 * its unit in the notation, {@code yes} or {@code no}, a date as in ISO 8601.
 */
public final class Attributes {
    public static final String STATUS = "status";

    private static final ElementId DATE = LibraryNames.id("Specifications::Date");
    private static final ElementId PERSON = LibraryNames.id("Specifications::Person");

    private final Model model;
    private final Map<ElementId, List<Attribute>> known = new ConcurrentHashMap<>();
    private final Map<ElementId, ElementId> definitions = new ConcurrentHashMap<>();
    private final List<ElementId> kinds;

    /** The attributes of a snapshot, known once they were asked for. */
    public static Attributes in(Model model) {
        return model.derived(Attributes.class, Attributes::new);
    }

    private Attributes(Model model) {
        this.model = model;
        this.kinds = List.copyOf(Metadata.withSpecialisations(model, Metadata.MANAGED));
    }

    /** A text is not a value of its attribute; the message says what would be. */
    public static final class ValueFault extends ExplainedException {
        private static final long serialVersionUID = 1;

        ValueFault(String message) {
            super(message, null, false, false);
        }
    }

    /**
     * The attributes a requirement has or can be given: those of its own metadata, or of the project's definition where
     * that has more.
     */
    public List<Attribute> of(Element requirement) {
        return ofDefinition(metadata(requirement)
                .map(metadata -> widest(type(metadata), requirement))
                .orElseGet(() -> definitionFor(requirement)));
    }

    /**
     * The project's definition where it specialises what the metadata is of; so attributes that come later are offered
     * everywhere.
     */
    private ElementId widest(ElementId type, Element requirement) {
        ElementId definition = definitionFor(requirement);
        return !type.equals(definition) && model.inheritance().isA(model.get(definition), type) ? definition : type;
    }

    /** All attributes of all definitions in the project, each once by name. */
    public List<Attribute> all() {
        List<Attribute> all = new ArrayList<>(ofDefinition(Metadata.MANAGED));
        kinds.stream()
                .flatMap(each -> ofDefinition(each).stream())
                .filter(each -> all.stream().noneMatch(other -> other.name().equals(each.name())))
                .forEach(all::add);
        return all;
    }

    public Optional<Attribute> named(Element requirement, String name) {
        return of(requirement).stream().filter(each -> each.name().equals(name)).findFirst();
    }

    private List<Attribute> ofDefinition(ElementId definition) {
        return known.computeIfAbsent(
                definition,
                id -> model.inheritance().features(model.get(id)).stream()
                        .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE)
                        .map(this::attribute)
                        .toList());
    }

    private Optional<Element> metadata(Element requirement) {
        return Metadata.of(model, requirement, Metadata.MANAGED);
    }

    private static ElementId type(Element metadata) {
        return metadata.references(Property.TYPES).getFirst().target();
    }

    /**
     * The definition whose attributes a requirement without any gets: one that a package around it owns, else one that
     * the project has, else the library's.
     */
    private ElementId definitionFor(Element requirement) {
        return definitions.computeIfAbsent(Objects.requireNonNullElse(requirement.owner(), requirement.id()), _ -> {
            List<Element> own = kinds.stream()
                    .filter(id -> !model.isLibrary(id))
                    .map(model::get)
                    .toList();
            List<ElementId> around =
                    model.owners(requirement).stream().map(Element::id).toList();
            return own.stream()
                    .filter(each -> each.owner() != null && around.contains(each.owner()))
                    .findFirst()
                    .or(() -> own.stream().findFirst())
                    .map(Element::id)
                    .orElse(Metadata.MANAGED);
        });
    }

    private Attribute attribute(Element feature) {
        List<Attribute.Choice> choices = choices(feature);
        Type type = model.environment().typeOf(feature.id());
        Attribute.Type kind = !choices.isEmpty()
                ? Attribute.Type.CHOICE
                : isOf(feature, DATE)
                        ? Attribute.Type.DATE
                        : isOf(feature, PERSON)
                                ? Attribute.Type.PERSON
                                : type instanceof Type.Truth
                                        ? Attribute.Type.TRUTH
                                        : type instanceof Type.Number ? Attribute.Type.NUMBER : Attribute.Type.TEXT;
        String unit = kind == Attribute.Type.NUMBER
                ? new DisplayUnits(model).of(feature).symbol()
                : "";
        String byDefault = model.inheritance()
                .value(feature)
                .map(value -> text(feature, value.expression()))
                .orElse("");
        return new Attribute(
                feature,
                Objects.requireNonNull(model.names().effectiveName(feature)),
                kind,
                byDefault.isEmpty() && model.inheritance().multiplicity(feature).lower() > 0,
                choices,
                unit,
                byDefault);
    }

    private boolean isOf(Element feature, ElementId type) {
        return model.inheritance().generals(feature).stream()
                .flatMap(each -> each.references(Property.TYPES).stream())
                .anyMatch(each ->
                        each.target().equals(type) || model.inheritance().isA(model.get(each.target()), type));
    }

    private List<Attribute.Choice> choices(Element feature) {
        return model.inheritance().generals(feature).stream()
                .flatMap(each -> each.references(Property.TYPES).stream())
                .map(type -> model.get(type.target()))
                .filter(type -> type.kind() == ElementKind.ENUMERATION_DEFINITION)
                .findFirst()
                .map(type -> model.children(type.id()).stream()
                        .filter(child -> child.kind() == ElementKind.ENUMERATION)
                        .map(child -> new Attribute.Choice(
                                child, Objects.requireNonNull(model.names().effectiveName(child))))
                        .toList())
                .orElse(List.of());
    }

    /** What a requirement has for an attribute, or what holds by default; empty if nothing is given. */
    public String value(Element requirement, Attribute attribute) {
        return given(requirement, attribute).orElse(attribute.byDefault());
    }

    /** The value of an attribute by name; empty also where the requirement has no such attribute. */
    public String value(Element requirement, String attribute) {
        return named(requirement, attribute)
                .map(each -> value(requirement, each))
                .orElse("");
    }

    private Optional<String> given(Element requirement, Attribute attribute) {
        return expression(requirement, attribute).map(expression -> text(attribute.feature(), expression));
    }

    private Optional<Expression> expression(Element requirement, Attribute attribute) {
        return metadata(requirement)
                .flatMap(metadata -> Metadata.ownFeature(model, metadata, attribute.name()))
                .flatMap(feature -> feature.get(Property.VALUE))
                .map(FeatureValue::expression);
    }

    /**
     * The number a requirement has for an attribute, in the coherent SI unit; empty where none is given or where it
     * would have to be computed.
     */
    public OptionalDouble magnitude(Element requirement, String attribute) {
        return named(requirement, attribute)
                .flatMap(each -> expression(requirement, each)
                        .or(() -> model.inheritance().value(each.feature()).map(FeatureValue::expression)))
                .flatMap(written -> Magnitudes.of(written, Unit.ONE, model.environment()))
                .map(number -> OptionalDouble.of(number.si()))
                .orElse(OptionalDouble.empty());
    }

    /**
     * A number to compare the values of an attribute with, in the coherent SI unit; one without a unit is in the
     * attribute's.
     *
     * @throws ValueFault if the text is no number of the attribute's dimension
     */
    double limit(Attribute attribute, String text) {
        Unit shown = new DisplayUnits(model).of(attribute.feature()).unit();
        return Magnitudes.of(number(attribute, text), shown, model.environment())
                .filter(number -> number.dimension().equals(shown.dimension()))
                .map(Value.Amount::si)
                .orElseThrow(() -> new ValueFault("'" + text + "' is no number to compare " + attribute.name()
                        + " with; for instance " + example(attribute)));
    }

    private String text(Element feature, Expression expression) {
        return switch (expression) {
            case StringLiteral literal -> literal.text();
            case BooleanLiteral literal -> literal.value() ? "yes" : "no";
            case FeatureReference reference
            when reference.chain().getLast() instanceof ElementId id && model.has(id) ->
                Objects.requireNonNullElse(model.names().effectiveName(model.get(id)), "");
            default -> NotationWriter.expression(model, expression, feature.id());
        };
    }

    /**
     * The edit that gives a requirement a value, or takes it away if the text is empty.
     *
     * @throws ValueFault if the text is no value of the attribute
     */
    public Edit set(Element requirement, Attribute attribute, String text) {
        return set(requirement, attribute, text, model::children);
    }

    /**
     * The same where more is to be written in the same edit.
     *
     * @param children what an element owns with what is to be written already
     */
    Edit set(Element requirement, Attribute attribute, String text, Function<ElementId, List<Element>> children) {
        String requested = text.strip();
        Optional<Element> metadata = children.apply(requirement.id()).stream()
                .filter(child -> child.kind() == ElementKind.METADATA && Metadata.isOf(model, child, Metadata.MANAGED))
                .findFirst();
        Optional<Element> own = metadata.flatMap(has -> children.apply(has.id()).stream()
                .filter(child -> attribute.name().equals(nameOf(child)))
                .findFirst());
        if (requested.isEmpty() || requested.equals(attribute.byDefault())) {
            return own.map(given -> Edit.remove(given.id())).orElseGet(() -> new Edit(List.of(), Set.of()));
        }
        Element carrier = metadata.map(has -> having(has, attribute, requirement))
                .orElseGet(() -> newMetadata(requirement, children.apply(requirement.id())));
        FeatureValue value = new FeatureValue(FeatureValue.Kind.FIXED, expression(attribute, requested));
        Element given = own.orElseGet(() -> newValue(carrier, attribute, children.apply(carrier.id())))
                .with(Property.VALUE, value);
        return metadata.filter(carrier::equals).isPresent() ? Edit.put(given) : Edit.put(carrier, given);
    }

    /** What a requirement's attributes are, for another one that is new: the same metadata with ids of its own. */
    public static List<Element> copied(Model model, Element requirement, ElementId to) {
        List<Element> copied = new ArrayList<>();
        model.children(requirement.id()).stream()
                .filter(child -> child.kind() == ElementKind.METADATA && Metadata.isOf(model, child, Metadata.MANAGED))
                .forEach(metadata -> {
                    Element copy = copy(metadata, to);
                    copied.add(copy);
                    model.children(metadata.id()).forEach(value -> copied.add(copy(value, copy.id())));
                });
        return copied;
    }

    private static Element copy(Element original, ElementId owner) {
        return new Element(
                ElementId.fresh(),
                original.kind(),
                owner,
                original.rank(),
                original.name(),
                original.shortName(),
                original.properties());
    }

    /**
     * Metadata of the library's definition becomes such of the project's when it is given something that only that has.
     */
    private Element having(Element metadata, Attribute attribute, Element requirement) {
        return ofDefinition(type(metadata)).stream()
                        .anyMatch(each -> each.name().equals(attribute.name()))
                ? metadata
                : metadata.with(Property.TYPES, List.of(Reference.to(widest(type(metadata), requirement))));
    }

    /** By the feature it redefines, because what is not in the model yet has no name there. */
    private @Nullable String nameOf(Element value) {
        return value.references(Property.REDEFINES).stream()
                .findFirst()
                .map(redefined -> model.names().effectiveName(model.get(redefined.target())))
                .orElse(null);
    }

    private static Element newValue(Element carrier, Attribute attribute, List<Element> siblings) {
        return Element.of(
                        ElementKind.REFERENCE,
                        carrier.id(),
                        Rank.between(
                                siblings.isEmpty() ? null : siblings.getLast().rank(), null),
                        null)
                .with(
                        Property.REDEFINES,
                        List.of(Reference.to(attribute.feature().id())));
    }

    /** New metadata stands behind the text, before what the requirement is made of. */
    private Element newMetadata(Element requirement, List<Element> siblings) {
        int docs = (int) siblings.stream()
                .takeWhile(child -> child.kind() == ElementKind.DOCUMENTATION)
                .count();
        Rank rank = Rank.between(
                docs == 0 ? null : siblings.get(docs - 1).rank(),
                docs < siblings.size() ? siblings.get(docs).rank() : null);
        return Element.of(ElementKind.METADATA, requirement.id(), rank, null)
                .with(Property.TYPES, List.of(Reference.to(definitionFor(requirement))));
    }

    private Expression expression(Attribute attribute, String text) {
        return switch (attribute.type()) {
            case TEXT, PERSON -> new StringLiteral(text, Span.NONE);
            case DATE -> new StringLiteral(date(attribute, text), Span.NONE);
            case TRUTH -> new BooleanLiteral(truth(attribute, text), Span.NONE);
            case CHOICE -> choice(attribute, text);
            case NUMBER -> number(attribute, text);
        };
    }

    private static String date(Attribute attribute, String text) {
        try {
            return LocalDate.parse(text).toString();
        } catch (DateTimeParseException _) {
            throw new ValueFault("'" + text + "' is no date; " + attribute.name()
                    + " is written year-month-day, for instance 2026-03-31");
        }
    }

    private static boolean truth(Attribute attribute, String text) {
        return switch (text) {
            case "yes", "true" -> true;
            case "no", "false" -> false;
            default -> throw new ValueFault(attribute.name() + " is yes or no, not '" + text + "'");
        };
    }

    private static Expression choice(Attribute attribute, String text) {
        Attribute.Choice choice = attribute.choice(text);
        if (choice == null) {
            throw new ValueFault(attribute.name() + " is one of "
                    + attribute.choices().stream().map(Attribute.Choice::name).collect(Collectors.joining(", "))
                    + ", not '" + text + "'");
        }
        return new FeatureReference(List.of(choice.element().id()), Span.NONE);
    }

    /** Units are looked up where the attribute is defined: whoever types a value need not have imported them. */
    private Expression number(Attribute attribute, String text) {
        NotationReader.ExpressionReading reading =
                NotationReader.readExpression(model, attribute.feature().owner(), text);
        if (reading.expression() == null) {
            throw new ValueFault(attribute.name() + ": "
                    + reading.problems().getFirst().message() + "; for instance " + example(attribute));
        }
        return reading.expression();
    }

    private static String example(Attribute attribute) {
        return attribute.unit().isEmpty() ? "12" : "12 [" + attribute.unit() + "]";
    }
}
