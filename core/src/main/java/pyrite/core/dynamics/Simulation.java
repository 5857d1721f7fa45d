package pyrite.core.dynamics;

import java.time.InstantSource;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.sampling.ODEStateInterpolator;
import org.hipparchus.ode.sampling.ODEStepHandler;

/**
 * Integrates a compiled system with the Dormand-Prince 8(5,3) method (Hairer, Nørsett, Wanner: Solving Ordinary
 * Differential Equations I, II.5) and locates switching. Within a piece every relation keeps its initial truth value,
 * so the right-hand side is smooth. Where the margin of a relation crosses zero, the piece ends, the relation changes
 * and the next piece begins.
 */
public final class Simulation implements Moment {
    private static final int CHECK_EVERY = 512;
    /**
     * In units of the resolution of time in the run, which is a few of the smallest differences a double can have
     * there: how exactly a switch is located, how far ahead a margin is looked at, which instants count as one, and how
     * near to an instant without a value a run must come before it says so.
     */
    private static final double ULPS = 16;

    private static final double SWITCH_ACCURACY = 1;
    private static final double AHEAD = 1e3;
    private static final double SAME_INSTANT = 1e5;
    private static final double NO_FURTHER = 100;
    private static final int EULER_STEPS = 4;
    private static final double KINK_SHARE = 0.1;
    private static final double SLACK = 1.01;
    private static final double LARGEST_STEP = 0.02;
    private static final double SMALLEST_STEP = 1e-14;
    private static final double FIRST_STEP = 1e-6;
    private static final int SETTLING_ROUNDS = 20;
    private static final int RETRIES = 12;
    /** Runs of fewer steps are not looked at for stiffness. */
    private static final int STEPS_BEFORE_STIFF = 5_000;
    /** All steps are kept until the requirements are judged. */
    private static final int MOST_STEPS = 2_000_000;

    private final SortedSystem system;
    private final Kernel kernel;
    private final RunSettings settings;
    private final RunControl control;
    private final InstantSource clock;
    private final RunFailures failures;
    private final double span;
    private final double resolution;
    private final int[] states;
    private final int[] rates;
    private final long deadline;
    private final boolean[] modes;
    private final double[] v;
    private final double[] margins;
    private final double[] marginsAhead;
    private final double[] largestMargins;
    private final TimeSwitches timeSwitches;
    private final BranchGuard guard;
    private final Nominals nominals;
    private final List<Term> marginTerms;
    private final Stiffness stiffness = new Stiffness();
    private double lastStep;
    private final SwitchCounts switches;
    private final Trajectory trajectory;
    private int evaluations;
    private double reached;
    private double[] reachedState = new double[0];
    private final Happenings happenings;
    /** Whether nothing changes between events, so that there is nothing to integrate and nothing to locate. */
    private final boolean isStill;

    private double t;
    private double[] y = new double[0];
    /** Whether a held variable changed and what depends on it was not computed since. */
    private boolean isStale;
    /** Whether anything is computed from held variables. */
    private final boolean hasDependents;

    private Simulation(
            SortedSystem system, RunSettings settings, RunControl control, InstantSource clock, Happenings happenings) {
        this.happenings = happenings;
        this.system = system;
        this.kernel = Compiler.compile(system);
        this.settings = settings;
        this.control = control;
        this.clock = clock;
        this.failures = new RunFailures(system, settings);
        this.span = settings.stop() - settings.start();
        this.resolution = ULPS * Math.ulp(Math.max(Math.abs(settings.start()), Math.abs(settings.stop())));
        this.states = system.flat().rates().keySet().stream()
                .sorted()
                .mapToInt(Integer::intValue)
                .toArray();
        this.rates = Arrays.stream(states)
                .map(state -> system.flat().rates().get(state))
                .toArray();
        this.deadline = clock.millis() + settings.budget().toMillis();
        this.modes = new boolean[system.flat().relations().size()];
        this.v = new double[system.flat().variables().size()];
        for (int i = 0; i < v.length; i++) {
            // What is held has no value until it is given one.
            v[i] = system.flat().variables().get(i).role().isHeld() ? Double.NaN : 0;
        }
        this.hasDependents = modes.length > 0
                || system.flat().variables().stream()
                        .anyMatch(variable -> !variable.role().isHeld());
        this.margins = new double[modes.length];
        this.marginsAhead = new double[modes.length];
        this.largestMargins = new double[modes.length];
        this.switches = new SwitchCounts(modes.length, SAME_INSTANT * resolution);
        this.guard = new BranchGuard(system, kernel);
        this.trajectory = new Trajectory(system, kernel, guard, states, failures, this::watch);
        this.timeSwitches = new TimeSwitches();
        this.isStill = states.length == 0 && !new TimeOnly(system).isAnything();
        this.marginTerms = system.flat().relations().stream()
                .map(Condition.Relation::margin)
                .toList();
        this.nominals = new Nominals(system, states, rates, settings);
        this.lastStep = FIRST_STEP * span;
    }

