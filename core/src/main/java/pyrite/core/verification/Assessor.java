package pyrite.core.verification;

import java.util.HashSet;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Term;
import pyrite.core.dynamics.Terms;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Function;
import pyrite.core.expression.Observation;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Model;

/**
 * Evaluates a requirement's constraint over a trajectory, with the margin of signal temporal logic's robust semantics
 * (Donzé and Maler 2010). What varies and is not observed is meant at every instant: {@code x <= a} as
 * {@code always(x <= a)}.
 */
final class Assessor {
    private final Model model;
    private final Flattening flattening;
    private final @Nullable Trajectory trajectory;
    private Exhibit exhibit = Exhibit.NONE;
    private final Exhibitor exhibitor;

    /** Thrown where a constraint needs a run and there is none. */
    static final class NeedsRun extends RuntimeException {
        NeedsRun() {
            super(null, null, false, false);
        }
    }

    /** Thrown where an observation has no value; the constraint that needs it is violated. */
    private static final class Undefined extends RuntimeException {
        Undefined(String message) {
            super(message, null, false, false);
        }
    }

    Assessor(Model model, Flattening flattening, @Nullable Trajectory trajectory, Exhibitor exhibitor) {
        this.model = model;
        this.flattening = flattening;
        this.trajectory = trajectory;
        this.exhibitor = exhibitor;
    }

    Exhibit exhibit() {
        return exhibit;
    }

    Assessment assess(Expression expression, Instance scope) {
        if (expression instanceof FeatureReference reference) {
            Flattening.Defined defined = flattening.definition(reference, scope).orElse(null);
            if (defined != null) {
                return assess(defined.expression(), defined.scope());
            }
        }
        Assessment quantified = quantified(expression, scope);
        if (quantified != null) {
            return quantified;
        }
        if (!observes(expression, scope)) {
            return throughout(expression, scope);
        }
        return switch (expression) {
            case Unary u when u.operator() == Operator.NOT -> assess(u.operand(), scope).negated();
            case Binary b when b.operator().family() == Operator.Family.LOGIC -> logic(b, scope);
            case Binary b when b.operator().family() == Operator.Family.COMPARISON -> comparison(b, scope);
            case Expression.Conditional c -> assess(c.condition(), scope).holds() ? assess(c.whenTrue(), scope)
                    : assess(c.whenFalse(), scope);
            case Invocation call when observation(call) == Observation.ALWAYS -> always(call, scope);
            case Invocation call when observation(call) == Observation.EVENTUALLY -> eventually(call, scope);
            default -> throw new FaultException(expression.span(), "a condition is needed here");
        };
    }

    /** Of what is said of all values, or of some, the one that decides; null if the expression says nothing of that kind. */
    private @Nullable Assessment quantified(Expression expression, Instance scope) {
        Invocation call = expression instanceof Expression.ArrowInvocation arrow
                ? new Invocation(arrow.function(), Stream.concat(Stream.of(arrow.receiver()), arrow.arguments().stream()).toList(), arrow.span())
                : expression instanceof Invocation invocation ? invocation : null;
        if (call == null || !(model.environment().function(call.function()).orElse(null) instanceof Function.OverCollection(CollectionFunction function))
                || function != CollectionFunction.FOR_ALL && function != CollectionFunction.EXISTS) {
            return null;
        }
        boolean all = function == CollectionFunction.FOR_ALL;
        Expression.Body body = function.body(call.arguments().get(1)).orElseThrow();
        return flattening.claims(call.arguments().getFirst(), body, scope).stream().map(each -> assess(each.claim().expression(), each.claim().scope()).of(each.of()))
                .reduce(all ? Assessment::weaker : Assessment::stronger).orElseGet(() -> new Assessment(all, null, null, null, "there is none"));
    }

