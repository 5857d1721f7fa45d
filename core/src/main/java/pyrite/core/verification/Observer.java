package pyrite.core.verification;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.optim.MaxEval;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.hipparchus.optim.univariate.BrentOptimizer;
import org.hipparchus.optim.univariate.SearchInterval;
import org.hipparchus.optim.univariate.UnivariateObjectiveFunction;
import org.hipparchus.optim.univariate.UnivariatePointValuePair;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Enclosure;
import pyrite.core.dynamics.StepEnclosure;
import pyrite.core.dynamics.Terms;
import pyrite.core.dynamics.Trajectory;

/**
 * Observes quantities and conditions over a window of a trajectory, by proof and not by sampling: bounds over each step
 * are bisected until they decide, or until the resolution of time or of the numbers (interval branch and bound; Moore
 * 1966; Hansen and Walster, Global Optimization Using Interval Analysis, 2004, chapters 9 and 12). Nothing that is
 * longer than the resolution of time is missed, however short it is against the steps.
 */
final class Observer {
    /** Where only the size of an extreme is in question, it is exact to this part of what is observed. */
    private static final double LOOSE = 1e-9;
    /** Where the sign of an extreme is in question, and with it a verdict, it is exact to this part. */
    private static final double TIGHT = 1e-12;
    /** Extremes that differ by this part are the same one. */
    private static final double SAME = 1e-7;
    /** The noise of single instants comes from states of about this many times its size. */
    private static final double SIZE_OF_NOISE = 1e13;
    /** So many bounds are computed for one observation: some ten seconds of work. */
    private static final int MOST_BOUNDS = 3_000_000;

    private final Trajectory trajectory;
    private final double from;
    private final double to;
    private final double resolution;
    private int bounds;

    /**
     * A value and its instant.
     *
     * @param instant s; NaN if there is none
     * @param error a bound of the value's error from integrating, 0 for what is exact to the resolution
     */
    record TimedValue(double value, double instant, double error) {
        TimedValue(double value, double instant) {
            this(value, instant, 0);
        }
    }

    /** @param from and {@code to} in s, within the run */
    Observer(Trajectory trajectory, double from, double to) {
        this.trajectory = trajectory;
        this.from = from;
        this.to = to;
        this.resolution = trajectory.resolution();
    }

    /** The part of a step that is in the window. */
    private record Part(int step, double a, double b) {}

    private List<Part> parts() {
        List<Part> parts = new ArrayList<>();
        for (int i = trajectory.stepFrom(from); i < trajectory.stepCount(); i++) {
            Trajectory.Span step = trajectory.step(i);
            if (step.from() > to || step.from() == to && to > from) {
                break;
            }
            parts.add(new Part(i, Math.clamp(from, step.from(), step.to()), Math.clamp(to, step.from(), step.to())));
        }
        return parts;
    }

    TimedValue initial(Observable quantity) {
        return new TimedValue(value(quantity, trajectory.stepFrom(from), from), from);
    }

    TimedValue last(Observable quantity) {
        Part last = parts().getLast();
        return new TimedValue(value(quantity, last.step(), to), to);
    }

    /** Whether a condition holds at an instant, where something switches there on both sides. */
    boolean holdsOnBothSides(Condition condition, double t) {
        return Terms.holds(condition, t, trajectory.at(t, true)) && Terms.holds(condition, t, trajectory.at(t, false));
    }

    /** Whether a condition holds at an instant, where something switches there on one side at least. */
    boolean holdsOnOneSide(Condition condition, double t) {
        return Terms.holds(condition, t, trajectory.at(t, true)) || Terms.holds(condition, t, trajectory.at(t, false));
    }

    TimedValue maximum(Observable quantity) {
        TimedValue lowest = minimum(quantity.negated());
        return new TimedValue(-lowest.value(), lowest.instant());
    }

    /** The smallest value, and the first instant at which it is reached, but for the error of the run. */
    TimedValue minimum(Observable quantity) {
        Minimum minimum = new Minimum(quantity);
        List<Part> parts = parts();
        parts.forEach(minimum::seeEnds);
        parts.forEach(minimum::search);
        return new TimedValue(minimum.best.value(), firstAsLow(quantity, parts, minimum.best));
    }

    /** Of several minima that differ by less than the run is exact, the first one is meant. */
    private double firstAsLow(Observable quantity, List<Part> parts, TimedValue lowest) {
        double enough = lowest.value() + SAME * Math.abs(lowest.value());
        for (Part part : parts) {
            if (part.a() >= lowest.instant()) {
                break;
            }
            if (bounds(quantity, trajectory.enclosure(part.step()), part).low() <= enough) {
                Minimum here = new Minimum(quantity);
                here.seeEnds(part);
                here.search(part);
                if (here.best.value() <= enough) {
                    return Math.min(here.best.instant(), lowest.instant());
                }
            }
        }
        return lowest.instant();
    }

    /** Branch and bound: stretches whose lower bound is no better than what was found are left out. */
    private final class Minimum {
        private final Observable quantity;
        private TimedValue best = new TimedValue(Double.POSITIVE_INFINITY, from);

        Minimum(Observable quantity) {
            this.quantity = quantity;
        }

        void see(int step, double t) {
            double x = value(quantity, step, t);
            if (x < best.value() || x == best.value() && t < best.instant()) {
                best = new TimedValue(x, t);
            }
        }

        void seeEnds(Part part) {
            see(part.step(), part.a());
            see(part.step(), part.b());
        }

