package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** Which parts a run judges a requirement for, and which it says nothing about. */
class SubjectsTest {
    private static final String TANKS = """
            part def Tank { attribute level : LengthValue default := 1 [m]; assert constraint law { der(level) == -0.01 [m/s] } }
            part def Plant { part tank : Tank[2]; part spare : Tank { attribute :>> level := 4 [m]; } }
            part plant : Plant;
            part other : Tank;
            requirement def Kept { subject t : Tank; require constraint { t.level <= 2 [m] } }
            """;

    private static Model model(String members) {
        return Models.of(TANKS + members + """
                verification check : SimulatedCheck {
                    subject :>> system = plant; attribute :>> stopTime = 10 [s]; objective { verify r; }
                }
                """);
    }

    private static List<Judgement> judged(Model model) {
        return CaseRun.of(model, element(model, "Test::check"), RunControl.NONE).judgements();
    }

    private static List<String> said(List<Judgement> judgements) {
        return judgements.stream()
                .map(judgement -> judgement.subject() + " " + judgement.verdict())
                .toList();
    }

    @Test
    void aRunJudgesEachInstanceItHasAndSaysNothingAboutOthers() {
        Model model =
                model("requirement r : Kept; satisfy r by plant.tank; satisfy r by plant.spare; satisfy r by other;");
        List<Judgement> judgements = judged(model);
        assertThat(said(judgements))
                .containsExactlyInAnyOrder("plant.tank#(1) PASS", "plant.tank#(2) PASS", "plant.spare FAIL");
        assertThat(Subjects.withoutVerdict(
                        model,
                        element(model, "Test::r"),
                        judgements.stream().map(Judgement::subject).toList()))
                .singleElement()
                .satisfies(missing -> {
                    assertThat(missing.subject()).isEqualTo("other");
                    assertThat(missing.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
                    assertThat(missing.reason()).contains("no verdict for 'other'");
                });
    }

    @Test
    void aRunThatHasNoneOfTheSubjectsSaysSo() {
        assertThat(judged(model("requirement r : Kept; satisfy r by other;")))
                .singleElement()
                .satisfies(judgement -> {
                    assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
                    assertThat(judgement.reason())
                            .contains("what satisfies it ('other') is not part of 'plant', which was run");
                });
    }

    @Test
    void aRequirementMayNameWhatRuns() {
        assertThat(judged(model("""
                requirement r { subject p : Plant; require constraint { minimum(plant.spare.level) >= 3.8 [m] } }
                satisfy r by plant;
                """))).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.PASS);
            assertThat(judgement.margin().si()).isCloseTo(0.1, org.assertj.core.api.Assertions.within(1e-9));
        });
    }

    @Test
    void oneThatNamesWhatDoesNotRunSaysSo() {
        assertThat(judged(model("""
                requirement r { subject p : Plant; require constraint { minimum(other.level) >= 3.8 [m] } }
                satisfy r by plant;
                """))).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).contains("'other.level'").contains("is not part of what runs");
        });
    }

    @Test
    void whatContainsItselfTwiceIsRefusedAtOnce() {
        assertThat(judged(Models.of("""
                part def Node { part left : Node; part right : Node; attribute x : Real = 1; }
                part plant : Node;
                requirement r { subject p : Node; require constraint { p.x > 0 } }
                verification check : SimulatedCheck {
                    subject :>> system = plant; attribute :>> stopTime = 10 [s]; objective { verify r; }
                }
                """)))
                .singleElement()
                .satisfies(judgement -> assertThat(judgement.reason()).contains("contains itself without end"));
    }
}