    private Assessment logic(Binary b, Instance scope) {
        Assessment left = assess(b.left(), scope);
        Assessment right = assess(b.right(), scope);
        return switch (b.operator()) {
            case AND, AND_BOTH -> Assessment.weaker(left, right);
            case OR, OR_BOTH -> Assessment.stronger(left, right);
            case IMPLIES -> Assessment.stronger(left.negated(), right);
            default -> Assessment.stronger(Assessment.weaker(left, right.negated()), Assessment.weaker(left.negated(), right));
        };
    }

    /** A condition without observations: at once if nothing in it varies, else at every instant of the run. */
    private Assessment throughout(Expression expression, Instance scope) {
        Condition condition = flattening.condition(expression, scope);
        if (condition instanceof Condition.Fixed fixed) {
            return expression instanceof Binary b && b.operator().family() == Operator.Family.COMPARISON
                    && TypeCheck.check(b.left(), model.environment()).type() instanceof Type.Number ? comparison(b, scope)
                    : constant(expression, fixed, scope);
        }
        return always(expression, condition, window(List.of(), scope), scope);
    }

    private Assessment constant(Expression expression, Condition.Fixed fixed, Instance scope) {
        return expression instanceof Binary b && b.operator().family() == Operator.Family.LOGIC ? logic(b, scope)
                : new Assessment(fixed.holds(), null, null, null, fixed.holds() ? "holds" : "does not hold");
    }

    private Assessment comparison(Binary b, Instance scope) {
        DisplayUnit unit = unitOf(b);
        Dimension dimension = dimension(b.left());
        try {
            Observer.Sighting left = number(b.left(), scope);
            Observer.Sighting right = number(b.right(), scope);
            exhibit = exhibit.and(exhibitor.comparison(b, scope, left.value(), right.value()));
            double si = switch (b.operator()) {
                case GREATER, GREATER_OR_EQUAL -> left.value() - right.value();
                case LESS, LESS_OR_EQUAL -> right.value() - left.value();
                case EQUAL, IDENTICAL -> -Math.abs(left.value() - right.value());
                default -> Math.abs(left.value() - right.value());
            };
            boolean strict = b.operator() == Operator.LESS || b.operator() == Operator.GREATER
                    || b.operator() == Operator.NOT_EQUAL || b.operator() == Operator.NOT_IDENTICAL;
            boolean holds = strict ? si > 0 : si >= 0;
            Double instant = Double.isNaN(left.instant()) ? Double.isNaN(right.instant()) ? null
                    : Double.valueOf(right.instant()) : Double.valueOf(left.instant());
            double scale = Math.max(Math.max(Math.abs(left.value()), Math.abs(right.value())), Double.MIN_NORMAL);
            return new Assessment(holds, new Margin(si, scale, dimension, unit), instant, null,
                    Wording.comparison(left.value(), b.operator(), right.value(), unit, holds));
        } catch (Undefined e) {
            exhibit = exhibit.and(exhibitor.comparison(b, scope, Double.NaN, undefinedSide(b, scope)));
            return new Assessment(false, null, null, null, e.getMessage());
        }
    }

    private double undefinedSide(Binary b, Instance scope) {
        return observes(b.right(), scope) ? Double.NaN : number(b.right(), scope).value();
    }

    private Assessment always(Invocation call, Instance scope) {
        Expression claim = call.arguments().getFirst();
        return always(claim, flattening.condition(claim, scope), window(call.arguments(), scope), scope);
    }

    private Assessment always(Expression claim, Condition condition, Observer window, Instance scope) {
        requireWindow(window, claim);
        exhibit = exhibit.and(exhibitor.claim(claim, scope, false));
        Observer.Sighting worst = window.minimum((t, v) -> Terms.margin(condition, t, v));
        OptionalDouble violated = window.firstTime((t, v) -> !Terms.holds(condition, t, v));
        boolean holds = violated.isEmpty();
        return new Assessment(holds, margin(claim, condition, worst, scope), worst.instant(),
                holds ? null : violated.getAsDouble(),
                holds ? "holds throughout" : "violated first at t = " + Wording.instant(violated.getAsDouble()));
    }

