package pyrite.core.model;

import org.jspecify.annotations.Nullable;

/**
 * An index {@link Model#derived derived} from a snapshot that can be updated for the next snapshot from the difference
 * alone.
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
