package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.TDistribution;
import org.junit.jupiter.api.Test;

/**
 * Queues whose means are known (Gross and Harris: Fundamentals of Queueing Theory, chapters 2 and 5): each stands in
 * the confidence interval of independent runs, which is narrow enough to tell a wrong one.
 */
class QueuesTest {
    private static final int RUNS = 20;
    private static final double WARM_UP = 500;
    private static final double STOP = 8_000;

    private static String station(String capacity, String service) {
        return """
            part def Station :> Pool { attribute :>> capacity = %s; }
            part p { part server : Station;
                perform action visit { first start; then merge again;
                    then action gap : TimedAction { attribute :>> duration = exponential(1 [s]); }
                    then fork both; then serve; then again;
                    action serve : TimedAction { attribute :>> duration = %s;
                        item :>> claims : Claim { ref part :>> pool = server; } } } }
            """.formatted(capacity, service);
    }

    private static void meanIs(double expected, String model, ToDoubleFunction<Played> of) {
        double[] means = IntStream.rangeClosed(1, RUNS)
                .parallel()
                .mapToDouble(seed -> of.applyAsDouble(Played.of(model, STOP, seed)))
                .toArray();
        double mean = Arrays.stream(means).average().orElseThrow();
        double variance =
                Arrays.stream(means).map(each -> (each - mean) * (each - mean)).sum() / (RUNS - 1);
        double half = new TDistribution(RUNS - 1).inverseCumulativeProbability(0.995) * Math.sqrt(variance / RUNS);
        assertThat(mean).isBetween(expected - half, expected + half);
        assertThat(half).as("half of the confidence interval").isLessThan(0.15 * expected);
    }

    @Test
    void oneServer() {
        // M/M/1 with a load of 0.8: 0.8^2 / (1 - 0.8) wait.
        String model = station("1", "exponential(0.8 [s])");
        meanIs(3.2, model, played -> played.mean("queue(p.server)", WARM_UP, STOP));
        meanIs(0.8, model, played -> played.mean("used(p.server)", WARM_UP, STOP));
    }

    @Test
    void severalServers() {
        // M/M/3 with an offered load of 2.4: Erlang C is 0.6472, and 0.6472 * 0.8 / 0.2 wait.
        meanIs(2.5888, station("3", "exponential(2.4 [s])"), played -> played.mean("queue(p.server)", WARM_UP, STOP));
    }

    @Test
    void aConstantTimeOfService() {
        // M/D/1 with a load of 0.8: half of what waits in M/M/1 (Pollaczek and Khinchine).
        meanIs(1.6, station("1", "0.8 [s]"), played -> played.mean("queue(p.server)", WARM_UP, STOP));
    }
}
