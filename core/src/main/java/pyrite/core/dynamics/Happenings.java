package pyrite.core.dynamics;

/**
 * What happens at single instants, between which only equations hold. A {@link Simulation} integrates up to the next of
 * them, lets it happen, and goes on.
 */
public interface Happenings {
    /** Nothing ever happens. */
    Happenings NONE = new Happenings() {
        @Override
        public void begin(Moment moment) {}

        @Override
        public double next() {
            return Double.POSITIVE_INFINITY;
        }

        @Override
        public void happen(Moment moment) {}
    };

    /** Before the first instant: held variables get their first values. */
    void begin(Moment moment);

    /** The next planned instant, s, after the one that was asked to happen last; infinite if there is none. */
    double next();

    /** Carries out all that is due, and all that waits for a condition that holds now. */
    void happen(Moment moment);
}
