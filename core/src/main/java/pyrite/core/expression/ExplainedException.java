package pyrite.core.expression;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** An exception that always has a message, written for the engineer whose model or input it is about. */
public abstract class ExplainedException extends RuntimeException {
    protected ExplainedException(String message) {
        super(message);
    }

    /** For exceptions that steer a computation and are thrown often: no stack trace is collected. */
    protected ExplainedException(String message, @Nullable Throwable cause, boolean suppression, boolean stackTrace) {
        super(message, cause, suppression, stackTrace);
    }

    @Override
    public final String getMessage() {
        return Objects.requireNonNull(super.getMessage());
    }
}