    /**
     * Runs a system from its start values.
     *
     * @throws RunFailure if a value stops being finite, a condition switches without end, time is up or somebody
     *     cancels
     */
    public static Trajectory run(SortedSystem system, RunSettings settings, RunControl control) {
        return run(system, settings, control, InstantSource.system());
    }

    static Trajectory run(SortedSystem system, RunSettings settings, RunControl control, InstantSource clock) {
        return new Simulation(system, settings, control, clock, Happenings.NONE).run();
    }

    /** A run in which something happens at single instants; it stands before its first instant. */
    public static Simulation of(SortedSystem system, RunSettings settings, RunControl control, Happenings happenings) {
        return new Simulation(system, settings, control, InstantSource.system(), happenings);
    }

    private Trajectory run() {
        begin();
        advance(settings.stop());
        return trajectory;
    }

    /** Whether nothing changes between events. */
    public boolean isStill() {
        return isStill;
    }

    /** What was computed so far. */
    public Trajectory trajectory() {
        return trajectory;
    }

    /** Computes the first instant. */
    public void begin() {
        t = settings.start();
        y = Arrays.stream(states)
                .mapToDouble(state -> system.flat().variables().get(state).start())
                .toArray();
        if (states.length == 0) {
            y = new double[] {0};
        }
        happenings.begin(this);
        settle(t, y, -1);
        isStale = false;
        requireFinite(t);
        nominals.start(t, y, v, modes);
        happenings.happen(this);
        refresh();
    }

    /**
     * Goes on up to an instant, s, that is not after the end of the run.
     *
     * @throws RunFailure if a value stops being finite, a condition switches without end, time is up or somebody
     *     cancels
     */
    public void advance(double until) {
        while (t < until) {
            double limit = Math.min(until, happenings.next());
            Piece piece = isStill ? still(limit) : integrate(t, y, limit);
            t = piece.end();
            y = piece.state();
            if (piece.fired() >= 0) {
                if (!switches.isProgress(piece.fired(), t)) {
                    throw failures.chatters(t, piece.fired());
                }
                modes[piece.fired()] = !modes[piece.fired()];
                settle(t, y, piece.fired());
                trajectory.switchedAt(t);
            }
            if (piece.fired() >= 0 || t >= happenings.next()) {
                happen();
            }
        }
        control.progress((t - settings.start()) / span);
    }

    /** Lets happen what is due, or what somebody asked for from outside. */
    public void happen() {
        int before = trajectory.stepCount();
        happenings.happen(this);
        refresh();
        if (trajectory.stepCount() != before) {
            throw new IllegalStateException("time does not pass while something happens");
        }
    }

    private Piece still(double limit) {
        trajectory.add(new Step(t, limit, null, 0, modes, trajectory.stepCount()));
        reached = limit;
        watch(limit);
        requireFewEnoughSteps();
        return new Piece(limit, y, -1);
    }

    @Override
    public double time() {
        return t;
    }

    @Override
    public double value(Term term) {
        refresh();
        return Terms.value(term, t, v);
    }

    @Override
    public boolean holds(Condition condition) {
        refresh();
        return switch (condition) {
            case Condition.Fixed f -> f.holds();
            case Condition.Relation r -> r.mode() == Condition.UNWATCHED ? Terms.holds(r, t, v) : modes[r.mode()];
            case Condition.Both both -> holds(both.left()) && holds(both.right());
            case Condition.Either either -> holds(either.left()) || holds(either.right());
            case Condition.Not not -> !holds(not.operand());
        };
    }

    @Override
    public double get(int variable) {
        if (isStale && !system.flat().variables().get(variable).role().isHeld()) {
            refresh();
        }
        return v[variable];
    }

    @Override
    public void set(int variable, double value) {
        if (Double.compare(v[variable], value) != 0) {
            v[variable] = value;
            trajectory.hold(variable, value);
            trajectory.switchedAt(t);
            isStale = hasDependents;
            timeSwitches.forget();
        }
    }

