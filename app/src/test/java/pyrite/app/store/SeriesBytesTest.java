package pyrite.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** A stored series comes back bit by bit. */
class SeriesBytesTest {
    private static void comesBack(double... values) {
        assertThat(SeriesBytes.unpack(SeriesBytes.pack(values))).containsExactly(values);
    }

    @Test
    void whatIsPackedComesBackExactly() {
        comesBack();
        comesBack(0.1);
        comesBack(
                -0.0,
                0.0,
                Double.MIN_VALUE,
                Double.MAX_VALUE,
                Double.NaN,
                Double.POSITIVE_INFINITY,
                Double.NEGATIVE_INFINITY);
        comesBack(new Random(7).doubles(10_000).toArray());
    }

    @Test
    void lengthsAroundTheBuffersEdgeAreReadWhole() {
        IntStream.rangeClosed(1020, 1030)
                .forEach(length -> comesBack(new Random(length).doubles(length).toArray()));
    }

    @Test
    void aSteadySeriesTakesLittleRoom() {
        double[] steady = new double[10_000];
        Arrays.fill(steady, 4.6);
        assertThat(SeriesBytes.pack(steady).length).isLessThan(2_000);
    }

    @Test
    void damagedBytesAreRefused() {
        byte[] packed = SeriesBytes.pack(new Random(1).doubles(100).toArray());
        assertThatThrownBy(() -> SeriesBytes.unpack(Arrays.copyOf(packed, packed.length / 2)))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("ends too early");
        assertThatThrownBy(() -> SeriesBytes.unpack(new byte[] {1, 2, 3, 4}))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("damaged");
    }
}
