package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Locale;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** Margins, instants and durations of random formulas against brute force at a great many instants. */
class ProofLawTest {
    private static final double STOP = 10;
    private static final int INSTANTS = 1_000_000;
    /** What the integration of x = sin t may be off, and what a formula makes of it. */
    private static final double INTEGRATED = 1e-5;

    /** A formula as text and as a function of time; x is sin t, found by integration in the run. */
    private record Formula(String text, DoubleUnaryOperator value) {}

    private static Formula formula(Random random, int depth) {
        if (depth == 0) {
            return switch (random.nextInt(3)) {
                case 0 -> {
                    double number = random.nextInt(-30, 31) / 10.0;
                    yield new Formula("(" + String.format(Locale.ROOT, "%.1f", number) + ")", _ -> number);
                }
                case 1 -> new Formula("s.t", t -> t);
                default -> new Formula("s.x", Math::sin);
            };
        }
        Formula a = formula(random, depth - 1);
        Formula b = formula(random, depth - 1);
        DoubleUnaryOperator f = a.value;
        DoubleUnaryOperator g = b.value;
        int fast = random.nextInt(1, 40);
        return switch (random.nextInt(10)) {
            case 0 -> new Formula(text("(%s + %s)", a, b), t -> f.applyAsDouble(t) + g.applyAsDouble(t));
            case 1 -> new Formula(text("(%s - %s)", a, b), t -> f.applyAsDouble(t) - g.applyAsDouble(t));
            case 2 -> new Formula(text("(%s * %s)", a, b), t -> f.applyAsDouble(t) * g.applyAsDouble(t));
            case 3 ->
                new Formula(
                        text("(%s / (1.5 + sin(%s)))", a, b),
                        t -> f.applyAsDouble(t) / (1.5 + Math.sin(g.applyAsDouble(t))));
            case 4 -> new Formula(text("sin(" + fast + " * %s)", a), t -> Math.sin(fast * f.applyAsDouble(t)));
            case 5 -> new Formula(text("abs(%s)", a), t -> Math.abs(f.applyAsDouble(t)));
            case 6 -> new Formula(text("max(%s, %s)", a, b), t -> Math.max(f.applyAsDouble(t), g.applyAsDouble(t)));
            case 7 -> new Formula(text("min(%s, %s)", a, b), t -> Math.min(f.applyAsDouble(t), g.applyAsDouble(t)));
            case 8 -> new Formula(text("exp(-(abs(%s)))", a), t -> Math.exp(-Math.abs(f.applyAsDouble(t))));
            default -> new Formula(text("sqrt(abs(%s))", a), t -> Math.sqrt(Math.abs(f.applyAsDouble(t))));
        };
    }

    private static String text(String form, Formula... parts) {
        Object[] texts = java.util.Arrays.stream(parts).map(Formula::text).toArray();
        return form.formatted(texts);
    }

    private static Judgement judge(String constraint) {
        Model model = Models.of("""
                part def P {
                    attribute t : Real = time / 1 [s];
                    attribute x : Real := 0;
                    attribute v : Real := 1;
                    assert constraint law { der(x) == v / 1 [s] and der(v) == -x / 1 [s] }
                }
                part p : P;
                requirement r { subject s : P; require constraint { %s } }
                satisfy r by p;
                verification check : SimulatedCheck {
                    subject :>> system = p; attribute :>> stopTime = 10 [s]; attribute :>> tolerance = 1e-10;
                    objective { verify r; }
                }
                """.formatted(constraint));
        return CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE)
                .judgements()
                .getFirst();
    }

    /** Formulas that stay at zero only because their parts cancel, with a slope without bound there, are refused. */
    private static boolean isRefused(Judgement judgement) {
        return judgement.reason().contains("changes too often to be judged");
    }

    private static double instant(int i) {
        return STOP * i / INSTANTS;
    }

    @Property(tries = 30)
    void noInstantIsWorseThanTheWorstOneFound(@ForAll Random random) {
        Formula formula = formula(random, 1 + random.nextInt(3));
        double limit = random.nextInt(-20, 21) / 10.0;
        Judgement judgement = judge("always(" + formula.text() + " <= " + limit + ")");
        if (isRefused(judgement)) {
            return;
        }
        assertThat(judgement.verdict())
                .as(formula.text() + ": " + judgement.reason())
                .isIn(VerdictKind.PASS, VerdictKind.FAIL);
        if (judgement.margin() == null) {
            // Nothing varies in the formula, so no comparison is left of it.
            return;
        }
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i <= INSTANTS; i++) {
            least = Math.min(least, limit - formula.value().applyAsDouble(instant(i)));
        }
        double margin = judgement.margin().si();
        assertThat(margin).as(formula.text()).isLessThanOrEqualTo(least + error(formula, margin));
        if (judgement.worstInstant() != null) {
            assertThat(margin)
                    .as(formula.text())
                    .isCloseTo(
                            limit - formula.value().applyAsDouble(judgement.worstInstant()),
                            within(error(formula, margin)));
        }
        assertThat(judgement.verdict() == VerdictKind.PASS).as(formula.text()).isEqualTo(margin >= 0);
    }

    @Property(tries = 20)
    void timesAreThoseOfBruteForce(@ForAll Random random) {
        Formula formula = formula(random, 1 + random.nextInt(3));
        double limit = random.nextInt(-20, 21) / 10.0 + 0.0137;
        double held = 0;
        int crossings = 0;
        boolean before = formula.value().applyAsDouble(0) > limit;
        for (int i = 0; i < INSTANTS; i++) {
            boolean holds = formula.value().applyAsDouble(instant(i) + STOP / INSTANTS / 2) > limit;
            held += holds ? STOP / INSTANTS : 0;
            crossings += holds == before ? 0 : 1;
            before = holds;
        }
        Judgement judgement = judge("duration(" + formula.text() + " > " + limit + ") <= 0 [s]");
        if (isRefused(judgement)) {
            return;
        }
        assertThat(-judgement.margin().si())
                .as(formula.text() + " > " + limit)
                .isCloseTo(held, within(1e-4 + (crossings + 2) * STOP / INSTANTS));
    }

    /** Sine of something large, roots near zero and their like make more of an error of x than it is. */
    private static double error(Formula formula, double margin) {
        return (1 + Math.abs(margin)) * INTEGRATED * (formula.text().contains("s.x") ? 100 : 1);
    }
}
