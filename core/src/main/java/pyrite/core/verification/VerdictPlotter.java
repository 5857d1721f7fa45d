package pyrite.core.verification;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Recording;
import pyrite.core.dynamics.Term;
import pyrite.core.dynamics.Terms;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Model;
import pyrite.core.verification.VerdictPlot.Line;
import pyrite.core.verification.VerdictPlot.Sense;
import pyrite.core.verification.VerdictPlot.Trace;

/** Determines the traces and limits that explain a verdict. */
final class VerdictPlotter {
    private final Model model;
    private final Flattening flattening;
    private final @Nullable Trajectory trajectory;
    private final @Nullable Recording recording;
    private final Map<String, DisplayUnit> preferred;

    /**
     * @param preferred the units in which quantities are shown, by the labels of their traces; it is filled by what is
     *     exhibited
     */
    VerdictPlotter(
            Model model,
            Flattening flattening,
            @Nullable Trajectory trajectory,
            @Nullable Recording recording,
            Map<String, DisplayUnit> preferred) {
        this.preferred = preferred;
        this.model = model;
        this.flattening = flattening;
        this.trajectory = trajectory;
        this.recording = recording;
    }

    /** What to show for a condition that is looked at in time: its varying sides, with the constant ones as lines. */
    VerdictPlot claim(Expression claim, Instance scope, boolean requested) {
        VerdictPlot shown = VerdictPlot.NONE;
        for (Placed placed : comparisons(claim, scope)) {
            shown = shown.and(inTime(placed.comparison(), placed.scope(), requested));
        }
        return shown;
    }

    private VerdictPlot inTime(Binary b, Instance scope, boolean requested) {
        Term left = flattening.term(b.left(), scope);
        Term right = flattening.term(b.right(), scope);
        if (right instanceof Term.Constant(double limit)) {
            prefer(b.left(), left, b.right());
            return limited(b.left(), left, limit, sense(b.operator(), requested));
        }
        if (left instanceof Term.Constant(double limit)) {
            prefer(b.right(), right, b.left());
            return limited(b.right(), right, limit, opposite(sense(b.operator(), requested)));
        }
        return traced(b.left(), left).and(traced(b.right(), right));
    }

    /** What to show for a comparison of observations: the trace observed, and the limit as a level or as a deadline. */
    VerdictPlot comparison(Binary b, Instance scope, double left, double right) {
        VerdictPlot shown = side(b.left(), scope, b.right(), right, sense(b.operator(), false));
        return shown.and(side(b.right(), scope, b.left(), left, opposite(sense(b.operator(), false))));
    }

    private VerdictPlot side(Expression side, Instance scope, Expression other, double limit, Sense sense) {
        Flattening.Defined defined = side instanceof FeatureReference reference
                ? flattening.definition(reference, scope).orElse(null)
                : null;
        if (defined != null) {
            return side(defined.expression(), defined.scope(), other, limit, sense);
        }
        if (!(side instanceof Invocation call)
                || !(model.environment().function(call.function()).orElse(null)
                        instanceof ModelFunction.Observing(ObservationFunction observation))) {
            return VerdictPlot.NONE;
        }
        Expression subject = call.arguments().getFirst();
        return switch (observation) {
            case MAXIMUM, MINIMUM, INITIAL, FINAL, AT, MEAN -> {
                Term term = flattening.term(subject, scope);
                prefer(subject, term, other);
                boolean throughout = observation == ObservationFunction.MAXIMUM && sense == Sense.UPPER
                        || observation == ObservationFunction.MINIMUM && sense == Sense.LOWER;
                yield limited(subject, term, limit, throughout ? sense : once(sense));
            }
            case INTEGRAL -> traced(subject, flattening.term(subject, scope));
            case FIRST_TIME, LAST_TIME ->
                Double.isNaN(limit)
                        ? claim(subject, scope, true)
                        : claim(subject, scope, true).and(VerdictPlot.of(new Line(Sense.DEADLINE, "", limit)));
            case DURATION, ALWAYS, EVENTUALLY -> claim(subject, scope, true);
        };
    }

    private VerdictPlot limited(Expression expression, Term term, double limit, Sense sense) {
        VerdictPlot traced = traced(expression, term);
        if (traced.traces().isEmpty() || !Double.isFinite(limit)) {
            return traced;
        }
        return traced.and(VerdictPlot.of(new Line(
                sense,
                traced.traces().getFirst().label(),
                unitFor(expression, term).unit().fromSi(limit))));
    }

    private VerdictPlot traced(Expression expression, Term term) {
        if (recording == null || trajectory == null || term instanceof Term.Constant) {
            return VerdictPlot.NONE;
        }
        DisplayUnit unit = unitFor(expression, term);
        double[] values = new double[recording.times().length];
        for (int i = 0; i < values.length; i++) {
            values[i] = unit.unit().fromSi(Terms.value(term, recording.times()[i], recording.row(i)));
        }
        return VerdictPlot.of(recording.times(), new Trace(label(expression, term), unit.symbol(), values));
    }

