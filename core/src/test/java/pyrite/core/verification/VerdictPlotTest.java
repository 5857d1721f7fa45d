package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Model;
import pyrite.core.verification.VerdictPlot.Line;
import pyrite.core.verification.VerdictPlot.Sense;

/** What is drawn with a verdict: the traces a requirement looks at, and its limits on the side where they hurt. */
class VerdictPlotTest {
    private static final String MODEL = """
            part def Ramp {
                attribute x : LengthValue := 0 [m];
                attribute y : LengthValue;
                attribute high : Boolean = x >= 40 [cm];
                assert constraint law { der(x) == 0.1 [m/s] and y == 2 * x }
            }
            part ramp : Ramp;
            requirement r { subject s : Ramp; attribute limit : LengthValue = 80 [cm]; require constraint { %s } }
            satisfy r by ramp;
            verification check : SimulatedCheck { subject :>> system = ramp; attribute :>> stopTime = 10 [s]; objective { verify r; } }
            """;

    private static VerdictPlot of(String constraint) {
        Model model = Models.of(MODEL.formatted(constraint));
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::check"), RunControl.NONE);
        assertThat(run.failure()).isNull();
        return run.judgements().getFirst().plot();
    }

    private static List<String> labels(VerdictPlot plot) {
        return plot.traces().stream().map(VerdictPlot.Trace::label).toList();
    }

    @Test
    void aLimitIsDrawnOverTheTraceInTheUnitOfTheLimit() {
        VerdictPlot plot = of("always(s.x <= limit)");
        assertThat(plot.lines()).containsExactly(new Line(Sense.UPPER, "ramp.x", 80));
        assertThat(plot.traces()).singleElement().satisfies(trace -> {
            assertThat(trace.unit()).isEqualTo("cm");
            assertThat(trace.values()[trace.values().length - 1]).isCloseTo(100, within(1e-6));
        });
    }

    @Test
    void theSideOfALimitFollowsFromTheComparisonAlsoTurnedAround() {
        assertThat(of("always(s.x >= limit)").lines()).containsExactly(new Line(Sense.LOWER, "ramp.x", 80));
        assertThat(of("always(limit >= s.x)").lines()).containsExactly(new Line(Sense.UPPER, "ramp.x", 80));
        assertThat(of("eventually(s.x >= limit)").lines()).containsExactly(new Line(Sense.TARGET, "ramp.x", 80));
    }

    @Test
    void twoVaryingSidesAreDrawnTogether() {
        VerdictPlot plot = of("always(s.y >= s.x)");
        assertThat(labels(plot)).containsExactly("ramp.y", "ramp.x");
        assertThat(plot.lines()).isEmpty();
    }

    @Test
    void aTimeLimitIsADeadlineOverTheConditionThatIsWaitedFor() {
        VerdictPlot plot = of("firstTime(s.high) <= 5 [s]");
        assertThat(labels(plot)).containsExactly("ramp.x");
        assertThat(plot.lines()).containsExactly(new Line(Sense.TARGET, "ramp.x", 40), new Line(Sense.DEADLINE, "", 5));
    }

    @Test
    void anExtremeIsDrawnAsALevelAndWhatIsDrawnTwiceOnlyOnce() {
        VerdictPlot plot = of("maximum(s.x) <= limit and minimum(s.x) >= -limit");
        assertThat(labels(plot)).containsExactly("ramp.x");
        assertThat(plot.lines())
                .containsExactly(new Line(Sense.UPPER, "ramp.x", 80), new Line(Sense.LOWER, "ramp.x", -80));
    }

    @Test
    void anExpressionIsLabelledByItsText() {
        assertThat(labels(of("always(s.y - s.x <= limit)"))).containsExactly("s.y - s.x");
    }

    @Test
    void aMillionInstantsAreThinnedWithoutLosingAPeak() {
        double[] times = new double[1_000_000];
        double[] values = new double[times.length];
        for (int i = 0; i < times.length; i++) {
            times[i] = i;
            values[i] = i == 777_777 ? 1e6 : i == 5 ? Double.NaN : Math.sin(i);
        }
        VerdictPlot thin =
                VerdictPlot.of(times, new VerdictPlot.Trace("x", "m", values)).thinned();
        assertThat(thin.times())
                .hasSizeLessThan(5000)
                .contains(0, 777_777, 999_999)
                .isSorted();
        assertThat(thin.traces().getFirst().values())
                .hasSameSizeAs(thin.times())
                .contains(1e6)
                .doesNotContain(Double.NaN);
    }
}
