package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.Flattening;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.Source;
import pyrite.core.view.BoxKey;
import pyrite.core.view.FeatureSheet;

/** Edits of one use inside others; the expected notation is written by hand. */
class UseInContextTest {
    private static final Model MODEL = Models.of("""
            item def Oil;
            port def Hose { in item oil : Oil; }
            part def Fan;
            part def Motor { attribute power : PowerValue = 11 [kW]; part fan : Fan[0..1]; port shaft; }
            part def Pump { part motor : Motor; port outlet : ~Hose; port inlet : Hose; }
            part def Supply { part pump : Pump; part spare : Pump; }
            part def Gate { part supply : Supply; part other : Supply; }
            """);

    private static List<ElementId> way(String... names) {
        return Stream.of(names).map(name -> Models.id(MODEL, "Test::" + name)).toList();
    }

    private static final List<ElementId> MOTOR = way("Gate", "Gate::supply", "Supply::pump", "Pump::motor");

    private static Model applied(Edit edit) {
        return ((EditResult.Applied) MODEL.apply(edit)).model();
    }

    private static String gate(Model model) {
        return NotationWriter.write(model, List.of(Models.element(model, "Test::Gate")));
    }

    private static List<String> definitions(Model model) {
        return Stream.of("Motor", "Pump", "Supply")
                .map(name -> NotationWriter.write(model, List.of(Models.element(model, "Test::" + name))))
                .toList();
    }

    @Test
    void aValueTypedForOneUseRedefinesTheWayToItAndNothingElse() {
        UseInContext use = UseInContext.of(MODEL, MOTOR);
        assertThat(use.path()).isEqualTo("Gate.supply.pump.motor");
        Authoring.Proposal.Accepted accepted = (Authoring.Proposal.Accepted)
                new Authoring(use.model()).value(use.element(), Models.element(MODEL, "Test::Motor::power"), "15 [kW]");
        Model next = applied(use.with(accepted.edit()));
        assertThat(gate(next)).isEqualTo("""
                part def Gate {
                    part supply : Supply {
                        part :>> pump {
                            part :>> motor {
                                attribute :>> power = 15 [kW];
                            }
                        }
                    }

                    part other : Supply;
                }
                """);
        // The value becomes a default where it is first said; all else in the definitions stays.
        assertThat(definitions(next).getFirst()).contains("power : PowerValue default 11 [kW]");
        assertThat(definitions(next).subList(1, 3)).isEqualTo(definitions(MODEL).subList(1, 3));
        assertThat(power(next, "supply.pump")).isEqualTo(15e3);
        assertThat(power(next, "supply.spare")).isEqualTo(11e3);
        assertThat(power(next, "other.pump")).isEqualTo(11e3);
    }

    private static double power(Model model, String pump) {
        Model asked = ((EditResult.Applied) model.apply(((Authoring.Proposal.Accepted) new Authoring(model)
                                .members(
                                        Models.element(model, "Test"),
                                        "part asked : Gate { attribute p : PowerValue = " + pump + ".motor.power; }"))
                        .edit()))
                .model();
        Flattening flattening = Flattening.asNeeded(asked);
        Element holder = Models.element(asked, "Test::asked");
        return flattening
                .constant(
                        asked.inheritance()
                                .value(Models.element(asked, "Test::asked::p"))
                                .orElseThrow()
                                .expression(),
                        flattening.root(holder))
                .orElseThrow();
    }

    @Test
    void whatATextSaysInBetweenReachesAUseMadeBefore() {
        UseInContext use = UseInContext.of(MODEL, MOTOR);
        Authoring.Proposal.Accepted tagged = (Authoring.Proposal.Accepted)
                new Authoring(use.model()).members(use.element(), "attribute tag : Real;");
        Model next = applied(use.with(tagged.edit()));
        Model edited = NotationReader.readBack(next, List.of(Models.element(next, "Test::Supply")), new Source("", """
                        part def Supply {
                            part pump : Pump { part :>> motor { attribute weight : MassValue; } }
                            part spare : Pump;
                        }
                        """))
                .model();
        assertThat(gate(edited)).contains("attribute tag : Real;");
        Element motor = edited.get(UseInContext.current(edited, MOTOR).getLast());
        assertThat(edited.inheritance().features(motor).stream()
                        .map(edited.names()::effectiveName)
                        .toList())
                .contains("tag", "weight");
    }

