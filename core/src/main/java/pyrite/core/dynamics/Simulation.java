package pyrite.core.dynamics;

import java.time.InstantSource;
import java.util.Arrays;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.solvers.BracketedUnivariateSolver;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.ode.ODEState;
import org.hipparchus.ode.ODEStateAndDerivative;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.events.Action;
import org.hipparchus.ode.events.AdaptableInterval;
import org.hipparchus.ode.events.ODEEventDetector;
import org.hipparchus.ode.events.ODEEventHandler;
import org.hipparchus.ode.nonstiff.DormandPrince853Integrator;
import org.hipparchus.ode.sampling.ODEStateInterpolator;
import org.hipparchus.ode.sampling.ODEStepHandler;

/**
 * Integrates a compiled system with the Dormand-Prince 8(5,3) method (Hairer, Nørsett, Wanner: Solving Ordinary
 * Differential Equations I, II.5) and locates switching. Within a piece every relation keeps its initial truth value,
 * so the right-hand side is smooth. Where the margin of a relation crosses zero, the piece ends, the relation changes
 * and the next piece begins.
 */
public final class Simulation {
    private static final int CHECK_EVERY = 512;
    private static final int MOST_SWITCHES_AT_ONCE = 50;
    /**
     * In units of the resolution of time in the run, which is a few of the smallest differences a double can have
     * there: how exactly a switch is located, how far ahead a margin is looked at, and which instants count as one.
     */
    private static final double ULPS = 16;

    private static final double SWITCH_ACCURACY = 1;
    private static final double AHEAD = 1e3;
    private static final double SAME_INSTANT = 1e5;
    private static final int EULER_STEPS = 4;
    private static final double KINK_SHARE = 0.1;
    private static final double SLACK = 1.01;
    private static final double LARGEST_STEP = 0.02;
    private static final double SMALLEST_STEP = 1e-14;
    private static final int SETTLING_ROUNDS = 20;
    private static final int RETRIES = 12;
    /** All steps are kept until the requirements are judged; each takes about 1 KB and more with many states. */
    private static final int MOST_STEPS = 300_000;

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
    private final Trajectory trajectory;
    private int evaluations;
    private double reached;
    private double[] reachedState = new double[0];

    private Simulation(SortedSystem system, RunSettings settings, RunControl control, InstantSource clock) {
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
        this.margins = new double[modes.length];
        this.marginsAhead = new double[modes.length];
        this.largestMargins = new double[modes.length];
        this.trajectory = new Trajectory(system, kernel, states);
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
        return new Simulation(system, settings, control, clock).run();
    }

    private Trajectory run() {
        double t = settings.start();
        double[] y = Arrays.stream(states)
                .mapToDouble(state -> system.flat().variables().get(state).start())
                .toArray();
        if (states.length == 0) {
            y = new double[] {0};
        }
        settle(t, y, -1);
        requireFinite(t);
        double lastSwitch = Double.NEGATIVE_INFINITY;
        int switchesHere = 0;
        while (t < settings.stop()) {
            Piece piece = integrate(t, y);
            t = piece.end();
            y = piece.state();
            if (piece.fired() >= 0) {
                switchesHere = t - lastSwitch <= SAME_INSTANT * resolution ? switchesHere + 1 : 1;
                lastSwitch = t;
                if (switchesHere > MOST_SWITCHES_AT_ONCE) {
                    throw failures.chatters(t, piece.fired());
                }
                modes[piece.fired()] = !modes[piece.fired()];
                settle(t, y, piece.fired());
                trajectory.switchedAt(t);
            }
        }
        control.progress(1);
        return trajectory;
    }

    /** A smooth piece of the trajectory: its end, and the relation that changed there, or -1 if none did. */
    private record Piece(double end, double[] state, int fired) {}

    /**
     * The next piece. A trial step may leave the domain of a function although a shorter one would not: where a value
     * is not finite, the way up to there and a little beyond is tried again from the last good state with shorter
     * steps.
     */
    private Piece integrate(double from, double[] y) {
        double t = from;
        double[] state = y;
        double end = settings.stop();
        double largest = LARGEST_STEP * span;
        for (int retry = 0; ; retry++) {
            reached = t;
            reachedState = state;
            try {
                return piece(t, state, end, largest);
            } catch (NotFinite fault) {
                double missing = fault.time - reached;
                if (retry == RETRIES || missing <= SAME_INSTANT * resolution) {
                    throw failures.diverged(fault.time, fault.variable, v[fault.variable]);
                }
                t = reached;
                state = reachedState;
                largest = missing / 8;
                end = Math.min(settings.stop(), t + 2 * missing);
            } catch (Missed missed) {
                return new Piece(reached, reachedState, missed.relation);
            } catch (MathRuntimeException e) {
                throw stalled(e);
            }
        }
    }

    private Piece piece(double from, double[] y, double end, double largestStep) {
        DormandPrince853Integrator integrator = new DormandPrince853Integrator(
                Math.min(SMALLEST_STEP * span, largestStep), largestStep, absoluteTolerances(y), relativeTolerances(y));
        int[] fired = {-1};
        for (int i = 0; i < modes.length; i++) {
            integrator.addEventDetector(new Switch(i, fired));
        }
        integrator.addStepHandler(new Recorder(modes.clone()));
        ODEStateAndDerivative last = integrator.integrate(new RightHandSide(y.length), new ODEState(from, y), end);
        return new Piece(fired[0] >= 0 ? last.getTime() : end, last.getPrimaryState(), fired[0]);
    }

