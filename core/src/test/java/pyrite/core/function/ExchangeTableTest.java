package pyrite.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** The exchanges of small functions, written down by hand for each way that something can go. */
class ExchangeTableTest {
    private static final String DEFINITIONS = """
            item def Level; item def Order; item def Oil;
            action def Watch { out item level : Level; }
            action def Decide { in item level : Level; out item order : Order; }
            action def Move { in item order : Order; }
            """;
    private static final String PARTS = """
            part def Sensor { perform action watch : Watch; }
            part def Controller { perform action choose : Decide; }
            part def Drive { perform action move : Move; }
            part def Gate { part sensor : Sensor; part controller : Controller; part drive : Drive; }
            """;
    private static final String CHAIN = """
            action def Close {
                action watch : Watch; action choose : Decide; action move : Move;
                flow from watch.level to choose.level;
                flow of Order from choose.order to move.order;
            }
            """;

    private Model model = Model.EMPTY;

    private ExchangeTable table(int level) {
        return ExchangeTable.of(
                model, Models.element(model, "Test::Close"), Models.element(model, "Test::Gate"), level);
    }

    /** {@code what: function of part → function of part, state}. */
    private List<String> rows(int level) {
        ExchangeTable table = table(level);
        return table.rows().stream()
                .map(row -> table.name(row) + ": " + table.functions().path(row.from()) + " of "
                        + (row.fromPart() == null ? "nobody" : table.parts().path(row.fromPart())) + " → "
                        + table.functions().path(row.to()) + " of "
                        + (row.toPart() == null ? "nobody" : table.parts().path(row.toPart())) + ", " + row.state())
                .toList();
    }

    private List<String> rows(String text) {
        model = Models.of(DEFINITIONS + text);
        return rows(1);
    }

    @Test
    void aFlowLeadsFromTheOnePerformerToTheOther() {
        assertThat(rows(PARTS + CHAIN))
                .containsExactly(
                        "Order: choose of controller → move of drive, UNWIRED",
                        "Level: watch of sensor → choose of controller, UNWIRED");
    }

    @Test
    void aForkSendsToAllBehindItAndAJoinFromAllBeforeIt() {
        assertThat(rows(PARTS + """
                action def Close {
                    action w1 : Watch; action w2 : Watch; action d1 : Decide; action d2 : Decide;
                    fork f; join j; action last : Decide;
                    flow of Level from w1.level to f; flow from f to d1.level; flow from f to d2.level;
                    flow of Level from w2.level to j; flow of Level from w1.level to j; flow from j to last.level;
                }"""))
                .containsExactly(
                        "Level: w1 of sensor → d1 of controller, UNWIRED",
                        "Level: w1 of sensor → d2 of controller, UNWIRED",
                        "Level: w1 of sensor → last of controller, UNWIRED",
                        "Level: w2 of sensor → last of controller, UNWIRED");
    }

    @Test
    void aDecisionSendsToEachBranchAndAMergeFromEach() {
        assertThat(rows(PARTS + """
                action def Close {
                    action watch : Watch; action other : Watch; action d1 : Decide; action d2 : Decide;
                    decide d; merge m;
                    flow of Level from watch.level to m; flow of Level from other.level to m; flow from m to d;
                    flow from d to d1.level; flow from d to d2.level;
                }"""))
                .containsExactly(
                        "Level: other of sensor → d1 of controller, UNWIRED",
                        "Level: other of sensor → d2 of controller, UNWIRED",
                        "Level: watch of sensor → d1 of controller, UNWIRED",
                        "Level: watch of sensor → d2 of controller, UNWIRED");
    }

    @Test
    void aCircleOfNodesEnds() {
        assertThat(rows(PARTS + """
                action def Close {
                    action watch : Watch; action choose : Decide; merge m; decide d;
                    flow of Level from watch.level to m; flow from m to d; flow from d to m; flow from d to choose.level;
                }""")).containsExactly("Level: watch of sensor → choose of controller, UNWIRED");
    }

