package pyrite.core.dynamics;

import java.nio.DoubleBuffer;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.ode.ODEStateAndDerivative;
import org.hipparchus.ode.sampling.ODEStateInterpolator;

/**
 * The states over one integrator step as polynomials of degree 7, which the dense output of the Dormand-Prince 8(5,3)
 * method is (Hairer, Nørsett, Wanner, II.6). They are kept by their Bernstein coefficients, between whose extremes a
 * polynomial lies on its interval; subdivision by de Casteljau gives them for a part of it.
 */
final class StepPolynomial {
    private static final int DEGREE = 7;
    /** Rounding of the conversion from values to coefficients, relative to the largest coefficient, with reserve. */
    private static final double ROUNDING = 1e-13;

    private static final double[] BINOMIALS = {1, 7, 21, 35, 35, 21, 7, 1};
    private static final double[] DEGREE_LESS = {1, 6, 15, 20, 15, 6, 1};
    /** Where values and slopes are taken; four of each make up the polynomial (Hermite). */
    private static final double[] NODES = {0, 0.25, 0.75, 1};

    /** From values and slopes at the nodes to coefficients. */
    private static final double[][] COEFFICIENTS = inverse(conditions());

    private final double from;
    private final double length;
    /** For each state the coefficients of its polynomial, one state after the other. */
    private final DoubleBuffer coefficients;

    private StepPolynomial(double from, double length, DoubleBuffer coefficients) {
        this.from = from;
        this.length = length;
        this.coefficients = coefficients;
    }

    StepPolynomial(double from, double to, ODEStateInterpolator interpolator, int states) {
        this(from, to - from, DoubleBuffer.wrap(coefficients(from, to - from, interpolator, states)));
    }

    private static double[] coefficients(double from, double length, ODEStateInterpolator interpolator, int states) {
        ODEStateAndDerivative[] known = new ODEStateAndDerivative[NODES.length];
        for (int k = 0; k < NODES.length; k++) {
            known[k] = at(from + length * NODES[k], interpolator);
        }
        double[] all = new double[states * (DEGREE + 1)];
        double[][] values = new double[NODES.length][];
        double[][] slopes = new double[NODES.length][];
        for (int k = 0; k < NODES.length; k++) {
            values[k] = known[k].getPrimaryState();
            slopes[k] = known[k].getPrimaryDerivative();
        }
        for (int i = 0; i < states; i++) {
            // The ends are known exactly.
            all[i * (DEGREE + 1)] = values[0][i];
            all[i * (DEGREE + 1) + DEGREE] = values[NODES.length - 1][i];
            for (int row = 1; row < DEGREE; row++) {
                double sum = 0;
                for (int k = 0; k < NODES.length; k++) {
                    sum += COEFFICIENTS[row][2 * k] * values[k][i]
                            + COEFFICIENTS[row][2 * k + 1] * length * slopes[k][i];
                }
                all[i * (DEGREE + 1) + row] = sum;
            }
        }
        return all;
    }

    /** At the ends of the integrator's step nothing has to be computed. */
    private static ODEStateAndDerivative at(double t, ODEStateInterpolator interpolator) {
        ODEStateAndDerivative before = interpolator.getPreviousState();
        ODEStateAndDerivative after = interpolator.getCurrentState();
        return t == before.getTime() ? before : t == after.getTime() ? after : interpolator.getInterpolatedState(t);
    }

    /** The same, kept on a shelf. */
    StepPolynomial on(StepShelf shelf) {
        double[] all = new double[coefficients.remaining()];
        coefficients.get(0, all);
        return new StepPolynomial(from, length, shelf.put(all));
    }

    /** All states at an instant of the step, s. */
    double[] at(double t) {
        double[] weights = weights(t);
        double[] y = new double[coefficients.remaining() / (DEGREE + 1)];
        for (int i = 0; i < y.length; i++) {
            y[i] = state(i, weights);
        }
        return y;
    }

