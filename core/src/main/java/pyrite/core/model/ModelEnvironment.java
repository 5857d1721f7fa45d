package pyrite.core.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Distribution;
import pyrite.core.expression.Environment;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.MathFunction;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.Name;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.PerformanceFunction;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.expression.Unit;
import pyrite.core.expression.Units;

/** The meaning of names in the expressions of a snapshot: types from the typing of features, units from the library. */
public final class ModelEnvironment implements Environment {
    private static final Map<ElementId, ModelFunction> FUNCTIONS = functions();

    private static final Set<ElementKind> CALLABLE = Set.of(
            ElementKind.CALCULATION_DEFINITION,
            ElementKind.CALCULATION,
            ElementKind.CONSTRAINT_DEFINITION,
            ElementKind.CONSTRAINT);

    /** Over so many features a type is looked for each time it is asked for; one that is farther is remembered. */
    private static final int FARTHEST_LOOK = 8;

    private final Model model;
    private final Map<ElementId, Type> types = new ConcurrentHashMap<>();
    private final Map<ElementId, Optional<Type>> definitions = new ConcurrentHashMap<>();
    private final Map<ElementId, Optional<Unit>> units = new ConcurrentHashMap<>();
    /** The units that this thread is working out, one made of the next. */
    private final ThreadLocal<Set<ElementId>> unitsUnderWay = ThreadLocal.withInitial(HashSet::new);
    /** Of calculations that declare no result, what their expression comes to. */
    private final Map<ElementId, Type> results = new ConcurrentHashMap<>();
    /** The features and calculations of which a thread is finding the type. */
    private final ThreadLocal<Set<ElementId>> open = ThreadLocal.withInitial(HashSet::new);

    ModelEnvironment(Model model) {
        this.model = model;
    }

    private static Map<ElementId, ModelFunction> functions() {
        Map<ElementId, ModelFunction> functions = new HashMap<>();
        for (MathFunction function : MathFunction.values()) {
            functions.put(
                    LibraryNames.id(function.library() + "::" + function.functionName()),
                    new ModelFunction.Mathematical(function));
        }
        for (ObservationFunction observation : ObservationFunction.values()) {
            functions.put(
                    LibraryNames.id("Dynamics::" + observation.functionName()),
                    new ModelFunction.Observing(observation));
        }
        for (Distribution distribution : Distribution.values()) {
            functions.put(
                    LibraryNames.id("Execution::" + distribution.functionName()),
                    new ModelFunction.Random(distribution));
        }
        for (PerformanceFunction function : PerformanceFunction.values()) {
            functions.put(
                    LibraryNames.id("Execution::" + function.functionName()),
                    new ModelFunction.OfPerformance(function));
        }
        functions.put(LibraryNames.id(LibraryNames.DERIVATIVE), new ModelFunction.Derivative());
        functions.put(LibraryNames.id(LibraryNames.TOTAL), new ModelFunction.Total());
        for (CollectionFunction function : CollectionFunction.values()) {
            functions.put(
                    LibraryNames.id(function.library() + "::" + function.functionName()),
                    new ModelFunction.OverCollection(function));
        }
        return Map.copyOf(functions);
    }

    @Override
    public Type amountOf(FeatureReference pool) {
        Type type = pool.last() instanceof ElementId id
                ? model.find(id)
                        .flatMap(element ->
                                model.inheritance().effective(element, LibraryNames.id(LibraryNames.CAPACITY)))
                        .map(capacity -> typeOf(capacity.id()))
                        .orElse(Type.UNKNOWN)
                : Type.UNKNOWN;
        return type instanceof Type.Number ? type : Type.NUMBER;
    }

    @Override
    public Type typeOf(FeatureReference reference) {
        return reference.last() instanceof ElementId id ? typeOf(id) : Type.UNKNOWN;
    }

    /** The type of a feature: from its typing, else from its value. */
    public Type typeOf(ElementId id) {
        if (model.isLibrary(id)) {
            return model.library().environment().typeOf(id);
        }
        Element element = model.find(id).orElse(null);
        if (element == null) {
            return Type.UNKNOWN;
        }
        Type known = ofReplaced(element);
        if (known == null) {
            known = statedDirectly(element);
        }
        if (known == null) {
            known = types.get(id);
        }
        if (known == null) {
            Type stated = stated(element);
            if (stated == null) {
                return open.get().contains(id) ? Type.UNKNOWN : infer(element);
            }
            known = stated;
            types.put(id, known);
        }
        return known;
    }

