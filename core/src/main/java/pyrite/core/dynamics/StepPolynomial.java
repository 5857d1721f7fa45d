package pyrite.core.dynamics;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
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

    /** The values of each Bernstein polynomial at the nodes, inverted: values to coefficients. */
    private static final double[][] COEFFICIENTS_OF_VALUES = inverse(valuesOfCoefficients());

    private final double from;
    private final double length;
    /** For each state the coefficients of the polynomial and of its first and second derivative. */
    private final double[][][] coefficients;

    StepPolynomial(double from, double to, ODEStateInterpolator interpolator, int states) {
        this.from = from;
        this.length = to - from;
        double[][] values = new double[DEGREE + 1][];
        for (int k = 0; k <= DEGREE; k++) {
            values[k] =
                    interpolator.getInterpolatedState(from + length * node(k)).getPrimaryState();
        }
        this.coefficients = new double[states][3][];
        for (int i = 0; i < states; i++) {
            double[] b = new double[DEGREE + 1];
            for (int row = 0; row <= DEGREE; row++) {
                for (int k = 0; k <= DEGREE; k++) {
                    b[row] += COEFFICIENTS_OF_VALUES[row][k] * values[k][i];
                }
            }
            // The ends are known exactly.
            b[0] = values[0][i];
            b[DEGREE] = values[DEGREE][i];
            coefficients[i][0] = b;
            coefficients[i][1] = differences(b, DEGREE / length);
            coefficients[i][2] = differences(coefficients[i][1], (DEGREE - 1) / length);
        }
    }

    /** What a state is between two instants of the step, s. */
    Jet state(int state, double a, double b) {
        double low = Math.clamp((a - from) / length, 0, 1);
        double high = Math.clamp((b - from) / length, 0, 1);
        double[][] all = coefficients[state];
        double rounding = ROUNDING * largest(all[0]);
        return new Jet(
                range(all[0], low, high, rounding),
                range(all[1], low, high, 10 * rounding / length),
                range(all[2], low, high, 100 * rounding / (length * length)));
    }

    private static Interval range(double[] coefficients, double low, double high, double rounding) {
        double[] part = coefficients.clone();
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

    /** Chebyshev's points of the second kind on [0, 1], at which the conversion is well conditioned. */
    private static double node(int k) {
        return k == 0 ? 0 : k == DEGREE ? 1 : (1 - Math.cos(Math.PI * k / DEGREE)) / 2;
    }

    private static double[][] valuesOfCoefficients() {
        double[][] values = new double[DEGREE + 1][DEGREE + 1];
        for (int k = 0; k <= DEGREE; k++) {
            double binomial = 1;
            for (int i = 0; i <= DEGREE; i++) {
                values[k][i] = binomial * Math.pow(node(k), i) * Math.pow(1 - node(k), DEGREE - i);
                binomial = binomial * (DEGREE - i) / (i + 1);
            }
        }
        return values;
    }

    private static double[][] inverse(double[][] matrix) {
        return MatrixUtils.inverse(new Array2DRowRealMatrix(matrix)).getData();
    }
}
