package pyrite.core.dynamics;

/** Observes the progress of a run and can cancel it. Called from the computing thread. */
public interface RunControl {
    RunControl NONE = new RunControl() {};

    /** @param fraction how much of the simulated span is done, 0 to 1 */
    default void progress(double fraction) {}

    default boolean isCancelled() {
        return false;
    }
}
