package pyrite.core.candidate;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.VerdictKind;

/** Three pumps for one place: which keeps the limits is worked out by hand. */
class CandidateTableTest {
    private static final Model MODEL = Models.of("""
            private import Budgets::*;
            private import Candidates::*;
            private import Economics::*;
            part def Pump :> Component, Product { attribute :>> mass default 95 [kg]; attribute :>> price default 6000 [EUR];
                attribute rate : Real default 5; }
            part def Light :> Pump { @Candidate { supplier = "Skerry Works"; }
                attribute :>> mass = 80 [kg]; attribute :>> price = 9000 [EUR]; }
            part def Cheap :> Pump { @Candidate { supplier = "Holm Pumps"; } attribute :>> price = 5000 [EUR]; attribute :>> rate = 3; }
            part def Other;
            part def Unit :> Component { part pumps : Pump[2]; part base : Component { attribute :>> mass = 100 [kg]; } }
            part unit : Unit;
            requirement <W> weighs { subject u : Unit; require constraint { total(u.mass) <= 280 [kg] } }
            requirement <F> flows { subject p : Pump; require constraint { p.rate >= 4 } }
            requirement <R> runs { subject p : Pump; require constraint { always(p.rate >= 4) } }
            requirement <X> elsewhere { subject u : Unit; require constraint { u.base.mass <= 280 [kg] } }
            satisfy weighs by unit;
            satisfy flows by unit.pumps;
            satisfy elsewhere by unit;
            """);

    private static final Element PUMPS = Models.element(MODEL, "Test::Unit::pumps");

    @Test
    void theCandidatesAreTheProductsMadeForTheRole() {
        assertThat(Candidates.of(MODEL, PUMPS)).extracting(Element::name).containsExactly("Cheap", "Light");
        assertThat(Candidates.role(MODEL, PUMPS))
                .hasValueSatisfying(role -> assertThat(role.name()).isEqualTo("Pump"));
        assertThat(Candidates.of(MODEL, Models.element(MODEL, "Test::unit"))).isEmpty();
    }

    @Test
    void eachIsJudgedWithItsOwnValues() {
        CandidateTable table = CandidateTable.of(MODEL, PUMPS);
        assertThat(table.requirements()).extracting(Element::shortName).containsExactly("F", "W");
        assertThat(table.rows())
                .extracting(
                        row -> row.product() == null
                                ? "as it is"
                                : row.product().name(),
                        row -> words(table, row))
                .containsExactly(
                        // 100 + 2 × 95 = 290 kg; 100 + 2 × 80 = 260 kg
                        org.assertj.core.api.Assertions.tuple("as it is", "F pass 1.0 W fail -10.0"),
                        org.assertj.core.api.Assertions.tuple("Cheap", "F fail -1.0 W fail -10.0"),
                        org.assertj.core.api.Assertions.tuple("Light", "F pass 1.0 W pass 20.0"));
        assertThat(table.rows().get(2).values()).containsEntry("mass", 80.0).containsEntry("price", 9000.0);
    }

    private static String words(CandidateTable table, CandidateTable.Row row) {
        return table.requirements().stream()
                .map(requirement -> requirement.shortName() + " "
                        + row.verdicts().get(requirement.id()).verdict().word() + " "
                        + row.verdicts().get(requirement.id()).margin().shown())
                .collect(Collectors.joining(" "));
    }

    private static Model applied(Model model, pyrite.core.model.Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    private static VerdictKind verdict(Model model) {
        return StaticJudgement.of(model, Models.element(model, "Test::weighs"))
                .judgements()
                .getFirst()
                .verdict();
    }

    @Test
    void aChoiceBringsTheValuesAndCanBeTakenBack() {
        Element light = Models.element(MODEL, "Test::Light");
        Model chosen = applied(MODEL, Candidates.choose(MODEL, PUMPS, light, "the crane lifts no more"));
        Element pumps = chosen.get(PUMPS.id());
        assertThat(verdict(MODEL)).isEqualTo(VerdictKind.FAIL);
        assertThat(verdict(chosen)).isEqualTo(VerdictKind.PASS);
        assertThat(Candidates.chosen(chosen, pumps)).hasValue(light);
        assertThat(Candidates.reason(chosen, pumps)).isEqualTo("the crane lifts no more");
        Element cheap = Models.element(MODEL, "Test::Cheap");
        Model again = applied(chosen, Candidates.choose(chosen, pumps, cheap, "cheaper"));
        assertThat(Candidates.reason(again, again.get(PUMPS.id()))).isEqualTo("cheaper");
        Model back = applied(again, Candidates.takeBack(again, again.get(PUMPS.id())));
        assertThat(NotationWriter.write(back, back.ownRoots()))
                .isEqualTo(NotationWriter.write(MODEL, MODEL.ownRoots()));
    }

    @Test
    void criteriaAreKeptWithThePart() {
        Model weighed = applied(
                MODEL,
                Criterion.keep(
                        MODEL,
                        PUMPS,
                        List.of(
                                new Criterion("mass", 3, false),
                                new Criterion("rate", 1, true),
                                new Criterion("price", 0, false))));
        CandidateTable table = CandidateTable.of(weighed, weighed.get(PUMPS.id()));
        assertThat(table.criteria()).containsExactly(new Criterion("mass", 3, false), new Criterion("rate", 1, true));
        // Of two, Light has the smaller mass and the larger flow.
        assertThat(table.weighing().scores()).containsExactly(0.0, 1.0);
        Model again = applied(weighed, Criterion.keep(weighed, weighed.get(PUMPS.id()), List.of()));
        assertThat(Criterion.of(again, again.get(PUMPS.id()))).isEmpty();
    }

    @Test
    void aNewCandidateHasTheValuesGiven() {
        Candidates.Offer.Made made = (Candidates.Offer.Made) Candidates.add(
                MODEL,
                PUMPS,
                new Candidates.Product("Axial 85", "Skerry Works", "", Map.of("mass", "85 [kg]", "rate", "")));
        Model more = applied(MODEL, made.edit());
        assertThat(NotationWriter.write(more, List.of(more.get(made.candidate()))))
                .isEqualToIgnoringWhitespace("""
                part def 'Axial 85' :> Pump { @Candidate { supplier = "Skerry Works"; } attribute :>> mass = 85 [kg]; }
                """);
        assertThat(Candidates.add(MODEL, PUMPS, new Candidates.Product("Axial 85", "", "", Map.of("mass", "85 [m]"))))
                .isInstanceOfSatisfying(
                        Candidates.Offer.Refused.class,
                        refused -> assertThat(refused.reason())
                                .startsWith("mass: ")
                                .contains("m"));
        assertThat(Candidates.add(MODEL, PUMPS, new Candidates.Product("Light", "", "", Map.of())))
                .isInstanceOf(Candidates.Offer.Refused.class);
    }
}
