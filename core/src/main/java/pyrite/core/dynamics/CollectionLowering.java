package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Body;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.MathFunction;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * Lowers expressions that have several values. Their number is known before a run, so functions over them are expanded
 * into terms and conditions over the members.
 */
final class CollectionLowering {
    private static final int LONGEST_RANGE = 10_000;

    private final Model model;
    private final Lowering lowering;

    CollectionLowering(Model model, Lowering lowering) {
        this.model = model;
        this.lowering = lowering;
    }

    /** Whether an expression may have several values by its form. */
    static boolean isMany(Expression expression) {
        return switch (expression) {
            case Expression.Sequence _,
                    Expression.Filtered _,
                    Expression.ArrowInvocation _,
                    Expression.Item _,
                    Expression.Access _ -> true;
            case Expression.Binary b -> b.operator() == Operator.RANGE;
            default -> false;
        };
    }

    /** Whether a fixed quantity has one value, and not a list of them. */
    boolean isOne(FlatAttribute quantity) {
        Expression expression = Objects.requireNonNull(quantity.value).expression();
        return !isMany(expression) || values(expression, quantity.owner).size() == 1;
    }

    /** The values of an expression: quantities, instances, terms or conditions. */
    List<Object> values(Expression expression, Instance scope) {
        return switch (expression) {
            case FeatureReference reference -> expanded(lowering.targets().of(reference, scope));
            case Expression.Sequence sequence -> sequence(sequence, scope);
            case Expression.NullLiteral _ -> List.of();
            case Expression.Access access -> access(access, scope);
            case Expression.Item item -> List.of(item(item, scope));
            case Expression.Classification c
            when c.relation() == Expression.Classification.Relation.AS -> values(c.operand(), scope);
            case Expression.Filtered f ->
                f.selects() ? selected(f.receiver(), f.body(), true, scope) : collected(f.receiver(), f.body(), scope);
            case Expression.ArrowInvocation arrow
            when function(arrow.function()) instanceof CollectionFunction f ->
                values(f, arrow.asCall().arguments(), scope, arrow);
            case Expression.Invocation call
            when function(call.function()) instanceof CollectionFunction f -> values(f, call.arguments(), scope, call);
            case Expression.Binary b when b.operator() == Operator.RANGE -> range(b, scope);
            case Expression.Conditional c
            when lowering.condition(c.condition(), scope) instanceof Condition.Fixed(boolean holds) ->
                values(holds ? c.whenTrue() : c.whenFalse(), scope);
            default -> List.of(single(expression, scope));
        };
    }

    private List<Object> sequence(Expression.Sequence sequence, Instance scope) {
        List<Object> all = new ArrayList<>();
        for (Expression item : sequence.items()) {
            List<Object> values = values(item, scope);
            lowering.spend(values.size(), item);
            all.addAll(values);
        }
        return all;
    }

    private Object single(Expression expression, Instance scope) {
        Type type = TypeCheck.check(expression, model.environment()).type();
        return type instanceof Type.Truth ? lowering.condition(expression, scope) : lowering.term(expression, scope);
    }

    /** A value that is itself given by an expression with several values stands for those. */
    private List<Object> expanded(List<Object> targets) {
        List<Object> all = new ArrayList<>();
        for (Object target : targets) {
            if (target instanceof FlatAttribute quantity
                    && quantity.isFixed()
                    && isMany(Objects.requireNonNull(quantity.value).expression())) {
                all.addAll(values(quantity.value.expression(), quantity.owner));
            } else {
                all.add(target);
            }
        }
        return all;
    }

    private @Nullable CollectionFunction function(Referent function) {
        return model.environment().function(function).orElse(null)
                        instanceof ModelFunction.OverCollection(CollectionFunction f)
                ? f
                : null;
    }

    private List<Object> access(Expression.Access access, Instance scope) {
        List<Object> at = values(access.source(), scope);
        for (Referent step : access.chain()) {
            at = at.stream()
                    .flatMap(from -> lowering.targets().next(from, (ElementId) step, access).stream())
                    .toList();
        }
        return expanded(at);
    }

