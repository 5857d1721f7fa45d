package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;

/** What is judged from the model alone stays judged while nothing it read changes. */
class StaticJudgementTest {
    private static final Model MODEL = Models.of("""
            part def Leaf { attribute mass : MassValue default 148 [t]; attribute angle : AngularMeasureValue := 0 [deg];
                attribute paint : Real = 1; assert constraint still { der(angle) == 0 [deg/s] } }
            part def Gate { part leaf : Leaf; }
            part gate : Gate;
            part spare : Leaf { attribute :>> mass = 170 [t]; }
            part elsewhere { attribute x : Real = 1; }
            requirement light { subject g : Gate; attribute most : MassValue = 160 [t]; require constraint { g.leaf.mass <= most } }
            requirement level { subject g : Gate; require constraint { always(g.leaf.angle <= 1 [deg]) } }
            requirement nobody { subject g : Gate; require constraint { g.leaf.mass <= 1 [t] } }
            requirement light2 { subject l : Leaf; require constraint { l.mass <= 160 [t] } }
            satisfy light by gate;
            satisfy level by gate;
            satisfy light2 by gate.leaf;
            satisfy light2 by spare;
            """);

    private static StaticJudgement of(Model model, String name) {
        return StaticJudgement.of(model, Models.element(model, "Test::" + name));
    }

