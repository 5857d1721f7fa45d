package pyrite.core.dynamics;

import java.util.List;

/** Observes the progress of a run and can cancel it. Called from the computing thread. */
public interface RunControl {
    RunControl NONE = new RunControl() {};

    /** @param fraction how much of the simulated span is done, 0 to 1 */
    default void progress(double fraction) {}

    default boolean isCancelled() {
        return false;
    }

    /** @throws RunFailure if somebody cancelled before the first instant was computed */
    default void requireGoingOn() {
        if (isCancelled()) {
            throw new RunFailure(RunFailure.Reason.CANCELLED, Double.NaN, "cancelled before it began", List.of());
        }
    }
}
