package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.structure.InterfaceTable.Carried;
import pyrite.core.structure.InterfaceTable.Row;

class InterfaceTableTest {
    private static final Model MODEL = Models.of("""
            item def Oil; item def Alarm;
            port def Hose { in item oil : Oil; out attribute pressure : PressureValue; }
            port def Wire { inout item telegram; }
            interface def OilLine { end port source : ~Hose; end port sink : Hose; }
            part def Pump { port outlet : ~Hose; }
            part def Valve { port inlet : Hose; port wire : Wire; }
            part def Cabinet { port wire : Wire; port panel : Wire; port wrong : Hose; }
            part def Unit { part pump : Pump; part valve : Valve; port wire : Wire;
                interface line : OilLine connect pump.outlet to valve.inlet;
                connect valve.wire to wire; }
            part def Gate { part unit : Unit; part cabinet : Cabinet;
                connect unit.wire to cabinet.wire;
                connect cabinet.wrong to unit.valve.inlet;
                part horn; flow of Alarm from cabinet.panel to horn; }
            part gate : Gate;
            action def Fill { action one { out item o : Oil; } action two { in item o : Oil; } flow from one.o to two.o; }
            """);

    private static List<Row> of(String holder) {
        return InterfaceTable.of(MODEL, Models.element(MODEL, "Test::" + holder))
                .rows();
    }

    @Test
    void aPartHasWhatItOwnsAndInheritsWithWhatIsCarried() {
        assertThat(of("Unit"))
                .extracting(
                        row -> row.one().party(),
                        row -> row.one().port(),
                        row -> row.other().party(),
                        row -> row.other().port(),
                        row -> row.carried().stream().map(Carried::words).toList(),
                        Row::fits)
                .containsExactly(
                        tuple("pump", "outlet", "valve", "inlet", List.of("oil →", "← pressure"), true),
                        tuple("valve", "wire", "", "wire", List.of("telegram ↔"), true));
        assertThat(of("Unit").getFirst().type().name()).isEqualTo("OilLine");
        assertThat(of("gate")).isEqualTo(of("Gate")).hasSize(3);
        assertThat(InterfaceTable.of(MODEL).rows()).hasSize(5);
    }

    @Test
    void aFlowCarriesItsPayloadAndWhatDoesNotFitSaysSo() {
        assertThat(of("Gate"))
                .extracting(
                        row -> row.one().party(),
                        row -> row.other().party(),
                        row -> row.carried().stream().map(Carried::words).toList(),
                        row -> row.misfits().stream().map(Fit.Misfit::reason).toList())
                .containsExactly(
                        tuple("cabinet", "horn", List.of("Alarm →"), List.of()),
                        tuple(
                                "cabinet",
                                "unit.valve",
                                List.of("oil", "pressure"),
                                List.of(Fit.Reason.DIRECTION, Fit.Reason.DIRECTION)),
                        tuple("unit", "cabinet", List.of("telegram ↔"), List.of()));
    }

    /** Of an end that says nothing nobody knows whether it fits. */
    @Test
    void onlyPortsThatSayWhatTheyCarryAreSaidToFit() {
        assertThat(of("Gate"))
                .extracting(Row::isCompared, Row::fits)
                .containsExactly(tuple(false, false), tuple(true, false), tuple(true, true));
    }

    @Test
    void theChartHasEachRowWhereItIsSentFrom() {
        InterfaceTable unit = InterfaceTable.of(MODEL, Models.element(MODEL, "Test::Unit"));
        assertThat(unit.parties()).containsExactly("pump", "valve", "");
        assertThat(unit.chart().get("pump")).containsOnlyKeys("valve");
        assertThat(unit.chart().get("valve")).containsOnlyKeys("pump", "");
        assertThat(unit.chart().get("")).containsOnlyKeys("valve");
    }

    @Test
    void aFlowBetweenFunctionsIsNoInterface() {
        assertThat(of("Fill")).isEmpty();
        assertThat(InterfaceTable.of(MODEL).rows())
                .noneMatch(row -> "Fill".equals(row.holder().name()));
    }
}
