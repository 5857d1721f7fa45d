package pyrite.core.dynamics;

/**
 * Watches an explicit integrator for stiffness: where its steps are as small as its stability asks for and not as small
 * as its accuracy would (Hairer and Wanner, Solving Ordinary Differential Equations II, 2nd ed. 1996, IV.2). The
 * fastest rate of change is estimated from two evaluations at the same instant.
 */
final class Stiffness {
    /** Where the Dormand-Prince 8(5,3) method ceases to be stable, as a step times the fastest rate of change. */
    private static final double STABLE = 6.1;
    /** The share of the steps at the limit of stability from which on the equations count as stiff. */
    private static final double MANY = 0.5;

    private static final int ENOUGH_STEPS = 1000;
    /** A difference of states below this part of them says nothing. */
    private static final double ROUNDING = 1e-13;

    private double time = Double.NaN;
    private double[] state = new double[0];
    private double[] derivatives = new double[0];
    private double fastest;
    private int steps;
    private int limited;

    /** An evaluation of the right-hand side. */
    void evaluated(double t, double[] y, double[] dy) {
        if (t == time) {
            double change = distance(y, state);
            fastest = change > ROUNDING * distance(y, new double[y.length])
                    ? Math.max(fastest, distance(dy, derivatives) / change)
                    : fastest;
        }
        time = t;
        state = y.clone();
        derivatives = dy;
    }

    /** A step that was accepted, s. */
    void stepped(double length) {
        steps++;
        if (length * fastest > STABLE) {
            limited++;
        }
        fastest = 0;
    }

    boolean isFound() {
        return steps >= ENOUGH_STEPS && limited > MANY * steps;
    }

    private static double distance(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += (a[i] - b[i]) * (a[i] - b[i]);
        }
        return Math.sqrt(sum);
    }
}