    /** Computes what depends on held variables that changed. */
    private void refresh() {
        if (isStale) {
            isStale = false;
            settle(t, y, -1);
        }
    }

    /** A smooth piece of the trajectory: its end, and the relation that changed there, or -1 if none did. */
    private record Piece(double end, double[] state, int fired) {}

    /**
     * The next piece. A trial step may leave the domain of a function although a shorter one would not: where a value
     * is not finite, the way up to there and a little beyond is tried again from the last good state with shorter
     * steps.
     */
    private Piece integrate(double from, double[] y, double limit) {
        double t = from;
        double[] state = y;
        TimeSwitches.Next planned = timeSwitches.next(t);
        double cap = Math.min(planned.time(), limit);
        double end = cap;
        double largest = LARGEST_STEP * span;
        for (int retry = 0; ; retry++) {
            reached = t;
            reachedState = state;
            try {
                return piece(t, state, end, end < planned.time() ? -1 : planned.relation(), largest);
            } catch (NotFinite fault) {
                double missing = fault.time - reached;
                if (retry == RETRIES || missing <= NO_FURTHER * resolution) {
                    throw failures.diverged(fault.time, fault.variable, v[fault.variable]);
                }
                t = reached;
                state = reachedState;
                largest = missing / 8;
                end = Math.min(cap, t + 2 * missing);
            } catch (Ended ended) {
                return new Piece(reached, reachedState, ended.fired);
            } catch (MathRuntimeException e) {
                throw stalled(e);
            }
        }
    }

    /** @param fired what switches at the end; -1 if nothing is known to */
    private Piece piece(double from, double[] y, double end, int fired, double largestStep) {
        double smallest = Math.min(SMALLEST_STEP * span, largestStep);
        ScaledIntegrator integrator = new ScaledIntegrator(smallest, largestStep, lastStep, y.length, nominals);
        integrator.addStepHandler(new Recorder(end, fired, modes.clone()));
        // The integrator refuses to go less far than some of the smallest differences; the recorder cuts at the end.
        integrator.integrate(
                new RightHandSide(y.length), new ODEState(from, y), Math.max(end, from + AHEAD * resolution));
        throw new IllegalStateException("the integrator ended before " + end + " s");
    }

    /**
     * Makes every relation's mode agree with its margin. Where a margin is zero, its direction decides. {@code fired}
     * has just been switched; see {@link SwitchCounts#mayTurnBack} where its margin goes back at once.
     */
    private void settle(double t, double[] y, int fired) {
        if (modes.length == 0) {
            evaluate(t, y);
            return;
        }
        for (int round = 0; round < SETTLING_ROUNDS; round++) {
            lookAhead(t, y);
            boolean changed = false;
            for (int i = 0; i < modes.length; i++) {
                boolean undecided = leeway(i) > 0 && Math.abs(margins[i]) <= SLACK * leeway(i);
                boolean holds = undecided ? modes[i] : holdsFromHere(i);
                if (i == fired && holds != modes[i] && !switches.mayTurnBack(i, t)) {
                    throw failures.chatters(t, i);
                }
                changed |= holds != modes[i];
                modes[i] = holds;
            }
            if (!changed) {
                return;
            }
        }
        throw failures.chatters(t, Math.max(fired, 0));
    }

    /**
     * How far a margin may be on the wrong side before its relation switches: nothing, except at kinks. There it makes
     * no difference to the result beyond the tolerance, and keeps a value at rest at a kink from switching with its
     * noise.
     */
    private double leeway(int relation) {
        return system.flat().relations().get(relation).kink()
                ? KINK_SHARE * settings.tolerance() * largestMargins[relation]
                : 0;
    }

    /** Margins now and a moment later; the way there in several Euler steps, so that also a curvature shows. */
    private void lookAhead(double t, double[] y) {
        if (isStill) {
            margins(t, y, margins);
            System.arraycopy(margins, 0, marginsAhead, 0, margins.length);
            return;
        }
        double step = AHEAD * resolution / EULER_STEPS;
        double[] next = y.clone();
        for (int k = 0; k < EULER_STEPS; k++) {
            evaluate(t + k * step, next);
            for (int i = 0; i < states.length; i++) {
                next[i] += step * v[rates[i]];
            }
        }
        margins(t + EULER_STEPS * step, next, marginsAhead);
        margins(t, y, margins);
    }

