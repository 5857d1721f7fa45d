package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.EventLog;
import pyrite.core.model.Model;

/** While a case runs it shows what has happened so far, and this does not change what comes of it. */
class WatcherTest {
    @Test
    void aLongRunShowsMoreAndMore() {
        Model model = Models.of("""
                part p { exhibit state m { entry; then on; state on; accept after 1 [s] then off;
                    state off; accept after 1 [s] then on; } }
                analysis long1 : TimeRun { subject :>> system = p; attribute :>> stopTime = 600000 [s]; }
                """);
        List<EventLog> shown = new ArrayList<>();
        List<Double> times = new ArrayList<>();
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::long1"), RunControl.NONE, (log, now) -> {
            shown.add(log);
            times.add(now);
        });
        assertThat(shown).isNotEmpty();
        assertThat(times).isSorted();
        EventLog whole = run.happened().log();
        shown.forEach(log -> {
            assertThat(log.size()).isLessThan(whole.size());
            assertThat(log.get(log.size() - 1)).isEqualTo(whole.get(log.size() - 1));
        });
    }
}
