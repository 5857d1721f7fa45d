package pyrite.core.expression;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.fraction.Fraction;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;

/**
 * The part of {@link TypeCheck} for calls: of library functions, collection functions and user-defined calculations.
 */
final class CallCheck {
    private final TypeCheck check;
    private final Environment environment;

    CallCheck(TypeCheck check, Environment environment) {
        this.check = check;
        this.environment = environment;
    }

    /** The type that a call gives; whatever is wrong with it is reported. */
    Type type(Referent called, List<Expression> arguments, Expression at) {
        ModelFunction function = environment
                .function(called)
                .map(known -> known.with(arguments.size()))
                .orElse(null);
        if (function instanceof ModelFunction.OverCollection(CollectionFunction f)) {
            return overCollection(f, arguments, at);
        }
        List<Type> types = arguments.stream().map(check::infer).toList();
        Invocation call = new Invocation(called, arguments, at.span());
        return switch (function) {
            case null -> {
                check.fault(call, "'" + environment.nameOf(called) + "' cannot be called");
                yield Type.UNKNOWN;
            }
            case ModelFunction.Mathematical(MathFunction f) -> mathematical(call, f, types);
            case ModelFunction.Observing(ObservationFunction o) -> observing(call, o, types);
            case ModelFunction.Derivative() -> derivative(call, types);
            case ModelFunction.Total() -> total(call, types);
            case ModelFunction.Random(Distribution d) -> drawn(call, d, types);
            case ModelFunction.OfPerformance(PerformanceFunction f) -> performed(call, f, types);
            case ModelFunction.Defined defined -> defined(call, defined, types);
            case ModelFunction.OverCollection _ -> throw new IllegalStateException("handled before");
        };
    }

    private Type overCollection(CollectionFunction function, List<Expression> arguments, Expression at) {
        String name = function.functionName();
        int requested = function.takes() == CollectionFunction.Takes.NOTHING ? 1 : 2;
        boolean rightCount = arguments.size() == requested
                || function.takes() == CollectionFunction.Takes.PLACES && arguments.size() == 3;
        boolean bodied = function.takes() == CollectionFunction.Takes.BODY
                || function.takes() == CollectionFunction.Takes.BODY_OF_TWO;
        Expression.Body body = bodied && arguments.size() == 2
                ? function.body(arguments.get(1)).orElse(null)
                : null;
        if (!rightCount || bodied && body == null) {
            check.fault(
                    at,
                    switch (function.takes()) {
                        case NOTHING ->
                            name + " takes the values alone: " + name + "(leaf.mass) or leaf.mass->" + name + "()";
                        case PLACES ->
                            name + " takes the first and the last place, from 1: (1, 2, 3)->" + name + "(2, 3)";
                        case VALUE -> name + " takes one value: (1, 2, 3)->" + name + "(2)";
                        case BODY -> name + " takes a body with one parameter: leaf->" + name + " { in x; … }";
                        case BODY_OF_TWO ->
                            name + " takes a body with two parameters: leaf.mass->" + name + " { in x; in y; x + y }";
                    });
            return Type.UNKNOWN;
        }
        Expression values = arguments.getFirst();
        Type type = check.infer(values);
        Type given =
                requested == 1 ? Type.UNKNOWN : body == null ? check.infer(arguments.get(1)) : check.within(body, type);
        return switch (function) {
            case COLLECT, REDUCE -> given;
            case MINIMIZE, MAXIMIZE -> check.number(arguments.get(1), given, name);
            case INCLUDING, EXCLUDING, UNION, INTERSECTION -> {
                if (!(type instanceof Type.Thing && given instanceof Type.Thing)) {
                    check.same(arguments.get(1), type, given, "the same");
                }
                yield type;
            }
            case SUBSEQUENCE -> {
                arguments.subList(1, arguments.size()).forEach(place -> check.place(place));
                yield type;
            }
            case SELECT, REJECT, SELECT_ONE -> {
                check.expectBoolean(arguments.get(1), given, name);
                yield type;
            }
            case FOR_ALL, EXISTS -> {
                check.expectBoolean(arguments.get(1), given, name);
                yield Type.TRUTH;
            }
            case ALL_TRUE, ANY_TRUE -> {
                check.expectBoolean(values, type, name);
                yield Type.TRUTH;
            }
            case SUM, SMALLEST, LARGEST -> check.number(values, type, name);
            case PRODUCT -> {
                if (type instanceof Type.Number(Dimension d) && !d.isOne()) {
                    check.fault(
                            values,
                            "product works on plain numbers, because its unit would depend on how many there are; this is "
                                    + type);
                }
                yield check.number(values, type, name) instanceof Type.Number ? Type.NUMBER : Type.UNKNOWN;
            }
            case INCLUDES, EXCLUDES -> {
                if (!(type instanceof Type.Thing && given instanceof Type.Thing)) {
                    check.same(arguments.get(1), type, given, "the same");
                }
                yield Type.TRUTH;
            }
            case SIZE -> Type.NUMBER;
            case IS_EMPTY, NOT_EMPTY -> Type.TRUTH;
            case HEAD, LAST, TAIL -> type;
        };
    }

