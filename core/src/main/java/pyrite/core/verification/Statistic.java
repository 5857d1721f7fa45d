package pyrite.core.verification;

import java.util.Arrays;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * How something came out over several replications.
 *
 * @param what in words
 * @param unit of all numbers; empty for plain ones
 * @param low the lower end of the 95 % confidence interval of the mean, by Student's distribution
 * @param median half of the replications stay below it
 * @param p5 a twentieth stays below it
 */
public record Statistic(
        String what,
        String unit,
        int runs,
        double mean,
        double low,
        double high,
        double p5,
        double median,
        double p95) {
    private static final double CONFIDENCE = 0.95;

    static Statistic of(String what, String unit, double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        double mean = Arrays.stream(values).average().orElse(Double.NaN);
        double squares = Arrays.stream(values)
                .map(value -> (value - mean) * (value - mean))
                .sum();
        double half = values.length < 2
                ? Double.NaN
                : new TDistribution(values.length - 1).inverseCumulativeProbability((1 + CONFIDENCE) / 2)
                        * Math.sqrt(squares / (values.length - 1) / values.length);
        return new Statistic(
                what,
                unit,
                values.length,
                mean,
                mean - half,
                mean + half,
                quantile(sorted, 0.05),
                quantile(sorted, 0.5),
                quantile(sorted, 0.95));
    }

    /** Between the nearest two (Hyndman and Fan 1996, definition 7). */
    private static double quantile(double[] sorted, double share) {
        if (sorted.length == 0) {
            return Double.NaN;
        }
        double place = share * (sorted.length - 1);
        int below = (int) Math.floor(place);
        int above = Math.min(below + 1, sorted.length - 1);
        return sorted[below] + (place - below) * (sorted[above] - sorted[below]);
    }
}
