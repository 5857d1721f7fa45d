package pyrite.cli;

/** A mistake of the caller: a missing file, an unknown case. */
final class UsageFault extends RuntimeException {
    UsageFault(String message) {
        super(message);
    }
}