    /** Arguments are taken in order, or by the names of the parameters. */
    private Type defined(Invocation call, ModelFunction.Defined function, List<Type> types) {
        List<ModelFunction.Parameter> parameters = function.parameters();
        if (call.arguments().size() > parameters.size()) {
            check.fault(
                    call,
                    function.name() + " takes " + parameters.size()
                            + (parameters.size() == 1 ? " argument" : " arguments") + ", not "
                            + call.arguments().size());
            return function.result();
        }
        List<String> given = new ArrayList<>();
        Map<Referent, Type> bound = new HashMap<>();
        for (int i = 0; i < call.arguments().size(); i++) {
            Expression argument = call.arguments().get(i);
            String name = argument instanceof Expression.NamedArgument named
                    ? named.parameter()
                    : parameters.get(i).name();
            given.add(name);
            ModelFunction.Parameter parameter = parameters.stream()
                    .filter(p -> p.name().equals(name))
                    .findFirst()
                    .orElse(null);
            if (parameter == null) {
                check.fault(argument, function.name() + " has no parameter '" + name + "'");
            } else if (isMismatch(parameter.type(), types.get(i))) {
                check.fault(
                        argument,
                        "'" + name + "' of " + function.name() + " is " + parameter.type() + ", but this is "
                                + types.get(i));
            } else if (parameter.type() instanceof Type.Unknown && types.get(i) instanceof Type.Number) {
                bound.put(parameter.feature(), types.get(i));
            }
        }
        parameters.stream()
                .filter(p -> !p.optional() && !given.contains(p.name()))
                .forEach(p ->
                        check.fault(call, function.name() + " needs a value for its parameter '" + p.name() + "'"));
        return bound.isEmpty() ? function.result() : result(call, function, bound);
    }

    /** What a call comes to whose parameters take the types of the arguments. */
    private Type result(Invocation call, ModelFunction.Defined function, Map<Referent, Type> bound) {
        BoundParameters inside = new BoundParameters(environment, bound);
        Expression body = inside.isDeepest()
                ? null
                : environment.definition(call.function()).orElse(null);
        if (body == null) {
            return function.result();
        }
        TypeCheck.Result checked = TypeCheck.check(body, inside);
        checked.faults().stream()
                .findFirst()
                .ifPresent(fault -> check.fault(call, "in " + function.name() + ", " + fault.message()));
        return function.result() instanceof Type.Unknown ? checked.type() : function.result();
    }

    private static boolean isMismatch(Type requested, Type given) {
        boolean known = !(requested instanceof Type.Unknown)
                && !(given instanceof Type.Unknown)
                && !(requested instanceof Type.Thing && given instanceof Type.Thing);
        return known && !requested.equals(given);
    }

    private Type mathematical(Invocation call, MathFunction function, List<Type> arguments) {
        String name = function.functionName();
        if (arguments.size() != function.arity()) {
            check.fault(
                    call,
                    name + " takes " + function.arity() + (function.arity() == 1 ? " argument" : " arguments")
                            + ", not " + arguments.size());
            return Type.UNKNOWN;
        }
        Type first = check.number(call.arguments().getFirst(), arguments.getFirst(), name);
        if (!(first instanceof Type.Number(Dimension dimension))) {
            return Type.UNKNOWN;
        }
        return switch (function.dimensions()) {
            case NONE -> {
                if (!dimension.isOne()) {
                    check.fault(
                            call.arguments().getFirst(),
                            name + " takes a plain number or an angle, but this is " + first);
                }
                yield Type.NUMBER;
            }
            case ROOT -> new Type.Number(dimension.power(new Fraction(1, 2)));
            case SAME ->
                function.arity() == 1
                        ? first
                        : check.same(
                                call, first, check.number(call.arguments().get(1), arguments.get(1), name), "compared");
        };
    }