    private double[] absoluteTolerances(double[] y) {
        return Arrays.stream(y)
                .map(value -> settings.tolerance() * Math.max(Math.abs(value), 1e-3))
                .toArray();
    }

    private double[] relativeTolerances(double[] y) {
        double[] tolerances = new double[y.length];
        Arrays.fill(tolerances, settings.tolerance());
        return tolerances;
    }

    /**
     * Makes every relation's mode agree with its margin. Where a margin is zero, its direction decides. {@code fired}
     * has just been switched and keeps its new mode; if its margin turns back at once, the relation chatters.
     */
    private void settle(double t, double[] y, int fired) {
        for (int round = 0; round < SETTLING_ROUNDS; round++) {
            lookAhead(t, y);
            boolean changed = false;
            for (int i = 0; i < modes.length; i++) {
                boolean undecided = leeway(i) > 0 && Math.abs(margins[i]) <= SLACK * leeway(i);
                boolean holds = undecided ? modes[i] : holdsFromHere(i);
                if (i == fired && holds != modes[i]) {
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

    private void checkFinite(double t) {
        for (SortedSystem.Assignment assignment : system.assignments()) {
            if (!Double.isFinite(v[assignment.variable()])) {
                throw new NotFinite(t, assignment.variable());
            }
        }
    }

    private void watch(double t) {
        if (++evaluations % CHECK_EVERY == 0) {
            if (control.isCancelled()) {
                throw failures.cancelled(t);
            }
            if (clock.millis() > deadline) {
                throw failures.budgetExceeded(t);
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

    /** A relation switched without a located crossing, as may happen where its margin only touches zero. */
    private static final class Missed extends RuntimeException {
        private final int relation;

        Missed(int relation) {
            super(null, null, false, false);
            this.relation = relation;
        }
    }

    private final class RightHandSide implements OrdinaryDifferentialEquation {
        private final int dimension;

        RightHandSide(int dimension) {
            this.dimension = dimension;
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
            for (int i = 0; i < rates.length; i++) {
                derivatives[i] = v[rates[i]];
                if (!Double.isFinite(derivatives[i])) {
                    checkFinite(t);
                }
            }
            return derivatives;
        }
    }

    /** Detects where a relation no longer has the truth value it had at the beginning of the piece. */
    private final class Switch implements ODEEventDetector {
        private final int relation;
        private final int[] fired;

        Switch(int relation, int[] fired) {
            this.relation = relation;
            this.fired = fired;
        }

        @Override
        public AdaptableInterval getMaxCheckInterval() {
            return AdaptableInterval.of(settings.interval());
        }

        @Override
        public int getMaxIterationCount() {
            return 200;
        }

        @Override
        public BracketedUnivariateSolver<UnivariateFunction> getSolver() {
            return new BracketingNthOrderBrentSolver(0, SWITCH_ACCURACY * resolution, 0, 5);
        }

        @Override
        public ODEEventHandler getHandler() {
            return (_, _, increasing) -> {
                if (increasing) {
                    return Action.CONTINUE;
                }
                fired[0] = relation;
                return Action.STOP;
            };
        }

        /** Positive while the relation is what it was, give or take its leeway. */
        @Override
        public double g(ODEStateAndDerivative state) {
            margins(state.getTime(), state.getPrimaryState(), margins);
            return (modes[relation] ? margins[relation] : -margins[relation]) + leeway(relation);
        }
    }

    private final class Recorder implements ODEStepHandler {
        private final boolean[] pieceModes;

        Recorder(boolean[] pieceModes) {
            this.pieceModes = pieceModes;
        }

        @Override
        public void handleStep(ODEStateInterpolator interpolator) {
            ODEStateAndDerivative now = interpolator.getCurrentState();
            trajectory.add(interpolator.getPreviousState().getTime(), now.getTime(), interpolator, pieceModes);
            reached = now.getTime();
            reachedState = now.getPrimaryState();
            requireFewEnoughSteps();
            requireNothingMissed(interpolator);
            checkFinite(reached);
            control.progress((reached - settings.start()) / span);
        }

        private void requireFewEnoughSteps() {
            if (trajectory.stepCount() > MOST_STEPS) {
                throw failures.tooManySteps(reached, MOST_STEPS);
            }
        }

        /** A relation that is not what it is taken to be in the middle and at the end of a step switched unseen. */
        private void requireNothingMissed(ODEStateInterpolator interpolator) {
            if (modes.length == 0) {
                evaluate(reached, reachedState);
                return;
            }
            double middle = (interpolator.getPreviousState().getTime() + reached) / 2;
            margins(middle, interpolator.getInterpolatedState(middle).getPrimaryState(), marginsAhead);
            margins(reached, reachedState, margins);
            for (int i = 0; i < modes.length; i++) {
                double sign = modes[i] ? 1 : -1;
                largestMargins[i] = Math.max(largestMargins[i], Math.abs(margins[i]));
                if (sign * marginsAhead[i] < -leeway(i) && sign * margins[i] < -leeway(i)) {
                    throw new Missed(i);
                }
            }
        }
    }
}
