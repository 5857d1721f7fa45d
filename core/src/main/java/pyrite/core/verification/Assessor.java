package pyrite.core.verification;

import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Terms;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Model;

/**
 * Evaluates a requirement's constraint over a trajectory, with the margin of signal temporal logic's robust semantics
 * (Donzé and Maler 2010). A varying quantity outside an observation is meant at every instant: {@code x <= a} means
 * {@code always(x <= a)}.
 */
final class Assessor {
    private static final String NOT_ASKED = "of observations this cannot be asked; compare them with a limit";

    private final Model model;
    private final Flattening flattening;
    private final @Nullable Trajectory trajectory;
    private VerdictPlot plot = VerdictPlot.NONE;
    private final VerdictPlotter exhibitor;
    private final Observations observations;

    Assessor(Model model, Flattening flattening, @Nullable Trajectory trajectory, VerdictPlotter exhibitor) {
        this.model = model;
        this.flattening = flattening;
        this.trajectory = trajectory;
        this.exhibitor = exhibitor;
        this.observations = new Observations(model, flattening, trajectory, exhibitor, this);
    }

    VerdictPlot plot() {
        return plot;
    }

    Assessment assess(Expression expression, Instance scope) {
        if (expression instanceof FeatureReference reference) {
            Flattening.Defined defined = flattening.definition(reference, scope).orElse(null);
            if (defined != null) {
                return assess(defined.expression(), defined.scope());
            }
        }
        Optional<QuantifiedConstraint> quantified = QuantifiedConstraint.of(expression, scope, model, flattening);
        if (quantified.isPresent()) {
            return quantified(quantified.get());
        }
        if (!observations.areIn(expression, scope)) {
            return throughout(expression, scope);
        }
        return switch (expression) {
            case Unary u
            when u.operator() == Operator.NOT -> assess(u.operand(), scope).negated();
            case Binary b when b.operator().family() == Operator.Family.LOGIC -> logic(b, scope);
            case Binary b when b.operator().family() == Operator.Family.COMPARISON -> comparison(b, scope);
            case Expression.Conditional c ->
                assess(c.condition(), scope).holds() ? assess(c.whenTrue(), scope) : assess(c.whenFalse(), scope);
            case Invocation call when observations.of(call) == ObservationFunction.ALWAYS -> always(call, scope);
            case Invocation call
            when observations.of(call) == ObservationFunction.EVENTUALLY -> eventually(call, scope);
            case Invocation call -> opened(call, scope);
            default -> throw new FaultException(expression.span(), NOT_ASKED);
        };
    }

    private Assessment quantified(QuantifiedConstraint quantified) {
        return quantified.claims().stream()
                .map(each ->
                        assess(each.claim().expression(), each.claim().scope()).of(each.of()))
                .reduce(quantified.all() ? Assessment::weaker : Assessment::stronger)
                .orElseGet(() -> new Assessment(quantified.all(), null, null, null, "there is none"));
    }

    /** What a constraint that somebody defined comes to for its arguments. */
    private Assessment opened(Invocation call, Instance scope) {
        Flattening.Defined defined =
                flattening.opened(call, scope).orElseThrow(() -> new FaultException(call.span(), NOT_ASKED));
        return observations.deeper(call, () -> assess(defined.expression(), defined.scope()));
    }

    private Assessment logic(Binary b, Instance scope) {
        Assessment left = assess(b.left(), scope);
        Assessment right = assess(b.right(), scope);
        return switch (b.operator()) {
            case AND, AND_BOTH -> Assessment.weaker(left, right);
            case OR, OR_BOTH -> Assessment.stronger(left, right);
            case IMPLIES -> Assessment.stronger(left.negated(), right);
            default ->
                Assessment.stronger(Assessment.weaker(left, right.negated()), Assessment.weaker(left.negated(), right));
        };
    }

    /** A condition without observations: at once if nothing in it varies, else at every instant of the run. */
    private Assessment throughout(Expression expression, Instance scope) {
        Condition condition = flattening.condition(expression, scope);
        if (condition instanceof Condition.Fixed fixed) {
            return expression instanceof Binary b
                            && b.operator().family() == Operator.Family.COMPARISON
                            && TypeCheck.check(b.left(), model.environment()).type() instanceof Type.Number
                    ? comparison(b, scope)
                    : constant(expression, fixed, scope);
        }
        return always(expression, condition, observations.window(List.of(), scope), scope);
    }

    private Assessment constant(Expression expression, Condition.Fixed fixed, Instance scope) {
        return expression instanceof Binary b && b.operator().family() == Operator.Family.LOGIC
                ? logic(b, scope)
                : new Assessment(fixed.holds(), null, null, null, fixed.holds() ? "holds" : "does not hold");
    }