    private Object item(Expression.Item item, Instance scope) {
        if (item.index() instanceof Expression.Sequence) {
            throw new FaultException(item.index().span(), "values with several indices are not computed yet");
        }
        List<Object> values = values(item.sequence(), scope);
        if (!(lowering.term(item.index(), scope) instanceof Term.Constant(double index))) {
            throw new FaultException(item.index().span(), "which one is meant must be known before the run");
        }
        if (index != Math.rint(index) || index < 1 || index > values.size()) {
            throw new FaultException(
                    item.index().span(),
                    "there are " + values.size() + ", counted from 1, so there is none with the number "
                            + (index == Math.rint(index) ? Long.toString((long) index) : Double.toString(index)));
        }
        return values.get((int) index - 1);
    }

    private List<Object> range(Expression.Binary range, Instance scope) {
        if (!(lowering.term(range.left(), scope) instanceof Term.Constant(double first))
                || !(lowering.term(range.right(), scope) instanceof Term.Constant(double last))) {
            throw new FaultException(range.span(), "the ends of a range must be known before the run");
        }
        if (last - first > LONGEST_RANGE) {
            throw new FaultException(
                    range.span(), "a range of more than " + LONGEST_RANGE + " numbers is not computed");
        }
        List<Object> numbers = new ArrayList<>();
        lowering.spend((int) Math.max(0, last - first), range);
        for (double number = first; number <= last; number++) {
            numbers.add(Terms.constant(number));
        }
        return numbers;
    }

    private List<Object> values(
            CollectionFunction function, List<Expression> arguments, Instance scope, Expression at) {
        return switch (function) {
            case COLLECT -> collected(arguments.getFirst(), body(function, arguments), scope);
            case SELECT -> selected(arguments.getFirst(), body(function, arguments), true, scope);
            case REJECT -> selected(arguments.getFirst(), body(function, arguments), false, scope);
            case SELECT_ONE ->
                selected(arguments.getFirst(), body(function, arguments), true, scope).stream()
                        .limit(1)
                        .toList();
            case TAIL -> values(arguments.getFirst(), scope).stream().skip(1).toList();
            case INCLUDING, UNION -> {
                List<Object> all = new ArrayList<>(values(arguments.getFirst(), scope));
                all.addAll(values(arguments.get(1), scope));
                yield spent(List.copyOf(all), at);
            }
            case EXCLUDING -> among(arguments, scope, at, false);
            case INTERSECTION -> among(arguments, scope, at, true);
            case SUBSEQUENCE -> {
                List<Object> values = values(arguments.getFirst(), scope);
                int last = arguments.size() > 2 ? place(arguments.get(2), scope) : values.size();
                yield values.stream()
                        .limit(Math.max(0, last))
                        .skip(Math.max(0, place(arguments.get(1), scope) - 1))
                        .toList();
            }
            case HEAD -> values(arguments.getFirst(), scope).stream().limit(1).toList();
            case LAST -> {
                List<Object> values = values(arguments.getFirst(), scope);
                yield values.isEmpty() ? List.of() : List.of(values.getLast());
            }
            case FOR_ALL, EXISTS, ALL_TRUE, ANY_TRUE, IS_EMPTY, NOT_EMPTY, INCLUDES, EXCLUDES ->
                List.of(condition(function, arguments, scope, at));
            case REDUCE, SUM, PRODUCT, SMALLEST, LARGEST, SIZE, MINIMIZE, MAXIMIZE ->
                List.of(term(function, arguments, scope, at));
        };
    }

    /** The values that are among others, or those that are not. */
    private List<Object> among(List<Expression> arguments, Instance scope, Expression at, boolean requested) {
        List<Object> others = values(arguments.get(1), scope).stream()
                .map(value -> known(value, at))
                .toList();
        return spent(values(arguments.getFirst(), scope), at).stream()
                .filter(value -> others.contains(known(value, at)) == requested)
                .toList();
    }

    private int place(Expression index, Instance scope) {
        if (lowering.term(index, scope) instanceof Term.Constant(double place) && place == Math.rint(place)) {
            return (int) Math.clamp(place, 0, Integer.MAX_VALUE);
        }
        throw new FaultException(index.span(), "a place is a whole number that is known before the run");
    }

    private static Body body(CollectionFunction function, List<Expression> arguments) {
        return function.body(arguments.get(1)).orElseThrow();
    }

