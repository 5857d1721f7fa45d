package pyrite.cli;

/** Something the caller got wrong: a file that is not there, a case that does not exist. */
final class UsageFault extends RuntimeException {
    UsageFault(String message) {
        super(message);
    }
}
