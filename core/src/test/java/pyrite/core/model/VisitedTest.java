package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;

class VisitedTest {
    /** With up to sixty elements it is few, sixteen and many in turn. */
    @Property(tries = 300)
    void itAnswersAsAnySetDoes(@ForAll @Size(max = 120) List<@IntRange(max = 60) Integer> walk) {
        Visited visited = new Visited();
        Set<ElementId> expected = new HashSet<>();
        for (int place : walk) {
            ElementId id = new ElementId(place * 31L, place % 7);
            assertThat(visited.contains(id)).isEqualTo(expected.contains(id));
            assertThat(visited.add(new ElementId(place * 31L, place % 7))).isEqualTo(expected.add(id));
        }
        expected.forEach(id -> assertThat(visited.contains(id)).isTrue());
    }
}
