package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class DecimationTest {
    private static final double ALWAYS = Double.POSITIVE_INFINITY;

    private static double[] ramp(int count) {
        return IntStream.range(0, count).mapToDouble(i -> i).toArray();
    }

    @Test
    void aPeakOfOneInstantAmongAHundredThousandIsKept() {
        double[] flat = new double[100_000];
        flat[54_321] = 1;
        int[] kept = Decimation.indices(ramp(flat.length), List.of(flat), -ALWAYS, ALWAYS, 500);
        assertThat(kept).contains(54_321).hasSizeLessThanOrEqualTo(2 * 500 + 2);
    }

    @Test
    void whatIsFewIsKeptWhole() {
        assertThat(Decimation.indices(ramp(7), List.of(ramp(7)), -ALWAYS, ALWAYS, 100))
                .containsExactly(0, 1, 2, 3, 4, 5, 6);
    }

    @Test
    void outsideOfWhatIsLookedAtOnlyTheNextOnEitherSideIsKept() {
        assertThat(Decimation.indices(ramp(100), List.of(ramp(100)), 40.5, 42, 1000))
                .containsExactly(40, 41, 42, 43);
        assertThat(Decimation.indices(ramp(100), List.of(ramp(100)), 200, 300, 1000))
                .containsExactly(99);
        assertThat(Decimation.indices(new double[0], List.of(), 0, 1, 10)).isEmpty();
    }

    @Test
    void lessThanOneSliceIsRefused() {
        assertThatThrownBy(() -> Decimation.indices(ramp(3), List.of(), 0, 1, 0))
                .hasMessageContaining("at least one slice");
    }

    @Property
    void theExtremesOfEverySeriesAreKept(
            @ForAll @Size(min = 1, max = 400) List<@DoubleRange(min = -5, max = 5) Double> values,
            @ForAll @IntRange(min = 1, max = 40) int slices) {
        double[] column = values.stream().mapToDouble(Double::doubleValue).toArray();
        double[] shown = Arrays.stream(
                        Decimation.indices(ramp(column.length), List.of(column), -ALWAYS, ALWAYS, slices))
                .mapToDouble(i -> column[i])
                .toArray();
        assertThat(Arrays.stream(shown).max()).isEqualTo(Arrays.stream(column).max());
        assertThat(Arrays.stream(shown).min()).isEqualTo(Arrays.stream(column).min());
        assertThat(shown[shown.length - 1]).isEqualTo(column[column.length - 1]);
        assertThat(shown.length).isLessThanOrEqualTo(2 * slices + 2);
    }
}
