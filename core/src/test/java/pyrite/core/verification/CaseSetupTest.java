package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;

/** A case that cannot run says what it lacks and how that is written. */
class CaseSetupTest {
    private static final String MODEL = """
            part def Tank { attribute level : LengthValue := 1 [m]; attribute area; assert constraint drains { der(level) == -1 [mm/s] } }
            part tank : Tank;
            attribute unknown : TimeValue;
            %s
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "analysis run { subject s = tank; }|is no run; type it by TimeRun or SimulatedCheck",
                "analysis run : TimeRun { subject :>> system = tank; }|the case does not say when it ends; "
                        + "write 'attribute :>> stopTime = 10 [min];'",
                "analysis run : TimeRun { attribute :>> stopTime = 1 [s]; }|system",
                "analysis run : TimeRun { subject :>> system = tank; attribute :>> stopTime = unknown; }|stopTime",
                "analysis run : TimeRun { subject :>> system = tank; attribute :>> stopTime = -1 [s]; }|a run ends after it starts",
                "analysis run : TimeRun { subject :>> system = tank; attribute :>> stopTime = 1 [s]; "
                        + "attribute :>> tolerance = 0; }|tolerance",
                "analysis run : TimeRun { subject :>> system = tank; attribute :>> stopTime = 1 [s]; "
                        + "attribute :>> interval = 0 [s]; }|interval"
            })
    void whatACaseLacksIsSaid(String members, String message) {
        Model model = Models.of(MODEL.formatted(members));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::run"), RunControl.NONE);
        assertThat(run.failure()).isNotNull();
        assertThat(run.failure().toString()).contains(message);
    }
}