    @Test
    void bindingsAndValuesCarryAsFlowsDo() {
        assertThat(rows(PARTS + """
                action def Close {
                    action watch : Watch;
                    action choose : Decide { in item :>> level = watch.level; }
                    action move : Move;
                    bind move.order = choose.order;
                }"""))
                .containsExactly(
                        "Order: choose of controller → move of drive, UNWIRED",
                        "Level: watch of sensor → choose of controller, UNWIRED");
    }

    @Test
    void waysLeadThroughTheBordersOfFunctionsToTheirParts() {
        assertThat(rows(PARTS + """
                action def Judge {
                    in item level : Level; out item order : Order;
                    action compare : Decide;
                    flow from level to compare.level;
                    bind order = compare.order;
                }
                action def Close {
                    action watch : Watch; action judge : Judge; action move : Move;
                    flow from watch.level to judge.level;
                    flow from judge.order to move.order;
                }"""))
                .containsExactly(
                        "Order: judge.compare of controller → move of drive, UNWIRED",
                        "Level: watch of sensor → judge.compare of controller, UNWIRED");
    }

    @Test
    void aFunctionWithinAnotherIsPerformedByWhoHasTheOneAround() {
        assertThat(rows("""
                action def Judge { in item level : Level; action compare { in item x : Level; } flow from level to compare.x; }
                part def Sensor { perform action watch : Watch; }
                part def Controller { perform action judge : Judge; }
                part def Gate { part sensor : Sensor; part controller : Controller; }
                action def Close { action watch : Watch; action judge : Judge; flow from watch.level to judge.level; }""")).containsExactly("Level: watch of sensor → judge.compare of controller, UNWIRED");
    }

    @Test
    void severalPerformersAreARowEachAndNobodyIsSaid() {
        assertThat(rows("""
                part def Sensor { perform action watch : Watch; }
                part def Gate { part one : Sensor; part two : Sensor; part controller { perform action choose : Decide; } }
                """ + CHAIN))
                .containsExactly(
                        "Order: choose of controller → move of nobody, NOBODY",
                        "Level: watch of one → choose of controller, UNWIRED",
                        "Level: watch of two → choose of controller, UNWIRED");
        assertThat(table(1).count(ExchangeTable.State.NOBODY)).isEqualTo(1);
    }

    @Test
    void whatSpecialisesAPerformerPerformsTwoLevelsDown() {
        assertThat(rows("""
                part def Sensor { perform action watch : Watch; }
                part def Float :> Sensor; part def DigitalFloat :> Float;
                part def Gate { part sensor : DigitalFloat; part controller { perform action choose : Decide;
                    perform action move : Move; } }
                """ + CHAIN))
                .containsExactly(
                        "Order: choose of controller → move of controller, WITHIN",
                        "Level: watch of sensor → choose of controller, UNWIRED");
    }

    @Test
    void anAllocationAndAPerformOfOneUseGiveOnlyThisUse() {
        assertThat(rows(CHAIN + """
                part def Gate { part a; part b; part c { perform close.move; } }
                action close : Close;
                part gate : Gate;
                allocate close.watch to gate.a;
                allocate close.choose to gate.b;"""))
                .containsExactly("Order: choose of b → move of c, UNWIRED", "Level: watch of a → choose of b, UNWIRED");
    }

    @Test
    void theLevelSaysHowDeepPartsAreNamed() {
        model = Models.of(DEFINITIONS + CHAIN + """
                part def Cabinet { part controller { perform action choose : Decide; part relay { perform action move : Move; } } }
                part def Gate { part cabinet : Cabinet; part sensor { perform action watch : Watch; } }""");
        assertThat(rows(1))
                .containsExactly(
                        "Order: choose of cabinet → move of cabinet, WITHIN",
                        "Level: watch of sensor → choose of cabinet, UNWIRED");
        assertThat(rows(2))
                .containsExactly(
                        "Order: choose of cabinet.controller → move of cabinet.controller, WITHIN",
                        "Level: watch of sensor → choose of cabinet.controller, UNWIRED");
        assertThat(rows(3).getFirst())
                .isEqualTo("Order: choose of cabinet.controller → move of cabinet.controller.relay, UNWIRED");
    }

