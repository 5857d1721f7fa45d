package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.execution.EventLog.Kind;

/** What is drawn at random: moments that are known, and runs that repeat. */
class RandomTest {
    private static final int DRAWN = 20_000;

    /** Mean and deviation of each distribution (Johnson, Kotz and Balakrishnan), and of the tables by hand. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            uniform(2, 6)                        | 4      | 1.1547
            triangular(0, 3, 6)                  | 3      | 1.2247
            normal(5, 2)                         | 5      | 2
            truncatedNormal(0, 1, -1, 1)         | 0      | 0.5396
            lognormal(3, 1)                      | 3      | 1
            exponential(4)                       | 4      | 4
            erlang(4, 2)                         | 2      | 1
            gamma(2.5, 2)                        | 5      | 3.1623
            weibull(2, 3)                        | 2.6587 | 1.3898
            beta(2, 3)                           | 0.4    | 0.2
            pert(0, 3, 6)                        | 3      | 1.1339
            poisson(7)                           | 7      | 2.6458
            binomial(10, 0.3)                    | 3      | 1.4491
            discrete((1, 2, 6), (0.5, 0.25, 0.25)) | 2.5  | 2.0616
            empirical((0, 2, 4), (0, 0.5, 1))    | 2      | 1.1547
            """)
    void whatIsDrawnHasItsMeanAndDeviation(String draw, double mean, double deviation) {
        Played played = Played.of("""
                part p { attribute x : Real := 0; perform action w { first start;
                    then loop { first start; then assign x := %s; then accept after 1 [s]; then done; } then done; } }
                """.formatted(draw), DRAWN);
        int x = played.index("p.x");
        double[] drawn = java.util.stream.IntStream.range(0, DRAWN)
                .mapToDouble(i -> played.trajectory().at(i + 0.5, false)[x])
                .toArray();
        double found = DoubleStream.of(drawn).average().orElseThrow();
        double spread = Math.sqrt(DoubleStream.of(drawn)
                        .map(each -> (each - found) * (each - found))
                        .sum()
                / (DRAWN - 1));
        // Four standard errors of the mean; the deviation of the longest tail here varies by some per cent.
        assertThat(found).isBetween(mean - 4 * deviation / Math.sqrt(DRAWN), mean + 4 * deviation / Math.sqrt(DRAWN));
        assertThat(spread).isBetween(deviation * 0.95, deviation * 1.05);
    }

    private static String line(String more) {
        return """
            part p { perform action w { first start; then loop { first start;
                then action a : TimedAction { attribute :>> duration = exponential(2 [s]); }
                then action b : TimedAction { attribute :>> duration = uniform(1 [s], 3 [s]); } then done; } then done; } %s }
            """.formatted(more);
    }

    @Test
    void aSeedMakesARunRepeatAndAnotherDoesNot() {
        List<String> first = Played.of(line(""), 200, 7).lines();
        assertThat(Played.of(line(""), 200, 7).lines()).isEqualTo(first);
        assertThat(Played.of(line(""), 200, 8).lines()).isNotEqualTo(first);
    }

    @Test
    void anotherPlaceThatDrawsLeavesTheOthersAsTheyWere() {
        String other =
                "perform action v { first start; then loop { first start; then action c : TimedAction { attribute :>> "
                        + "duration = exponential(1 [s]); } then done; } then done; }";
        List<String> alone = Played.of(line(""), 200).lines(Kind.STARTED);
        assertThat(Played.of(line(other), 200).lines(Kind.STARTED).stream()
                        .filter(each -> each.contains("p.w"))
                        .toList())
                .isEqualTo(alone);
    }

    @Test
    void aBranchIsTakenWithItsShare() {
        Played played = Played.of("""
                part p { attribute yes : Real := 0; attribute no : Real := 0; perform action w { first start;
                    then merge again; then action a accept after 1 [s];
                    then decide; if chance(0.3) then y; else n;
                    action y assign yes := yes + 1; then again; action n assign no := no + 1; then again; } }
                """, 10_000);
        // A binomial share of 0.3 in 10,000: within four deviations of 0.00458.
        assertThat(played.at("p.yes", 10_000) / 10_000).isBetween(0.2817, 0.3183);
    }

    @Test
    void anAttributeIsDrawnOnceForARun() {
        Played played = Played.of(
                "part p { attribute mass : Real = normal(10, 1); attribute double1 : Real = 2 * mass; perform action w; }",
                10);
        assertThat(played.at("p.double1", 5))
                .isEqualTo(2 * played.at("p.mass", 5))
                .isBetween(10.0, 30.0);
        assertThat(played.at("p.mass", 9)).isEqualTo(played.at("p.mass", 1));
    }
}
