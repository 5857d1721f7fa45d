package pyrite.core.candidate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

/** Weighted sums worked out by hand, and turning points against trying the weights. */
class WeighingTest {
    private static Weighing.Column column(double weight, boolean isMoreBetter, Double... values) {
        return new Weighing.Column(Arrays.asList(values), weight, isMoreBetter);
    }

    @Test
    void scoresAreTheWeightedPlacesBetweenWorstAndBest() {
        // Mass 80, 90, 100: places 1, 0.5, 0. Price 300, 100, 200: places 0, 1, 0.5.
        Weighing weighing =
                Weighing.of(List.of(column(3, false, 80.0, 90.0, 100.0), column(1, false, 300.0, 100.0, 200.0)), 3);
        assertThat(weighing.scores()).containsExactly(0.75, 0.625, 0.125);
        assertThat(weighing.best()).hasValue(0);
        // 3 + 0 p = 1.5 + p at p = 1.5; m + 0 = m / 2 + 1 at m = 2.
        assertThat(weighing.turns())
                .containsExactly(new Weighing.Turn(0, 2, false, 1), new Weighing.Turn(1, 1.5, true, 1));
    }

    @Test
    void moreCanBeBetterAndWhatIsMissingIsTheWorst() {
        assertThat(Weighing.of(List.of(column(2, true, 5.0, 10.0, null)), 3).scores())
                .containsExactly(0.0, 1.0, 0.0);
        assertThat(Weighing.of(List.of(column(2, true, 7.0, 7.0)), 2).scores()).containsExactly(1.0, 1.0);
    }

    @Test
    void withoutWeightNobodyIsFirst() {
        assertThat(Weighing.of(List.of(column(0, false, 1.0, 2.0)), 2).best()).isEmpty();
        assertThat(Weighing.of(List.of(), 2).scores()).containsExactly(0.0, 0.0);
    }

    /** Just before a turning point the first is first; just behind it somebody else is. */
    @Property(tries = 500)
    void anotherWeightPutsAnotherFirstWhereItSays(@ForAll long seed) {
        Random random = new Random(seed);
        int candidates = 2 + random.nextInt(4);
        List<Weighing.Column> columns = Stream.generate(() -> column(
                        random.nextInt(6),
                        random.nextBoolean(),
                        Stream.generate(() -> (double) random.nextInt(20))
                                .limit(candidates)
                                .toArray(Double[]::new)))
                .limit(1 + random.nextInt(4))
                .toList();
        Weighing weighing = Weighing.of(columns, candidates);
        if (weighing.best().isEmpty()) {
            return;
        }
        int best = weighing.best().getAsInt();
        for (int c = 0; c < columns.size(); c++) {
            int column = c;
            for (double weight = 0; weight < 12; weight += 0.37) {
                double tried = weight;
                boolean isTurned = weighing.turns().stream()
                        .anyMatch(turn -> turn.column() == column
                                && (turn.isAbove() ? tried > turn.weight() + 1e-9 : tried < turn.weight() - 1e-9));
                boolean isAtTurn = weighing.turns().stream()
                        .anyMatch(turn -> turn.column() == column && Math.abs(tried - turn.weight()) <= 1e-9);
                if (!isAtTurn) {
                    double[] sums = sums(columns, column, tried, candidates);
                    double most = Arrays.stream(sums).max().orElseThrow();
                    assertThat(sums[best] < most - 1e-9).isEqualTo(isTurned);
                }
            }
        }
        assertThat(weighing.scores().get(best))
                .isCloseTo(weighing.scores().stream().max(Double::compare).orElseThrow(), within(1e-12));
    }

    /** By the definition, straight. */
    private static double[] sums(List<Weighing.Column> columns, int changed, double weight, int candidates) {
        double[] sums = new double[candidates];
        for (int c = 0; c < columns.size(); c++) {
            List<Double> values =
                    columns.get(c).values().stream().map(v -> (Double) v).toList();
            double least = values.stream().min(Double::compare).orElseThrow();
            double most = values.stream().max(Double::compare).orElseThrow();
            for (int i = 0; i < candidates; i++) {
                double place = most == least
                        ? 1
                        : columns.get(c).isMoreBetter()
                                ? (values.get(i) - least) / (most - least)
                                : (most - values.get(i)) / (most - least);
                sums[i] += (c == changed ? weight : columns.get(c).weight()) * place;
            }
        }
        return sums;
    }
}