    private Assessment eventually(Invocation call, Instance scope) {
        Expression claim = call.arguments().getFirst();
        Condition condition = flattening.condition(claim, scope);
        Observer window = window(call.arguments(), scope);
        requireWindow(window, claim);
        exhibit = exhibit.and(exhibitor.claim(claim, scope, true));
        Observer.Sighting best = window.maximum((t, v) -> Terms.margin(condition, t, v));
        OptionalDouble first = window.firstTime((t, v) -> Terms.holds(condition, t, v));
        return new Assessment(first.isPresent(), margin(claim, condition, best, scope), best.instant(), null,
                first.isPresent() ? "holds at t = " + Wording.instant(first.getAsDouble()) : "never holds");
    }

    /** The margin of a claim; null where conditions of different dimensions meet in it, for then it has no unit. */
    private @Nullable Margin margin(Expression claim, Condition condition, Observer.Sighting sighting, Instance scope) {
        List<Binary> comparisons = exhibitor.comparisons(claim, scope).stream().map(Exhibitor.Placed::comparison).toList();
        if (comparisons.isEmpty() || !Double.isFinite(sighting.value())
                || comparisons.stream().map(b -> dimension(b.left())).distinct().count() > 1) {
            return null;
        }
        double scale = exhibitor.scale(condition, sighting.instant());
        return new Margin(sighting.value(), scale, dimension(comparisons.getFirst().left()), unitOf(comparisons.getFirst()));
    }

    /** A number with the instant it was had; NaN as instant where none. */
    private Observer.Sighting number(Expression expression, Instance scope) {
        if (expression instanceof FeatureReference reference && observes(reference, scope)) {
            Flattening.Defined defined = flattening.definition(reference, scope).orElseThrow();
            return number(defined.expression(), defined.scope());
        }
        if (!observes(expression, scope)) {
            return constant(expression, scope);
        }
        return switch (expression) {
            case Invocation call when observation(call) != null -> observed(call, observation(call), scope);
            case Unary u when u.operator() == Operator.NEGATE -> {
                Observer.Sighting operand = number(u.operand(), scope);
                yield new Observer.Sighting(-operand.value(), operand.instant());
            }
            case Binary b when b.operator().family() == Operator.Family.ARITHMETIC -> arithmetic(b, scope);
            default -> throw new FaultException(expression.span(), "observations can be added, subtracted, multiplied and "
                    + "divided here, nothing else");
        };
    }

    private Observer.Sighting constant(Expression expression, Instance scope) {
        if (flattening.term(expression, scope) instanceof Term.Constant(double value)) {
            return new Observer.Sighting(value, Double.NaN);
        }
        if (trajectory == null) {
            throw new NeedsRun();
        }
        throw new FaultException(expression.span(), "this varies during the run; say what of it is meant, for instance "
                + "maximum(…) or final(…)");
    }

    private Observer.Sighting arithmetic(Binary b, Instance scope) {
        Observer.Sighting left = number(b.left(), scope);
        Observer.Sighting right = number(b.right(), scope);
        double value = switch (b.operator()) {
            case ADD -> left.value() + right.value();
            case SUBTRACT -> left.value() - right.value();
            case MULTIPLY -> left.value() * right.value();
            case DIVIDE -> left.value() / right.value();
            case POWER -> Math.pow(left.value(), right.value());
            case MODULO -> left.value() % right.value();
            default -> throw new FaultException(b.span(), "observations can be added, subtracted, multiplied and divided here, nothing else");
        };
        return new Observer.Sighting(value, Double.isNaN(left.instant()) ? right.instant() : left.instant());
    }

