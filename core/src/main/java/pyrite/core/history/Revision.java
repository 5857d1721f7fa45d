package pyrite.core.history;

import java.time.Instant;

/**
 * One step of a branch.
 *
 * @param number counts from 1 on each branch
 * @param act an edit, or the undoing or redoing of the edit with number {@code of}
 */
public record Revision(int number, String author, Instant at, String summary, Act act, int of) {
    /** The act that created a revision. */
    public enum Act {
        EDIT,
        UNDO,
        REDO
    }

    /** How people name a revision: {@code r128}. */
    public String label() {
        return "r" + number;
    }
}
