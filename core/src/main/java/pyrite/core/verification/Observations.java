package pyrite.core.verification;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Term;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.ExplainedException;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.MathFunction;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.model.Model;

/** Evaluates numeric expressions that contain observations of a trajectory. */
final class Observations {
    private static final int DEEPEST = 100;
    private static final String NOT_COMPUTED =
            "observations can be added, subtracted, multiplied, divided and given to functions of numbers here, nothing else";

    private final Model model;
    private final Flattening flattening;
    private final @Nullable Trajectory trajectory;
    private final VerdictPlotter exhibitor;
    private final Assessor assessor;
    private int depth;

    Observations(
            Model model,
            Flattening flattening,
            @Nullable Trajectory trajectory,
            VerdictPlotter exhibitor,
            Assessor assessor) {
        this.model = model;
        this.flattening = flattening;
        this.trajectory = trajectory;
        this.exhibitor = exhibitor;
        this.assessor = assessor;
    }

    /** A constraint needs a run and there is none. */
    static final class NeedsRun extends RuntimeException {
        NeedsRun() {
            super(null, null, false, false);
        }
    }

    /** An observation has no value; the constraint that needs it is violated. */
    static final class Undefined extends ExplainedException {
        Undefined(String message) {
            super(message, null, false, false);
        }
    }

    /**
     * The run decides nothing about a constraint: it does not reach far enough, or its error is larger than the margin.
     */
    static final class Undecided extends ExplainedException {
        Undecided(String message) {
            super(message, null, false, false);
        }
    }

    /** A number with the instant it was had; NaN as instant where none. */
    Observer.TimedValue number(Expression expression, Instance scope) {
        if (expression instanceof FeatureReference reference && areIn(reference, scope)) {
            Flattening.Defined defined = flattening.definition(reference, scope).orElseThrow();
            return number(defined.expression(), defined.scope());
        }
        if (!areIn(expression, scope)) {
            return constant(expression, scope);
        }
        return switch (expression) {
            case Invocation call
            when of(call) instanceof ObservationFunction observation -> observed(call, observation, scope);
            case Invocation call -> computed(call, scope);
            case Expression.ArrowInvocation arrow -> computed(arrow.asCall(), scope);
            case Expression.Conditional c ->
                number(assessor.assess(c.condition(), scope).holds() ? c.whenTrue() : c.whenFalse(), scope);
            case Unary u
            when u.operator() == Operator.NEGATE -> {
                Observer.TimedValue operand = number(u.operand(), scope);
                yield new Observer.TimedValue(-operand.value(), operand.instant(), operand.error());
            }
            case Binary b when b.operator().family() == Operator.Family.ARITHMETIC -> arithmetic(b, scope);
            default -> throw new FaultException(expression.span(), NOT_COMPUTED);
        };
    }

    /** A function of numbers that are observed: of one or two, of several, or one that somebody defined. */
    private Observer.TimedValue computed(Invocation call, Instance scope) {
        return switch (model.environment()
                .function(call.function())
                .map(known -> known.with(call.arguments().size()))
                .orElse(null)) {
            case ModelFunction.Mathematical(MathFunction f) -> {
                List<Observer.TimedValue> all = call.arguments().stream()
                        .map(argument -> number(argument, scope))
                        .toList();
                yield all.size() == 1
                        ? applied(f, all.getFirst())
                        : all.get(
                                f.apply(all.getFirst().value(), all.getLast().value())
                                                == all.getFirst().value()
                                        ? 0
                                        : 1);
            }
            case ModelFunction.OverCollection(CollectionFunction f) ->
                ofSeveral(f, numbers(call.arguments().getFirst(), scope), call);
            case ModelFunction.Defined _ -> {
                Flattening.Defined opened = flattening.opened(call, scope).orElseThrow();
                yield deeper(call, () -> number(opened.expression(), opened.scope()));
            }
            case null, default -> throw new FaultException(call.span(), NOT_COMPUTED);
        };
    }

    private Observer.TimedValue ofSeveral(CollectionFunction function, List<Observer.TimedValue> all, Invocation call) {
        Comparator<Observer.TimedValue> bySize = Comparator.comparingDouble(Observer.TimedValue::value);
        return switch (function) {
            case SUM ->
                all.stream().reduce(new Observer.TimedValue(0, Double.NaN), (a, b) -> combined(Operator.ADD, a, b));
            case PRODUCT ->
                all.stream()
                        .reduce(new Observer.TimedValue(1, Double.NaN), (a, b) -> combined(Operator.MULTIPLY, a, b));
            case LARGEST ->
                all.stream().max(bySize).orElseThrow(() -> new Undefined("of no values there is no largest"));
            case SMALLEST ->
                all.stream().min(bySize).orElseThrow(() -> new Undefined("of no values there is no smallest"));
            default -> throw new FaultException(call.span(), NOT_COMPUTED);
        };
    }

