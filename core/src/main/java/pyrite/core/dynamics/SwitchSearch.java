package pyrite.core.dynamics;

import java.util.function.DoubleConsumer;
import org.hipparchus.analysis.solvers.AllowedSolution;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;
import org.hipparchus.exception.MathIllegalArgumentException;

/**
 * The first instant at which a relation no longer has the truth it had. A stretch of time is passed over only if bounds
 * of the margin prove that nothing switches in it (interval arithmetic; Moore, Interval Analysis, 1966); otherwise it
 * is halved, down to the resolution of time.
 */
final class SwitchSearch {
    /** Stretches looked at before a condition counts as faster than can be followed. */
    private static final int MOST_STRETCHES = 100_000;

    private static final int MOST_ITERATIONS = 200;

    /** A search looked at so many stretches that it was given up, at an instant in s. */
    static final class GivenUp extends RuntimeException {
        private final double time;

        GivenUp(double time) {
            super(null, null, false, false);
            this.time = time;
        }

        double time() {
            return time;
        }
    }

    private final StepEnclosure bounds;
    private final Condition.Relation relation;
    private final Term margin;
    private final boolean mode;
    private final double leeway;
    private final double resolution;
    private final DoubleConsumer watch;
    private int stretches;

    /**
     * @param bounds of the system between any two of the instants
     * @param margin its margin
     * @param mode the truth the relation has at the beginning
     * @param leeway how far the margin may be on the wrong side
     * @param resolution the time between instants that count as one, s
     * @param watch is told each instant looked at, and may throw to end the search
     */
    SwitchSearch(
            StepEnclosure bounds,
            Condition.Relation relation,
            Term margin,
            boolean mode,
            double leeway,
            double resolution,
            DoubleConsumer watch) {
        this.bounds = bounds;
        this.relation = relation;
        this.margin = margin;
        this.mode = mode;
        this.leeway = leeway;
        this.resolution = resolution;
        this.watch = watch;
    }

    /**
     * @return the first instant after {@code from} and up to {@code to} at which the relation switches, s; NaN if there
     *     is none
     * @throws GivenUp if the margin changes too fast to be followed
     */
    double first(double from, double to) {
        watch.accept(from);
        if (++stretches > MOST_STRETCHES) {
            throw new GivenUp(from);
        }
        if (bounds.isSurelyFrom(-leeway, margin, mode, from, to)) {
            return Double.NaN;
        }
        Enclosure room = mode
                ? bounds.ofSystem(margin, from, to)
                : bounds.ofSystem(margin, from, to).negated();
        if (room.isFinite() && staysThroughout(room, from, to)) {
            return Double.NaN;
        }
        if (room.isFalling()) {
            return crossing(from, to);
        }
        if (to - from <= resolution) {
            return room(to) < -room.noise() ? to : Double.NaN;
        }
        double middle = from + (to - from) / 2;
        double first = first(from, middle);
        return Double.isNaN(first) ? first(middle, to) : first;
    }

    /** A margin that rises goes further the way it already is; one that is zero but for rounding switches nothing. */
    private boolean staysThroughout(Enclosure room, double from, double to) {
        return room.low() + leeway >= 0 || room.isRising() || bounds.isNegligible(room, relation, from, to, true);
    }

    /** Where a margin that only falls comes to zero. */
    private double crossing(double from, double to) {
        if (!(room(to) < 0)) {
            return Double.NaN;
        }
        if (room(from) < 0) {
            return from;
        }
        try {
            return new BracketingNthOrderBrentSolver(0, resolution, 0, 5)
                    .solve(MOST_ITERATIONS, this::room, from, to, AllowedSolution.ANY_SIDE);
        } catch (MathIllegalArgumentException _) {
            return to;
        }
    }

    /** Not negative while the relation is what it was. */
    private double room(double t) {
        double value = bounds.at(t, margin);
        return (mode ? value : -value) + leeway;
    }
}