    /**
     * The type of a feature that says it, or that a chain of features leads to each of which has nothing to inherit
     * from but the next; null for any other. Most are like that, and they are sooner looked at again than remembered.
     */
    private @Nullable Type statedDirectly(Element feature) {
        Element at = feature;
        for (int step = 0; at != null && step < FARTHEST_LOOK; step++) {
            Optional<Type> declared = declared(at);
            if (declared.isPresent()) {
                return declared.get();
            }
            List<ElementId> generals = model.generals(at);
            at = generals.size() == 1 ? model.find(generals.getFirst()).orElse(null) : null;
        }
        return null;
    }

    /** The type a feature is declared with or inherits; null if none is. */
    private @Nullable Type stated(Element element) {
        for (Element general : model.inheritance().generals(element)) {
            Optional<Type> type = declared(general);
            if (type.isPresent()) {
                return type.get();
            }
        }
        return null;
    }

    /** The type of the parameter that a parameter of a usage takes the place of, if it states none itself. */
    private @Nullable Type ofReplaced(Element element) {
        return element.get(Property.DIRECTION).isEmpty()
                        || !element.references(Property.TYPES).isEmpty()
                ? null
                : model.inheritance()
                        .replacedBy(element)
                        .map(replaced -> typeOf(replaced.id()))
                        .filter(type -> !(type instanceof Type.Unknown))
                        .orElse(null);
    }

    /**
     * The type of a feature that states none. The types of what its value rests on are found first, one after the
     * other: values may rest on each other in chains too long for recursion. What goes in a circle has none.
     */
    private Type infer(Element start) {
        Set<ElementId> begun = open.get();
        ArrayDeque<Element> way = new ArrayDeque<>(List.of(start));
        try {
            while (!way.isEmpty()) {
                Element at = way.peek();
                if (types.containsKey(at.id())) {
                    way.pop();
                } else if (begun.add(at.id())) {
                    untypedIn(at).stream()
                            .filter(next -> !begun.contains(next.id()))
                            .forEach(way::push);
                } else {
                    types.put(at.id(), ofValue(at));
                    begun.remove(way.pop().id());
                }
            }
        } finally {
            way.forEach(left -> begun.remove(left.id()));
        }
        return Objects.requireNonNull(types.get(start.id()));
    }

    /** What the value of a feature names that states no type either. */
    private List<Element> untypedIn(Element feature) {
        List<Element> named = new ArrayList<>();
        model.inheritance()
                .value(feature)
                .ifPresent(value -> value.expression().walk(part -> {
                    if (part instanceof FeatureReference reference
                            && reference.last() instanceof ElementId id
                            && !model.isLibrary(id)
                            && !types.containsKey(id)) {
                        model.find(id)
                                .filter(element -> stated(element) == null)
                                .ifPresent(named::add);
                    }
                }));
        return named;
    }

    private Type ofValue(Element element) {
        Optional<FeatureValue> value = model.inheritance().value(element);
        if (value.isPresent()) {
            return TypeCheck.check(value.get().expression(), this).type();
        }
        if (element.kind() == ElementKind.LOOP_VARIABLE && element.owner() != null) {
            return model.get(element.owner())
                    .get(Property.CONDITION)
                    .map(values -> TypeCheck.check(values, this).type())
                    .orElse(Type.UNKNOWN);
        }
        boolean untyped = model.inheritance().generals(element).stream()
                .noneMatch(e -> e.kind().isDefinition());
        boolean isValue = element.kind() == ElementKind.ATTRIBUTE
                || element.kind() == ElementKind.REFERENCE
                || element.kind() == ElementKind.SUBJECT;
        return untyped && isValue
                ? Type.UNKNOWN
                : new Type.Thing("the " + element.kind().title() + " '" + nameOf(element.id()) + "'");
    }

    /** The type a definition stands for, if the engine knows it. */
    private Optional<Type> declared(Element definition) {
        if (!definition.kind().isDefinition()) {
            return Optional.empty();
        }
        if (model.isLibrary(definition.id())) {
            return model.library().environment().declared(definition);
        }
        Optional<Type> known = definitions.get(definition.id());
        if (known == null) {
            known = declaredBy(definition);
            definitions.put(definition.id(), known);
        }
        return known;
    }

