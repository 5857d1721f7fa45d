package pyrite.core.model;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.MathFunction;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Type;
import pyrite.core.expression.Unit;

/** Finds the units in which numbers are shown: those that people wrote, where they are of the same kind. */
public final class DisplayUnits {
    /** Over so many attributes a unit is looked for before numbers are shown in the coherent one. */
    private static final int FARTHEST_UNIT = 100;

    private final Model model;
    private final ModelEnvironment environment;

    public DisplayUnits(Model model) {
        this.model = model;
        this.environment = model.environment();
    }

    /**
     * The unit a feature's numbers are shown in: one its value is written in, itself or through the attribute it names,
     * else its type's coherent unit.
     */
    public DisplayUnit of(Element feature) {
        return of(feature, new HashSet<>());
    }

    private DisplayUnit of(Element feature, Set<ElementId> seen) {
        Dimension dimension = environment.typeOf(feature.id()) instanceof Type.Number(Dimension d) ? d : Dimension.ONE;
        seen.add(feature.id());
        return model.inheritance()
                .value(feature)
                .flatMap(value -> of(value.expression(), dimension, seen))
                .or(() -> coherent(feature))
                .orElseGet(() -> DisplayUnit.coherent(dimension));
    }

    /**
     * The first unit of the given dimension in an expression: one that is written, else that of an attribute it names.
     */
    public Optional<DisplayUnit> of(Expression expression, Dimension dimension) {
        return of(expression, dimension, new HashSet<>());
    }

    private Optional<DisplayUnit> of(Expression expression, Dimension dimension, Set<ElementId> seen) {
        List<UnitFound> found = unitsIn(expression, dimension, seen);
        return Stream.concat(
                        found.stream().filter(UnitFound::written),
                        found.stream().filter(unit -> !unit.written()))
                .map(UnitFound::unit)
                .findFirst();
    }

    /** A unit in an expression: written there, or that of an attribute it names. */
    private record UnitFound(DisplayUnit unit, boolean written) {}

    /** The units of a dimension in which what an expression comes to may be shown. */
    private List<UnitFound> unitsIn(Expression expression, Dimension dimension, Set<ElementId> seen) {
        return switch (expression) {
            case Expression.Quantity quantity ->
                environment
                        .unit(quantity.unit())
                        .filter(unit -> unit.dimension().equals(dimension))
                        .map(unit -> new UnitFound(
                                new DisplayUnit(
                                        ExpressionText.compact(quantity.unit(), ExpressionText.byName(this::symbol)),
                                        unit),
                                true))
                        .stream()
                        .toList();
            case FeatureReference reference -> unitOf(reference, dimension, seen);
            case Expression.Unary unary -> unitsIn(unary.operand(), dimension, seen);
            case Expression.Conditional c ->
                together(unitsIn(c.whenTrue(), dimension, seen), unitsIn(c.whenFalse(), dimension, seen));
            case Expression.Binary binary -> unitsIn(binary, dimension, seen);
            case Expression.Invocation call -> unitsIn(call, dimension, seen);
            default -> dimension.isOne() ? List.of() : unitsAnywhere(expression, dimension, seen);
        };
    }

    private List<UnitFound> unitOf(FeatureReference reference, Dimension dimension, Set<ElementId> seen) {
        boolean isSame = reference.last() instanceof ElementId id
                && seen.size() < FARTHEST_UNIT
                && !seen.contains(id)
                && environment.typeOf(id).equals(new Type.Number(dimension));
        return isSame ? List.of(new UnitFound(of(model.get((ElementId) reference.last()), seen), false)) : List.of();
    }

    private List<UnitFound> unitsIn(Expression.Binary binary, Dimension dimension, Set<ElementId> seen) {
        List<UnitFound> left = unitsIn(binary.left(), dimension, seen);
        List<UnitFound> right = unitsIn(binary.right(), dimension, seen);
        return switch (binary.operator()) {
            // The distance of two points on a scale is no point on it.
            case SUBTRACT -> isReading(left) && isReading(right) ? List.of() : together(left, right);
            // The ratio or product of two angles is no angle.
            case DIVIDE -> dimension.isOne() && !right.isEmpty() ? List.of() : left;
            case MULTIPLY ->
                dimension.isOne() && !left.isEmpty() && !right.isEmpty() ? List.of() : together(left, right);
            case POWER -> List.of();
            default -> together(left, right);
        };
    }

    private static boolean isReading(List<UnitFound> units) {
        return !units.isEmpty() && units.getFirst().unit().unit().offset() != 0;
    }

    /** A function that gives a plain number, such as cosine, does not give it in the unit of its argument. */
    private List<UnitFound> unitsIn(Expression.Invocation call, Dimension dimension, Set<ElementId> seen) {
        boolean keeps = switch (environment.function(call.function()).orElse(null)) {
            case ModelFunction.Mathematical(MathFunction f) -> f.dimensions() == MathFunction.Dimensions.SAME;
            case ModelFunction.OverCollection _, ModelFunction.Observing _, ModelFunction.Total _ -> true;
            case null, default -> !dimension.isOne();
        };
        return keeps
                ? call.arguments().stream()
                        .flatMap(argument -> unitsIn(argument, dimension, seen).stream())
                        .toList()
                : List.of();
    }

    private List<UnitFound> unitsAnywhere(Expression expression, Dimension dimension, Set<ElementId> seen) {
        List<UnitFound> found = new ArrayList<>();
        expression.walk(part -> {
            if (part instanceof Expression.Quantity || part instanceof FeatureReference) {
                found.addAll(unitsIn(part, dimension, seen));
            }
        });
        return found;
    }

    private static List<UnitFound> together(List<UnitFound> left, List<UnitFound> right) {
        return Stream.concat(left.stream(), right.stream()).toList();
    }

    private String symbol(Referent referent) {
        return referent instanceof ElementId id
                        && model.find(id).map(Element::shortName).orElse(null) instanceof String s
                ? s
                : environment.nameOf(referent);
    }

    private Optional<DisplayUnit> coherent(Element feature) {
        return model.inheritance()
                .effective(feature, LibraryNames.id(LibraryNames.COHERENT_UNIT))
                .flatMap(model.inheritance()::value)
                .filter(value -> value.expression() instanceof Expression.StringLiteral)
                .map(value -> ((Expression.StringLiteral) value.expression()).text())
                .flatMap(symbol -> environment.typeOf(feature.id()) instanceof Type.Number(Dimension d)
                        ? Optional.of(new DisplayUnit(symbol, Unit.coherent(d)))
                        : Optional.empty());
    }
}
