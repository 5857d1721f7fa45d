package pyrite.core.dynamics;

import java.util.HashMap;
import java.util.Map;
import pyrite.core.expression.Dimension;

/**
 * The usual size of each state, which its absolute tolerance is relative to: its start value, then the largest value it
 * has had. No size is given in a unit, so results do not depend on the units of the model.
 */
final class Nominals {
    /** The size of a state that has had no other value than zero, relative to others of its dimension. */
    private static final double SHARE_OF_OTHERS = 1e-6;
    /** Rounding of what makes up a rate, relative to its largest part. Nothing smaller can be resolved. */
    private static final double ROUNDING = 1e-15;

    private final SortedSystem system;
    private final int[] states;
    private final int[] rates;
    private final RunSettings settings;
    private final double[] sizes;
    private final double[] unresolved;

    Nominals(SortedSystem system, int[] states, int[] rates, RunSettings settings) {
        this.system = system;
        this.states = states;
        this.rates = rates;
        this.settings = settings;
        this.sizes = new double[states.length];
        this.unresolved = new double[states.length];
    }

    /**
     * @param y the states at the start
     * @param v all variables there
     */
    void start(double t, double[] y, double[] v, boolean[] modes) {
        Map<Dimension, Double> largest = new HashMap<>();
        for (int i = 0; i < states.length; i++) {
            sizes[i] = Math.abs(y[i]);
            largest.merge(dimension(i), sizes[i], Math::max);
        }
        for (int i = 0; i < states.length; i++) {
            if (sizes[i] == 0) {
                sizes[i] = SHARE_OF_OTHERS * largest.getOrDefault(dimension(i), 0.0);
            }
        }
        double[] parts = parts(t, v, modes);
        for (int i = 0; i < states.length; i++) {
            unresolved[i] = ROUNDING * parts[rates[i]] * (settings.stop() - settings.start());
        }
    }

    private Dimension dimension(int state) {
        return system.flat().variables().get(states[state]).dimension();
    }

    /** Takes note of the values of a step that was accepted. */
    void grow(double[] y) {
        for (int i = 0; i < states.length; i++) {
            sizes[i] = Math.max(sizes[i], Math.abs(y[i]));
        }
    }

    /**
     * The error that a step may make.
     *
     * @param state the place among the states; one that is none stands for a system without states
     * @param size how large the state is during the step, coherent SI
     */
    double tolerance(int state, double size) {
        return state == states.length
                ? 1
                : Math.max(
                        Double.MIN_NORMAL, Math.max(settings.tolerance() * (sizes[state] + size), unresolved[state]));
    }

    /** For each variable the sum of what adds up to it, without signs. */
    private double[] parts(double t, double[] v, boolean[] modes) {
        double[] parts = new double[v.length];
        for (int i = 0; i < states.length; i++) {
            parts[states[i]] = sizes[i];
        }
        for (int i = 0; i < v.length; i++) {
            if (system.flat().variables().get(i).role().isHeld()) {
                parts[i] = Math.abs(v[i]);
            }
        }
        for (SortedSystem.Assignment assignment : system.assignments()) {
            parts[assignment.variable()] = parts(assignment.term(), t, v, modes, parts);
        }
        return parts;
    }

    private static double parts(Term term, double t, double[] v, boolean[] modes, double[] parts) {
        return switch (term) {
            case Term.Constant(double value) -> Math.abs(value);
            case Term.Variable(int index) -> parts[index];
            case Term.Time _ -> Math.abs(t);
            case Term.Call _ -> Math.abs(InterpretedKernel.value(term, t, v, modes));
            case Term.Choice c ->
                parts(InterpretedKernel.holds(c.condition(), modes) ? c.whenTrue() : c.whenFalse(), t, v, modes, parts);
            case Term.Arithmetic a -> {
                double left = parts(a.left(), t, v, modes, parts);
                double right = parts(a.right(), t, v, modes, parts);
                yield switch (a.sign()) {
                    case PLUS, MINUS -> left + right;
                    case TIMES -> left * right;
                    case OVER -> left / Math.abs(InterpretedKernel.value(a.right(), t, v, modes));
                    case POWER -> Math.abs(InterpretedKernel.value(term, t, v, modes));
                };
            }
        };
    }
}