    private Optional<Type> declaredBy(Element definition) {
        if (definition.kind() == ElementKind.ENUMERATION_DEFINITION) {
            // An enumeration of numbers, texts or quantities is a choice of those (SysML 2.0, enumerations).
            return model.inheritance().generals(definition).stream()
                    .skip(1)
                    .flatMap(general -> declared(general).stream())
                    .findFirst()
                    .or(() -> Optional.of(new Type.Enumerated(definition.id(), nameOf((Referent) definition.id()))));
        }
        String name = model.isLibrary(definition.id()) || model.library() == Model.EMPTY
                ? model.names().qualifiedName(definition)
                : "";
        return switch (name) {
            case LibraryNames.REAL,
                    LibraryNames.RATIONAL,
                    LibraryNames.INTEGER,
                    LibraryNames.NATURAL,
                    LibraryNames.POSITIVE -> Optional.of(Type.NUMBER);
            case LibraryNames.BOOLEAN -> Optional.of(Type.TRUTH);
            case LibraryNames.STRING -> Optional.of(Type.TEXT);
            default -> dimension(definition).map(Type.Number::new);
        };
    }

    /** The dimension a quantity or unit definition states in its attribute {@code dimension}. */
    private Optional<Dimension> dimension(Element definition) {
        return model.inheritance()
                .effective(definition, LibraryNames.id(LibraryNames.QUANTITY_DIMENSION))
                .or(() -> model.inheritance().effective(definition, LibraryNames.id(LibraryNames.UNIT_DIMENSION)))
                .flatMap(model.inheritance()::value)
                .filter(value -> value.expression() instanceof Expression.StringLiteral)
                .map(value -> Dimension.parse(((Expression.StringLiteral) value.expression()).text()));
    }

    @Override
    public Optional<ModelFunction> function(Referent function) {
        if (!(function instanceof ElementId id)) {
            return Optional.empty();
        }
        ModelFunction known = FUNCTIONS.get(id);
        return known != null
                ? Optional.of(known)
                : model.find(id)
                        .filter(e -> CALLABLE.contains(e.kind()) && saysWhatItGives(e))
                        .map(this::defined);
    }

    /**
     * Calculations of the library without an expression have their meaning elsewhere or none; those of people say it
     * sooner or later.
     */
    private boolean saysWhatItGives(Element calculation) {
        return !model.isLibrary(calculation.id())
                || model.inheritance().nearest(calculation, Property.RESULT).isPresent()
                || model.inheritance().features(calculation).stream()
                        .anyMatch(feature -> feature.get(Property.DIRECTION)
                                .filter("return"::equals)
                                .isPresent());
    }

    private ModelFunction defined(Element calculation) {
        List<ModelFunction.Parameter> parameters = new ArrayList<>();
        Type result = calculation.kind().keyword().equals("calc") ? Type.UNKNOWN : Type.TRUTH;
        for (Element feature : model.inheritance().features(calculation)) {
            String direction = feature.get(Property.DIRECTION).orElse("");
            if (direction.equals("in") || direction.equals("inout")) {
                parameters.add(new ModelFunction.Parameter(
                        feature.id(),
                        Objects.requireNonNullElse(nameOf(feature.id()), "?"),
                        typeOf(feature.id()),
                        model.inheritance().value(feature).isPresent()));
            } else if (direction.equals("return") || direction.equals("out")) {
                result = typeOf(feature.id());
            }
        }
        // An own parameter stands before the inherited ones; a call names them in the order they were first declared.
        return new ModelFunction.Defined(
                nameOf((Referent) calculation.id()),
                parameters,
                result instanceof Type.Unknown ? resultOf(calculation) : result);
    }

    /** What the expression of a calculation comes to; unknown for one that calls itself. */
    private Type resultOf(Element calculation) {
        Type known = results.get(calculation.id());
        if (known != null) {
            return known;
        }
        Set<ElementId> begun = open.get();
        if (!begun.add(calculation.id())) {
            return Type.UNKNOWN;
        }
        try {
            Type found = model.inheritance()
                    .nearest(calculation, Property.RESULT)
                    .map(result -> TypeCheck.check(result, this).type())
                    .orElse(Type.UNKNOWN);
            results.put(calculation.id(), found);
            return found;
        } finally {
            begun.remove(calculation.id());
        }
    }

    @Override
    public Optional<Expression> definition(Referent calculation) {
        if (!(calculation instanceof ElementId id)) {
            return Optional.empty();
        }
        Optional<Expression> result =
                model.find(id).flatMap(element -> model.inheritance().nearest(element, Property.RESULT));
        return result.isPresent()
                ? result
                : model.find(id).stream()
                        .flatMap(element -> model.inheritance().features(element).stream())
                        .filter(feature -> feature.get(Property.DIRECTION)
                                .filter("return"::equals)
                                .isPresent())
                        .flatMap(feature -> model.inheritance().value(feature).stream())
                        .map(FeatureValue::expression)
                        .findFirst();
    }