    @Test
    void whatIsOwnAlreadyIsNotRedefinedAgain() {
        UseInContext use = UseInContext.of(MODEL, MOTOR);
        Model next = applied(use.with(new Edit(List.of(), Set.of())));
        List<ElementId> now = UseInContext.current(next, MOTOR);
        assertThat(now).isEqualTo(use.way());
        assertThat(UseInContext.isOwn(next, now)).isTrue();
        assertThat(UseInContext.isOwn(MODEL, MOTOR)).isFalse();
        assertThat(UseInContext.of(next, MOTOR).made()).isEmpty();
        assertThat(BoxKey.current(next, BoxKey.of(MOTOR))).isEqualTo(BoxKey.of(use.way()));
        assertThat(BoxKey.current(next, "no.key")).isEqualTo("no.key");
    }

    @Test
    void theSheetOfAUseShowsWhatItInherits() {
        UseInContext use = UseInContext.of(MODEL, MOTOR);
        assertThat(FeatureSheet.of(use.model(), use.element()).attributes())
                .extracting(FeatureSheet.Attribute::text)
                .containsExactly("11 [kW]");
    }

    @Test
    void onlyWhatItsDefinitionLeavesOpenIsLeftOutOfOneUse() {
        List<ElementId> fan = way("Gate", "Gate::supply", "Supply::pump", "Pump::motor", "Motor::fan");
        UseInContext.Without.Made made = (UseInContext.Without.Made) UseInContext.without(MODEL, List.of(fan));
        assertThat(made.summary()).isEqualTo("fan left out of Gate.supply.pump.motor alone; Motor keeps it");
        assertThat(gate(applied(made.edit()))).contains("part[0] :>> fan;");
        assertThat(UseInContext.without(MODEL, List.of(MOTOR)))
                .isEqualTo(new UseInContext.Without.Refused(
                        "every Pump has 'motor', so one use cannot leave it out; give it a multiplicity such as [0..1] in"
                                + " Pump, or remove it there"));
    }

    @Test
    void aDefinitionComesIntoOneUse() {
        Reuse.Result.Made made = (Reuse.Result.Made)
                Reuse.of(MODEL, Models.element(MODEL, "Test::Fan"), way("Gate", "Gate::supply"), Extent.USE);
        Model next = applied(made.edit());
        assertThat(gate(next)).contains("part supply : Supply {\n        part fan : Fan;");
        assertThat(definitions(next)).isEqualTo(definitions(MODEL));
    }

    @Test
    void aConnectionInsideOneUseStandsThere() {
        Wiring.Result.Made made = (Wiring.Result.Made) Wiring.connect(
                MODEL,
                way("Gate", "Gate::supply", "Supply::pump", "Pump::outlet"),
                way("Gate", "Gate::supply", "Supply::spare", "Pump::inlet"),
                null,
                Extent.USE);
        assertThat(made.summary()).isEqualTo("pump.outlet connected to spare.inlet in supply, in this use alone");
        Model next = applied(made.edit());
        assertThat(gate(next)).contains("connect pump.outlet to spare.inlet;").doesNotContain(":>>");
        assertThat(definitions(next)).isEqualTo(definitions(MODEL));
        Element connector = next.get(made.connector());
        List<ElementId> pump = way("Gate", "Gate::supply", "Supply::pump");
        assertThat(Reending.isOwn(next, connector, pump)).isTrue();
        assertThat(Reending.isOwn(next, connector, way("Gate", "Gate::other", "Supply::pump")))
                .isFalse();
    }

    @Test
    void aWayOutOfOneUseGetsItsPortsThere() {
        Wiring.Result.Made made = (Wiring.Result.Made) Wiring.connect(
                MODEL,
                way("Gate", "Gate::supply", "Supply::pump", "Pump::motor", "Motor::shaft"),
                way("Gate", "Gate::other"),
                null,
                Extent.USE);
        Model next = applied(made.edit());
        assertThat(gate(next))
                .contains("part :>> pump {\n            port shaft;\n            bind motor.shaft = shaft;")
                .contains("bind pump.shaft = shaft;")
                .contains("connect supply.shaft to other;");
        assertThat(definitions(next)).isEqualTo(definitions(MODEL));
    }

    @Test
    void whatCannotBeRedefinedSaysWhy() {
        assertThatThrownBy(() -> UseInContext.of(MODEL, way("Gate", "Supply::pump")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("'pump' cannot differ in one use: ");
    }
}
