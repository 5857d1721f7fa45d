package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.view.PartsTable.Row;

/** Sums over trees of parts; the answers are added up by hand. */
class PartsTableTest {
    private static final Model MODEL = Models.of("""
            part def Bolt { attribute mass : MassValue = 2 [kg]; }
            part def Frame { part bolts : Bolt[4]; part plate { attribute mass : MassValue default 30 [kg]; } }
            part def Motor { attribute mass : MassValue = 12 [kg]; attribute power : PowerValue = 3 [kW]; }
            part def Pump { attribute mass : MassValue = motor.mass + 8 [kg]; part motor : Motor; }
            part def Unit {
                part hull : Frame;
                part pumps : Pump[2];
                part tank { attribute mass : MassValue; }
                ref part site : Frame;
            }
            part light : Unit {
                part :>> hull { part :>> plate { attribute :>> mass = 10 [kg]; } }
            }
            part def Loop { part again : Loop; attribute mass : MassValue = 1 [kg]; }
            part def Empty;
            """);

    private static PartsTable of(String root, String... names) {
        return PartsTable.of(MODEL, Models.element(MODEL, "Test::" + root), List.of(names));
    }

    private static Row row(PartsTable table, String path) {
        return table.rows().stream()
                .filter(row -> row.path().equals(path))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void theTreeHasEachPartWithItsTypeAndHowManyThereAre() {
        assertThat(of("Unit").rows())
                .extracting(
                        Row::path,
                        Row::depth,
                        Row::multiplicity,
                        row -> row.count().orElse(0))
                .containsExactly(
                        tuple("", 0, "", 1),
                        tuple("hull", 1, "1", 1),
                        tuple("hull.bolts", 2, "4", 4),
                        tuple("hull.plate", 2, "1", 1),
                        tuple("pumps", 1, "2", 2),
                        tuple("pumps.motor", 2, "1", 2),
                        tuple("tank", 1, "1", 1));
    }

    @Test
    void sumsGoUpTheTreeByMultiplicity() {
        PartsTable table = of("Unit", "mass");
        assertThat(row(table, "hull.bolts").cells().get("mass").sum()).isEqualTo(8);
        assertThat(row(table, "hull").cells().get("mass").sum()).isEqualTo(38);
        assertThat(row(table, "hull").cells().get("mass").isSummed()).isTrue();
        // A pump states its own mass, motor included.
        assertThat(row(table, "pumps").cells().get("mass")).isEqualTo(new PartsTable.Cell(20.0, 40.0, false, false));
        assertThat(row(table, "").cells().get("mass").sum()).isEqualTo(78);
    }

    @Test
    void whatHasNoValueIsLeftOutAndSaysSo() {
        PartsTable table = of("Unit", "mass");
        assertThat(row(table, "tank").cells().get("mass")).isEqualTo(new PartsTable.Cell(null, null, false, true));
        assertThat(row(table, "").cells().get("mass").isPartial()).isTrue();
        assertThat(row(table, "hull").cells().get("mass").isPartial()).isFalse();
    }

    @Test
    void aValueThatIsRedefinedDeepInsideCounts() {
        assertThat(row(of("light", "mass"), "").cells().get("mass").sum()).isEqualTo(58);
    }

    @Test
    void everyAttributeWithNumbersIsOffered() {
        assertThat(of("Unit", "power").offered()).containsEntry("mass", 5).containsEntry("power", 1);
        assertThat(row(of("Unit", "power"), "").cells().get("power").sum()).isEqualTo(6);
        assertThat(of("Unit", "nothing").columns()).isEmpty();
    }

    @Test
    void aPartThatContainsItselfHasNoEndAndIsCutShort() {
        PartsTable table = of("Loop", "mass");
        assertThat(table.rows()).hasSizeLessThan(30);
        assertThat(of("Empty", "mass").rows()).hasSize(1);
    }
}
