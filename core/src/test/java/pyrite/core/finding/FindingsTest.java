package pyrite.core.finding;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** Models with one thing wrong each, of which anybody can say what it is. */
class FindingsTest {
    private static final String SOUND = """
            item def Fluid; item def Oil :> Fluid; item def Water :> Fluid;
            port def Hose { in item oil : Oil; }
            part def Pump { port outlet : ~Hose; }
            part def Tank { port inlet : Hose; port drain : Hose[0..1]; }
            part def Unit { part pump : Pump; part tank : Tank; connection line connect pump.outlet to tank.inlet; }
            part unit : Unit; item rain : Water;
            """;

    private static List<Finding> of(String text) {
        Model model = Models.of(text);
        return Findings.in(model).all(model);
    }

    private static Finding only(Model model) {
        assertThat(Findings.in(model).all(model)).hasSize(1);
        return Findings.in(model).all(model).getFirst();
    }

    @Test
    void aSoundModelHasNone() {
        assertThat(of(SOUND)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "part def Still { part pump : Pump; part tank : Tank; } part still : Still; | OPEN_PORT OPEN_PORT",
                "part def Still { part tank : Tank; port way : Hose; bind tank.inlet = way; } part still : Still; |",
                "part def Still :> Unit { part more : Pump; } part still : Still; | OPEN_PORT",
                "part def Still :> Unit { part :>> pump; } part still : Still; |",
                "part def W { part i { part pump : Pump; } port way : Hose; connect i.pump.outlet to way; } part w : W; | MISFIT",
                "part def Box { part plate; } part box : Box; | UNTYPED",
                "part def Box { part plate { attribute mass : MassValue; } ref part site : Tank; } part box : Box; |",
                "part def Loop { part again : Loop; } part ring : Loop; | CYCLE",
                "part def Loop { part again : Loop[0..1]; } part ring : Loop; |",
                "part def A { part b : B; } part def B { part c : C; } part def C { part a : A; } part a : A; | CYCLE CYCLE CYCLE",
                "part def A { part b : B; } part def B { ref part a : A; } part a : A; |",
                "part def Spare; | UNUSED",
                "part def Base; part def Used :> Base; part used : Used; |",
                "package Inner { item def Left; } | UNUSED",
                "library package Offered { part def Left; } |",
                "part def Car { part wheels[2]; part left :> wheels; part right[2] :> wheels; } part car : Car; | UNTYPED MULTIPLICITY",
                "part def N { part pump : Pump[0]; part tank : Tank; connect pump.outlet to tank.inlet; } part n : N; | MULTIPLICITY",
                "requirement r; part none : Unit { part :>> pump[1]; } satisfy r by none.pump; |",
                "requirement r; part def Big { part tanks : Tank[0]; } part big : Big; satisfy r by big.tanks; | GONE"
            })
    void eachFaultIsFoundByItsName(String text, String rules) {
        List<String> expected = rules == null ? List.of() : List.of(rules.split(" "));
        assertThat(of(SOUND + text).stream().map(finding -> finding.rule().name()))
                .containsExactlyInAnyOrderElementsOf(expected);
    }

    @Test
    void aSentenceSaysWhatAndWhere() {
        assertThat(of(SOUND + "part def A { part b : B; } part def B { part a : A; } part a : A;"))
                .extracting(Finding::key, Finding::sentence)
                .containsExactly(
                        tuple("cycle:b.a", "'A' contains itself: 'b.a' is one again, without end"),
                        tuple("cycle:a.b", "'B' contains itself: 'a.b' is one again, without end"));
        assertThat(of(SOUND + "part def Still { part pump : Pump; } part still : Still;"))
                .extracting(Finding::sentence)
                .containsExactly("Port 'outlet' of 'pump' is connected with nothing around it");
    }

