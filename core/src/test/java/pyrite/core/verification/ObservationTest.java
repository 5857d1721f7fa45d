package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.Validates;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** Observations and margins over x = sin t and v = cos t, from 0 to 10 s, compared with what calculus says. */
class ObservationTest {
    private static final String MODEL = """
            part def Swing {
                attribute x : LengthValue := 0 [m];
                attribute v : SpeedValue := 1 [m/s];
                attribute size : LengthValue = 3 [m];
                assert constraint law { der(x) == v and der(v) == -x / 1 [s^2] }
            }
            part swing : Swing;
            calc def Span { in q : LengthValue; return : LengthValue = maximum(q) - minimum(q); }
            constraint def Below { in q : LengthValue; in most : LengthValue; q <= most }
            calc def Endless { in q : LengthValue; Endless(q) + maximum(q) }
            requirement r { subject s : Swing; attribute limit : LengthValue = 50 [cm]; require constraint { %s } }
            satisfy r by swing;
            verification check : SimulatedCheck {
                subject :>> system = swing; attribute :>> stopTime = 10 [s]; attribute :>> tolerance = 1e-9; objective { verify r; }
            }
            """;

    private static Judgement judge(String constraint) {
        return Judged.byRunning(MODEL.formatted(constraint));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                // constraint | verdict | margin | worst instant
                "always(s.x <= 1.5 [m])|PASS|0.5|1.5707963",
                "always(s.x >= -0.9 [m])|FAIL|-0.1|4.7123890",
                "eventually(s.x >= 0.9 [m])|PASS|0.1|1.5707963",
                "eventually(s.x >= 1.1 [m])|FAIL|-0.1|1.5707963",
                "always(s.x >= 0 [m], 1 [s], 3 [s])|PASS|0.1411200|3",
                "maximum(s.x) <= 1.2 [m]|PASS|0.2|1.5707963",
                "minimum(s.x, 0 [s], 3 [s]) >= 0.1 [m]|FAIL|-0.1|0",
                "maximum(s.x) - minimum(s.x) <= 2.5 [m]|PASS|0.5|1.5707963",
                "firstTime(s.x >= 0.5 [m]) <= 1 [s]|PASS|0.4764012|0.5235988",
                "lastTime(s.x >= 0.5 [m]) >= 8 [s]|PASS|0.9011792|8.9011792",
                "at(s.v, 2 [s]) <= 0 [m/s]|PASS|0.4161468|2",
                "at(s.v, firstTime(s.x >= 0.5 [m])) >= 0.8 [m/s]|PASS|0.0660254|0.5235988",
                "initial(s.v) >= 1 [m/s] - 1 [cm/s]|PASS|0.01|0",
                "final(s.x) <= 0 [m]|PASS|0.5440211|10",
                "always(s.x <= 1.5 [m] and s.x >= -1.2 [m])|PASS|0.2|4.7123890",
                "always(s.x <= -2 [m] or s.x <= 1.25 [m])|PASS|0.25|1.5707963",
                "not eventually(s.x >= 2 [m])|PASS|1|1.5707963",
                "s.x <= 1.5 [m]|PASS|0.5|1.5707963",
                "-minimum(s.x) <= 1.5 [m]|PASS|0.5|4.7123890",
                "2 * maximum(s.x) <= 2.5 [m]|PASS|0.5|1.5707963",
                "maximum(s.x) / 2 + maximum(s.x) <= 2 [m]|PASS|0.5|1.5707963",
                "if s.size > 2 [m] ? maximum(s.x) <= 1.5 [m] else maximum(s.x) <= 0 [m]|PASS|0.5|1.5707963",
                "if s.size > 4 [m] ? maximum(s.x) <= 1.5 [m] else maximum(s.x) <= 0.5 [m]|FAIL|-0.5|1.5707963",
                "abs(final(s.x)) <= 0.6 [m]|PASS|0.0559789|10",
                "abs(final(s.x) - 1 [m]) <= 1.5 [m]|FAIL|-0.0440211|10",
                "max(maximum(s.x), final(s.x)) <= 1.5 [m]|PASS|0.5|1.5707963",
                "min(minimum(s.x), final(s.x)) >= -0.9 [m]|FAIL|-0.1|4.7123890",
                "(maximum(s.x), final(s.x))->max() <= 1.25 [m]|PASS|0.25|1.5707963",
                "(if s.size > 2 [m] ? maximum(s.x) else minimum(s.x)) <= 1.5 [m]|PASS|0.5|1.5707963",
                "Span(s.x) <= 2.5 [m]|PASS|0.5|1.5707963",
                "Below(maximum(s.x), 1.5 [m])|PASS|0.5|1.5707963",
                "Below(s.x, 1.5 [m])|PASS|0.5|1.5707963",
                "maximum(s.x) <= 1.5 [m] xor maximum(s.x) <= 0.5 [m]|PASS|0.5|1.5707963"
            })
    @Validates(
            what = "observations and margins over sine and cosine",
            against = "calculus",
            within = "2e-6 in value, 2e-4 s in time")
    void marginsAreThoseOfTheSine(String constraint, VerdictKind verdict, double margin, double instant) {
        Judgement judgement = judge(constraint);
        assertThat(judgement.verdict()).isEqualTo(verdict);
        assertThat(judgement.margin().si()).isCloseTo(margin, within(2e-6));
        assertThat(judgement.worstInstant()).isCloseTo(instant, within(2e-4));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                // x is positive for pi + (10 - 3 pi)... sin t > 0 in (0, pi), (2 pi, 3 pi)
                "duration(s.x > 0 [m]) <= 7 [s]|0.7168147",
                "integral(s.v) <= 0 [m]|0.5440211",
                "mean(s.x) <= 0.2 [m]|0.0160929",
                "integral(s.x, 0 [s], 3.141592653589793 [s]) >= 1.9 [m*s]|0.1"
            })
    void integralsAreThoseOfCalculus(String constraint, double margin) {
        Judgement judgement = judge(constraint);
        assertThat(judgement.verdict()).isEqualTo(VerdictKind.PASS);
        assertThat(judgement.margin().si()).isCloseTo(margin, within(1e-6));
    }

    @Test
    void theFirstViolationIsTheCrossingOfTheLimit() {
        Judgement judgement = judge("always(s.x <= limit)");
        assertThat(judgement.firstViolation()).isCloseTo(Math.PI / 6, within(1e-6));
        assertThat(judgement.margin().shown()).isCloseTo(-50, within(1e-4));
        assertThat(judgement.margin().unit().symbol()).isEqualTo("cm");
        assertThat(judgement.plot().lines())
                .containsExactly(new VerdictPlot.Line(VerdictPlot.Sense.UPPER, "swing.x", 50));
    }

    @Test
    void whatNeverHappensViolatesWhatNeedsItsTime() {
        Judgement judgement = judge("firstTime(s.x >= 2 [m]) <= 5 [s]");
        assertThat(judgement.verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(judgement.margin()).isNull();
        assertThat(judgement.reason()).contains("never holds");
    }

    @Test
    void ofTwoConditionsTheWeakerOneDecides() {
        assertThat(judge("always(s.x <= 1.5 [m]) and final(s.x) <= 5 [m]")
                        .margin()
                        .si())
                .isCloseTo(0.5, within(1e-6));
        assertThat(judge("always(s.x <= 0.5 [m]) or final(s.x) <= 5 [m]").verdict())
                .isEqualTo(VerdictKind.PASS);
        assertThat(judge("maximum(s.x) <= 1.5 [m] & final(s.x) <= 5 [m]").verdict())
                .isEqualTo(VerdictKind.PASS);
        assertThat(judge("maximum(s.x) <= 1.5 [m] | final(s.x) <= 5 [m]").verdict())
                .isEqualTo(VerdictKind.PASS);
        assertThat(judge("maximum(s.x) <= 0.5 [m] & final(s.x) <= 5 [m]").verdict())
                .isEqualTo(VerdictKind.FAIL);
        assertThat(judge("initial(s.x) === 0 [m] and not (initial(s.x) !== 0 [m])")
                        .verdict())
                .isEqualTo(VerdictKind.PASS);
        assertThat(judge("duration(s.x > 0 [m]) % 2 [s] <= 1 [s]").margin().si())
                .isCloseTo(1 - 2 * Math.PI % 2, within(1e-6));
        assertThat(judge("always(s.x <= 0.5 [m]) implies final(s.x) <= -5 [m]").verdict())
                .isEqualTo(VerdictKind.PASS);
    }

    @Test
    void aConstraintThatCannotBeEvaluatedIsAnErrorWithItsReason() {
        assertThat(judge("maximum(s.x, 20 [s], 30 [s]) <= 1 [m]")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason())
                    .isEqualTo("the run goes from t = 0 s to 10 s and does not cover the window from t = 20 s to 30 s");
        });
        assertThat(judge("maximum(s.x) <= s.x").reason()).contains("this varies during the run");
        assertThat(judge("(maximum(s.x), final(s.x))#(1) <= 2 [m]").reason()).contains("nothing else");
        assertThat(judge("eventually(always(s.x <= 2 [m]))").reason()).contains("always looks at a whole run");
        assertThat(judge("Endless(s.x) <= 2 [m]").reason()).contains("this calls itself more than 100 times");
    }

    @Test
    void whatDoesNotVaryIsJudgedWithoutARun() {
        Model model = Models.of(MODEL.formatted("s.size <= 4 [m] and s.size > limit"));
        assertThat(StaticJudgement.of(model, Models.element(model, "Test::r")).judgements())
                .singleElement()
                .satisfies(judgement -> {
                    assertThat(judgement.verdict()).isEqualTo(VerdictKind.PASS);
                    assertThat(judgement.margin().si()).isCloseTo(1, within(1e-12));
                });
        Model varying = Models.of(MODEL.formatted("s.x <= 4 [m]"));
        assertThat(StaticJudgement.of(varying, Models.element(varying, "Test::r"))
                        .judgements())
                .isEmpty();
    }

    @Test
    void aRequirementWithoutConstraintIsInconclusive() {
        Model model = Models.of(MODEL.formatted("true").replace("require constraint { true }", ""));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE);
        assertThat(run.judgements().getFirst().verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
    }

    @Test
    void aPartOutsideTheSystemIsNotJudgedByTheRun() {
        Model model = Models.of(MODEL.formatted("always(s.x <= 2 [m])")
                .replace("satisfy r by swing;", "part other : Swing; satisfy r by other;"));
        Judgement judgement = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE)
                .judgements()
                .getFirst();
        assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
        assertThat(judgement.reason()).contains("is not part of 'swing'");
    }

    @Test
    void aCancelledRunIsInconclusive() {
        Model model = Models.of(MODEL.formatted("always(s.x <= 2 [m])").replace("10 [s]", "1000000 [s]"));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), new RunControl() {
            @Override
            public boolean isCancelled() {
                return true;
            }
        });
        assertThat(run.cancelled()).isTrue();
        assertThat(run.judgements().getFirst().verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
    }

    @Test
    void aRunThatFailsGivesEveryRequirementTheVerdictErrorWithTheReason() {
        Model model = Models.of(
                MODEL.formatted("always(s.x <= 2 [m])").replace("der(v) == -x / 1 [s^2]", "der(v) == v^2 / 1 [m]"));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE);
        assertThat(run.failure()).contains("swing.v");
        assertThat(run.judgements().getFirst().verdict()).isEqualTo(VerdictKind.ERROR);
        assertThat(run.culprits()).containsExactly(Models.id(model, "Test::Swing::law"));
    }
}
