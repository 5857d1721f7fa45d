package pyrite.core.dynamics;

import java.util.List;
import java.util.function.Function;
import pyrite.core.expression.Expression;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.ModelFunction.Defined;
import pyrite.core.expression.ModelFunction.Parameter;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Lowers calls of user-defined calculations and constraints. Each call is an instance of the definition; its parameters
 * stand for the arguments, which are read in the caller's scope. A calculation may call itself if its recursion depends
 * only on values that are known before the run.
 */
final class CallLowering {
    private static final int DEEPEST = 100;
    /** So many values could be gone through in the time that a call takes. */
    private static final int STEPS = 10;

    private final Model model;
    private final InstanceBuilder builder;
    private final Lowering lowering;
    private int depth;

    CallLowering(Model model, InstanceBuilder builder, Lowering lowering) {
        this.model = model;
        this.builder = builder;
        this.lowering = lowering;
    }

    Term term(Defined function, ElementId calculation, List<Expression> arguments, Instance scope, Expression at) {
        return called(
                function,
                calculation,
                arguments,
                scope,
                at,
                call -> lowering.term(result(calculation, call, at), call));
    }

    Condition condition(
            Defined function, ElementId calculation, List<Expression> arguments, Instance scope, Expression at) {
        return called(
                function,
                calculation,
                arguments,
                scope,
                at,
                call -> lowering.condition(result(calculation, call, at), call));
    }

    private <T> T called(
            Defined function,
            ElementId calculation,
            List<Expression> arguments,
            Instance scope,
            Expression at,
            Function<Instance, T> work) {
        if (depth >= DEEPEST) {
            throw new FaultException(
                    at.span(),
                    function.name() + " calls itself more than " + DEEPEST
                            + " times; what ends it must be known before the run");
        }
        Instance call = instance(function, calculation, arguments, scope, at);
        depth++;
        try {
            return work.apply(call);
        } finally {
            depth--;
        }
    }

    /**
     * What a call comes to, not worked out yet: the result of the calculation, in an instance in which its parameters
     * stand for the arguments.
     */
    Flattening.Defined opened(
            Defined function, ElementId calculation, List<Expression> arguments, Instance scope, Expression at) {
        Instance call = instance(function, calculation, arguments, scope, at);
        return new Flattening.Defined(result(calculation, call, at), call);
    }

    private Instance instance(
            Defined function, ElementId calculation, List<Expression> arguments, Instance scope, Expression at) {
        lowering.spend(STEPS, at);
        Instance call = builder.call(model.get(calculation), scope.pathOf(function.name()));
        for (int i = 0; i < arguments.size(); i++) {
            Expression argument = arguments.get(i);
            String name = argument instanceof Expression.NamedArgument named
                    ? named.parameter()
                    : function.parameters().get(i).name();
            Expression value = argument instanceof Expression.NamedArgument named ? named.value() : argument;
            function.parameters().stream()
                    .filter(p -> p.name().equals(name))
                    .findFirst()
                    .ifPresent(parameter -> bind(call, parameter, value, scope));
        }
        return call;
    }

    private void bind(Instance call, Parameter parameter, Expression value, Instance scope) {
        Element feature = model.get((ElementId) parameter.feature());
        model.inheritance()
                .redefined(feature)
                .forEach(each -> call.replace(each.id(), new Instance.Slot.Alias(value, scope)));
    }

    /** What a calculation comes to: its result expression, or the value of what it returns. */
    private Expression result(ElementId calculation, Instance call, Expression at) {
        Element element = model.get(calculation);
        Element owner = model.inheritance().owning(element, Property.RESULT).orElse(null);
        if (owner != null) {
            builder.noteRead(owner);
            return owner.get(Property.RESULT).orElseThrow();
        }
        return model.inheritance().features(element).stream()
                .filter(f -> f.get(Property.DIRECTION)
                        .filter(d -> d.equals("return") || d.equals("out"))
                        .isPresent())
                .flatMap(f -> model.inheritance().value(f).stream())
                .findFirst()
                .map(value -> value.expression())
                .orElseThrow(() -> new FaultException(
                        at.span(), "'" + call.path() + "' does not say what it gives; end it with an expression"));
    }
}
