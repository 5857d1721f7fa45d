package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.expression.MathFunction;

/**
 * The bounds of values and derivatives that judging rests on. By the mean value theorem every divided difference of a
 * function is a value of its derivative, so it must be within the bounds.
 */
class JetLawTest {
    /** A function of time, computed in two ways. */
    private record Pair(String text, Jet jet, DoubleUnaryOperator at) {}

    @Property(tries = 20_000)
    void everyDividedDifferenceIsWithinTheBounds(@ForAll long seed) {
        Random random = new Random(seed);
        double a = random.nextDouble(-3, 3);
        double b = a + Math.pow(10, random.nextDouble(-3, 0.5));
        Pair pair = pair(random, 1 + random.nextInt(4), a, b);
        Jet jet = pair.jet();
        double third = (b - a) / 3;
        double x = a + random.nextDouble() * third;
        double y = a + (1 + random.nextDouble()) * third;
        double z = a + (2 + random.nextDouble()) * third;
        double fx = pair.at().applyAsDouble(x);
        double fy = pair.at().applyAsDouble(y);
        double fz = pair.at().applyAsDouble(z);
        if (!Double.isFinite(fx) || !Double.isFinite(fy) || !Double.isFinite(fz)) {
            assertThat(jet.value().isPartial() || !jet.value().isBounded())
                    .as(() -> pair.text() + " is " + fy + " in " + jet.value())
                    .isTrue();
            return;
        }
        if (jet.value().isPartial()) {
            return;
        }
        assertWithin(pair, jet.value(), fy, 0);
        if (jet.isLipschitz()) {
            double noise = 1e-13
                    * (Math.abs(fx) + Math.abs(fy) + Math.abs(fz) + jet.value().magnitude());
            assertWithin(pair, jet.rate(), (fy - fx) / (y - x), noise / (y - x));
            double second = ((fz - fy) / (z - y) - (fy - fx) / (y - x)) / (z - x);
            assertWithin(pair, jet.curvature(), 2 * second, 4 * noise / (z - y) / (y - x));
        }
        Jet middle = pair(new Random(seed), a, b);
        Jet narrow = jet.around(middle, (b - a) / 2);
        assertWithin(pair, narrow.value(), fx, 0);
        assertWithin(pair, narrow.value(), fz, 0);
        assertThat(narrow.value().width()).isLessThanOrEqualTo(jet.value().width());
    }

    /** The same function at the middle instant alone. */
    private static Jet pair(Random random, double a, double b) {
        random.nextDouble(-3, 3);
        random.nextDouble(-3, 0.5);
        return pair(random, 1 + random.nextInt(4), a + (b - a) / 2, a + (b - a) / 2)
                .jet();
    }

    private static void assertWithin(Pair pair, Interval bounds, double value, double slack) {
        assertThat(bounds.low() - slack <= value && value <= bounds.high() + slack)
                .as(() -> pair.text() + ": " + value + " in " + bounds + " within " + slack)
                .isTrue();
    }

    private static Pair pair(Random random, int depth, double a, double b) {
        if (depth == 0) {
            double constant = random.nextInt(-3, 4);
            return random.nextInt(3) == 0
                    ? new Pair("" + constant, Jet.constant(constant), _ -> constant)
                    : new Pair("t", Jet.time(a, b), t -> t);
        }
        Pair one = pair(random, depth - 1, a, b);
        if (random.nextBoolean()) {
            MathFunction function = MathFunction.values()[random.nextInt(MathFunction.values().length)];
            return function.arity() == 1
                    ? new Pair(
                            function + "(" + one.text() + ")",
                            one.jet().apply(function),
                            t -> function.apply(one.at().applyAsDouble(t), 0))
                    : new Pair(
                            "-" + one.text(),
                            one.jet().negated(),
                            t -> -one.at().applyAsDouble(t));
        }
        Pair other = pair(random, depth - 1, a, b);
        int exponent = random.nextInt(-2, 5);
        return switch (random.nextInt(8)) {
            case 0 -> new Pair(text(one, "+", other), one.jet().plus(other.jet()), t -> at(one, t) + at(other, t));
            case 1 -> new Pair(text(one, "-", other), one.jet().minus(other.jet()), t -> at(one, t) - at(other, t));
            case 2 -> new Pair(text(one, "*", other), one.jet().times(other.jet()), t -> at(one, t) * at(other, t));
            case 3 -> new Pair(text(one, "/", other), one.jet().over(other.jet()), t -> at(one, t) / at(other, t));
            case 4 -> new Pair(text(one, "*", one), one.jet().squared(), t -> at(one, t) * at(one, t));
            case 5 ->
                new Pair(
                        "(" + one.text() + " ^ " + exponent + ")",
                        one.jet().power(Jet.constant(exponent)),
                        t -> Math.pow(at(one, t), exponent));
            case 6 ->
                new Pair(text(one, "^", other), one.jet().power(other.jet()), t -> Math.pow(at(one, t), at(other, t)));
            default ->
                new Pair(
                        text(one, "min", other),
                        one.jet().smaller(other.jet()),
                        t -> Math.min(at(one, t), at(other, t)));
        };
    }