    @Test
    void aConnectionCarriesWhatItsPortsSayTheWayTheySay() {
        String ports = """
                port def LevelPort { out item level : Level; } port def OrderPort { out item order : Order; }
                part def Sensor { perform action watch : Watch; port out1 : %s; }
                part def Controller { perform action choose : Decide; port in1 : ~%s; }
                part def Drive { perform action move : Move; }
                part def Gate {
                    part sensor : Sensor; part controller : Controller; part drive : Drive;
                    connect sensor.out1 to controller.in1;
                }
                """;
        assertThat(rows(ports.formatted("LevelPort", "LevelPort") + CHAIN))
                .contains("Level: watch of sensor → choose of controller, WIRED");
        assertThat(table(1).idle()).isEmpty();
        assertThat(rows(ports.formatted("OrderPort", "OrderPort") + CHAIN))
                .contains("Level: watch of sensor → choose of controller, UNWIRED");
        assertThat(table(1).idle()).hasSize(1);
        assertThat(rows(ports.formatted("~LevelPort", "LevelPort").replace("~~", "") + CHAIN))
                .contains("Level: watch of sensor → choose of controller, UNWIRED");
    }

    @Test
    void aPortAtABorderHandsOnToThePartWithinItThatIsBoundToIt() {
        String text = """
                port def LevelPort { out item level : Level; }
                part def Sensor { perform action watch : Watch; port out1 : LevelPort; }
                part def Cabinet {
                    part controller { perform action choose : Decide; port in1 : ~LevelPort; }
                    part relay { perform action move : Move; }
                    port levels : ~LevelPort;
                    %s
                }
                part def Gate { part sensor : Sensor; part cabinet : Cabinet; connect sensor.out1 to cabinet.levels; }
                """;
        assertThat(rows(text.formatted("bind controller.in1 = levels;") + CHAIN))
                .contains("Level: watch of sensor → choose of cabinet, WIRED");
        assertThat(rows(text.formatted("") + CHAIN)).contains("Level: watch of sensor → choose of cabinet, UNWIRED");
    }

    @Test
    void movingAFunctionMovesExactlyItsRows() {
        List<String> before = rows(PARTS + CHAIN);
        List<String> after = rows(PARTS.replace("perform action choose : Decide;", "")
                        .replace(
                                "perform action move : Move;",
                                "perform action move : Move; perform action choose : Decide;")
                + CHAIN);
        assertThat(after)
                .containsExactlyElementsOf(before.stream()
                        .map(row -> row.replace("choose of controller", "choose of drive")
                                .replace(
                                        "choose of drive → move of drive, UNWIRED",
                                        "choose of drive → move of drive, WITHIN"))
                        .toList());
    }

    @Test
    void aRowIsWiredWithPortsConnectionAndFlow() {
        rows(PARTS + CHAIN);
        ExchangeTable table = table(1);
        WireUp.Proposal proposal = WireUp.of(table, table.rows());
        switch (model.apply(proposal.edit())) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
        assertThat(rows(1))
                .containsExactly(
                        "Order: choose of controller → move of drive, WIRED",
                        "Level: watch of sensor → choose of controller, WIRED");
        assertThat(NotationWriter.write(model, List.of(element("Gate"))))
                .contains(
                        "connect controller.order to drive.order;",
                        "flow of Order from controller.order.order to drive.order.order;",
                        "connect sensor.level to controller.level;");
        assertThat(NotationWriter.write(model, List.of(element("LevelPort")))).contains("out item level : Level;");
        assertThat(NotationWriter.write(model, List.of(element("Controller")))).contains("port level : ~LevelPort;");
        assertThat(proposal.additions()).extracting(WireUp.Addition::place).contains("Sensor", "Gate", "Test");
        assertThatThrownBy(() -> WireUp.of(table(1), table(1).rows())).hasMessageContaining("is carried already");
    }

    private Element element(String name) {
        return Models.element(model, "Test::" + name);
    }

    @Test
    void aFunctionThatContainsItselfIsToldOnce() {
        assertThat(rows("""
                action def Close { action again : Close; action watch : Watch; flow from watch.level to again; }
                part def Gate { perform action c : Close; }""")).hasSize(1);
    }
}
