package pyrite.core.dynamics;

/** The right-hand side of a system, ready to be evaluated. Implementations are stateless and thread-safe. */
public interface Kernel {
    /**
     * Computes all algebraic variables and rates.
     *
     * @param t time, s
     * @param v the variables, coherent SI; the states are given, everything else is written
     * @param modes for each relation whether it is taken to hold
     */
    void evaluate(double t, double[] v, boolean[] modes);

    /**
     * The same, but at kinks the alternative is taken that the values ask for. A run passes a kink a little late, which
     * changes no value by more than the tolerance; but {@code min(x, 1)} shall never be shown above 1.
     */
    default void output(double t, double[] v, boolean[] modes) {
        evaluate(t, v, modes);
    }

    /**
     * Computes the margin of every relation from variables that {@link #evaluate} completed.
     *
     * @param margins written; positive where the relation holds
     */
    void margins(double t, double[] v, boolean[] modes, double[] margins);
}
