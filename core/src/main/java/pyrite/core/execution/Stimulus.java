package pyrite.core.execution;

import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;

/** What comes to a system from outside at an instant. */
public final class Stimulus {
    private final double time;
    private final What what;

    /** What comes. */
    sealed interface What {
        record Give(Instance at, Item.Layout layout, double[] values) implements What {}

        /** @param value coherent SI */
        record Set(HeldAttribute attribute, double value) implements What {}
    }

    Stimulus(double time, What what) {
        this.time = time;
        this.what = what;
    }

    /** s. */
    public double time() {
        return time;
    }

    What what() {
        return what;
    }
}
