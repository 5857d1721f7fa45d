package pyrite.app.workspace;

/** Somebody wants more at once than one person may have; the message says what and how much. */
public final class TooMany extends RuntimeException {
    public TooMany(String message) {
        super(message);
    }
}