    private String label(Expression expression, Term term) {
        return term instanceof Term.Variable(int index) && trajectory != null
                ? trajectory.system().flat().variables().get(index).path()
                : text(expression);
    }

    /** Shows a trace in the unit of the limit it is first held against. */
    private void prefer(Expression expression, Term term, Expression limit) {
        new DisplayUnits(model)
                .of(limit, dimension(expression))
                .ifPresent(unit -> preferred.putIfAbsent(label(expression, term), unit));
    }

    private Dimension dimension(Expression expression) {
        return TypeCheck.check(expression, model.environment()).type() instanceof Type.Number(Dimension d)
                ? d
                : Dimension.ONE;
    }

    private DisplayUnit unitFor(Expression expression, Term term) {
        DisplayUnit asLimit = preferred.get(label(expression, term));
        if (asLimit != null) {
            return asLimit;
        }
        if (term instanceof Term.Variable(int index) && trajectory != null) {
            return trajectory.system().flat().variables().get(index).unit();
        }
        Dimension dimension = dimension(expression);
        return new DisplayUnits(model).of(expression, dimension).orElseGet(() -> DisplayUnit.coherent(dimension));
    }

    /** A comparison with the instance in which its names are read. */
    record Placed(Binary comparison, Instance scope) {}

    /** The comparisons of numbers in a condition, also in the fixed values it refers to. */
    List<Placed> comparisons(Expression claim, Instance scope) {
        List<Placed> found = new ArrayList<>();
        collect(claim, scope, Set.of(), found);
        return found;
    }

    /** @param entered the constraints around that somebody defined; one that calls itself is gone into once */
    private void collect(Expression expression, Instance scope, Set<Referent> entered, List<Placed> found) {
        Optional<QuantifiedConstraint> quantified = QuantifiedConstraint.of(expression, scope, model, flattening);
        if (quantified.isPresent()) {
            quantified
                    .get()
                    .claims()
                    .forEach(each ->
                            collect(each.claim().expression(), each.claim().scope(), entered, found));
            return;
        }
        if (expression instanceof Expression.Body) {
            // What its parameters stand for is known only to who goes through the values.
            return;
        }
        if (expression instanceof Binary b && b.operator().isOrdering()) {
            found.add(new Placed(b, scope));
            return;
        }
        if (expression instanceof FeatureReference reference) {
            flattening.definition(reference, scope).ifPresent(d -> collect(d.expression(), d.scope(), entered, found));
        }
        if (expression instanceof Invocation call && !entered.contains(call.function())) {
            Set<Referent> within = new HashSet<>(entered);
            within.add(call.function());
            flattening
                    .opened(call, scope)
                    .ifPresent(opened -> collect(opened.expression(), opened.scope(), within, found));
        }
        expression.parts().forEach(part -> collect(part, scope, entered, found));
    }

    /** The size of what a condition compares at an instant, for weighing its margin; positive. */
    double scale(Condition condition, double instant) {
        return switch (condition) {
            case Condition.Relation r
            when trajectory != null -> {
                double[] v = trajectory.at(instant, false);
                yield Math.max(
                        Double.MIN_NORMAL,
                        Math.max(
                                Math.abs(Terms.value(r.left(), instant, v)),
                                Math.abs(Terms.value(r.right(), instant, v))));
            }
            case Condition.Both b -> Math.max(scale(b.left(), instant), scale(b.right(), instant));
            case Condition.Either e -> Math.max(scale(e.left(), instant), scale(e.right(), instant));
            case Condition.Not n -> scale(n.operand(), instant);
            case Condition.Relation _, Condition.Fixed _ -> Double.MIN_NORMAL;
        };
    }

    String text(Expression expression) {
        return ExpressionText.of(expression, ExpressionText.byName(model.environment()::nameOf));
    }

    private static Sense sense(Operator operator, boolean requested) {
        return requested
                ? Sense.TARGET
                : switch (operator) {
                    case LESS, LESS_OR_EQUAL -> Sense.UPPER;
                    case GREATER, GREATER_OR_EQUAL -> Sense.LOWER;
                    default -> Sense.TARGET;
                };
    }

    private static Sense opposite(Sense sense) {
        return sense == Sense.UPPER ? Sense.LOWER : sense == Sense.LOWER ? Sense.UPPER : sense;
    }

    private static Sense once(Sense sense) {
        return sense == Sense.UPPER ? Sense.UPPER_ONCE : sense == Sense.LOWER ? Sense.LOWER_ONCE : sense;
    }
}
