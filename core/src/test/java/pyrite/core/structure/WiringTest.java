package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** What connecting two things on a drawing writes; the expected notation is written by hand. */
class WiringTest {
    private static final Model MODEL = Models.of("""
            item def Oil; item def Water;
            port def Hose { in item oil : Oil; }
            port def Tap { in item water : Water; }
            part def Motor { port shaft; }
            part def Pump { port outlet : ~Hose; part motor : Motor; }
            part def Valve { port inlet : Hose; port outlet : ~Hose; }
            part def Tank { port oil : ~Hose; port drain : ~Hose; }
            part def Unit {
                part pump : Pump;
                part valve : Valve;
            }
            part def Cylinder { port oil : Hose; port water : Tap; }
            part def Rod;
            part def Plant {
                part unit : Unit;
                part cylinder : Cylinder;
                part tank : Tank;
                part rod : Rod;
                part loose { port own { out item oil : Oil; } part within { port p { out item oil : Oil; } } }
                port outside : ~Hose;
            }
            part plant : Plant;
            part rod : Rod;
            """);

    private static List<ElementId> way(String... names) {
        return Stream.of(names).map(name -> Models.id(MODEL, "Test::" + name)).toList();
    }

    private static String written(Wiring.Result result, String owner) {
        assertThat(result).isInstanceOf(Wiring.Result.Made.class);
        EditResult applied = MODEL.apply(((Wiring.Result.Made) result).edit());
        assertThat(applied).isInstanceOf(EditResult.Applied.class);
        Model next = ((EditResult.Applied) applied).model();
        return NotationWriter.write(next, List.of(Models.element(next, "Test::" + owner)));
    }

    private static String refusal(Wiring.Result result) {
        assertThat(result).isInstanceOf(Wiring.Result.Refused.class);
        return ((Wiring.Result.Refused) result).reason();
    }

    @Test
    void twoPortsInAPartAreConnectedInItsDefinition() {
        Wiring.Result result = Wiring.connect(
                MODEL,
                way("plant", "Plant::unit", "Unit::pump", "Pump::outlet"),
                way("plant", "Plant::unit", "Unit::valve", "Valve::inlet"));
        assertThat(written(result, "Unit")).contains("connect pump.outlet to valve.inlet;");
        assertThat(((Wiring.Result.Made) result).summary()).isEqualTo("pump.outlet connected to valve.inlet in Unit");
    }

    @Test
    void aConnectionOutOfADeepPartMakesThePortAtTheBorderAndHandsOn() {
        Wiring.Result result = Wiring.connect(
                MODEL,
                way("Plant", "Plant::unit", "Unit::valve", "Valve::outlet"),
                way("Plant", "Plant::cylinder", "Cylinder::oil"));
        assertThat(written(result, "Unit")).contains("port outlet : ~Hose;").contains("bind valve.outlet = outlet;");
        assertThat(written(result, "Plant")).contains("connect unit.outlet to cylinder.oil;");
        assertThat(((Wiring.Result.Made) result).summary())
                .isEqualTo(
                        "unit.outlet connected to cylinder.oil in Plant; port outlet added to Unit and bound to valve.outlet");
    }

    @Test
    void aPortOfTheWholeHandsOnWhatAPartHas() {
        assertThat(written(
                        Wiring.connect(
                                MODEL, way("Plant", "Plant::tank", "Tank::drain"), way("Plant", "Plant::outside")),
                        "Plant"))
                .contains("bind tank.drain = outside;");
        assertThat(refusal(Wiring.connect(
                        MODEL, way("Plant", "Plant::cylinder", "Cylinder::oil"), way("Plant", "Plant::outside"))))
                .contains("the outer port only hands it on");
    }

    @Test
    void whatDoesNotFitIsRefusedWithTheReason() {
        assertThat(refusal(Wiring.connect(
                        MODEL,
                        way("Plant", "Plant::tank", "Tank::oil"),
                        way("Plant", "Plant::cylinder", "Cylinder::water"))))
                .contains("'tank.oil' sends 'oil', which 'cylinder.water' does not have");
        assertThat(refusal(Wiring.connect(
                        MODEL,
                        way("Plant", "Plant::tank", "Tank::oil"),
                        way("Plant", "Plant::unit", "Unit::pump", "Pump::outlet"))))
                .contains("both send 'oil'");
    }

