package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Rank;

/** Ranks for siblings of which some keep their own. */
final class Ranks {
    private Ranks() {}

    /**
     * Of the ranks given, those of a longest rising subsequence (Fredman 1975, by patience sorting in n log n); null in
     * the place of all others. What keeps its order keeps its rank, so a move touches what moved and nothing else.
     */
    static List<@Nullable Rank> longestRising(List<@Nullable Rank> ranks) {
        int[] tails = new int[ranks.size()];
        int[] before = new int[ranks.size()];
        int length = 0;
        for (int i = 0; i < ranks.size(); i++) {
            Rank rank = ranks.get(i);
            if (rank == null) {
                continue;
            }
            int low = 0;
            int high = length;
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (ranks.get(tails[middle]).compareTo(rank) < 0) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            before[i] = low == 0 ? -1 : tails[low - 1];
            tails[low] = i;
            length = Math.max(length, low + 1);
        }
        @Nullable Rank[] kept = new Rank[ranks.size()];
        for (int i = length == 0 ? -1 : tails[length - 1]; i >= 0; i = before[i]) {
            kept[i] = ranks.get(i);
        }
        return Arrays.asList(kept);
    }

    /**
     * The ranks given, and new ones where there are none, all in rising order and before {@code end}, if that is given.
     */
    static List<Rank> between(List<@Nullable Rank> kept, @Nullable Rank end) {
        List<Rank> ranks = new ArrayList<>();
        Rank last = null;
        while (ranks.size() < kept.size()) {
            int from = ranks.size();
            int to = from;
            while (to < kept.size() && kept.get(to) == null) {
                to++;
            }
            Rank next = to < kept.size() ? kept.get(to) : end;
            ranks.addAll(Rank.between(last, next, to - from));
            if (to < kept.size()) {
                ranks.add(Objects.requireNonNull(kept.get(to)));
            }
            last = ranks.getLast();
        }
        return ranks;
    }
}
