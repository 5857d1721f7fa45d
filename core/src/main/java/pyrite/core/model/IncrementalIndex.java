package pyrite.core.model;

import org.jspecify.annotations.Nullable;

/**
 * Something {@link Model#derived derived} from a snapshot that need not be made anew for the next one, because it knows
 * what an edit does to it.
 */
public interface IncrementalIndex {
    /**
     * The same of the next snapshot, for no more than what the edit changes; null if it is easier made anew when
     * somebody asks.
     *
     * @param difference what changed from the snapshot this was derived from
     */
    @Nullable
    IncrementalIndex after(Model next, Difference difference);
}