    @Test
    void twoPartsAreConnectedByThePortsThatFit() {
        Model one = Models.of("""
                item def Oil;
                port def Hose { in item oil : Oil; }
                part def Pump { port outlet : ~Hose; port idle; }
                part def Cylinder { port oil : Hose; }
                part def Plant { part pump : Pump; part cylinder : Cylinder; }
                """);
        Wiring.Result result = Wiring.connect(
                one,
                List.of(Models.id(one, "Test::Plant"), Models.id(one, "Test::Plant::pump")),
                List.of(Models.id(one, "Test::Plant"), Models.id(one, "Test::Plant::cylinder")));
        assertThat(((Wiring.Result.Made) result).summary()).startsWith("pump.outlet connected to cylinder.oil");
        assertThat(Wiring.connect(MODEL, way("Plant", "Plant::tank"), way("Plant", "Plant::cylinder")))
                .isInstanceOfSatisfying(
                        Wiring.Result.Several.class,
                        several -> assertThat(several.pairs())
                                .extracting(Wiring.Pair::oneName, Wiring.Pair::otherName)
                                .containsExactly(
                                        org.assertj.core.api.Assertions.tuple("oil", "oil"),
                                        org.assertj.core.api.Assertions.tuple("drain", "oil")));
        assertThat(refusal(Wiring.connect(MODEL, way("Plant", "Plant::tank"), way("Plant", "Plant::loose"))))
                .contains("no port of 'tank' fits a port of 'loose'");
        assertThat(written(Wiring.connect(MODEL, way("Plant", "Plant::tank"), way("Plant", "Plant::rod")), "Plant"))
                .contains("connect tank to rod;");
    }

    @Test
    void aPartThatHasNoPortForItGetsTheConjugate() {
        Wiring.Result result =
                Wiring.connect(MODEL, way("Plant", "Plant::tank", "Tank::oil"), way("Plant", "Plant::rod"));
        assertThat(written(result, "Rod")).contains("port oil : Hose;");
        assertThat(written(result, "Plant")).contains("connect tank.oil to rod.oil;");
        assertThat(((Wiring.Result.Made) result).summary())
                .isEqualTo("tank.oil connected to rod.oil in Plant; port oil added to Rod");
        assertThat(written(
                        Wiring.connect(
                                MODEL, way("Plant", "Plant::cylinder"), way("Plant", "Plant::tank", "Tank::drain")),
                        "Plant"))
                .contains("connect tank.drain to cylinder.oil;");
    }

    @Test
    void differingNamesAreKeptAsPairsByAnInterfaceDefinition() {
        Model model = Models.of("""
                item def Oil; item def Water;
                port def Supply { out item oil : Oil; out attribute pressure : PressureValue; }
                port def Intake { in item fluid : Oil; in attribute level : LengthValue; in attribute head : PressureValue; }
                part def Pump { port outlet : Supply; }
                part def Motor { port inlet : Intake; }
                part def Plant { part pump : Pump; part motor : Motor; }
                """);
        List<ElementId> outlet = Stream.of("Plant", "Plant::pump", "Pump::outlet")
                .map(name -> Models.id(model, "Test::" + name))
                .toList();
        List<ElementId> inlet = Stream.of("Plant", "Plant::motor", "Motor::inlet")
                .map(name -> Models.id(model, "Test::" + name))
                .toList();
        assertThat(refusal(Wiring.connect(model, outlet, inlet))).contains("sends 'oil', which");
        assertThat(Pairing.of(model, model.get(outlet.getLast()), model.get(inlet.getLast()))
                        .orElseThrow()
                        .rows())
                .extracting(row -> row.name() + " with "
                        + row.partners().stream()
                                .filter(partner -> partner.reason().isEmpty())
                                .map(Pairing.Partner::name)
                                .toList())
                .containsExactly("oil with [fluid]", "pressure with [head]");
        assertThat(refusal(Wiring.connect(
                        model,
                        outlet,
                        inlet,
                        new Wiring.Naming("", Map.of("oil", "fluid", "pressure", "level")),
                        Extent.DEFINITION)))
                .contains("cannot be bound");
        Model narrow = Models.of("""
                item def Oil;
                port def Supply { out item oil : Oil; out attribute pressure : PressureValue; }
                port def Intake { in item fluid : Oil; in attribute head : PressureValue; }
                part def Pump { port outlet : Supply; }
                part def Motor { port inlet : Intake; }
                part def Plant { part pump : Pump; part motor : Motor; }
                """);
        Wiring.Result made = Wiring.connect(
                narrow,
                Stream.of("Plant", "Plant::pump", "Pump::outlet")
                        .map(name -> Models.id(narrow, "Test::" + name))
                        .toList(),
                Stream.of("Plant", "Plant::motor", "Motor::inlet")
                        .map(name -> Models.id(narrow, "Test::" + name))
                        .toList(),
                new Wiring.Naming("Feed", Map.of("oil", "fluid", "pressure", "head")),
                Extent.DEFINITION);
        assertThat(made).isInstanceOf(Wiring.Result.Made.class);
        Model next = ((EditResult.Applied) narrow.apply(((Wiring.Result.Made) made).edit())).model();
        assertThat(NotationWriter.write(next, List.of(Models.element(next, "Test::Feed"))))
                .isEqualTo("""
                        interface def Feed {
                            end port outlet : Supply;
                            end port inlet : Intake;
                            bind outlet.oil = inlet.fluid;
                            bind outlet.pressure = inlet.head;
                        }
                        """);
        assertThat(NotationWriter.write(next, List.of(Models.element(next, "Test::Plant"))))
                .contains("interface : Feed connect pump.outlet to motor.inlet;");
        assertThat(InterfaceTable.of(next).rows().getFirst().carried())
                .extracting(InterfaceTable.Carried::words)
                .containsExactly("oil = fluid →", "pressure = head →");
    }