    private void margins(double t, double[] y, double[] into) {
        evaluate(t, y);
        kernel.margins(t, v, modes, into);
    }

    private boolean holdsFromHere(int relation) {
        double now = margins[relation];
        double soon = marginsAhead[relation];
        boolean atZero = Math.abs(now) <= Math.abs(soon - now);
        return system.flat().relations().get(relation).holds(atZero ? soon : now);
    }

    private void evaluate(double t, double[] y) {
        for (int i = 0; i < states.length; i++) {
            v[states[i]] = y[i];
        }
        kernel.evaluate(t, v, modes);
    }

    private void requireFinite(double t) {
        try {
            checkFinite(t);
        } catch (NotFinite fault) {
            throw failures.diverged(t, fault.variable, v[fault.variable]);
        }
    }

    /** What has no value with the branches that are taken may have one with those that the conditions ask for. */
    private void takeWhatIsAsked(double t) {
        if (guard.notFinite(v) >= 0) {
            kernel.evaluate(t, v, guard.asked(t, v, modes));
            checkFinite(t);
        }
    }

    private void checkFinite(double t) {
        int variable = guard.notFinite(v);
        if (variable >= 0) {
            throw new NotFinite(t, variable);
        }
    }

    private void watch(double t) {
        if (++evaluations % CHECK_EVERY == 0) {
            if (control.isCancelled()) {
                throw failures.cancelled(t);
            }
            if (clock.millis() > deadline) {
                throw failures.budgetExceeded(t, switches.inAll(), stiffness.isFound());
            }
        }
    }

    /** The integrator could not make its step small enough: some state runs away. The fastest one is named. */
    private RunFailure stalled(MathRuntimeException cause) {
        evaluate(reached, reachedState);
        int fastest = 0;
        for (int i = 1; i < states.length; i++) {
            if (pace(i) > pace(fastest)) {
                fastest = i;
            }
        }
        if (states.length == 0) {
            throw new IllegalStateException("integration failed without states", cause);
        }
        return failures.ranAway(reached, states[fastest], v[states[fastest]], rates[fastest], v[rates[fastest]]);
    }

    private double pace(int state) {
        return Math.abs(v[rates[state]]) / Math.max(Math.abs(v[states[state]]), 1e-3);
    }

    /** The evaluation at a trial point gave a value that is not finite. */
    private static final class NotFinite extends RuntimeException {
        private final double time;
        private final int variable;

        NotFinite(double time, int variable) {
            super(null, null, false, false);
            this.time = time;
            this.variable = variable;
        }
    }

    /** The piece has come to its end, because a relation switches or because it goes no further. */
    private static final class Ended extends RuntimeException {
        private final int fired;

        Ended(int fired) {
            super(null, null, false, false);
            this.fired = fired;
        }
    }

    private final class RightHandSide implements OrdinaryDifferentialEquation {
        private final int dimension;

        RightHandSide(int dimension) {
            this.dimension = dimension;
        }

        /** Whether all rates are finite. */
        private boolean copied(double[] derivatives) {
            boolean finite = true;
            for (int i = 0; i < rates.length; i++) {
                derivatives[i] = v[rates[i]];
                finite &= Double.isFinite(derivatives[i]);
            }
            return finite;
        }

        @Override
        public int getDimension() {
            return dimension;
        }

        @Override
        public double[] computeDerivatives(double t, double[] y) {
            watch(t);
            evaluate(t, y);
            double[] derivatives = new double[dimension];
            if (!copied(derivatives)) {
                takeWhatIsAsked(t);
                copied(derivatives);
            }
            if (trajectory.stepCount() > STEPS_BEFORE_STIFF) {
                stiffness.evaluated(t, y, derivatives);
            }
            return derivatives;
        }
    }

    /** The switches of relations that depend on time alone: they are known before any step is taken. */
    private final class TimeSwitches {
        /** The next switch: an instant in s, and what switches; -1 at the end of the run. */
        private record Next(double time, int relation) {}

        private final TimeOnly timeOnly = new TimeOnly(system);

        private final BitSet relations = timeOnly.relations();
        /** Those of them whose margin depends on the truth of others. */
        private final BitSet choosing = timeOnly.choosingRelations();

        private final double[] planned = new double[modes.length];
        private final boolean[] plannedModes = new boolean[modes.length];
        private boolean begun;

        /** What was planned rests on values that changed. */
        void forget() {
            begun = false;
        }

