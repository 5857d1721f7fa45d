package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.ode.sampling.ODEStateInterpolator;

/**
 * The result of integrating a system: continuous pieces between switching instants, each made of integrator steps with
 * dense output, so that every variable has a value at every instant and not only at recorded ones.
 */
public final class Trajectory {
    /**
     * One step of the integrator. {@code from} and {@code to} are in s; {@code interpolator} is null without states.
     */
    private record Step(double from, double to, ODEStateInterpolator interpolator, boolean[] modes) {}

    private final SortedSystem system;
    private final Kernel kernel;
    private final int[] states;
    private final List<Step> steps = new ArrayList<>();
    private final List<Double> switches = new ArrayList<>();

    Trajectory(SortedSystem system, Kernel kernel, int[] states) {
        this.system = system;
        this.kernel = kernel;
        this.states = states;
    }

    void add(double from, double to, ODEStateInterpolator interpolator, boolean[] modes) {
        if (to > from) {
            steps.add(new Step(from, to, interpolator, modes));
        }
    }

    void switchedAt(double t) {
        switches.add(t);
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

    /** The instants at which a condition changed, s, ascending. */
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

    private double[] at(Step step, double t) {
        double[] v = new double[system.flat().variables().size()];
        double[] y = step.interpolator().getInterpolatedState(t).getPrimaryState();
        for (int i = 0; i < states.length; i++) {
            v[states[i]] = y[i];
        }
        kernel.evaluate(t, v, step.modes());
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

    /** Calls for instants within a window, ascending: the ends of each step and {@code inner} instants between them. */
    public void scan(double from, double to, int inner, Visitor visitor) {
        for (int i = stepAt(from, false);
                i < steps.size()
                        && (steps.get(i).from() < to
                                || from == to && steps.get(i).from() <= to);
                i++) {
            Step step = steps.get(i);
            double first = Math.max(from, step.from());
            double last = Math.min(to, step.to());
            for (int k = 0; k <= inner + 1; k++) {
                double t = k == inner + 1 ? last : first + (last - first) * k / (inner + 1);
                visitor.visit(t, at(step, t), k == inner + 1);
            }
        }
    }

    /**
     * Receives the variables at an instant. {@code before} is true at the end of a step, where the next value may
     * differ.
     */
    public interface Visitor {
        void visit(double t, double[] v, boolean before);
    }

    /** The instants of a recording: every interval, both ends, and each switching twice, just before and just after. */
    public Recording record(double interval) {
        int count = (int) Math.floor((stop() - start()) / interval * (1 + 1e-12));
        double[] grid = new double[count + 2];
        for (int i = 0; i <= count; i++) {
            grid[i] = start() + i * interval;
        }
        grid[count + 1] = stop();
        List<Double> times = new ArrayList<>();
        List<double[]> rows = new ArrayList<>();
        int next = 0;
        for (double t : Arrays.stream(grid).distinct().filter(t -> t <= stop()).toArray()) {
            while (next < switches.size() && switches.get(next) <= t) {
                double at = switches.get(next++);
                add(times, rows, at, true);
                add(times, rows, at, false);
            }
            if (times.isEmpty() || times.getLast() < t) {
                add(times, rows, t, false);
            }
        }
        return new Recording(times.stream().mapToDouble(Double::doubleValue).toArray(), rows.toArray(double[][]::new));
    }

    private void add(List<Double> times, List<double[]> rows, double t, boolean before) {
        times.add(t);
        rows.add(at(t, before));
    }

    /**
     * @param times s, ascending, the same instant twice where something switches
     * @param rows for each instant all variables, coherent SI
     */
    public record Recording(double[] times, double[][] rows) {
        /** One variable at all instants. */
        public double[] column(int variable) {
            return Arrays.stream(rows).mapToDouble(row -> row[variable]).toArray();
        }
    }
}
