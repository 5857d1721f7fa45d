package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class RankTest {
    /** Inserting anywhere, again and again, always finds a place strictly between the neighbours. */
    @Property
    void thereIsAlwaysAPlaceBetween(@ForAll @Size(max = 200) List<@IntRange(min = 0, max = 1_000_000) Integer> places) {
        List<Rank> ranks = new ArrayList<>();
        for (int place : places) {
            int at = place % (ranks.size() + 1);
            Rank before = at == 0 ? null : ranks.get(at - 1);
            Rank after = at == ranks.size() ? null : ranks.get(at);
            ranks.add(at, Rank.between(before, after));
        }
        assertThat(ranks).isSorted().doesNotHaveDuplicates();
    }

    @Property
    void spreadRanksAscendAfterTheGivenOne(@ForAll @IntRange(min = 0, max = 500) int count) {
        assertThat(Rank.after(null, count)).hasSize(count).isSorted().doesNotHaveDuplicates();
        assertThat(Rank.after(new Rank("i"), count))
                .hasSize(count)
                .allMatch(rank -> rank.compareTo(new Rank("i")) > 0)
                .isSorted();
    }

    @Test
    void ranksInTheWrongOrderHaveNothingBetweenThem() {
        assertThatThrownBy(() -> Rank.between(new Rank("b"), new Rank("a")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Rank("a0")).isInstanceOf(IllegalArgumentException.class);
    }
}
