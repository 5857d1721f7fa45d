package pyrite.core.dynamics;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Random;
import java.util.function.BiFunction;
import java.util.function.BinaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import pyrite.core.expression.MathFunction;

/**
 * What the judging of runs rests on: no result of an operation on numbers in intervals is outside of the interval's.
 */
class IntervalLawTest {
    private static final MathContext EXACT = MathContext.UNLIMITED;
    private static final double[] SCALES = {1e-300, 1e-12, 1e-3, 1, 1, 1, 7, 50, 1e4, 1e9, 1e150};

    private enum Operation {
        PLUS(Interval::plus, (a, b) -> a.add(b, EXACT)),
        MINUS(Interval::minus, (a, b) -> a.subtract(b, EXACT)),
        TIMES(Interval::times, (a, b) -> a.multiply(b, EXACT)),
        OVER(Interval::over, (a, b) -> a.divide(b, new MathContext(60)));

        final BinaryOperator<Interval> ofIntervals;
        final BiFunction<BigDecimal, BigDecimal, BigDecimal> exact;

        Operation(BinaryOperator<Interval> ofIntervals, BiFunction<BigDecimal, BigDecimal, BigDecimal> exact) {
            this.ofIntervals = ofIntervals;
            this.exact = exact;
        }
    }

    /** Against exact arithmetic. */
    @Property(tries = 3000)
    void noSumDifferenceProductOrQuotientIsOutside(@ForAll long seed) {
        Random random = new Random(seed);
        Interval a = interval(random);
        Interval b = interval(random);
        double x = within(a, random);
        double y = within(b, random);
        for (Operation operation : Operation.values()) {
            Interval result = operation.ofIntervals.apply(a, b);
            if (operation == Operation.OVER && y == 0) {
                assertThat(result.isPartial()).isTrue();
            } else {
                BigDecimal exact = operation.exact.apply(new BigDecimal(x), new BigDecimal(y));
                assertContains(result, exact, x + " " + operation + " " + y + " of " + a + " and " + b);
            }
            assertThat(result.low()).isLessThanOrEqualTo(result.high());
        }
        assertContains(a.squared(), new BigDecimal(x).pow(2), x + " squared of " + a);
        assertThat(a.squared().low()).isNotNegative();
        assertThat(a.hull(b).contains(x)).isTrue();
        assertThat(a.hull(b).contains(y)).isTrue();
        assertThat(a.negated().contains(-x)).isTrue();
    }

    /** A function's value where it has one; otherwise the result is said to be partial. */
    @ParameterizedTest
    @EnumSource(
            mode = EnumSource.Mode.EXCLUDE,
            names = {"MIN", "MAX"})
    void noValueOfAFunctionIsOutside(MathFunction function) {
        Random random = new Random(function.ordinal());
        for (int i = 0; i < 20_000; i++) {
            Interval a = interval(random);
            double x = within(a, random);
            assertImage(a.apply(function), function.apply(x, 0), function + " of " + x + " in " + a);
        }
    }

    @Property(tries = 5000)
    void noPowerIsOutside(@ForAll long seed) {
        Random random = new Random(seed);
        Interval a = interval(random);
        double x = within(a, random);
        double exponent = random.nextBoolean() ? random.nextInt(-5, 6) : random.nextDouble(-4, 4);
        assertImage(a.power(exponent), Math.pow(x, exponent), x + " ^ " + exponent + " in " + a);
    }

    private static void assertImage(Interval image, double value, String what) {
        assertThat(image.low()).as(what).isLessThanOrEqualTo(image.high());
        if (Double.isNaN(value)) {
            assertThat(image.isPartial()).as(what).isTrue();
        } else if (Double.isInfinite(value)) {
            assertThat(image.isPartial() || !image.isBounded()).as(what).isTrue();
        } else {
            assertThat(image.contains(value)).as(what + ": " + image).isTrue();
        }
    }

    private static void assertContains(Interval result, BigDecimal exact, String what) {
        boolean above = Double.isInfinite(result.low()) || new BigDecimal(result.low()).compareTo(exact) <= 0;
        boolean below = Double.isInfinite(result.high()) || new BigDecimal(result.high()).compareTo(exact) >= 0;
        assertThat(above && below).as(what + ": " + result).isTrue();
    }

    private static Interval interval(Random random) {
        double one = end(random);
        double other = switch (random.nextInt(4)) {
            case 0 -> one;
            case 1 -> one + Math.abs(one) * 1e-9;
            default -> end(random);
        };
        return Interval.of(Math.min(one, other), Math.max(one, other));
    }

    private static double end(Random random) {
        return random.nextInt(8) == 0
                ? random.nextInt(-3, 4)
                : random.nextGaussian() * SCALES[random.nextInt(SCALES.length)];
    }

    private static double within(Interval interval, Random random) {
        return switch (random.nextInt(4)) {
            case 0 -> interval.low();
            case 1 -> interval.high();
            default ->
                Math.clamp(
                        interval.low() * (1 - random.nextDouble()) + interval.high() * random.nextDouble(),
                        interval.low(),
                        interval.high());
        };
    }