    private Assessment comparison(Binary b, Instance scope) {
        DisplayUnit unit = unitOf(b);
        Dimension dimension = dimension(b.left());
        try {
            Observer.TimedValue left = observations.number(b.left(), scope);
            Observer.TimedValue right = observations.number(b.right(), scope);
            plot = plot.and(exhibitor.comparison(b, scope, left.value(), right.value()));
            double si = switch (b.operator()) {
                case GREATER, GREATER_OR_EQUAL -> left.value() - right.value();
                case LESS, LESS_OR_EQUAL -> right.value() - left.value();
                case EQUAL, IDENTICAL -> -Math.abs(left.value() - right.value());
                default -> Math.abs(left.value() - right.value());
            };
            if (!Double.isFinite(si)) {
                throw new FaultException(
                        b.span(),
                        "this has no finite value: " + Wording.number(left.value()) + " "
                                + b.operator().symbol() + " " + Wording.number(right.value()));
            }
            double error = left.error() + right.error();
            if (error > 0 && Math.abs(si) <= error) {
                throw new Observations.Undecided("the margin of " + Wording.quantity(si, unit)
                        + " is smaller than the error of integrating, ± " + Wording.quantity(error, unit));
            }
            boolean strict = b.operator() == Operator.LESS
                    || b.operator() == Operator.GREATER
                    || b.operator() == Operator.NOT_EQUAL
                    || b.operator() == Operator.NOT_IDENTICAL;
            boolean holds = strict ? si > 0 : si >= 0;
            Double instant = Double.isNaN(left.instant())
                    ? Double.isNaN(right.instant()) ? null : Double.valueOf(right.instant())
                    : Double.valueOf(left.instant());
            double scale = Math.max(Math.max(Math.abs(left.value()), Math.abs(right.value())), Double.MIN_NORMAL);
            return new Assessment(
                    holds,
                    new Margin(si, scale, dimension, unit),
                    instant,
                    null,
                    Wording.comparison(left.value(), b.operator(), right.value(), unit, holds)
                            + (error > 0 ? ", integrated to ± " + Wording.quantity(error, unit) : ""));
        } catch (Observations.Undefined e) {
            plot = plot.and(exhibitor.comparison(b, scope, Double.NaN, undefinedSide(b, scope)));
            return new Assessment(false, null, null, null, e.getMessage());
        }
    }

    private double undefinedSide(Binary b, Instance scope) {
        return observations.areIn(b.right(), scope)
                ? Double.NaN
                : observations.number(b.right(), scope).value();
    }

    private Assessment always(Invocation call, Instance scope) {
        Expression claim = call.arguments().getFirst();
        return always(claim, flattening.condition(claim, scope), observations.window(call.arguments(), scope), scope);
    }

    /** Whether it holds follows from the smallest margin: of one that is zero, from the condition at its instant. */
    private Assessment always(Expression claim, Condition condition, Observer window, Instance scope) {
        plot = plot.and(exhibitor.claim(claim, scope, false));
        if (condition instanceof Condition.Fixed(boolean holds)) {
            return new Assessment(holds, null, null, null, holds ? "holds throughout" : "never holds");
        }
        Observer.TimedValue worst = window.minimum(Observable.marginOf(condition));
        boolean holds = worst.value() > 0 || worst.value() == 0 && window.holdsOnBothSides(condition, worst.instant());
        double violated =
                holds ? Double.NaN : window.firstTime(Terms.not(condition)).orElse(worst.instant());
        return new Assessment(
                holds,
                margin(claim, condition, worst, scope),
                worst.instant(),
                holds ? null : Double.valueOf(violated),
                holds
                        ? "holds throughout"
                        : "first violated at t = " + Wording.instant(violated) + worst(claim, worst.instant(), scope));
    }

    /** How far a comparison is missed where it is missed most; empty for what is no single comparison of numbers. */
    private String worst(Expression claim, double instant, Instance scope) {
        if (!(claim instanceof Binary b)
                || b.operator().family() != Operator.Family.COMPARISON
                || !(TypeCheck.check(b.left(), model.environment()).type() instanceof Type.Number)) {
            return "";
        }
        double left = observations.at(b.left(), instant, scope);
        double right = observations.at(b.right(), instant, scope);
        return "; worst at t = " + Wording.instant(instant) + ": "
                + Wording.comparison(left, b.operator(), right, unitOf(b), false);
    }

    private Assessment eventually(Invocation call, Instance scope) {
        Expression claim = call.arguments().getFirst();
        Condition condition = flattening.condition(claim, scope);
        Observer window = observations.window(call.arguments(), scope);
        plot = plot.and(exhibitor.claim(claim, scope, true));
        if (condition instanceof Condition.Fixed(boolean holds)) {
            return new Assessment(holds, null, null, null, holds ? "holds throughout" : "never holds");
        }
        Observer.TimedValue best = window.maximum(Observable.marginOf(condition));
        boolean holds = best.value() > 0 || best.value() == 0 && window.holdsOnOneSide(condition, best.instant());
        return new Assessment(
                holds,
                margin(claim, condition, best, scope),
                best.instant(),
                null,
                holds
                        ? "holds at t = "
                                + Wording.instant(window.firstTime(condition).orElse(best.instant()))
                        : "never holds");
    }

    /** The margin of a claim; null where conditions of different dimensions meet in it, for then it has no unit. */
    private @Nullable Margin margin(
            Expression claim, Condition condition, Observer.TimedValue sighting, Instance scope) {
        List<Binary> comparisons = exhibitor.comparisons(claim, scope).stream()
                .map(VerdictPlotter.Placed::comparison)
                .toList();
        if (comparisons.isEmpty()
                || !Double.isFinite(sighting.value())
                || comparisons.stream().map(b -> dimension(b.left())).distinct().count() > 1) {
            return null;
        }
        double scale = exhibitor.scale(condition, sighting.instant());
        return new Margin(
                sighting.value(), scale, dimension(comparisons.getFirst().left()), unitOf(comparisons.getFirst()));
    }

    private Dimension dimension(Expression expression) {
        return TypeCheck.check(expression, model.environment()).type() instanceof Type.Number(Dimension d)
                ? d
                : Dimension.ONE;
    }

    /** The unit of a comparison: that of its limit where one is written, else that of what is compared. */
    private DisplayUnit unitOf(Binary b) {
        Dimension dimension = dimension(b.left());
        return new DisplayUnits(model)
                .of(b.right(), dimension)
                .or(() -> new DisplayUnits(model).of(b.left(), dimension))
                .orElseGet(() -> DisplayUnit.coherent(dimension))
                .ofDifference();
    }
}