    /** Several numbers: those listed, or what a body gives for each of several values. */
    private List<Observer.TimedValue> numbers(Expression expression, Instance scope) {
        return switch (expression) {
            case Expression.Sequence sequence ->
                sequence.items().stream()
                        .flatMap(item -> numbers(item, scope).stream())
                        .toList();
            case Expression.Filtered filtered
            when !filtered.selects() -> collected(filtered.receiver(), filtered.body(), scope);
            case Expression.ArrowInvocation arrow
            when collects(arrow.asCall()) ->
                collected(
                        arrow.receiver(),
                        CollectionFunction.COLLECT
                                .body(arrow.arguments().getFirst())
                                .orElseThrow(),
                        scope);
            default -> List.of(number(expression, scope));
        };
    }

    private List<Observer.TimedValue> collected(Expression receiver, Expression.Body body, Instance scope) {
        return flattening.claims(receiver, body, scope).stream()
                .map(each -> number(each.claim().expression(), each.claim().scope()))
                .toList();
    }

    private boolean collects(Invocation call) {
        return model.environment().function(call.function()).orElse(null)
                        instanceof ModelFunction.OverCollection(CollectionFunction f)
                && f == CollectionFunction.COLLECT;
    }

    /** Goes into a calculation that somebody defined; one that calls itself without end is given up. */
    <T> T deeper(Invocation call, Supplier<T> work) {
        if (depth >= DEEPEST) {
            throw new FaultException(
                    call.span(),
                    "this calls itself more than " + DEEPEST + " times; what ends it must be known before the run");
        }
        depth++;
        try {
            return work.get();
        } finally {
            depth--;
        }
    }

    private Observer.TimedValue constant(Expression expression, Instance scope) {
        if (flattening.term(expression, scope) instanceof Term.Constant(double value)) {
            return new Observer.TimedValue(value, Double.NaN);
        }
        if (trajectory == null) {
            throw new NeedsRun();
        }
        throw new FaultException(
                expression.span(),
                "this varies during the run; say what of it is meant, for instance " + "maximum(…) or final(…)");
    }

    private Observer.TimedValue arithmetic(Binary b, Instance scope) {
        return switch (b.operator()) {
            case ADD, SUBTRACT, MULTIPLY, DIVIDE, POWER, MODULO ->
                combined(b.operator(), number(b.left(), scope), number(b.right(), scope));
            default -> throw new FaultException(b.span(), NOT_COMPUTED);
        };
    }

    private static Observer.TimedValue integrated(Quadrature.Result result) {
        return new Observer.TimedValue(result.value(), Double.NaN, result.error());
    }

    /** The error of a function's value is half of what the function changes over the error of its argument. */
    private static Observer.TimedValue applied(MathFunction function, Observer.TimedValue x) {
        double error = x.error() == 0
                ? 0
                : Math.abs(function.apply(x.value() + x.error(), 0) - function.apply(x.value() - x.error(), 0)) / 2;
        return new Observer.TimedValue(function.apply(x.value(), 0), x.instant(), error);
    }

    /** Errors are carried to first order. */
    private static Observer.TimedValue combined(
            Operator operator, Observer.TimedValue left, Observer.TimedValue right) {
        double l = left.value();
        double r = right.value();
        double value = switch (operator) {
            case ADD -> l + r;
            case SUBTRACT -> l - r;
            case MULTIPLY -> l * r;
            case DIVIDE -> l / r;
            case POWER -> Math.pow(l, r);
            default -> l % r;
        };
        double error = left.error() == 0 && right.error() == 0
                ? 0
                : switch (operator) {
                    case ADD, SUBTRACT, MODULO -> left.error() + right.error();
                    case MULTIPLY -> Math.abs(l) * right.error() + Math.abs(r) * left.error();
                    case DIVIDE -> (left.error() + Math.abs(value) * right.error()) / Math.abs(r);
                    default ->
                        Math.abs(r * Math.pow(l, r - 1)) * left.error()
                                + Math.abs(value * Math.log(Math.abs(l))) * right.error();
                };
        return new Observer.TimedValue(value, Double.isNaN(left.instant()) ? right.instant() : left.instant(), error);
    }