    @Test
    void usagesAtTheTopAreConnectedInTheirPackage() {
        assertThat(((Wiring.Result.Made) Wiring.connect(MODEL, way("plant"), way("rod"))).summary())
                .isEqualTo("plant connected to rod in Test");
        assertThat(refusal(Wiring.connect(MODEL, way("Plant", "Plant::tank"), way("rod"))))
                .contains("different wholes");
    }

    @Test
    void aThingIsNotConnectedWithItselfNorWithWhatIsInsideIt() {
        assertThat(refusal(Wiring.connect(MODEL, way("Plant", "Plant::rod"), way("Plant", "Plant::rod"))))
                .contains("one and the same");
        assertThat(refusal(Wiring.connect(MODEL, way("Plant"), way("Plant", "Plant::rod"))))
                .contains("inside it");
    }

    @Test
    void whatIsConnectedIsNotConnectedTwice() {
        Wiring.Result first = Wiring.connect(
                MODEL, way("Plant", "Plant::tank", "Tank::oil"), way("Plant", "Plant::cylinder", "Cylinder::oil"));
        Model next = ((EditResult.Applied) MODEL.apply(((Wiring.Result.Made) first).edit())).model();
        assertThat(refusal(Wiring.connect(
                        next,
                        way("Plant", "Plant::cylinder", "Cylinder::oil"),
                        way("Plant", "Plant::tank", "Tank::oil"))))
                .isEqualTo("these two are connected already");
    }

    @Test
    void anEndIsLedElsewhereAndTheConnectionKeepsItsName() {
        Model model = Models.of("""
                part def Valve; part def Unit { part upper : Valve; part middle : Valve; part lower : Valve;
                    connection pipe connect upper to middle; }
                part def Plant { part unit : Unit; part rod; }
                """);
        Wiring.Result inside = Reending.reconnect(
                model,
                Models.element(model, "Test::Unit::pipe"),
                ways(model, "Unit", "Unit::middle"),
                ways(model, "Unit", "Unit::lower"),
                Extent.DEFINITION);
        Model next = ((EditResult.Applied) model.apply(((Wiring.Result.Made) inside).edit())).model();
        assertThat(NotationWriter.write(next, List.of(Models.element(next, "Test::Unit"))))
                .contains("connection pipe connect lower to middle;");
        assertThat(Models.id(next, "Test::Unit::pipe")).isEqualTo(Models.id(model, "Test::Unit::pipe"));
        Wiring.Result elsewhere = Reending.reconnect(
                model,
                Models.element(model, "Test::Unit::pipe"),
                ways(model, "Plant", "Plant::unit", "Unit::upper"),
                ways(model, "Plant", "Plant::rod"),
                Extent.DEFINITION);
        Model moved = ((EditResult.Applied) model.apply(((Wiring.Result.Made) elsewhere).edit())).model();
        assertThat(NotationWriter.write(moved, List.of(Models.element(moved, "Test::Plant"))))
                .contains("connection pipe connect unit.upper to rod;");
    }

    private static List<ElementId> ways(Model model, String... names) {
        return Stream.of(names).map(name -> Models.id(model, "Test::" + name)).toList();
    }

    @Test
    void aPortAtTheBorderIsUsedAgain() {
        List<ElementId> deep = way("Plant", "Plant::unit", "Unit::valve", "Valve::outlet");
        Wiring.Result first = Wiring.connect(MODEL, deep, way("Plant", "Plant::cylinder", "Cylinder::oil"));
        Model next = ((EditResult.Applied) MODEL.apply(((Wiring.Result.Made) first).edit())).model();
        Wiring.Result second = Wiring.connect(next, deep, way("Plant", "Plant::rod"));
        assertThat(((Wiring.Result.Made) second).summary())
                .isEqualTo("unit.outlet connected to rod.outlet in Plant; port outlet added to Rod");
    }

    @Test
    void aPortWithoutADefinitionCannotBeHandedOn() {
        assertThat(refusal(Wiring.connect(
                        MODEL,
                        way("Plant", "Plant::loose", "Plant::loose::within", "Plant::loose::within::p"),
                        way("Plant", "Plant::cylinder", "Cylinder::oil"))))
                .contains("give it a port definition");
    }
}
