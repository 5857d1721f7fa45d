package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.DoubleConsumer;
import java.util.stream.Collectors;

/**
 * The result of integrating a system: continuous pieces between switching instants, each made of integrator steps with
 * dense output, so that every variable has a value at every instant and not only at recorded ones.
 */
public final class Trajectory {
    /** In units of the smallest difference of two instants. */
    private static final double RESOLUTION = 4;

    /** What an interpolator keeps: states and derivatives of each stage, in arrays that cost something themselves. */
    private static final int ARRAYS_A_STEP = 20;

    private static final int BYTES_AN_ARRAY = 32;

    private static final int MOST_RECORDED_SWITCHES = 20_000;

    private static final long MOST_BYTES_LOOSE = 64L << 20;
    private static final long MOST_BYTES_COMPACT = 192L << 20;

    private final SortedSystem system;
    private final Kernel kernel;
    private final BranchGuard guard;
    private final RunFailures failures;
    private final DoubleConsumer watch;
    private final int[] states;
    private final HeldValues held;
    private final List<Step> steps = new ArrayList<>();
    private final StepShelf shelf = new StepShelf(MOST_BYTES_COMPACT);
    private int compactSteps;
    private final List<Double> switches = new ArrayList<>();
    /** Apart from the list, because it is asked for with every value that is set. */
    private double lastSwitch;
    /** For each variable its place among the states, -1 if it is none. */
    private final int[] placeOfState;
    /** For each variable that is no state the term that gives it. */
    private final Map<Integer, Term> definitions;

    /** @param watch is told instants that are looked at, s, and throws when time is up or somebody cancels */
    Trajectory(
            SortedSystem system,
            Kernel kernel,
            BranchGuard guard,
            int[] states,
            RunFailures failures,
            DoubleConsumer watch) {
        this.system = system;
        this.kernel = kernel;
        this.guard = guard;
        this.failures = failures;
        this.watch = watch;
        this.states = states;
        List<Variable> variables = system.flat().variables();
        boolean[] isHeld = new boolean[variables.size()];
        for (int i = 0; i < isHeld.length; i++) {
            isHeld[i] = variables.get(i).role().isHeld();
        }
        this.held = new HeldValues(isHeld);
        this.placeOfState = new int[system.flat().variables().size()];
        Arrays.fill(placeOfState, -1);
        for (int i = 0; i < states.length; i++) {
            placeOfState[states[i]] = i;
        }
        this.definitions = system.assignments().stream()
                .collect(Collectors.toMap(SortedSystem.Assignment::variable, SortedSystem.Assignment::term));
    }

    void add(Step step) {
        if (step.to() <= step.from()) {
            return;
        }
        steps.add(step);
        long bytesAStep = ARRAYS_A_STEP * ((long) Double.BYTES * states.length + BYTES_AN_ARRAY);
        if ((steps.size() - compactSteps) * bytesAStep > MOST_BYTES_LOOSE) {
            while (compactSteps < steps.size()) {
                steps.get(compactSteps++).compact(shelf);
            }
        }
    }

    void switchedAt(double t) {
        boolean isFew = switches.size() <= MOST_RECORDED_SWITCHES;
        if (isFew && (switches.isEmpty() || lastSwitch < t)) {
            lastSwitch = t;
            switches.add(t);
        }
    }

    /** From the next step on. */
    void hold(int variable, double value) {
        held.set(variable, steps.size(), value);
    }

    boolean isHeld(int variable) {
        return held.isHeld(variable);
    }

    double held(int variable, Step step) {
        return held.at(variable, step.number());
    }

    public SortedSystem system() {
        return system;
    }

    public double start() {
        return steps.getFirst().from();
    }

    public double stop() {
        return steps.getLast().to();
    }

    public int stepCount() {
        return steps.size();
    }

    /**
     * Called by whoever looks at many instants: the budget of a run holds for its evaluation too.
     *
     * @param t s
     * @throws RunFailure if time is up or somebody cancels
     */
    public void watch(double t) {
        watch.accept(t);
    }

    /** The instants at which a condition changed, s, ascending; of very many the first. */
    public List<Double> switches() {
        return List.copyOf(switches);
    }

    /**
     * All variables at an instant, coherent SI. At an instant of switching it is the state just after, or just before
     * if {@code before}.
     *
     * @param t s, within the run; outside, the nearest end is taken
     */
    public double[] at(double t, boolean before) {
        Step step = steps.get(stepAt(t, before));
        double inside = Math.clamp(t, step.from(), step.to());
        return at(step, inside);
    }

    double[] at(Step step, double t) {
        double[] v = new double[system.flat().variables().size()];
        held.into(step.number(), v);
        double[] y = step.at(t);
        for (int i = 0; i < states.length; i++) {
            v[states[i]] = y[i];
        }
        kernel.output(t, v, step.modes());
        if (guard.notFinite(v) >= 0) {
            kernel.output(t, v, guard.asked(t, v, step.modes()));
        }
        return v;
    }

    /** The index of the step that contains t; of two that meet there the later, or the earlier if {@code before}. */
    private int stepAt(double t, boolean before) {
        int low = 0;
        int high = steps.size() - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            double from = steps.get(middle).from();
            if (before ? from < t : from <= t) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** The instants of a step. */
    public record Span(double from, double to) {}

    /** The index of the first step that has instants after t, or t itself. */
    public int stepFrom(double t) {
        return stepAt(t, false);
    }

    public Span step(int index) {
        return new Span(steps.get(index).from(), steps.get(index).to());
    }

    /** All variables at an instant of a step, coherent SI. */
    public double[] at(int step, double t) {
        return at(steps.get(step), t);
    }

    /** Bounds of what happens within a step. */
    public StepEnclosure enclosure(int step) {
        return new StepEnclosure(this, steps.get(step));
    }

    /** How exactly instants can be told apart in this run, s. */
    public double resolution() {
        return RESOLUTION * Math.ulp(Math.max(Math.abs(start()), Math.abs(stop())));
    }

    int stateOf(int variable) {
        return placeOfState[variable];
    }

    Term definition(int variable) {
        return Objects.requireNonNull(definitions.get(variable));
    }

    /**
     * All variables at every interval, at both ends, and at each switching twice, just before and just after. Of very
     * many switchings none is recorded; whatever is judged is judged by the trajectory itself.
     *
     * @throws RunFailure if a variable has no finite value at one of these instants
     */
    public Recording record(double interval) {
        int count = (int) Math.floor((stop() - start()) / interval * (1 + 1e-12));
        Recording.Builder recording =
                new Recording.Builder(system.flat().variables().size());
        int next = switches.size() > MOST_RECORDED_SWITCHES ? switches.size() : 0;
        for (int i = 0; i <= count + 1; i++) {
            double t = i <= count ? start() + i * interval : stop();
            while (next < switches.size() && switches.get(next) <= Math.min(t, stop())) {
                double at = switches.get(next++);
                recording.add(at, finite(at, true));
                recording.add(at, finite(at, false));
            }
            if (t <= stop() && recording.isBefore(t)) {
                recording.add(t, finite(t, false));
            }
        }
        return recording.build();
    }

    private double[] finite(double t, boolean before) {
        watch(t);
        double[] v = at(t, before);
        int variable = guard.notFinite(v);
        if (variable >= 0) {
            throw failures.diverged(t, variable, v[variable]);
        }
        return v;
    }
}
