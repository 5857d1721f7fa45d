package pyrite.core.model;

import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The elements visited by a walk. There are usually few, so linear search is faster than a hash set. */
final class Visited {
    private static final int FEW = 16;

    private ElementId[] few = new ElementId[4];
    private int count;
    private @Nullable Set<ElementId> many;

    /** Whether it was not there before. */
    boolean add(ElementId id) {
        if (many != null) {
            return many.add(id);
        }
        if (contains(id)) {
            return false;
        }
        if (count < FEW) {
            few = count < few.length ? few : Arrays.copyOf(few, FEW);
            few[count++] = id;
            return true;
        }
        Set<ElementId> all = new HashSet<>(Set.of(few));
        many = all;
        return all.add(id);
    }

    boolean contains(ElementId id) {
        if (many != null) {
            return many.contains(id);
        }
        for (int i = 0; i < count; i++) {
            if (few[i].equals(id)) {
                return true;
            }
        }
        return false;
    }
}
