package pyrite.app.workspace;

/** Something named by an address does not exist; the message says what. */
public final class NotFound extends RuntimeException {
    public NotFound(String message) {
        super(message);
    }
}
