package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Validates;

/** Verdicts on what is shorter than the integrator's steps, on poles, plateaus and limits that are just touched. */
class ProofTest {
    /** A run of 100 s in steps of some seconds; Y in the constraint stands for the formula, t in it for the time. */
    private static Judgement judge(String formula, String constraint) {
        return Judged.byRunning(
                """
                part def P {
                    attribute t : Real = time / 1 [s];
                    attribute x : Real := 0;
                    assert constraint moves { der(x) == 0.01 [1/s] }
                }
                part p : P;
                requirement r { subject s : P; require constraint { %s } }
                satisfy r by p;
                verification check : SimulatedCheck {
                    subject :>> system = p; attribute :>> stopTime = 100 [s]; objective { verify r; }
                }
                """.formatted(constraint.replace("Y", "(" + formula.replaceAll("\\bt\\b", "s.t") + ")")));
    }

    /** Half the width of the peak {@code exp(-(((t - 37.123) * 1000)^2))} where it is 0.5. */
    private static final double HALF = 1e-3 * Math.sqrt(Math.log(2));

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "always(Y <= 0.5)|FAIL|-0.5",
                "always(Y <= 1.25)|PASS|0.25",
                "eventually(Y >= 0.75)|PASS|0.25",
                "maximum(Y) <= 0.9|FAIL|-0.1",
                "Y <= 0.5|FAIL|-0.5"
            })
    @Validates(
            what = "a peak of a millisecond in steps of seconds",
            against = "its height and instant",
            within = "1e-9 in height, 1e-6 s")
    void aPeakOfAMillisecondIsNotMissed(String constraint, VerdictKind verdict, double margin) {
        Judgement judgement = judge("exp(-(((t - 37.123) * 1000)^2))", constraint);
        assertThat(judgement.verdict()).isEqualTo(verdict);
        assertThat(judgement.margin().si()).isCloseTo(margin, within(1e-9));
        assertThat(judgement.worstInstant()).isCloseTo(37.123, within(1e-6));
    }

    @Test
    @Validates(
            what = "times, durations and integrals of a peak",
            against = "closed forms of a Gaussian",
            within = "1e-10 s")
    void theTimesOfAPeakAreExact() {
        String peak = "exp(-(((t - 37.123) * 1000)^2))";
        assertThat(judge(peak, "always(Y <= 0.5)").firstViolation()).isCloseTo(37.123 - HALF, within(1e-10));
        assertThat(judge(peak, "firstTime(Y >= 0.5) <= 0 [s]").margin().si())
                .isCloseTo(-(37.123 - HALF), within(1e-10));
        assertThat(judge(peak, "lastTime(Y >= 0.5) <= 0 [s]").margin().si()).isCloseTo(-(37.123 + HALF), within(1e-10));
        assertThat(judge(peak, "duration(Y >= 0.5) <= 0 [s]").margin().si()).isCloseTo(-2 * HALF, within(1e-10));
        assertThat(judge(peak, "integral(Y) <= 0 [s]").margin().si())
                .isCloseTo(-1e-3 * Math.sqrt(Math.PI), within(1e-12));
    }

    @Test
    @Validates(
            what = "integral, mean and duration of a signal of 5 Hz over 100 s",
            against = "closed forms",
            within = "1e-6")
    void aSignalLikeTheMainsIsIntegratedExactly() {
        assertThat(judge("abs(sin(31.41592653589793 * t))", "integral(Y) <= 0 [s]")
                        .margin()
                        .si())
                .isCloseTo(-200 / Math.PI, within(1e-7));
        assertThat(judge("if sin(31.41592653589793 * t) > 0 ? 1.0 else 0.0", "mean(Y) <= 0")
                        .margin()
                        .si())
                .isCloseTo(-0.5, within(1e-7));
        assertThat(judge("sin(31.41592653589793 * t)", "duration(Y > 0.5) <= 0 [s]")
                        .margin()
                        .si())
                .isCloseTo(-100.0 / 3, within(1e-6));
    }

    @Test
    void theErrorOfIntegratingIsToldAndDecidesNothingBelowItself() {
        String signal = "abs(sin(0.314159265358979 * t))";
        assertThat(judge(signal, "integral(Y) <= 70 [s]").reason()).matches("63\\.66 s ≤ 70 s, integrated to ± \\S+ s");
        assertThat(judge(signal, "integral(Y) - integral(Y) <= 0 [s]")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason()).contains("is smaller than the error of integrating");
        });
    }

    @Test
    void aFormulaWithoutAFiniteValueIsAnError() {
        assertThat(judge("t", "maximum(Y) / minimum(Y) <= 5")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).contains("this has no finite value: ∞ <= 5");
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 / (t - 33.3)|Y <= 1e6|33.3",
                "tan(t / 10)|always(Y <= 1e9)|15.708",
                "ln((t - 20)^2)|Y <= 1e9|20",
                "if t < 12 ? 1.0 else sqrt(13 - t)|maximum(Y) <= 5|13"
            })
    void aPoleOrADomainThatIsLeftIsAnErrorWithItsInstant(String formula, String constraint, String instant) {
        Judgement judgement = judge(formula, constraint);
        assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
        assertThat(judgement.reason()).contains("t = " + instant);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                // A plateau on the limit, a limit that is touched, a margin that is zero throughout.
                "min(t, 50)|Y <= 50|PASS",
                "min(t, 50)|always(Y < 50)|FAIL",
                "50 - (t - 30)^2|Y <= 50|PASS",
                "50 - (t - 30)^2|Y < 50|FAIL",
                "t - t|Y <= 0|PASS",
                "t - t|always(Y > 0)|FAIL",
                "max(0, 40 - t)|eventually(Y <= 0)|PASS",
                "max(0, 40 - t)|eventually(Y < 0)|FAIL",
                "s.x - 0.01 * t|Y <= 1e-9|PASS"
            })
    void aLimitThatIsJustReachedIsDecidedByTheComparison(String formula, String constraint, VerdictKind verdict) {
        assertThat(judge(formula, constraint).verdict()).isEqualTo(verdict);
    }

    @Test
    void whatTheRunDoesNotCoverDecidesNothing() {
        assertThat(judge("t", "at(Y, 200 [s]) <= 1")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason()).isEqualTo("the run goes from t = 0 s to 100 s and does not cover t = 200 s");
        });
        assertThat(judge("t", "always(Y <= 1, 90 [s], 110 [s])").verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
        assertThat(judge("t", "maximum(Y, 90 [s], 80 [s]) <= 1")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).contains("the window ends at 80 s, before it begins at 90 s");
        });
        assertThat(judge("t", "at(Y, 100 [s]) <= 100").verdict()).isEqualTo(VerdictKind.PASS);
    }

    /**
     * Torricelli: level = (1 - t/10)² m, dry at 10 s. The root has no value below nothing and is not asked for there.
     */
    @Test
    void aTankThatRunsDryIsJudgedUpToItsEnd() {
        Judgement dry = Judged.byRunning("""
                part def Tank {
                    attribute level : LengthValue := 1 [m];
                    attribute outflow : SpeedValue = if level > 0 [m] ? 0.2 [m/s] * sqrt(level / 1 [m]) else 0 [m/s];
                    assert constraint { der(level) == -outflow }
                }
                part tank : Tank;
                requirement slow { subject t : Tank; require constraint {
                    always(t.outflow <= 0.25 [m/s]) and always(t.outflow >= 0 [m/s]) } }
                satisfy slow by tank;
                verification check : SimulatedCheck { subject :>> system = tank; attribute :>> stopTime = 20 [s];
                    objective { verify slow; } }
                """);
        assertThat(dry.verdict()).as(dry.reason()).isEqualTo(VerdictKind.PASS);
    }
}
