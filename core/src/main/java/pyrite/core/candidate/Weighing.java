package pyrite.core.candidate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/**
 * The weighted sum of several candidates over several criteria (simple additive weighting: Hwang and Yoon, Multiple
 * Attribute Decision Making, 1981). A value counts by its place between the worst, 0, and the best, 1; a missing value
 * counts as the worst.
 *
 * @param scores of each candidate, 0 to 1; all 0 without weight
 * @param turns where another weight of a single criterion would put another candidate first
 */
public record Weighing(List<Double> scores, List<Turn> turns) {
    private static final double SAME = 1e-12;

    /**
     * @param values of each candidate; null where there is none
     * @param weight 0 or more
     * @param isMoreBetter else less is
     */
    public record Column(List<@Nullable Double> values, double weight, boolean isMoreBetter) {}

    /**
     * The nearest weight of a criterion at which another candidate is as good as the first.
     *
     * @param column the criterion by its place
     * @param isAbove whether the other is first above that weight, else below
     * @param candidate the other by its place
     */
    public record Turn(int column, double weight, boolean isAbove, int candidate) {}

    public Weighing {
        scores = List.copyOf(scores);
        turns = List.copyOf(turns);
    }

    /** The place of the best; empty without weight, or if several are equally good. */
    public OptionalInt best() {
        double most = scores.stream().mapToDouble(Double::doubleValue).max().orElse(0);
        List<Integer> first = new ArrayList<>();
        for (int i = 0; i < scores.size(); i++) {
            if (scores.get(i) >= most - SAME) {
                first.add(i);
            }
        }
        return most > 0 && first.size() == 1 ? OptionalInt.of(first.getFirst()) : OptionalInt.empty();
    }

    public static Weighing of(List<Column> columns, int candidates) {
        double[][] places =
                columns.stream().map(column -> places(column, candidates)).toArray(double[][]::new);
        double all = columns.stream().mapToDouble(Column::weight).sum();
        double[] sums = new double[candidates];
        for (int c = 0; c < places.length; c++) {
            for (int i = 0; i < candidates; i++) {
                sums[i] += columns.get(c).weight() * places[c][i];
            }
        }
        List<Double> scores =
                Arrays.stream(sums).mapToObj(sum -> all > 0 ? sum / all : 0).toList();
        Weighing weighed = new Weighing(scores, List.of());
        return weighed.best().isPresent()
                ? new Weighing(
                        scores, turns(columns, places, sums, weighed.best().getAsInt()))
                : weighed;
    }

    private static double[] places(Column column, int candidates) {
        double least = column.values().stream()
                .filter(Objects::nonNull)
                .mapToDouble(Double::doubleValue)
                .min()
                .orElse(0);
        double most = column.values().stream()
                .filter(Objects::nonNull)
                .mapToDouble(Double::doubleValue)
                .max()
                .orElse(0);
        double[] places = new double[candidates];
        for (int i = 0; i < candidates; i++) {
            Double value = column.values().get(i);
            if (value != null) {
                double place = most > least ? (value - least) / (most - least) : 1;
                places[i] = column.isMoreBetter() || most == least ? place : 1 - place;
            }
        }
        return places;
    }

    /** The sums are linear in each weight, so two candidates are equal at one weight at most. */
    private static List<Turn> turns(List<Column> columns, double[][] places, double[] sums, int best) {
        List<Turn> turns = new ArrayList<>();
        for (int c = 0; c < places.length; c++) {
            double weight = columns.get(c).weight();
            Turn below = null;
            Turn above = null;
            for (int i = 0; i < sums.length; i++) {
                double gain = places[c][i] - places[c][best];
                if (i == best || Math.abs(gain) < SAME) {
                    continue;
                }
                double at = weight + (sums[best] - sums[i]) / gain;
                if (at > weight && (above == null || at < above.weight())) {
                    above = new Turn(c, at, true, i);
                } else if (at < weight && at >= 0 && (below == null || at > below.weight())) {
                    below = new Turn(c, at, false, i);
                }
            }
            if (below != null) {
                turns.add(below);
            }
            if (above != null) {
                turns.add(above);
            }
        }
        return turns;
    }
}