    private static String text(Pair one, String operator, Pair other) {
        return "(" + one.text() + " " + operator + " " + other.text() + ")";
    }

    private static double at(Pair pair, double t) {
        return pair.at().applyAsDouble(t);
    }

    /** First and second derivatives of the functions at an instant, from tables. */
    @ParameterizedTest
    @CsvSource({
        "SQRT, 4, 0.25, -0.03125",
        "EXP, 0, 1, 1",
        "LN, 2, 0.5, -0.25",
        "SIN, 0.5, 0.8775825618903728, -0.479425538604203",
        "COS, 0.5, -0.479425538604203, -0.8775825618903728",
        "TAN, 0.7853981633974483, 2, 4",
        "ARCTAN, 1, 0.5, -0.5",
        "ARCSIN, 0.6, 1.25, 1.171875",
        "ARCCOS, 0.6, -1.25, -1.171875",
        "ABS, -2, -1, 0",
        "ABS, 2, 1, 0",
        "FLOOR, 2.5, 0, 0"
    })
    void derivativesAreNarrow(MathFunction function, double at, double first, double second) {
        assertDerivatives(Jet.time(at, at).apply(function), first, second);
    }

    @Test
    void derivativesOfProductsQuotientsAndPowersAreNarrow() {
        Jet t = Jet.time(2, 2);
        assertDerivatives(t.times(t).times(t), 12, 12);
        assertDerivatives(t.squared(), 4, 2);
        assertDerivatives(Jet.constant(1).over(t), -0.25, 0.25);
        assertDerivatives(t.power(Jet.constant(3)), 12, 12);
        assertDerivatives(t.power(Jet.constant(1)), 1, 0);
        assertDerivatives(t.power(t), 4 * (Math.log(2) + 1), 4 * (Math.pow(Math.log(2) + 1, 2) + 0.5));
        assertDerivatives(t.minusItself(), 0, 0);
        assertThat(t.apply(MathFunction.LN).minusItself().value().magnitude()).isZero();
    }

    private static void assertDerivatives(Jet jet, double first, double second) {
        assertThat(jet.rate().low()).isCloseTo(first, within());
        assertThat(jet.rate().high()).isCloseTo(first, within());
        assertThat(jet.curvature().low()).isCloseTo(second, within());
        assertThat(jet.curvature().high()).isCloseTo(second, within());
    }

    private static org.assertj.core.data.Offset<Double> within() {
        return org.assertj.core.data.Offset.offset(1e-12);
    }

    /** Where one of two takes over there is a kink, or a jump; where one is smaller throughout there is neither. */
    @Test
    void kinksAndJumpsHaveNoCurvatureAndJumpsNoRate() {
        Jet t = Jet.time(-1, 1);
        assertThat(t.apply(MathFunction.ABS).curvature()).isEqualTo(Interval.ENTIRE);
        assertThat(t.apply(MathFunction.ABS).rate().isBounded()).isTrue();
        assertThat(t.apply(MathFunction.ABS).value().low()).isZero();
        assertThat(t.orJump(Jet.constant(3)).rate()).isEqualTo(Interval.ENTIRE);
        assertThat(t.apply(MathFunction.FLOOR).rate()).isEqualTo(Interval.ENTIRE);
        assertThat(t.smaller(Jet.constant(2))).isEqualTo(t);
        assertThat(Jet.constant(2).smaller(t)).isEqualTo(t);
        assertThat(t.smaller(Jet.constant(0)).value()).isEqualTo(Interval.of(-1, 0));
        assertThat(t.smaller(Jet.constant(0)).curvature()).isEqualTo(Interval.ENTIRE);
    }

    /** Where it turns, the bounds of a quantity around the middle miss its image by the third power of the length. */
    @Test
    void aroundTheMiddleBoundsAreNarrower() {
        double[] excess = {excess(0.1), excess(0.05)};
        assertThat(excess[1]).isPositive();
        assertThat(excess[0] / excess[1]).isGreaterThan(6);
    }

    private static double excess(double radius) {
        double turn = 3 * Math.PI / 4;
        double image = wave(turn) - Math.min(wave(turn - radius), wave(turn + radius));
        Interval bounds = wave(Jet.time(turn - radius, turn + radius))
                .around(wave(Jet.time(turn, turn)), radius)
                .value();
        return bounds.width() - image;
    }

    private static Jet wave(Jet t) {
        return t.apply(MathFunction.SIN).times(t.apply(MathFunction.EXP));
    }

    private static double wave(double t) {
        return Math.sin(t) * Math.exp(t);
    }
}