    private Type observing(Invocation call, ObservationFunction observation, List<Type> arguments) {
        String name = observation.functionName();
        if (!observation.accepts(arguments.size())) {
            check.fault(
                    call,
                    observation == ObservationFunction.AT
                            ? "at takes a quantity and an instant: at(x, t)"
                            : name + " takes one argument"
                                    + (observation.times() == 2
                                            ? ", or also a window: " + name + "(…, from, to)"
                                            : ""));
            return Type.UNKNOWN;
        }
        for (int i = 1; i < arguments.size(); i++) {
            check.same(
                    call.arguments().get(i),
                    arguments.get(i),
                    new Type.Number(ObservationFunction.TIME),
                    "used as an instant");
        }
        Expression subject = call.arguments().getFirst();
        if (observation.of() == ObservationFunction.Of.CONDITION) {
            check.expectBoolean(subject, arguments.getFirst(), name);
            return observation.result(Dimension.ONE);
        }
        Type quantity = check.number(subject, arguments.getFirst(), name);
        return quantity instanceof Type.Number(Dimension d) ? observation.result(d) : Type.UNKNOWN;
    }

    /** What is drawn has the dimension of the parameters that are no plain numbers. */
    private Type drawn(Invocation call, Distribution distribution, List<Type> arguments) {
        String name = distribution.functionName();
        if (arguments.size() != distribution.arity()) {
            check.fault(
                    call,
                    name + " takes " + distribution.parameters() + ", not " + arguments.size()
                            + (arguments.size() == 1 ? " argument" : " arguments"));
            return Type.UNKNOWN;
        }
        Type drawn = null;
        for (int i = 0; i < arguments.size(); i++) {
            Expression argument = call.arguments().get(i);
            Type type = check.number(argument, arguments.get(i), name);
            if (distribution.isPlain(i)) {
                check.same(argument, type, Type.NUMBER, "used here, where a plain number is needed");
            } else {
                drawn = drawn == null ? type : check.same(argument, drawn, type, "the same");
            }
        }
        return distribution == Distribution.CHANCE
                ? Type.TRUTH
                : drawn == null || distribution.givesNumber() ? Type.NUMBER : drawn;
    }

    private Type performed(Invocation call, PerformanceFunction function, List<Type> arguments) {
        String name = function.functionName();
        if (arguments.size() != 1 || !(call.arguments().getFirst() instanceof FeatureReference of)) {
            check.fault(
                    call,
                    name + " takes the name of one "
                            + (function.isOfPool()
                                    ? "pool: " + name + "(kitchen.stove)"
                                    : "step or state: " + name + "(gate.warn)"));
            return Type.UNKNOWN;
        }
        return function.isCondition()
                ? Type.TRUTH
                : function == PerformanceFunction.USED ? environment.amountOf(of) : Type.NUMBER;
    }

    private Type total(Invocation call, List<Type> arguments) {
        if (arguments.size() != 1 || !(call.arguments().getFirst() instanceof FeatureReference)) {
            check.fault(call, "total takes an attribute of a part, whose parts have it too: total(gate.mass)");
            return Type.UNKNOWN;
        }
        return check.number(call.arguments().getFirst(), arguments.getFirst(), "total");
    }

    private Type derivative(Invocation call, List<Type> arguments) {
        if (arguments.size() != 1 || !(call.arguments().getFirst() instanceof FeatureReference)) {
            check.fault(call, "der takes the name of one quantity that changes: der(level)");
            return Type.UNKNOWN;
        }
        Type of = check.number(call.arguments().getFirst(), arguments.getFirst(), "der");
        return of instanceof Type.Number(Dimension d) ? new Type.Number(d.per(ObservationFunction.TIME)) : Type.UNKNOWN;
    }
}
