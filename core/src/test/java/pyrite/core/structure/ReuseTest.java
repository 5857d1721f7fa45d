package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

class ReuseTest {
    private static final Model MODEL = Models.of("""
            part def Pump { part motor : Motor; }
            part def Motor { part fan : Fan; ref part whole : Unit; }
            part def Fan;
            part def TwinPump :> Pump;
            part def Unit { part pump : Pump; }
            part unit : Unit;
            port def Hose;
            requirement def Need;
            attribute def Level;
            part bare;
            """);

    private static Element element(String name) {
        return Models.element(MODEL, "Test::" + name);
    }

    private static String outcome(String definition, String into) {
        return switch (Reuse.of(MODEL, element(definition), element(into))) {
            case Reuse.Result.Made made -> made.summary();
            case Reuse.Result.Refused refused -> refused.reason();
        };
    }

    @Test
    void aDefinitionIsUsedUnderAFreeName() {
        assertThat(outcome("Fan", "Unit")).isEqualTo("part fan : Fan added to Unit");
        assertThat(outcome("Pump", "Unit")).isEqualTo("part pump2 : Pump added to Unit");
        assertThat(outcome("Hose", "Pump")).isEqualTo("port hose : Hose added to Pump");
        assertThat(outcome("Level", "Pump")).isEqualTo("attribute level : Level added to Pump");
    }

    @Test
    void theInsideOfAUsageIsThatOfItsDefinition() {
        assertThat(outcome("Fan", "unit")).isEqualTo("part fan : Fan added to Unit");
        assertThat(outcome("Fan", "bare")).isEqualTo("part fan : Fan added to bare");
    }

    @Test
    void nothingContainsItself() {
        assertThat(outcome("Unit", "Unit")).startsWith("'Unit' would contain itself: Unit has Unit");
        assertThat(outcome("Unit", "Fan"))
                .startsWith("'Fan' would contain itself: Fan has Unit has Pump has Motor has Fan");
        assertThat(outcome("TwinPump", "Motor"))
                .startsWith("'Motor' would contain itself: Motor has TwinPump has Motor");
        assertThat(outcome("TwinPump", "Pump")).startsWith("'Pump' would contain itself");
    }

    @Test
    void aReferenceContainsNothing() {
        assertThat(outcome("Motor", "Unit")).isEqualTo("part motor : Motor added to Unit");
    }

    @Test
    void onlyADefinitionCanBeUsed() {
        assertThat(outcome("unit", "Pump")).isEqualTo("only a definition can be used, and 'unit' is a part");
    }
}
