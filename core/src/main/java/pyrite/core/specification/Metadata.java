package pyrite.core.specification;

import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.BooleanLiteral;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/** Metadata whose definition is in the library: which elements carry it, and its values as text and numbers. */
public final class Metadata {
    public static final ElementId SPECIFICATION = LibraryNames.id("Specifications::Specification");
    public static final ElementId MANAGED = LibraryNames.id("Specifications::Managed");
    public static final ElementId WAIVER = LibraryNames.id("Specifications::Waiver");
    public static final ElementId REFERENCE = LibraryNames.id("Specifications::Reference");
    public static final ElementId LIFECYCLE = LibraryNames.id("Specifications::Lifecycle");
    public static final ElementId LINK_KIND = LibraryNames.id("Tracing::LinkKind");
    public static final ElementId LINK_RULE = LibraryNames.id("Tracing::LinkRule");
    public static final ElementId CONFIRMED = LibraryNames.id("Tracing::Confirmed");
    public static final ElementId KEPT_OPEN = LibraryNames.id("Tracing::KeptOpen");
    public static final ElementId SAVED_VIEW = LibraryNames.id("Tracing::SavedView");

    private Metadata() {}

    /** The first metadata of a definition, or of one that specialises it, in an element's body. */
    public static Optional<Element> of(Model model, Element carrier, ElementId definition) {
        for (Element child : model.children(carrier.id())) {
            if (child.kind() == ElementKind.METADATA && isOf(model, child, definition)) {
                return Optional.of(child);
            }
        }
        return Optional.empty();
    }

    public static List<Element> allOf(Model model, Element carrier, ElementId definition) {
        return model.children(carrier.id()).stream()
                .filter(child -> child.kind() == ElementKind.METADATA && isOf(model, child, definition))
                .toList();
    }

    public static boolean isOf(Model model, Element metadata, ElementId definition) {
        List<Reference> types = metadata.references(Property.TYPES);
        return !types.isEmpty()
                && (types.getFirst().target().equals(definition)
                        || model.find(types.getFirst().target())
                                .filter(type -> model.inheritance().isA(type, definition))
                                .isPresent());
    }

    /** All metadata usages of a definition in the model, those of the library included. */
    public static List<Element> usages(Model model, ElementId definition) {
        return withSpecialisations(model, definition).stream()
                .flatMap(each -> model.referrers(each).stream())
                .map(model::get)
                .filter(element -> element.kind() == ElementKind.METADATA && isOf(model, element, definition))
                .toList();
    }

    /** A metadata definition and all that specialise it, however far down, the definition first. */
    public static Collection<ElementId> withSpecialisations(Model model, ElementId definition) {
        List<Element> definitions = Stream.concat(
                        model.library().ownElements(ElementKind.METADATA_DEFINITION),
                        model.ownElements(ElementKind.METADATA_DEFINITION))
                .toList();
        Set<ElementId> all = new LinkedHashSet<>();
        collect(definition, definitions, all);
        return all;
    }

    private static void collect(ElementId definition, List<Element> among, Set<ElementId> all) {
        if (all.add(definition)) {
            among.stream()
                    .filter(each -> each.references(Property.SPECIALIZES).stream()
                            .anyMatch(general -> general.target().equals(definition)))
                    .forEach(each -> collect(each.id(), among, all));
        }
    }

    /** What a metadata usage says about a feature of its definition, else what the definition says by default. */
    public static Optional<Expression> value(Model model, Element metadata, String feature) {
        return own(model, metadata, feature)
                .or(() -> metadata.references(Property.TYPES).stream()
                        .findFirst()
                        .flatMap(type -> model.names().member(type.target(), feature))
                        .flatMap(id -> model.inheritance().value(model.get(id))))
                .map(FeatureValue::expression);
    }

    private static Optional<FeatureValue> own(Model model, Element metadata, String feature) {
        return ownFeature(model, metadata, feature).flatMap(found -> found.get(Property.VALUE));
    }

    /** The feature in the body of the metadata itself that goes by this name. */
    static Optional<Element> ownFeature(Model model, Element metadata, String feature) {
        return model.children(metadata.id()).stream()
                .filter(child -> feature.equals(model.names().effectiveName(child)))
                .findFirst();
    }