    /** What the coefficients of a state count at an instant, s. */
    double[] weights(double t) {
        double x = Math.clamp((t - from) / length, 0, 1);
        double[] weights = new double[DEGREE + 1];
        for (int k = 0; k <= DEGREE; k++) {
            weights[k] = bernstein(k, x);
        }
        return weights;
    }

    /** One state at the instant of the weights. */
    double state(int state, double[] weights) {
        double value = 0;
        for (int k = 0; k <= DEGREE; k++) {
            value += weights[k] * coefficients.get(state * (DEGREE + 1) + k);
        }
        return value;
    }

    /** What a state is between two instants of the step, s. */
    Jet state(int state, double a, double b) {
        double low = Math.clamp((a - from) / length, 0, 1);
        double high = Math.clamp((b - from) / length, 0, 1);
        double[] value = new double[DEGREE + 1];
        coefficients.get(state * (DEGREE + 1), value);
        double[] rate = differences(value, DEGREE / length);
        double[] curvature = differences(rate, (DEGREE - 1) / length);
        double rounding = ROUNDING * largest(value);
        return new Jet(
                range(value, low, high, rounding),
                range(rate, low, high, 10 * rounding / length),
                range(curvature, low, high, 100 * rounding / (length * length)));
    }

    /** @param part the coefficients on the whole step, overwritten by those between low and high */
    private static Interval range(double[] part, double low, double high, double rounding) {
        if (high < 1) {
            toTheLeft(part, high);
        }
        if (low > 0) {
            toTheRight(part, high > 0 ? low / high : 0);
        }
        double least = part[0];
        double most = part[0];
        for (double value : part) {
            least = Math.min(least, value);
            most = Math.max(most, value);
        }
        return Interval.of(least - rounding, most + rounding);
    }

    /** The coefficients on [0, t] in the place of those on [0, 1]. */
    private static void toTheLeft(double[] b, double t) {
        for (int round = 1; round < b.length; round++) {
            for (int i = b.length - 1; i >= round; i--) {
                b[i] = (1 - t) * b[i - 1] + t * b[i];
            }
        }
    }

    /** The coefficients on [t, 1] in the place of those on [0, 1]. */
    private static void toTheRight(double[] b, double t) {
        for (int round = 1; round < b.length; round++) {
            for (int i = 0; i < b.length - round; i++) {
                b[i] = (1 - t) * b[i] + t * b[i + 1];
            }
        }
    }

    private static double[] differences(double[] b, double factor) {
        double[] d = new double[b.length - 1];
        for (int i = 0; i < d.length; i++) {
            d[i] = factor * (b[i + 1] - b[i]);
        }
        return d;
    }

    private static double largest(double[] b) {
        double most = 0;
        for (double value : b) {
            most = Math.max(most, Math.abs(value));
        }
        return most;
    }

    private static double bernstein(int k, double x) {
        return BINOMIALS[k] * Math.pow(x, k) * Math.pow(1 - x, DEGREE - k);
    }

    /** The slope of a Bernstein polynomial, a difference of two of a degree less. */
    private static double slope(int k, double x) {
        double rising = k == 0 ? 0 : DEGREE_LESS[k - 1] * Math.pow(x, k - 1.0) * Math.pow(1 - x, DEGREE - k);
        double falling = k == DEGREE ? 0 : DEGREE_LESS[k] * Math.pow(x, k) * Math.pow(1 - x, DEGREE - 1.0 - k);
        return DEGREE * (rising - falling);
    }

    private static double[][] conditions() {
        double[][] conditions = new double[DEGREE + 1][DEGREE + 1];
        for (int k = 0; k < NODES.length; k++) {
            for (int i = 0; i <= DEGREE; i++) {
                conditions[2 * k][i] = bernstein(i, NODES[k]);
                conditions[2 * k + 1][i] = slope(i, NODES[k]);
            }
        }
        return conditions;
    }

    private static double[][] inverse(double[][] matrix) {
        return MatrixUtils.inverse(new Array2DRowRealMatrix(matrix)).getData();
    }
}