    private static Model with(String holder, String feature, String text) {
        Authoring.Proposal proposal =
                new Authoring(MODEL).value(Models.element(MODEL, holder), Models.element(MODEL, feature), text);
        return ((EditResult.Applied) MODEL.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
    }

    @Test
    void eachSatisfyingPartIsJudgedForItself() {
        assertThat(of(MODEL, "light").judgements())
                .extracting(Judgement::verdict)
                .containsExactly(VerdictKind.PASS);
        assertThat(of(MODEL, "light2").judgements())
                .extracting(Judgement::subject, Judgement::verdict)
                .containsExactlyInAnyOrder(
                        org.assertj.core.groups.Tuple.tuple("gate.leaf", VerdictKind.PASS),
                        org.assertj.core.groups.Tuple.tuple("spare", VerdictKind.FAIL));
    }

    @Test
    void whatVariesOrIsSatisfiedByNothingHasNoVerdictWithoutARun() {
        assertThat(of(MODEL, "level").judgements()).isEmpty();
        assertThat(of(MODEL, "nobody").judgements()).isEmpty();
    }

    @Test
    void itHoldsUntilSomethingItReadChanges() {
        assertThat(of(MODEL, "light").holdsIn(with("Test::elsewhere", "Test::elsewhere::x", "2")))
                .isTrue();
        assertThat(of(MODEL, "light").holdsIn(with("Test::Leaf", "Test::Leaf::mass", "149 [t]")))
                .isFalse();
        assertThat(of(MODEL, "light").holdsIn(with("Test::light", "Test::light::most", "150 [t]")))
                .isFalse();
    }

    @Test
    void aNewSatisfyingPartIsNoticedAlsoWhereThereWasNone() {
        Model more = Models.of("part def Gate; part gate : Gate; requirement r { subject g : Gate; }");
        StaticJudgement none = of(more, "r");
        Element test = Models.element(more, "Test");
        Authoring.Proposal proposal = new Authoring(more).members(test, "satisfy r by gate;");
        Model linked = ((EditResult.Applied) more.apply(((Authoring.Proposal.Accepted) proposal).edit())).model();
        assertThat(none.holdsIn(more)).isTrue();
        assertThat(none.holdsIn(linked)).isFalse();
    }

    @Test
    void aPartThatIsGoneIsNoticed() {
        Model removed = ((EditResult.Applied) MODEL.apply(new Edit(
                        java.util.List.of(),
                        java.util.Set.copyOf(MODEL.ownElements().stream()
                                .filter(e -> e.kind() == pyrite.core.model.ElementKind.SATISFACTION)
                                .map(Element::id)
                                .toList()))))
                .model();
        assertThat(of(MODEL, "light").holdsIn(removed)).isFalse();
    }

    @Test
    void aSystemThatCannotBeBuiltGivesAnErrorThatHoldsUntilItIsMended() {
        Model model = Models.of("""
                part def Box { part inside : Box; attribute mass : MassValue default 1 [kg]; }
                part box : Box;
                requirement r { subject b : Box; require constraint { b.mass <= 2 [kg] } }
                satisfy r by box;
                """);
        StaticJudgement found = of(model, "r");
        assertThat(found.judgements()).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
            assertThat(judgement.reason()).contains("contains itself");
        });
        Model mended = ((EditResult.Applied) model.apply(Edit.remove(Models.id(model, "Test::Box::inside")))).model();
        assertThat(found.holdsIn(mended)).isFalse();
        assertThat(of(mended, "r").judgements().getFirst().verdict()).isEqualTo(VerdictKind.PASS);
    }

    /** A thousand in a thousand in a thousand: nobody waits for what a requirement does not look at. */
    @Test
    void aMillionPartsAreBuiltOnlyWhereARequirementLooks() {
        Model model = Models.of("""
                part def Bolt { attribute mass : MassValue default 1 [kg]; }
                part def Row { part bolts : Bolt [1000]; }
                part def Plate { part rows : Row [1000]; attribute mass : MassValue = 2 [t];
                    attribute every : MassValue = sum(rows.bolts.mass); attribute some : MassValue = sum(rows#(3).bolts.mass); }
                part plate : Plate;
                requirement plain { subject p : Plate; require constraint { p.mass <= 2 [t] } }
                requirement few { subject p : Plate; require constraint { p.some <= 999 [kg] } }
                requirement whole { subject p : Plate; require constraint { p.every <= 2000 [t] } }
                satisfy plain by plate; satisfy few by plate; satisfy whole by plate;
                """);
        assertThat(of(model, "plain").judgements().getFirst().verdict()).isEqualTo(VerdictKind.PASS);
        assertThat(of(model, "few").judgements().getFirst().verdict()).isEqualTo(VerdictKind.FAIL);
        StaticJudgement whole = of(model, "whole");
        assertThat(whole.isCutShort()).isTrue();
        assertThat(whole.judgements()).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason()).contains("too many parts", "run a case");
        });
    }

    private static Judgement only(String members, String requirement) {
        Model model = Models.of("""
                part def Leaf { attribute mass : MassValue default 148 [t]; attribute width : LengthValue = 24 [m]; }
                part leaf : Leaf;
                constraint def Light { in m : MassValue; m <= 160 [t] }
                requirement light { subject l : Leaf; require constraint { l.mass <= 160 [t] } }
                """ + members);
        return of(model, requirement).judgements().getFirst();
    }

    @Test
    void aRequirementMayRequireOthersOfItsSubject() {
        String both =
                "requirement both { subject l : Leaf; require light; require constraint { l.width <= %s [m] } } satisfy both by leaf;";
        assertThat(only(both.formatted("30"), "both").verdict()).isEqualTo(VerdictKind.PASS);
        assertThat(only(both.formatted("20"), "both").verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(only(
                        "requirement a1 { subject l : Leaf; require a2; } requirement a2 { subject l : Leaf; "
                                + "require a1; } satisfy a1 by leaf;",
                        "a1"))
                .satisfies(judgement -> {
                    assertThat(judgement.verdict()).isEqualTo(VerdictKind.ERROR);
                    assertThat(judgement.reason()).contains("requires itself");
                });
    }

    @Test
    void aConstraintDefinitionIsRequiredWithItsParametersPutIn() {
        assertThat(only(
                                "requirement r { subject l : Leaf; require constraint : Light { in m = l.mass; } } satisfy r by leaf;",
                                "r")
                        .verdict())
                .isEqualTo(VerdictKind.PASS);
    }

    @Test
    void whereTheAssumptionDoesNotHoldThereIsNoVerdict() {
        String assuming = "requirement r { subject l : Leaf; assume constraint { l.width > %s [m] } "
                + "require constraint { l.mass <= 1 [t] } } satisfy r by leaf;";
        assertThat(only(assuming.formatted("20"), "r").verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(only(assuming.formatted("30"), "r")).satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.INCONCLUSIVE);
            assertThat(judgement.reason()).startsWith("what it assumes does not hold: 24 m, but > 30 m is required");
        });
    }

    @Test
    void whoIsSaidNotToSatisfyIsNotJudged() {
        Model model = Models.of("part def P { attribute x : Real = 1; } part p : P; requirement r { subject s : P; "
                + "require constraint { s.x > 0 } } not satisfy r by p;");
        assertThat(of(model, "r").judgements()).isEmpty();
    }

    /** A constraint that is required by its name may be given other values where it is required. */
    @Test
    void whatIsRequiredByItsNameIsJudgedWithTheValuesGivenThere() {
        Model model = Models.of("""
                constraint def Below { in v : Real; in most : Real; v <= most }
                constraint small : Below { in v = 1; in most = 3; }
                part gate;
                requirement asItIs { subject g; require small; }
                requirement otherwise { subject g; require small { in v = 5; } }
                satisfy asItIs by gate;
                satisfy otherwise by gate;
                """);
        assertThat(of(model, "asItIs").judgements())
                .extracting(Judgement::verdict)
                .containsExactly(VerdictKind.PASS);
        assertThat(of(model, "otherwise").judgements()).singleElement().satisfies(judgement -> {
            assertThat(judgement.verdict()).isEqualTo(VerdictKind.FAIL);
            assertThat(judgement.margin().si()).isEqualTo(-2);
        });
    }

    /** Strict comparisons fail where both sides are equal, the others hold with a margin of nothing (KerML 9.4). */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "l.mass <= 148 [t] | PASS | 0",
                "l.mass < 148 [t] | FAIL | 0",
                "l.mass >= 148 [t] | PASS | 0",
                "l.mass > 148 [t] | FAIL | 0",
                "l.mass == 148 [t] | PASS | 0",
                "l.mass != 148 [t] | FAIL | 0",
                "l.mass != 150 [t] | PASS | 2",
                "l.mass == 150 [t] | FAIL | -2",
                "l.mass > 150 [t] | FAIL | -2",
                "150 [t] > l.mass | PASS | 2"
            })
    void aLimitThatIsMetExactlyIsKeptUnlessItIsStrict(String constraint, VerdictKind verdict, double margin) {
        Model model = Models.of("""
                part def Leaf { attribute mass : MassValue default 148 [t]; }
                part leaf : Leaf;
                requirement r { subject l : Leaf; require constraint { %s } }
                satisfy r by leaf;
                """.formatted(constraint));
        Judgement judgement = of(model, "r").judgements().getFirst();
        assertThat(judgement.verdict()).isEqualTo(verdict);
        assertThat(Objects.requireNonNull(judgement.margin()).shown()).isEqualTo(margin);
    }
}
