package pyrite.core.dynamics;

/** One instant of a run, at which values are read and held variables get others. */
public interface Moment {
    /** s. */
    double time();

    /** A term with the values of now. */
    double value(Term term);

    /** Whether a condition holds; one that the run watches changes exactly where it is located. */
    boolean holds(Condition condition);

    double get(int variable);

    /** Gives a held variable another value, from this instant on. */
    void set(int held, double value);
}