    private List<Object> collected(Expression receiver, Body body, Instance scope) {
        return spent(values(receiver, scope), body).stream()
                .flatMap(value -> values(body.result(), inside(body, scope, value)).stream())
                .toList();
    }

    private List<Object> selected(Expression receiver, Body body, boolean requested, Instance scope) {
        return spent(values(receiver, scope), body).stream()
                .filter(value -> {
                    if (lowering.condition(body.result(), inside(body, scope, value))
                            instanceof Condition.Fixed(boolean holds)) {
                        return holds == requested;
                    }
                    throw new FaultException(
                            body.span(), "which ones are selected must be known before the run, but this varies");
                })
                .toList();
    }

    private List<Object> spent(List<Object> values, Expression at) {
        lowering.spend(values.size(), at);
        return values;
    }

    /**
     * What a body says of each value of an expression, with the path of the value where it is a thing or a quantity.
     */
    List<Flattening.Claim> claims(Expression receiver, Body body, Instance scope) {
        return spent(values(receiver, scope), body).stream()
                .map(value -> new Flattening.Claim(
                        switch (value) {
                            case Instance instance -> instance.path();
                            case FlatAttribute quantity -> quantity.path;
                            default -> "";
                        },
                        new Flattening.Defined(body.result(), inside(body, scope, value))))
                .toList();
    }

    private static Instance inside(Body body, Instance scope, Object... values) {
        Map<String, Object> parameters = new java.util.HashMap<>();
        for (int i = 0; i < values.length; i++) {
            parameters.put(body.parameters().get(i).name(), values[i]);
        }
        return scope.within(parameters);
    }

    Term term(CollectionFunction function, List<Expression> arguments, Instance scope, Expression at) {
        if (function == CollectionFunction.MINIMIZE || function == CollectionFunction.MAXIMIZE) {
            return lowering.extreme(
                    function == CollectionFunction.MINIMIZE ? MathFunction.MIN : MathFunction.MAX,
                    collected(arguments.getFirst(), body(function, arguments), scope),
                    at);
        }
        List<Object> values = spent(values(arguments.getFirst(), scope), at);
        return switch (function) {
            case SUM -> values.stream().map(value -> lowering.termOf(value, at)).reduce(Terms.ZERO, Terms::plus);
            case PRODUCT ->
                values.stream().map(value -> lowering.termOf(value, at)).reduce(Terms.ONE, Terms::times);
            case SMALLEST -> lowering.extreme(MathFunction.MIN, values, at);
            case LARGEST -> lowering.extreme(MathFunction.MAX, values, at);
            case SIZE -> Terms.constant(values.size());
            case REDUCE -> reduced(values, body(function, arguments), scope, at);
            default -> lowering.termOf(lowering.targets().single(values(function, arguments, scope, at), at), at);
        };
    }

    private Term reduced(List<Object> values, Body body, Instance scope, Expression at) {
        return values.stream()
                .map(value -> lowering.termOf(value, at))
                .reduce((a, b) -> lowering.term(body.result(), inside(body, scope, a, b)))
                .orElseThrow(() -> new FaultException(at.span(), "there are no values to reduce"));
    }

    Condition condition(CollectionFunction function, List<Expression> arguments, Instance scope, Expression at) {
        List<Object> values = spent(values(arguments.getFirst(), scope), at);
        return switch (function) {
            case FOR_ALL ->
                values.stream()
                        .map(value -> lowering.condition(
                                body(function, arguments).result(), inside(body(function, arguments), scope, value)))
                        .reduce(Terms.TRUE, Terms::both);
            case EXISTS ->
                values.stream()
                        .map(value -> lowering.condition(
                                body(function, arguments).result(), inside(body(function, arguments), scope, value)))
                        .reduce(Terms.FALSE, Terms::either);
            case ALL_TRUE ->
                values.stream().map(value -> lowering.conditionOf(value, at)).reduce(Terms.TRUE, Terms::both);
            case ANY_TRUE ->
                values.stream().map(value -> lowering.conditionOf(value, at)).reduce(Terms.FALSE, Terms::either);
            case INCLUDES -> includes(values, arguments.get(1), scope) ? Terms.TRUE : Terms.FALSE;
            case EXCLUDES -> includes(values, arguments.get(1), scope) ? Terms.FALSE : Terms.TRUE;
            case IS_EMPTY -> values.isEmpty() ? Terms.TRUE : Terms.FALSE;
            case NOT_EMPTY -> values.isEmpty() ? Terms.FALSE : Terms.TRUE;
            default -> lowering.conditionOf(lowering.targets().single(values(function, arguments, scope, at), at), at);
        };
    }