    /** After each mend the model is as sound as before. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "part def S { part pump : Pump; port way : ~Hose; } part s : S; | Connect with way; Lead it to the border "
                        + "of S; Let outlet stay open",
                "part def S { part pump : Pump; part tank : Tank; } part s : S; | Connect with tank.inlet; Connect with tank.drain;"
                        + " Lead it to the border of S; Let outlet stay open",
                "part def Box { part plate; } part box : Box; | Define Plate",
                "part def Plate; part p : Plate; part def Box { part plate; } part box : Box; | Make it a Plate",
                "part def Loop { part again : Loop; } part ring : Loop; | Only refer to again; Let there be none: again [0..1]",
                "part def Spare; | Remove it",
                "part def Car { part wheels : Pump[1]; part left :> wheels; part right :> wheels; } part car : Car; | Make room for 2"
            })
    void aMendTakesItsFindingAway(String text, String labels) {
        Model model = Models.of(SOUND + text.replace("Pump[", "Tyre[") + "part def Tyre; part t : Tyre;");
        Finding finding = Findings.in(model).all(model).getFirst();
        List<Mends.Mend> mends = Mends.of(model, finding, (_, _) -> true);
        assertThat(mends).extracting(Mends.Mend::label).containsExactly(labels.split("; "));
        mends.forEach(mend -> {
            Model mended = ((EditResult.Applied) model.apply(mend.edit())).model();
            assertThat(Findings.in(mended).of(finding.element())).doesNotContain(finding);
        });
    }

    private static Model with(Model model, String element, Property<?> property, Object value) {
        Element changed = Models.element(model, element);
        @SuppressWarnings("unchecked")
        Property<Object> any = (Property<Object>) property;
        return ((EditResult.Applied) model.apply(Edit.put(changed.with(any, value)))).model();
    }

    @Test
    void aMisfitThatCameLaterIsFoundAndMendedByTheConjugate() {
        Model model = Models.of(SOUND);
        assertThat(Findings.in(model).all(model)).isEmpty();
        Model later = with(model, "Test::Pump::outlet", Property.CONJUGATED, null);
        Finding misfit = only(later);
        assertThat(misfit.sentence())
                .isEqualTo("'pump.outlet' and 'tank.inlet' both receive 'oil'; type one of them by the conjugate,"
                        + " written with '~'");
        assertThat(Mends.of(later, misfit, (_, _) -> true))
                .extracting(Mends.Mend::label)
                .containsExactly("Conjugate pump.outlet", "Conjugate tank.inlet");
    }

    @Test
    void aMissingFeatureIsPairedOrAdded() {
        Model model = Models.of(SOUND + """
                port def Other { out item fluid : Oil; }
                part def Still { part pump { port spill : Other; } part tank : Tank; }
                part still : Still;
                connection odd connect still.pump.spill to still.tank.inlet;
                """);
        List<Finding> misfits = Findings.in(model).all(model).stream()
                .filter(finding -> finding.rule() == Rule.MISFIT)
                .toList();
        assertThat(misfits).hasSize(2);
        assertThat(Mends.of(model, misfits.getFirst(), (_, _) -> true))
                .extracting(Mends.Mend::label)
                .contains("Pair fluid with oil");
    }

    @Test
    void aTypeIsGeneralisedToWhatBothAre() {
        Model model = Models.of(SOUND + """
                port def WaterHose { in item oil : Water; }
                part def Sink { port inlet : WaterHose; }
                part def Still { part pump : Pump; part sink : Sink; connect pump.outlet to sink.inlet; }
                part still : Still;
                """);
        Finding misfit = only(model);
        assertThat(Mends.of(model, misfit, (_, _) -> true))
                .extracting(Mends.Mend::label)
                .containsExactly("Let sink.inlet take Fluid");
    }

    private static final String TALK = """
            item def Go; item def Fast :> Go; item def Stop;
            part def Light { perform action wait { first start; then action go accept Go; then done; } }
            part def Post { part light : Light; %s }
            part post : Post; item one : Stop; item two : Fast;
            """;

    @Test
    void whatIsAcceptedMustBeSent() {
        assertThat(of(TALK.formatted("")))
                .extracting(Finding::sentence)
                .containsExactly("'Go' is accepted by 'go', and nothing in the project sends it");
        assertThat(of(TALK.formatted("perform action a { action give send new Fast() to light; }")))
                .isEmpty();
        assertThat(of(TALK.formatted("message of Go from light to light;"))).isEmpty();
    }

    @Test
    void whatIsSentMustBeAccepted() {
        assertThat(of(TALK.formatted("perform action a { action give send new Stop() to light; }")))
                .extracting(Finding::sentence)
                .containsExactly(
                        "'Go' is accepted by 'go', and nothing in the project sends it",
                        "'Stop' is sent by 'give', and nothing in the project accepts it");
    }

    @Test
    void aFindingSaysTheNewNameOfWhatATransitionLeadsTo() {
        Model model = Models.of("""
                state def A { entry; then a; state a; transition move first a then a; }
                state def B { entry; then far; state far; }
                """);
        Model astray = with(
                model,
                "Test::A::move",
                Property.TARGET,
                Reference.to(Models.element(model, "Test::B::far").id()));
        assertThat(only(astray).sentence()).isEqualTo("A: 'move' leads to 'far', which is no state of 'A'");
        Element far = Models.element(astray, "Test::B::far");
        Model renamed = ((EditResult.Applied) astray.apply(Edit.put(far.withName("farther")))).model();
        assertThat(only(renamed).sentence()).isEqualTo("A: 'move' leads to 'farther', which is no state of 'A'");
    }

    @Test
    void aTransitionFollowsTheOneItRedefinesAgain() {
        Model model = Models.of("""
                state def A { entry; then a; state a; state b; transition move first a then b; transition back first b then a; }
                state def B :> A { transition :>> move first b then a; }
                """);
        Finding finding = Findings.in(model).all(model).stream()
                .filter(each -> each.rule() == Rule.UNFIT)
                .findFirst()
                .orElseThrow();
        assertThat(Mends.of(model, finding, (_, _) -> true))
                .extracting(Mends.Mend::label)
                .containsExactly("Let it leave 'a'", "Remove the transition");
    }
}
