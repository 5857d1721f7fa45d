package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Model;

/** Requirements on several things at once: two basins that fill at 1 m/s and one at 3 m/s, for 4 s. */
class SeveralThingsTest {
    private static final String MODEL = """
            part def Basin {
                attribute rate : SpeedValue default 1 [m/s];
                attribute mass : MassValue default 2 [t];
                attribute level : LengthValue := 0 [m];
                assert constraint filling { der(level) == rate }
            }
            part def Harbour { part basins : Basin[2]; part fast : Basin { attribute :>> rate = 3 [m/s]; \
            attribute :>> mass = 5 [t]; } part none : Basin[0]; }
            part harbour : Harbour;
            requirement r { subject s : Harbour; require constraint { %s } }
            satisfy r by harbour;
            verification check : SimulatedCheck { subject :>> system = harbour; attribute :>> stopTime = 4 [s]; \
            attribute :>> tolerance = 1e-9; objective { verify r; } }
            """;

    private static Judgement run(String constraint) {
        return Judged.byRunning(MODEL.formatted(constraint));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                // constraint | verdict | margin | reason
                "s.basins->forAll { in b : Basin; always(b.level <= 5 [m]) }|PASS|1|holds throughout",
                "(s.basins, s.fast)->forAll { in b : Basin; always(b.level <= 5 [m]) }|FAIL|-7|"
                        + "harbour.fast: first violated at t = 1.66667 s",
                "(s.basins, s.fast)->exists { in b : Basin; final(b.level) >= 10 [m] }|PASS|2|harbour.fast: 12 m ≥ 10 m",
                "(s.basins, s.fast)->exists { in b : Basin; final(b.level) >= 13 [m] }|"
                        + "FAIL|-1|harbour.fast: 12 m, but ≥ 13 m is required",
                "s.basins->forAll { in b : Basin; b.level <= 5 [m] }|PASS|1|holds throughout",
                "not (s.basins, s.fast)->exists { in b : Basin; maximum(b.level) > 10 [m] }|FAIL|-2|harbour.fast",
                "s.basins->forAll { in b : Basin; b.level <= 5 [m] } and maximum(s.fast.level) <= 12.5 [m]|PASS|0.5|12 m ≤ 12.5 m",
                "(s.basins, s.fast)->collect { in b : Basin; maximum(b.level) }->sum() <= 20 [m]|PASS|0|20 m ≤ 20 m",
                "max((s.basins, s.fast)->collect { in b : Basin; final(b.level) }) <= 13 [m]|PASS|1|12 m ≤ 13 m",
                "(s.basins, s.fast).{ in b : Basin; final(b.level) }->min() <= 3 [m]|FAIL|-1|4 m, but ≤ 3 m is required",
                "always((s.basins, s.fast)->forAll { in b : Basin; b.level <= 15 [m] })|PASS|3|holds throughout",
                "s.basins.level->forAll { in l : LengthValue; l <= 3 [m] }|FAIL|-1|first violated at t = 3 s"
            })
    void theOneThatDecidesGivesMarginAndReason(String constraint, VerdictKind verdict, double margin, String reason) {
        Judgement judgement = run(constraint);
        assertThat(judgement.verdict()).isEqualTo(verdict);
        assertThat(judgement.margin().si()).isCloseTo(margin, within(1e-6));
        assertThat(judgement.reason()).contains(reason);
    }

    @Test
    void whatIsSaidOfNothingHoldsOfAllAndOfNone() {
        assertThat(run("s.none->forAll { in b : Basin; always(b.level <= 0 [m]) }"))
                .extracting(Judgement::verdict, Judgement::reason)
                .containsExactly(VerdictKind.PASS, "there is none");
        assertThat(run("s.none->exists { in b : Basin; b.mass > 0 [t] }").verdict())
                .isEqualTo(VerdictKind.FAIL);
    }

    /** Without a run, from fixed values alone. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "(s.basins, s.fast)->forAll { in b : Basin; b.mass <= 4 [t] }|FAIL|fast: 5 t, but ≤ 4 t is required",
                "s.basins->forAll { in b : Basin; b.mass <= 4 [t] }|PASS|2 t ≤ 4 t",
                "sum((s.basins, s.fast)->collect { in b : Basin; b.mass }) <= 9 [t]|PASS|9 t ≤ 9 t",
                "(s.basins, s.fast)->select { in b : Basin; b.mass > 3 [t] }->size() == 1|PASS|1 = 1"
            })
    void valuesThatAreFixedNeedNoRun(String constraint, VerdictKind verdict, String reason) {
        Model model = Models.of(MODEL.formatted(constraint));
        List<Judgement> judgements =
                StaticJudgement.of(model, Models.element(model, "Test::r")).judgements();
        assertThat(judgements).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(verdict);
            assertThat(judgement.reason()).contains(reason);
        });
    }
}
