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

    /** At the ends ranks stay short, however many there are. */
    @Test
    void aHundredThousandAtAnEndAreEightDigitsLong() {
        for (boolean atTheEnd : List.of(true, false)) {
            Rank last = Rank.between(null, null);
            for (int i = 0; i < 100_000; i++) {
                Rank next = atTheEnd ? Rank.between(last, null) : Rank.between(null, last);
                assertThat(next.compareTo(last) > 0).isEqualTo(atTheEnd);
                assertThat(next.digits()).hasSizeLessThanOrEqualTo(8);
                last = next;
            }
        }
    }

    /** Where the steps are used up, there is still a place. */
    @Test
    void theEndsHaveNoEnd() {
        for (String edge : List.of("zzzzzzzz", "zzzzzzzzz", "zzzzzzzzzzzzzzzzi", "y", "zz", "00000001", "000000001")) {
            Rank rank = new Rank(edge);
            assertThat(Rank.between(rank, null)).isGreaterThan(rank);
            assertThat(Rank.between(null, rank)).isLessThan(rank);
        }
    }

    @Property
    void manyBetweenTwoAreSpread(
            @ForAll @IntRange(min = 0, max = 2000) int count, @ForAll @IntRange(min = 0, max = 400) int depth) {
        Rank low = new Rank("a");
        Rank high = new Rank("b");
        for (int i = 0; i < depth; i++) {
            high = Rank.between(low, high);
        }
        List<Rank> ranks = Rank.between(low, high, count);
        assertThat(ranks).hasSize(count).isSorted().doesNotHaveDuplicates();
        if (count > 0) {
            assertThat(ranks.getFirst()).isGreaterThan(low);
            assertThat(ranks.getLast()).isLessThan(high);
            int longest = ranks.stream()
                    .mapToInt(rank -> rank.digits().length())
                    .max()
                    .orElseThrow();
            assertThat(longest).isLessThanOrEqualTo(high.digits().length() + 4);
        }
    }

    /** What older versions left behind: the new one comes behind both. */
    @Test
    void betweenTwoEqualOnesThereIsStillAPlace() {
        assertThat(Rank.between(new Rank("b"), new Rank("b"))).isGreaterThan(new Rank("b"));
    }

    @Test
    void ranksInTheWrongOrderHaveNothingBetweenThem() {
        assertThatThrownBy(() -> Rank.between(new Rank("b"), new Rank("a")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Rank("a0")).isInstanceOf(IllegalArgumentException.class);
    }
}