        void search(Part part) {
            StepEnclosure enclosure = trajectory.enclosure(part.step());
            Deque<Part> open = new ArrayDeque<>(List.of(part));
            while (!open.isEmpty()) {
                Part next = open.pop();
                Enclosure bound = bounds(quantity, enclosure, next);
                boolean isShort = next.b() - next.a() <= resolution;
                if (!bound.isFinite() && isShort) {
                    throw unbounded(next.a());
                }
                if (isShort || bound.isBounded() && (isNoBetter(bound) || bound.isMonotone() || bound.isConcave())) {
                    continue;
                }
                if (bound.isConvex()) {
                    seeValley(next);
                    continue;
                }
                double middle = next.a() + (next.b() - next.a()) / 2;
                see(next.step(), middle);
                open.push(new Part(next.step(), middle, next.b()));
                open.push(new Part(next.step(), next.a(), middle));
            }
        }

        /** A stretch that may change the sign of the minimum is looked at more closely than one that cannot. */
        private boolean isNoBetter(Enclosure bound) {
            double size = Math.max(Math.max(bound.magnitude(), Math.abs(best.value())), SIZE_OF_NOISE * bound.noise());
            boolean maySwitchSign = best.value() >= 0 && bound.low() < 0;
            return bound.low() >= best.value() - (maySwitchSign ? TIGHT : LOOSE) * size;
        }

        /** The one minimum of a convex stretch. */
        private void seeValley(Part part) {
            UnivariatePointValuePair lowest = new BrentOptimizer(1e-10, resolution)
                    .optimize(
                            new MaxEval(1000),
                            GoalType.MINIMIZE,
                            new SearchInterval(part.a(), part.b()),
                            new UnivariateObjectiveFunction(t -> value(quantity, part.step(), t)));
            see(part.step(), lowest.getPoint());
        }
    }

    private double value(Observable quantity, int step, double t) {
        double x = quantity.at(t, trajectory.at(step, t));
        if (Double.isNaN(x)) {
            throw new ArithmeticException("what is observed is not a number at t = " + Wording.instant(t));
        }
        if (Double.isInfinite(x)) {
            throw unbounded(t);
        }
        return x;
    }

    private Enclosure bounds(Observable quantity, StepEnclosure step, Part part) {
        count(part.a());
        return quantity.between(step, part.a(), part.b());
    }

    private void count(double t) {
        trajectory.watch(t);
        if (++bounds > MOST_BOUNDS) {
            throw new ArithmeticException("this changes too often to be judged; " + MOST_BOUNDS
                    + " bounds were not enough up to t = " + Wording.instant(t));
        }
    }

    private static ArithmeticException unbounded(double t) {
        return new ArithmeticException(
                "what is observed grows without bound, or is not defined, at t = " + Wording.instant(t));
    }

    /** A stretch of time, s. */
    record Stretch(double from, double to) {}

    /** The first instant at which a condition holds. */
    OptionalDouble firstTime(Condition condition) {
        List<Stretch> found = stretches(condition, true);
        return found.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(found.getFirst().from());
    }

    /** The last instant at which a condition holds. */
    OptionalDouble lastTime(Condition condition) {
        List<Stretch> found = stretches(condition, false);
        return found.isEmpty()
                ? OptionalDouble.empty()
                : OptionalDouble.of(found.getLast().to());
    }

    /** For how long in all a condition holds, s. */
    double duration(Condition condition) {
        return stretches(condition, false).stream()
                .mapToDouble(stretch -> stretch.to() - stretch.from())
                .sum();
    }

    /** The stretches in which a condition holds, in order; only the first if that is enough. */
    private List<Stretch> stretches(Condition condition, boolean first) {
        List<Stretch> found = new ArrayList<>();
        for (Part part : parts()) {
            StepEnclosure enclosure = trajectory.enclosure(part.step());
            Deque<Part> open = new ArrayDeque<>(List.of(part));
            while (!open.isEmpty()) {
                Part next = open.pop();
                count(next.a());
                Boolean holds = enclosure.decided(condition, next.a(), next.b());
                if (holds == null && next.b() - next.a() > resolution) {
                    double middle = next.a() + (next.b() - next.a()) / 2;
                    open.push(new Part(next.step(), middle, next.b()));
                    open.push(new Part(next.step(), next.a(), middle));
                } else if (holds == null ? enclosure.holdsNear(condition, next.a(), next.b()) : holds) {
                    add(found, next);
                    if (first) {
                        return found;
                    }
                }
            }
        }
        return found;
    }

    private static void add(List<Stretch> found, Part part) {
        if (!found.isEmpty() && found.getLast().to() == part.a()) {
            found.add(new Stretch(found.removeLast().from(), part.b()));
        } else {
            found.add(new Stretch(part.a(), part.b()));
        }
    }

    /** The integral over the window, in units of the quantity times s, with a bound of its error. */
    Quadrature.Result integral(Observable quantity) {
        Quadrature.Result sum = Quadrature.Result.ZERO;
        for (Part part : parts()) {
            StepEnclosure enclosure = trajectory.enclosure(part.step());
            DoubleUnaryOperator f = t -> value(quantity, part.step(), t);
            Quadrature quadrature =
                    new Quadrature(f, (a, b) -> bounds(quantity, enclosure, new Part(part.step(), a, b)), resolution);
            sum = sum.plus(quadrature.integral(part.a(), part.b()));
        }
        return sum;
    }

    /** The mean over the window with a bound of its error; over an instant, the value there. */
    Quadrature.Result mean(Observable quantity) {
        return to > from
                ? integral(quantity).over(to - from)
                : new Quadrature.Result(initial(quantity).value(), 0);
    }
}
