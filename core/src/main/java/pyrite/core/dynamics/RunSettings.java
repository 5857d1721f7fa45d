package pyrite.core.dynamics;

import java.time.Duration;

/**
 * The settings of one run.
 *
 * @param start first instant, s
 * @param stop last instant, s, after {@code start}
 * @param interval distance of recorded instants, s
 * @param tolerance relative error allowed per step
 * @param budget how long the computation may take
 */
public record RunSettings(double start, double stop, double interval, double tolerance, Duration budget) {
    public static final Duration USUAL_BUDGET = Duration.ofMinutes(5);
    private static final int USUAL_INTERVALS = 500;
    private static final int MOST_INTERVALS = 1_000_000;

    public RunSettings {
        require(
                Double.isFinite(start) && Double.isFinite(stop) && stop > start,
                "a run ends after it starts, but stopTime is " + stop + " s and startTime " + start + " s");
        require(
                interval > 0 && interval <= stop - start,
                "the interval is more than nothing and at most the run's " + (stop - start) + " s, not " + interval
                        + " s");
        require(
                (stop - start) / interval <= MOST_INTERVALS,
                "an interval of " + interval + " s would record more than " + MOST_INTERVALS + " instants");
        require(tolerance >= 1e-12 && tolerance <= 1e-2, "the tolerance is between 1e-12 and 0.01, not " + tolerance);
    }

    private static void require(boolean holds, String message) {
        if (!holds) {
            throw new IllegalArgumentException(message);
        }
    }

    public static RunSettings of(double start, double stop) {
        return new RunSettings(start, stop, (stop - start) / USUAL_INTERVALS, 1e-6, USUAL_BUDGET);
    }

    public RunSettings withInterval(double newInterval) {
        return new RunSettings(start, stop, newInterval, tolerance, budget);
    }

    public RunSettings withTolerance(double newTolerance) {
        return new RunSettings(start, stop, interval, newTolerance, budget);
    }

    public RunSettings withBudget(Duration newBudget) {
        return new RunSettings(start, stop, interval, tolerance, newBudget);
    }
}
