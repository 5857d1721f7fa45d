package pyrite.app.workspace;

/** What an address names does not exist; the message says what. */
public final class NotFound extends RuntimeException {
    public NotFound(String message) {
        super(message);
    }
}