    /** Bounds that are right and of no use: on a piece where a function is monotone they are its values at the ends. */
    @ParameterizedTest
    @CsvSource({
        "SQRT, 4, 9, 2, 3",
        "SQRT, 0, 9, 0, 3",
        "ABS, -3, 2, 0, 3",
        "ABS, -3, -2, 2, 3",
        "ABS, 2, 3, 2, 3",
        "EXP, 0, 1, 1, 2.718281828459045",
        "LN, 1, 2.718281828459045, 0, 1",
        "SIN, -0.5235987755982989, 0.5235987755982989, -0.5, 0.5",
        "SIN, 0, 3.141592653589793, 0, 1",
        "SIN, 3.5, 6, -1, -0.27941549819892586",
        "SIN, 0, 7, -1, 1",
        "COS, -1, 1, 0.5403023058681398, 1",
        "COS, 3, 4, -1, -0.6536436208636119",
        "TAN, -0.7853981633974483, 0.7853981633974483, -1, 1",
        "ARCTAN, -1, 1, -0.7853981633974483, 0.7853981633974483",
        "ARCSIN, -1, 0.5, -1.5707963267948966, 0.5235987755982989",
        "ARCCOS, -1, 0.5, 1.0471975511965979, 3.141592653589793",
        "FLOOR, -1.5, 2.5, -2, 2",
        "ROUND, -1.2, 2.6, -1, 3"
    })
    void imagesAreNarrow(MathFunction function, double low, double high, double least, double most) {
        Interval image = Interval.of(low, high).apply(function);
        assertThat(image.isPartial()).isFalse();
        assertNear(image.low(), least);
        assertNear(image.high(), most);
    }

    private static void assertNear(double actual, double expected) {
        assertThat(actual).isCloseTo(expected, org.assertj.core.data.Offset.offset(1e-14));
    }

    @ParameterizedTest
    @CsvSource({
        "-2, 3, 2, 0, 9",
        "-2, 3, 3, -8, 27",
        "2, 3, 2, 4, 9",
        "-3, -2, 2, 4, 9",
        "-3, -2, 3, -27, -8",
        "4, 9, 0.5, 2, 3",
        "2, 4, -1, 0.25, 0.5",
        "-4, -2, -2, 0.0625, 0.25",
        "-2, 3, 0, 1, 1"
    })
    void powersAreNarrow(double low, double high, double exponent, double least, double most) {
        Interval power = Interval.of(low, high).power(exponent);
        assertThat(power.isPartial()).isFalse();
        assertNear(power.low(), least);
        assertNear(power.high(), most);
    }

    /** Products with their signs (Moore, Interval Analysis, 1966, chapter 2), quotients by what begins at zero. */
    @Test
    void productsAndQuotientsAreNarrow() {
        assertBounds(Interval.of(-1, 2).times(Interval.of(-3, 4)), -6, 8);
        assertBounds(Interval.of(-3, -1).times(Interval.of(2, 4)), -12, -2);
        assertBounds(Interval.of(1, 2).over(Interval.of(4, 8)), 0.125, 0.5);
        assertBounds(Interval.of(1, 2).over(Interval.of(-8, -4)), -0.5, -0.125);
        assertBounds(Interval.of(1, 2).plus(Interval.of(10, 20)), 11, 22);
        assertBounds(Interval.of(1, 2).minus(Interval.of(10, 20)), -19, -8);
        assertBounds(Interval.of(-2, 3).squared(), 0, 9);
        assertBounds(Interval.of(-3, -2).squared(), 4, 9);
        Interval above = Interval.of(1, 2).over(Interval.of(0, 4));
        assertNear(above.low(), 0.25);
        assertThat(above.high()).isInfinite();
        assertThat(above.isPartial()).isTrue();
        Interval below = Interval.of(1, 2).over(Interval.of(-4, 0));
        assertNear(below.high(), -0.25);
        assertThat(below.low()).isInfinite();
        assertThat(below.isPartial()).isTrue();
        assertThat(Interval.of(1, 2).over(Interval.of(-1, 1)))
                .isEqualTo(new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, true));
    }

    private static void assertBounds(Interval interval, double low, double high) {
        assertThat(interval.isPartial()).isFalse();
        assertNear(interval.low(), low);
        assertNear(interval.high(), high);
    }

    /** Where a domain is left for some or for all numbers. */
    @Test
    void whatLeavesADomainIsPartial() {
        Interval across = Interval.of(-1, 4);
        assertThat(across.apply(MathFunction.SQRT).isPartial()).isTrue();
        assertNear(across.apply(MathFunction.SQRT).high(), 2);
        assertThat(across.apply(MathFunction.LN).isPartial()).isTrue();
        assertThat(across.power(0.5).isPartial()).isTrue();
        assertThat(across.apply(MathFunction.ARCSIN).isPartial()).isTrue();
        assertThat(Interval.of(-4, -1).apply(MathFunction.SQRT).isPartial()).isTrue();
        assertThat(Interval.of(2, 3).apply(MathFunction.ARCCOS).isPartial()).isTrue();
        assertThat(Interval.of(1, 2).apply(MathFunction.TAN).isPartial()).isTrue();
        assertThat(across.apply(MathFunction.SQRT).plus(across).isPartial()).isTrue();
        assertThat(across.plus(across.apply(MathFunction.SQRT)).isPartial()).isTrue();
        assertThat(across.hull(across.apply(MathFunction.LN)).isPartial()).isTrue();
    }

    @Test
    void whatOverflowsHasNoBounds() {
        assertThat(Interval.of(800, 900).apply(MathFunction.EXP).isBounded()).isFalse();
        assertThat(Interval.of(1e200, 2e200).power(3).isBounded()).isFalse();
        assertThat(Interval.of(1e200, 2e200).times(Interval.of(1e200, 2e200)).isBounded())
                .isFalse();
        assertThat(Interval.of(Double.NaN, 1)).isEqualTo(Interval.ENTIRE);
    }
}
