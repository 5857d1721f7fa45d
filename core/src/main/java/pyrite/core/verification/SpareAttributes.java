package pyrite.core.verification;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Family;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Attributes of parts on which no result depends, such as a price: a run builds them with their part, but nothing that
 * it reads refers to them, and their value is a plain number, which cannot fail.
 */
final class SpareAttributes {
    private static final Set<Property<?>> HARMLESS = Set.of(
            Property.TYPES,
            Property.REDEFINES,
            Property.VALUE,
            Property.NOTES,
            Property.TRAILING_NOTE,
            Property.SPELLINGS,
            Property.VISIBILITY);

    private static final Set<ElementKind> PARTS = Set.of(ElementKind.PART, ElementKind.PART_DEFINITION);

    private SpareAttributes() {}

    /** Those that nothing else among the read elements refers to, and that redefine only such. */
    static Set<ElementId> among(Model model, Set<ElementId> read) {
        Set<ElementId> spare = new HashSet<>();
        read.stream()
                .filter(id -> model.find(id)
                        .filter(element -> isPlain(model, element))
                        .isPresent())
                .forEach(spare::add);
        while (spare.removeIf(id -> isUsed(model, id, read, spare))) {}
        return spare;
    }

    private static boolean isUsed(Model model, ElementId id, Set<ElementId> read, Set<ElementId> spare) {
        return model.get(id).references(Property.REDEFINES).stream()
                        .anyMatch(redefined -> !spare.contains(redefined.target()))
                || model.referrers(id).stream().anyMatch(user -> read.contains(user) && !spare.contains(user));
    }

    /** Whether an attribute of a part holds a plain number that fits, or nothing. */
    static boolean isPlain(Model model, Element element) {
        return element.kind() == ElementKind.ATTRIBUTE
                && model.derived(Plain.class, _ -> new Plain())
                        .byId
                        .computeIfAbsent(element.id(), _ -> findPlain(model, element));
    }

    /** What was found in a snapshot; all judgements of a run ask for much the same. */
    private static final class Plain {
        private final Map<ElementId, Boolean> byId = new ConcurrentHashMap<>();
    }

    private static boolean findPlain(Model model, Element element) {
        return HARMLESS.containsAll(element.properties().keySet())
                && isOfPart(model, element)
                && element.references(Property.TYPES).stream()
                        .map(Reference::target)
                        .allMatch(model::isLibrary)
                && element.references(Property.REDEFINES).stream()
                        .map(Reference::target)
                        .noneMatch(model::isLibrary)
                && model.children(element.id()).stream()
                        .allMatch(child ->
                                child.kind().family() == Family.ANNOTATION && child.kind() != ElementKind.METADATA)
                && element.get(Property.VALUE)
                        .map(FeatureValue::expression)
                        .map(value -> isNumber(model, value) && fits(model, element, value))
                        .orElse(true);
    }

    private static boolean isOfPart(Model model, Element element) {
        return element.owner() != null
                && PARTS.contains(model.get(element.owner()).kind());
    }

    private static boolean isNumber(Model model, Expression value) {
        return switch (value) {
            case NumberLiteral(String spelling, var _) -> Double.isFinite(Double.parseDouble(spelling));
            case Unary(Operator operator, NumberLiteral number, var _) ->
                operator == Operator.NEGATE && isNumber(model, number);
            case Quantity(Expression magnitude, Expression unit, var _) ->
                !(magnitude instanceof Quantity) && isNumber(model, magnitude) && isOfLibrary(model, unit);
            default -> false;
        };
    }

    private static boolean isOfLibrary(Model model, Expression unit) {
        boolean[] only = {true};
        unit.forEachReferent(referent -> only[0] &= referent instanceof ElementId id && model.isLibrary(id));
        return only[0];
    }

    private static boolean fits(Model model, Element attribute, Expression value) {
        return model.environment().typeOf(attribute.id()) instanceof Type.Number(var declared)
                && TypeCheck.check(value, model.environment())
                        instanceof TypeCheck.Result(Type.Number(var given), var faults)
                && faults.isEmpty()
                && declared.equals(given);
    }
}
