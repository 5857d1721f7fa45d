package pyrite.core.dynamics;

import java.util.Objects;
import org.hipparchus.ode.sampling.ODEStateInterpolator;
import org.jspecify.annotations.Nullable;

/** One step of the integrator with the states at each of its instants. Relations keep their truth throughout it. */
final class Step {
    private static final double[] NOTHING = {};
    private final double from;
    private final double to;
    private final boolean[] modes;
    private final int states;
    /** Its place among the steps of the run, by which held variables have their values. */
    private final int number;
    /** What the integrator gives; null once the step is compact. */
    private @Nullable ODEStateInterpolator interpolator;

    private @Nullable StepPolynomial compact;

    /**
     * @param from s
     * @param to s, within what the interpolator covers
     * @param interpolator null where only time is asked for
     */
    Step(double from, double to, @Nullable ODEStateInterpolator interpolator, int states, boolean[] modes, int number) {
        this.from = from;
        this.to = to;
        this.interpolator = interpolator;
        this.states = states;
        this.modes = modes;
        this.number = number;
    }

    int number() {
        return number;
    }

    double from() {
        return from;
    }

    double to() {
        return to;
    }

    /** For each relation whether it holds. */
    boolean[] modes() {
        return modes;
    }

    /** The beginning of this step, up to an instant in it. */
    Step until(double end) {
        return new Step(from, end, interpolator, states, modes, number);
    }

    /** The states at an instant of the step, coherent SI. */
    double[] at(double t) {
        if (states == 0) {
            return NOTHING;
        }
        return interpolator != null
                ? interpolator.getInterpolatedState(t).getPrimaryState()
                : Objects.requireNonNull(compact).at(t);
    }

    StepPolynomial polynomial() {
        return compact != null ? compact : new StepPolynomial(from, to, Objects.requireNonNull(interpolator), states);
    }

    /** Keeps the polynomial only, which takes a third of the room, where the shelf puts it. */
    void compact(StepShelf shelf) {
        if (states == 0) {
            return;
        }
        compact = polynomial().on(shelf);
        interpolator = null;
    }
}