    public static String text(Model model, Element metadata, String feature) {
        return value(model, metadata, feature)
                .filter(StringLiteral.class::isInstance)
                .map(StringLiteral.class::cast)
                .map(StringLiteral::text)
                .orElse("");
    }

    /** Whether a feature is true; false also where it is not given. */
    public static boolean truth(Model model, Element metadata, String feature) {
        return value(model, metadata, feature)
                .filter(BooleanLiteral.class::isInstance)
                .map(BooleanLiteral.class::cast)
                .map(BooleanLiteral::value)
                .orElse(false);
    }

    /** A whole number that is given, else 0. */
    public static int number(Model model, Element metadata, String feature) {
        return value(model, metadata, feature)
                .filter(NumberLiteral.class::isInstance)
                .map(NumberLiteral.class::cast)
                .map(literal -> (int) Double.parseDouble(literal.spelling()))
                .orElse(0);
    }

    /** The numbers of a sequence, of one number alone, or none. */
    public static double[] numbers(Model model, Element metadata, String feature) {
        return value(model, metadata, feature).map(Metadata::items).orElse(List.of()).stream()
                .mapToDouble(Metadata::number)
                .toArray();
    }

    /** The texts of a sequence, of one text alone, or none. */
    public static List<String> texts(Model model, Element metadata, String feature) {
        return value(model, metadata, feature).map(Metadata::items).orElse(List.of()).stream()
                .filter(StringLiteral.class::isInstance)
                .map(item -> ((StringLiteral) item).text())
                .toList();
    }

    private static List<Expression> items(Expression value) {
        return value instanceof Expression.Sequence(List<Expression> items, var _) ? items : List.of(value);
    }

    private static double number(Expression item) {
        return switch (item) {
            case NumberLiteral literal -> literal.value();
            case Expression.Unary(Operator operator, NumberLiteral literal, var _)
            when operator == Operator.NEGATE -> -literal.value();
            default -> Double.NaN;
        };
    }

    /** Two numbers or more, rounded to tenths. */
    public static Element numbers(Model model, Element metadata, String feature, double[] numbers, Rank rank) {
        List<Expression> items =
                Arrays.stream(numbers).mapToObj(Metadata::literal).toList();
        return value(model, metadata, feature, new Expression.Sequence(items, Span.NONE), rank);
    }

    private static Expression literal(double number) {
        long tenths = Math.round(Math.abs(number) * 10);
        String spelling = tenths % 10 == 0 ? Long.toString(tenths / 10) : tenths / 10 + "." + tenths % 10;
        NumberLiteral literal = new NumberLiteral(spelling, Span.NONE);
        return number < 0 && tenths > 0 ? new Expression.Unary(Operator.NEGATE, literal, Span.NONE) : literal;
    }

    /** A text to stand in the body of new metadata under the name of a feature of its definition. */
    public static Element text(Model model, Element metadata, String feature, String text, Rank rank) {
        return value(model, metadata, feature, new StringLiteral(text, Span.NONE), rank);
    }

    /** One text or more. */
    public static Element texts(Model model, Element metadata, String feature, List<String> texts, Rank rank) {
        List<Expression> items = texts.stream()
                .<Expression>map(text -> new StringLiteral(text, Span.NONE))
                .toList();
        return value(
                model,
                metadata,
                feature,
                items.size() == 1 ? items.getFirst() : new Expression.Sequence(items, Span.NONE),
                rank);
    }

    public static Element number(Model model, Element metadata, String feature, int number, Rank rank) {
        return value(model, metadata, feature, new NumberLiteral(Integer.toString(number), Span.NONE), rank);
    }

    public static Element truth(Model model, Element metadata, String feature, boolean truth, Rank rank) {
        return value(model, metadata, feature, new BooleanLiteral(truth, Span.NONE), rank);
    }

    private static Element value(Model model, Element metadata, String feature, Expression value, Rank rank) {
        ElementId redefined = metadata.references(Property.TYPES).stream()
                .findFirst()
                .flatMap(type -> model.names().member(type.target(), feature))
                .orElseThrow(() ->
                        new IllegalArgumentException("the definition of this metadata has no feature " + feature));
        return Element.of(ElementKind.REFERENCE, metadata.id(), rank, null)
                .with(Property.REDEFINES, List.of(Reference.to(redefined)))
                .with(Property.VALUE, new FeatureValue(FeatureValue.Kind.FIXED, value));
    }
}
