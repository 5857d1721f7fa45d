package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;

class SnapshotMapTest {
    /** Against a plain hash map; every earlier snapshot still holds what it held. */
    @Property(tries = 200)
    void holdsWhatAHashMapHoldsAndEarlierSnapshotsStay(
            @ForAll @Size(max = 30) List<@Size(max = 60) List<@IntRange(max = 899) Integer>> edits) {
        SnapshotMap<Integer> map = SnapshotMap.empty();
        Map<ElementId, Integer> expected = new HashMap<>();
        List<Map<ElementId, Integer>> before = new ArrayList<>();
        List<SnapshotMap<Integer>> snapshots = new ArrayList<>();
        for (List<Integer> edit : edits) {
            map = map.with(
                    edit.size(),
                    each -> edit.forEach(step -> each.accept(new ElementId(0, step % 300), step < 300 ? null : step)));
            edit.forEach(step -> {
                if (step < 300) {
                    expected.remove(new ElementId(0, step));
                } else {
                    expected.put(new ElementId(0, step % 300), step);
                }
            });
            before.add(Map.copyOf(expected));
            snapshots.add(map);
        }
        for (int i = 0; i < snapshots.size(); i++) {
            assertHolds(snapshots.get(i), before.get(i));
        }
    }

    private static void assertHolds(SnapshotMap<Integer> map, Map<ElementId, Integer> expected) {
        assertThat(map.size()).isEqualTo(expected.size());
        assertThat(map.values()).containsExactlyInAnyOrderElementsOf(expected.values());
        for (int key = 0; key < 300; key++) {
            ElementId id = new ElementId(0, key);
            assertThat(map.get(id)).isEqualTo(expected.get(id));
        }
    }

    @Property(tries = 200)
    void manyIdsAreASet(@ForAll @Size(max = 20) List<@Size(max = 40) List<@IntRange(max = 99) Integer>> edits) {
        Set<ElementId> ids = Set.of();
        Set<ElementId> expected = new HashSet<>();
        for (List<Integer> edit : edits) {
            List<ElementId> added = edit.stream()
                    .filter(n -> n % 2 == 0)
                    .map(n -> new ElementId(1, n / 2))
                    .toList();
            List<ElementId> removed = edit.stream()
                    .filter(n -> n % 2 == 1)
                    .map(n -> new ElementId(1, n / 2))
                    .toList();
            ids = SnapshotIdSet.after(ids, removed, added);
            removed.forEach(expected::remove);
            expected.addAll(added);
            assertThat(ids).isEqualTo(expected);
        }
    }
}
