package pyrite.core.model;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** One element before and after: {@code before} is null if it is new, {@code after} is null if it is removed. */
public record ElementChange(
        @Nullable Element before, @Nullable Element after) {
    public ElementChange {
        if (before == null && after == null) {
            throw new IllegalArgumentException("a change has a before or an after");
        }
        if (before != null && after != null && !before.id().equals(after.id())) {
            throw new IllegalArgumentException("a change is of one element");
        }
    }

    public ElementId id() {
        return Objects.requireNonNullElse(after, before).id();
    }

    public boolean isEmpty() {
        return Objects.equals(before, after);
    }

    public ElementChange inverse() {
        return new ElementChange(after, before);
    }
}