    private Observer.TimedValue observed(Invocation call, ObservationFunction observation, Instance scope) {
        if (observation.of() == ObservationFunction.Of.CONDITION) {
            return timed(call, observation, scope);
        }
        Term term = flattening.term(call.arguments().getFirst(), scope);
        Observable quantity = Observable.of(term);
        if (observation == ObservationFunction.AT) {
            double instant = number(call.arguments().get(1), scope).value();
            return covered(instant, instant).initial(quantity);
        }
        Observer window = window(call.arguments(), scope);
        return switch (observation) {
            case INITIAL -> window.initial(quantity);
            case FINAL -> window.last(quantity);
            case MAXIMUM -> window.maximum(quantity);
            case MINIMUM -> window.minimum(quantity);
            case MEAN -> integrated(window.mean(quantity));
            case INTEGRAL -> integrated(window.integral(quantity));
            default -> throw new IllegalStateException(observation + " is no observation of a quantity");
        };
    }

    private Observer.TimedValue timed(Invocation call, ObservationFunction observation, Instance scope) {
        Expression claim = call.arguments().getFirst();
        Condition condition = flattening.condition(claim, scope);
        Observer window = window(call.arguments(), scope);
        return switch (observation) {
            case FIRST_TIME -> instant(window.firstTime(condition), claim, scope);
            case LAST_TIME -> instant(window.lastTime(condition), claim, scope);
            case DURATION -> new Observer.TimedValue(window.duration(condition), Double.NaN);
            default ->
                throw new FaultException(call.span(), observation.functionName() + " is a condition, not a time");
        };
    }

    private Observer.TimedValue instant(OptionalDouble found, Expression claim, Instance scope) {
        return new Observer.TimedValue(
                found.orElseThrow(() -> new Undefined("'" + exhibitor.text(claim) + "' never holds during the run")),
                found.getAsDouble());
    }

    /** What a quantity of the run is at an instant, s; coherent SI. */
    double at(Expression quantity, double instant, Instance scope) {
        return covered(instant, instant)
                .initial(Observable.of(flattening.term(quantity, scope)))
                .value();
    }

    /** The window of an observation: its second and third argument, or the whole run. */
    Observer window(List<Expression> arguments, Instance scope) {
        if (trajectory == null) {
            throw new NeedsRun();
        }
        if (arguments.size() < 3) {
            return covered(trajectory.start(), trajectory.stop());
        }
        double from = number(arguments.get(1), scope).value();
        double to = number(arguments.get(2), scope).value();
        if (from > to) {
            throw new FaultException(
                    arguments.get(1).span(),
                    "the window ends at " + Wording.instant(to) + ", before it begins at " + Wording.instant(from));
        }
        return covered(from, to);
    }

    /** @throws Undecided if the run does not reach from one instant to the other */
    private Observer covered(double from, double to) {
        if (trajectory == null) {
            throw new NeedsRun();
        }
        double leeway = trajectory.resolution();
        if (from < trajectory.start() - leeway || to > trajectory.stop() + leeway) {
            String window = from == to
                    ? "t = " + Wording.instant(from)
                    : "the window from t = " + Wording.instant(from) + " to " + Wording.instant(to);
            throw new Undecided("the run goes from t = " + Wording.instant(trajectory.start()) + " to "
                    + Wording.instant(trajectory.stop()) + " and does not cover " + window);
        }
        return new Observer(
                trajectory,
                Math.clamp(from, trajectory.start(), trajectory.stop()),
                Math.clamp(to, trajectory.start(), trajectory.stop()));
    }

    /** Whether an expression, or the fixed values it refers to, contains an observation. */
    boolean areIn(Expression expression, Instance scope) {
        return areIn(expression, scope, new HashSet<>());
    }

    private boolean areIn(Expression expression, Instance scope, Set<Expression> seen) {
        if (!seen.add(expression)) {
            return false;
        }
        boolean[] found = {false};
        expression.walk(part -> {
            if (part instanceof Invocation call && of(call) != null) {
                found[0] = true;
            } else if (!found[0] && part instanceof Invocation call) {
                found[0] = flattening
                        .opened(call, scope)
                        .filter(opened -> areIn(opened.expression(), opened.scope(), seen))
                        .isPresent();
            } else if (!found[0] && part instanceof FeatureReference reference) {
                found[0] = flattening
                        .definition(reference, scope)
                        .filter(defined -> areIn(defined.expression(), defined.scope(), seen))
                        .isPresent();
            }
        });
        return found[0];
    }

    /** The observation that a call is; null if it is none. */
    @Nullable
    ObservationFunction of(Invocation call) {
        return model.environment().function(call.function()).orElse(null)
                        instanceof ModelFunction.Observing(var observation)
                ? observation
                : null;
    }
}