    private Observer.Sighting observed(Invocation call, Observation observation, Instance scope) {
        if (observation.of() == Observation.Of.CONDITION) {
            return timed(call, observation, scope);
        }
        Term term = flattening.term(call.arguments().getFirst(), scope);
        Observer.Signal signal = (t, v) -> Terms.value(term, t, v);
        if (observation == Observation.AT) {
            double instant = number(call.arguments().get(1), scope).value();
            return new Observer.Sighting(window(List.of(), scope).at(signal, instant), instant);
        }
        Observer window = window(call.arguments(), scope);
        requireWindow(window, call);
        return switch (observation) {
            case INITIAL -> window.initial(signal);
            case FINAL -> window.last(signal);
            case MAXIMUM -> window.maximum(signal);
            case MINIMUM -> window.minimum(signal);
            case MEAN -> new Observer.Sighting(window.mean(signal), Double.NaN);
            case INTEGRAL -> new Observer.Sighting(window.integral(signal), Double.NaN);
            default -> throw new IllegalStateException(observation + " is no observation of a quantity");
        };
    }

    private Observer.Sighting timed(Invocation call, Observation observation, Instance scope) {
        Expression claim = call.arguments().getFirst();
        Condition condition = flattening.condition(claim, scope);
        Observer window = window(call.arguments(), scope);
        requireWindow(window, call);
        Observer.Claim holds = (t, v) -> Terms.holds(condition, t, v);
        return switch (observation) {
            case FIRST_TIME -> instant(window.firstTime(holds), claim, scope);
            case LAST_TIME -> instant(window.lastTime(holds), claim, scope);
            case DURATION -> new Observer.Sighting(window.duration(holds), Double.NaN);
            default -> throw new FaultException(call.span(), observation.functionName() + " is a condition, not a time");
        };
    }

    private Observer.Sighting instant(OptionalDouble found, Expression claim, Instance scope) {
        return new Observer.Sighting(found.orElseThrow(() -> new Undefined("'" + exhibitor.text(claim)
                + "' never holds during the run")), found.getAsDouble());
    }

    private Observer window(List<Expression> arguments, Instance scope) {
        if (trajectory == null) {
            throw new NeedsRun();
        }
        return arguments.size() < 3 ? new Observer(trajectory, trajectory.start(), trajectory.stop())
                : new Observer(trajectory, number(arguments.get(1), scope).value(), number(arguments.get(2), scope).value());
    }

    private static void requireWindow(Observer window, Expression at) {
        if (window.isEmpty()) {
            throw new FaultException(at.span(), "the window lies outside the run or ends before it begins");
        }
    }

    /** Whether an expression, or the fixed values it refers to, contains an observation. */
    private boolean observes(Expression expression, Instance scope) {
        return observes(expression, scope, new HashSet<>());
    }

    private boolean observes(Expression expression, Instance scope, Set<Expression> seen) {
        if (!seen.add(expression)) {
            return false;
        }
        boolean[] found = {false};
        expression.walk(part -> {
            if (part instanceof Invocation call && observation(call) != null) {
                found[0] = true;
            } else if (!found[0] && part instanceof FeatureReference reference) {
                found[0] = flattening.definition(reference, scope)
                        .filter(defined -> observes(defined.expression(), defined.scope(), seen)).isPresent();
            }
        });
        return found[0];
    }

    private @Nullable Observation observation(Invocation call) {
        return model.environment().function(call.function()).orElse(null) instanceof Function.Observing(var observation)
                ? observation : null;
    }

    private Dimension dimension(Expression expression) {
        return TypeCheck.check(expression, model.environment()).type() instanceof Type.Number(Dimension d) ? d : Dimension.ONE;
    }

    /** The unit of a comparison: that of its limit where one is written, else that of what is compared. */
    private DisplayUnit unitOf(Binary b) {
        Dimension dimension = dimension(b.left());
        return model.environment().displayUnit(b.right(), dimension)
                .or(() -> model.environment().displayUnit(b.left(), dimension))
                .orElseGet(() -> DisplayUnit.coherent(dimension)).ofDifference();
    }
}