    private boolean includes(List<Object> values, Expression requested, Instance scope) {
        boolean number = TypeCheck.check(requested, model.environment()).type() instanceof Type.Number;
        Object one = number ? known(lowering.term(requested, scope), requested) : symbol(requested, scope);
        return values.stream().map(value -> known(value, requested)).anyMatch(one::equals);
    }

    /**
     * A value that can be compared with others before a run: a number, a text, the literal of an enumeration or a thing
     * itself.
     */
    private Object known(Object value, Expression at) {
        return switch (value) {
            case Instance instance -> instance;
            case Term.Constant constant -> constant;
            case FlatAttribute quantity
            when model.environment().typeOf(quantity.feature.id()) instanceof Type.Number ->
                known(lowering.termOf(quantity, at), at);
            case Term _, Condition _ ->
                throw new FaultException(
                        at.span(), "what is among the values must be known before the run, but they vary");
            default -> symbol(value, at);
        };
    }

    /** Whether the one thing an expression means is of a type: by its usage, its types and what those specialise. */
    boolean isOfType(Expression.Classification c, Instance scope) {
        if (c.relation() != Expression.Classification.Relation.ISTYPE
                && c.relation() != Expression.Classification.Relation.HASTYPE) {
            throw new FaultException(c.span(), "this question cannot be answered in a computation");
        }
        Element element = switch (lowering.targets().single(things(c.operand(), scope), c)) {
            case Instance instance -> instance.usage();
            case FlatAttribute quantity -> quantity.feature;
            default -> throw new FaultException(c.operand().span(), "this is no feature that has a type");
        };
        ElementId requested = (ElementId) c.type();
        return c.relation() == Expression.Classification.Relation.HASTYPE
                ? element.references(pyrite.core.model.Property.TYPES).stream()
                        .anyMatch(type -> type.target().equals(requested))
                : model.inheritance().isA(element, requested);
    }

    /** What an expression means, without asking what it is worth. */
    private List<Object> things(Expression expression, Instance scope) {
        return expression instanceof FeatureReference reference
                ? lowering.targets().of(reference, scope)
                : isMany(expression) ? values(expression, scope) : List.of();
    }

    /** A value that is no number: the literal of an enumeration, a text, or a thing itself. */
    Object symbol(Expression expression, Instance scope) {
        return switch (expression) {
            case Expression.StringLiteral text -> text.text();
            case Expression.Binary b
            when b.operator() == Operator.ADD -> "" + symbol(b.left(), scope) + symbol(b.right(), scope);
            case Expression.Conditional c
            when lowering.condition(c.condition(), scope) instanceof Condition.Fixed(boolean holds) ->
                symbol(holds ? c.whenTrue() : c.whenFalse(), scope);
            case FeatureReference reference
            when reference.last() instanceof ElementId id
                    && model.find(id)
                            .filter(e -> e.kind() == ElementKind.ENUMERATION && isLiteral(e))
                            .isPresent() -> id;
            case FeatureReference reference ->
                symbol(lowering.targets().single(lowering.targets().of(reference, scope), expression), expression);
            case Expression.Access _, Expression.Item _ ->
                symbol(lowering.targets().single(values(expression, scope), expression), expression);
            default -> throw new FaultException(expression.span(), "this cannot be compared in a computation");
        };
    }

    private Object symbol(Object target, Expression at) {
        return switch (target) {
            case FlatAttribute quantity
            when quantity.isFixed() ->
                symbol(Objects.requireNonNull(quantity.value).expression(), quantity.owner);
            case Instance.Slot.Alias alias -> symbol(alias.expression(), alias.scope());
            case Instance instance -> instance;
            default -> throw new FaultException(at.span(), "this has no value that is known before the run");
        };
    }

    private boolean isLiteral(Element element) {
        return element.owner() != null && model.get(element.owner()).kind() == ElementKind.ENUMERATION_DEFINITION;
    }
}
