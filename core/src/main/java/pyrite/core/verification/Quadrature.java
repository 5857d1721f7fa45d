package pyrite.core.verification;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Enclosure;

/**
 * Integrates a function adaptively by the pair of Gauss and Kronrod with 7 and 15 nodes (Kronrod 1965; nodes and
 * weights as in QUADPACK, Piessens et al. 1983). A stretch is halved until the two rules agree and the bounds of the
 * function exclude a feature that the nodes did not meet.
 */
final class Quadrature {
    private static final double[] NODES = {
        0.991455371120812639206854697526329,
        0.949107912342758524526189684047851,
        0.864864423359769072789712788640926,
        0.741531185599394439863864773280788,
        0.586087235467691130294144691693013,
        0.405845151377397166906606412076961,
        0.207784955007898467600689403773245,
        0
    };
    private static final double[] KRONROD = {
        0.022935322010529224963732008058970,
        0.063092092629978553290700663189204,
        0.104790010322250183839876322541518,
        0.140653259715525918745189590510238,
        0.169004726639267902826583426598550,
        0.190350578064785409913256402421014,
        0.204432940075298892414161999234649,
        0.209482141084727828012999174891714
    };
    /** For the nodes with odd index. */
    private static final double[] GAUSS = {
        0.129484966168869693270611432679082,
        0.279705391489276667901467771423780,
        0.381830050505118944950369775488975,
        0.417959183673469387755102040816327
    };
    /** The relative error asked for on each stretch. */
    private static final double TOLERANCE = 1e-10;
    /** A kink or jump is isolated where the rectangle around it has this part of the whole area. */
    private static final double ISOLATED = 1e-13;
    /** So many times the noise of single instants is no difference. */
    private static final double NOISES = 4;
    /** How many times the range met at the nodes the bounds of the function may be. */
    private static final double SURPRISE = 4;

    private final DoubleUnaryOperator function;
    private final Bounds bounds;
    private final double resolution;

    /** Bounds of the function between two instants. */
    interface Bounds {
        Enclosure between(double a, double b);
    }

    /**
     * An integral.
     *
     * @param error a bound of its error: the difference of the two rules, summed
     */
    record Result(double value, double error) {
        static final Result ZERO = new Result(0, 0);

        Result plus(Result other) {
            return new Result(value + other.value, error + other.error);
        }

        Result over(double length) {
            return new Result(value / length, error / length);
        }
    }

    Quadrature(DoubleUnaryOperator function, Bounds bounds, double resolution) {
        this.function = function;
        this.bounds = bounds;
        this.resolution = resolution;
    }

    Result integral(double from, double to) {
        Result sum = Result.ZERO;
        Deque<double[]> open = new ArrayDeque<>();
        open.push(new double[] {from, to});
        while (!open.isEmpty()) {
            double[] next = open.pop();
            Result part = part(next[0], next[1], to - from);
            if (part != null) {
                sum = sum.plus(part);
            } else {
                double middle = next[0] + (next[1] - next[0]) / 2;
                open.push(new double[] {middle, next[1]});
                open.push(new double[] {next[0], middle});
            }
        }
        return sum;
    }

    /** The integral over a stretch, null if the stretch is to be halved. */
    private @Nullable Result part(double a, double b, double whole) {
        Enclosure bound = bounds.between(a, b);
        double spread = bound.high() - bound.low();
        boolean isShort = b - a <= resolution;
        if (!bound.isBounded() && !(isShort && bound.isFinite())) {
            if (isShort) {
                throw new ArithmeticException(
                        "what is integrated grows without bound, or is not defined, at t = " + Wording.instant(a));
            }
            return null;
        }
        if (isShort || spread * (b - a) <= ISOLATED * bound.magnitude() * whole) {
            return new Result(function.applyAsDouble(a + (b - a) / 2) * (b - a), spread * (b - a) / 2);
        }
        if (!bound.isSmooth()) {
            return null;
        }
        Rules rules = rules(a, b);
        double noise = NOISES * bound.noise();
        boolean agrees = rules.result.error <= (TOLERANCE * bound.magnitude() + noise) * (b - a);
        return agrees && spread <= SURPRISE * rules.range + Math.max(1e-9 * bound.magnitude(), noise)
                ? rules.result
                : null;
    }

    /** What both rules give on a stretch, and the range of the function that they met. */
    private record Rules(Result result, double range) {}

    private Rules rules(double a, double b) {
        double middle = a + (b - a) / 2;
        double half = (b - a) / 2;
        double gauss = 0;
        double kronrod = 0;
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < NODES.length; i++) {
            for (int side = -1; side <= (NODES[i] == 0 ? -1 : 1); side += 2) {
                double x = function.applyAsDouble(middle + side * half * NODES[i]);
                kronrod += KRONROD[i] * x;
                gauss += i % 2 == 1 ? GAUSS[i / 2] * x : 0;
                least = Math.min(least, x);
                most = Math.max(most, x);
            }
        }
        return new Rules(new Result(half * kronrod, half * Math.abs(kronrod - gauss)), most - least);
    }
}