        /** Whether no relation depends on a state. */
        boolean areAll() {
            return relations.cardinality() == modes.length;
        }

        Next next(double t) {
            Next next = new Next(settings.stop(), -1);
            boolean changed = relations.stream().anyMatch(i -> plannedModes[i] != modes[i]);
            for (int i = relations.nextSetBit(0); i >= 0; i = relations.nextSetBit(i + 1)) {
                if (!begun || planned[i] <= t || plannedModes[i] != modes[i] || changed && choosing.get(i)) {
                    planned[i] = firstSwitch(i, t);
                }
                if (planned[i] < next.time()) {
                    next = new Next(planned[i], i);
                }
            }
            relations.stream().forEach(i -> plannedModes[i] = modes[i]);
            begun = true;
            return next;
        }

        private double firstSwitch(int relation, double t) {
            Step ahead = new Step(t, settings.stop(), null, states.length, modes, trajectory.stepCount());
            double first = first(new StepEnclosure(trajectory, ahead), relation, t, settings.stop());
            return Double.isNaN(first) ? Double.POSITIVE_INFINITY : first;
        }
    }

    /** The first instant after one and up to another at which a relation switches, s; NaN if there is none. */
    private double first(StepEnclosure bounds, int relation, double from, double to) {
        try {
            return new SwitchSearch(
                            bounds,
                            system.flat().relations().get(relation),
                            marginTerms.get(relation),
                            modes[relation],
                            leeway(relation),
                            SWITCH_ACCURACY * resolution,
                            this::watch)
                    .first(from, to);
        } catch (SwitchSearch.GivenUp e) {
            throw failures.tooFast(e.time(), relation);
        }
    }

    private void requireFewEnoughSteps() {
        if (trajectory.stepCount() > MOST_STEPS) {
            throw failures.tooManySteps(reached, MOST_STEPS, switches.inAll(), stiffness.isFound());
        }
    }

    private final class Recorder implements ODEStepHandler {
        private final double end;
        private final int firedAtEnd;
        private final boolean[] pieceModes;

        /**
         * @param end the last instant of the piece, s
         * @param firedAtEnd what switches there; -1 if nothing is known to
         */
        Recorder(double end, int firedAtEnd, boolean[] pieceModes) {
            this.end = end;
            this.firedAtEnd = firedAtEnd;
            this.pieceModes = pieceModes;
        }

        @Override
        public void handleStep(ODEStateInterpolator interpolator) {
            double from = interpolator.getPreviousState().getTime();
            double to = Math.min(interpolator.getCurrentState().getTime(), end);
            lastStep = interpolator.getCurrentState().getTime() - from;
            if (trajectory.stepCount() > STEPS_BEFORE_STIFF) {
                stiffness.stepped(lastStep);
            }
            int dimension = interpolator.getCurrentState().getPrimaryStateDimension();
            Step step = new Step(from, to, interpolator, dimension, pieceModes, trajectory.stepCount());
            int fired = -1;
            if (!timeSwitches.areAll()) {
                FirstSwitch first = firstSwitch(step);
                step = step.until(first.time());
                fired = first.relation();
            }
            record(step);
            if (fired >= 0 || step.to() >= end) {
                throw new Ended(fired >= 0 ? fired : firedAtEnd);
            }
        }

        private void record(Step step) {
            trajectory.add(step);
            reached = step.to();
            reachedState = step.at(reached);
            nominals.grow(reachedState);
            requireFewEnoughSteps();
            margins(reached, reachedState, margins);
            for (int i = 0; i < modes.length; i++) {
                largestMargins[i] = Math.max(largestMargins[i], Math.abs(margins[i]));
            }
            takeWhatIsAsked(reached);
            control.progress((reached - settings.start()) / span);
        }

        /** Where a step ends: s, and the relation that switches there, -1 if none does. */
        private record FirstSwitch(double time, int relation) {}

        /** What depends on time alone does not switch before the end of the piece. */
        private FirstSwitch firstSwitch(Step step) {
            StepEnclosure bounds = new StepEnclosure(trajectory, step);
            FirstSwitch first = new FirstSwitch(step.to(), -1);
            for (int i = 0; i < modes.length; i++) {
                if (!timeSwitches.relations.get(i)) {
                    double at = first(bounds, i, step.from(), first.time());
                    if (!Double.isNaN(at)) {
                        first = new FirstSwitch(at, i);
                    }
                }
            }
            return first;
        }
    }
}
