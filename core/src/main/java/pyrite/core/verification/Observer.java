package pyrite.core.verification;

import java.util.OptionalDouble;
import java.util.function.DoublePredicate;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.hipparchus.optim.univariate.UnivariatePointValuePair;
import pyrite.core.dynamics.Trajectory;

/**
 * Observes a signal over a trajectory within a window. The signal is sampled at the integrator's steps and at
 * {@value #INNER} instants within each step; extremes and crossings are then refined with the steps' own interpolation.
 * A feature shorter than a quarter of a step is not seen.
 */
final class Observer {
    private static final int INNER = 3;
    /** Boole's rule on the five instants of a step (closed Newton-Cotes, order 6). */
    private static final double[] BOOLE = {7.0 / 90, 32.0 / 90, 12.0 / 90, 32.0 / 90, 7.0 / 90};

    private static final int HALVINGS = 60;

    private final Trajectory trajectory;
    private final double from;
    private final double to;

    /** A quantity that varies with the variables and with time. */
    interface Signal {
        double value(double t, double[] v);
    }

    interface Claim {
        boolean holds(double t, double[] v);
    }

    /** A value and its instant, s. */
    record TimedValue(double value, double instant) {}

    Observer(Trajectory trajectory, double from, double to) {
        this.trajectory = trajectory;
        this.from = Math.max(from, trajectory.start());
        this.to = Math.min(to, trajectory.stop());
    }

    /** Whether the window has any part of the run in it. */
    boolean isEmpty() {
        return from > to;
    }

    double at(Signal signal, double t) {
        return signal.value(t, trajectory.at(t, false));
    }

    TimedValue initial(Signal signal) {
        return new TimedValue(at(signal, from), from);
    }

    TimedValue last(Signal signal) {
        return new TimedValue(signal.value(to, trajectory.at(to, true)), to);
    }

    TimedValue maximum(Signal signal) {
        TimedValue lowest = minimum((t, v) -> -signal.value(t, v));
        return new TimedValue(-lowest.value(), lowest.instant());
    }

    /** The first of the smallest values. */
    TimedValue minimum(Signal signal) {
        double[] best = {Double.POSITIVE_INFINITY, from};
        double[] t3 = new double[3];
        double[] x3 = new double[3];
        int[] count = {0};
        trajectory.scan(from, to, INNER, (t, v, atEnd) -> {
            double x = signal.value(t, v);
            if (Double.isNaN(x)) {
                throw new ArithmeticException("the value observed is not a number at t = " + t + " s");
            }
            shift(t3, t);
            shift(x3, x);
            count[0]++;
            if (x < best[0]) {
                best[0] = x;
                best[1] = t;
            }
            if (count[0] >= 3
                    && x3[1] <= x3[0]
                    && x3[1] <= x3[2]
                    && t3[2] > t3[0]
                    && (x3[1] < x3[0] || x3[1] < x3[2])) {
                refine(signal, t3, best);
            }
            if (atEnd) {
                count[0] = 0;
            }
        });
        return new TimedValue(best[0], best[1]);
    }

    private static void shift(double[] window, double value) {
        window[0] = window[1];
        window[1] = window[2];
        window[2] = value;
    }

    private void refine(Signal signal, double[] t3, double[] best) {
        UnivariatePointValuePair lowest = new BrentOptimizer(1e-10, 1e-12 * (to - from) + Double.MIN_NORMAL)
                .optimize(
                        new MaxEval(200),
                        GoalType.MINIMIZE,
                        new SearchInterval(t3[0], t3[2], t3[1]),
                        new UnivariateObjectiveFunction(t -> signal.value(t, trajectory.at(t, t == t3[2]))));
        if (lowest.getValue() < best[0]) {
            best[0] = lowest.getValue();
            best[1] = lowest.getPoint();
        }
    }

    /** The integral over the window, in units of the signal times s. */
    double integral(Signal signal) {
        double[] sum = {0};
        double[] x5 = new double[BOOLE.length];
        double[] begin = {from};
        int[] k = {0};
        trajectory.scan(from, to, INNER, (t, v, atEnd) -> {
            if (k[0] == 0) {
                begin[0] = t;
            }
            x5[k[0]++] = signal.value(t, v);
            if (atEnd) {
                for (int i = 0; i < BOOLE.length; i++) {
                    sum[0] += BOOLE[i] * x5[i] * (t - begin[0]);
                }
                k[0] = 0;
            }
        });
        return sum[0];
    }

    double mean(Signal signal) {
        return to > from ? integral(signal) / (to - from) : at(signal, from);
    }

    OptionalDouble firstTime(Claim claim) {
        Changes changes = changes(claim);
        return changes.first;
    }

    OptionalDouble lastTime(Claim claim) {
        return changes(claim).last;
    }

    /** For how long in all the claim holds, s. */
    double duration(Claim claim) {
        return changes(claim).total;
    }

    private static final class Changes {
        private OptionalDouble first = OptionalDouble.empty();
        private OptionalDouble last = OptionalDouble.empty();
        private double total;
    }

    private Changes changes(Claim claim) {
        Changes changes = new Changes();
        double[] previous = {from};
        boolean[] held = {false};
        boolean[] inStep = {false};
        trajectory.scan(from, to, INNER, (t, v, atEnd) -> {
            boolean holds = claim.holds(t, v);
            double begin = previous[0];
            double turn = inStep[0] && holds != held[0] ? turn(claim, begin, t, holds) : t;
            if (holds && changes.first.isEmpty()) {
                changes.first = OptionalDouble.of(inStep[0] ? turn : t);
            }
            if (inStep[0]) {
                changes.total += holds && held[0] ? t - begin : holds ? t - turn : held[0] ? turn - begin : 0;
            }
            if (holds || inStep[0] && held[0]) {
                changes.last = OptionalDouble.of(holds ? t : turn);
            }
            previous[0] = t;
            held[0] = holds;
            inStep[0] = !atEnd;
        });
        return changes;
    }

    /** Where between two instants of one step a claim becomes {@code after}, by bisection. */
    private double turn(Claim claim, double low, double high, boolean after) {
        DoublePredicate turned = t -> claim.holds(t, trajectory.at(t, true)) == after;
        double a = low;
        double b = high;
        for (int i = 0; i < HALVINGS && b - a > 1e-15 * Math.max(1, Math.abs(b)); i++) {
            double middle = (a + b) / 2;
            if (turned.test(middle)) {
                b = middle;
            } else {
                a = middle;
            }
        }
        return b;
    }
}