    @Override
    public Type typeNamed(Referent type) {
        return type instanceof ElementId id && model.find(id).isPresent()
                ? declared(model.get(id))
                        .orElseGet(() ->
                                new Type.Thing("the " + model.get(id).kind().title() + " '" + nameOf(id) + "'"))
                : Type.UNKNOWN;
    }

    @Override
    public Optional<Unit> unit(Referent referent) {
        if (!(referent instanceof ElementId id)) {
            return Optional.empty();
        }
        if (model.isLibrary(id)) {
            return model.library().environment().unit(referent);
        }
        Optional<Unit> known = units.get(id);
        if (known == null && !unitsUnderWay.get().add(id)) {
            // A unit that is made of itself is none.
            return Optional.empty();
        }
        if (known == null) {
            try {
                known = model.find(id)
                        .filter(e -> e.kind() == ElementKind.ATTRIBUTE)
                        .flatMap(this::unit);
                units.put(id, known);
            } finally {
                unitsUnderWay.get().remove(id);
            }
        }
        return known;
    }

    private Optional<Unit> unit(Element element) {
        Inheritance inheritance = model.inheritance();
        if (inheritance.isA(element, LibraryNames.id(LibraryNames.INTERVAL_SCALE))) {
            return scale(element);
        }
        Optional<FeatureValue> value = inheritance.value(element);
        boolean declared = inheritance.isA(element, LibraryNames.id(LibraryNames.UNIT));
        if (value.isPresent()) {
            return declared ? unit(value.get().expression()) : Optional.empty();
        }
        Optional<Element> conversion = declared ? conversion(element) : Optional.empty();
        if (conversion.isPresent()) {
            return converted(conversion.get());
        }
        return declared && typeOf(element.id()) instanceof Type.Number(Dimension d)
                ? Optional.of(Unit.coherent(d))
                : Optional.empty();
    }

    /** What a unit says of its conversion into another one, itself or by what it inherits. */
    private Optional<Element> conversion(Element unit) {
        return model.inheritance()
                .effective(unit, LibraryNames.id(LibraryNames.UNIT_CONVERSION))
                .filter(said -> !model.children(said.id()).isEmpty());
    }

    private Optional<Unit> converted(Element conversion) {
        Optional<Unit> reference = part(conversion, LibraryNames.REFERENCE_UNIT);
        Optional<Double> factor = number(conversion, LibraryNames.CONVERSION_FACTOR)
                .or(() -> model.inheritance()
                        .effective(conversion, LibraryNames.id(LibraryNames.CONVERSION_PREFIX))
                        .flatMap(model.inheritance()::value)
                        .map(FeatureValue::expression)
                        .filter(FeatureReference.class::isInstance)
                        .map(value -> ((FeatureReference) value).last())
                        .filter(ElementId.class::isInstance)
                        .map(prefix -> model.get((ElementId) prefix))
                        .flatMap(prefix -> number(prefix, LibraryNames.PREFIX_FACTOR)));
        return reference.flatMap(unit -> factor.map(times -> new Unit(times * unit.factor(), 0, unit.dimension())));
    }

    /** A plain number that an element gives one of its features. */
    private Optional<Double> number(Element of, String feature) {
        return model.inheritance()
                .effective(of, LibraryNames.id(feature))
                .flatMap(model.inheritance()::value)
                .flatMap(value -> unit(value.expression()))
                .filter(found -> found.dimension().isOne())
                .map(Unit::factor);
    }

    /** An interval scale counts in its {@code unit} from its {@code zero}. */
    private Optional<Unit> scale(Element element) {
        Optional<Unit> step = part(element, LibraryNames.SCALE_UNIT);
        Optional<Unit> zero = part(element, LibraryNames.SCALE_ZERO);
        return step.flatMap(s -> zero.map(z -> new Unit(s.factor(), z.factor(), s.dimension())));
    }

    private Optional<Unit> part(Element scale, String name) {
        return model.inheritance()
                .effective(scale, LibraryNames.id(name))
                .flatMap(model.inheritance()::value)
                .flatMap(value -> unit(value.expression()));
    }

    /** The unit an expression of units means, empty if it means none. */
    public Optional<Unit> unit(Expression expression) {
        try {
            return Optional.of(Units.of(expression, this));
        } catch (FaultException _) {
            return Optional.empty();
        }
    }

    @Override
    public String nameOf(Referent referent) {
        return switch (referent) {
            case Name name -> name.toString();
            case ElementId id -> Objects.requireNonNullElse(nameOf(id), id.toString());
            default -> referent.toString();
        };
    }

    private @Nullable String nameOf(ElementId id) {
        return model.find(id).map(model.names()::effectiveName).orElse(null);
    }
}
