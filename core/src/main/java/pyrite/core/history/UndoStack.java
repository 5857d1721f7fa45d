package pyrite.core.history;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.OptionalInt;

/**
 * What one person can undo and redo on a branch, computed from its revisions alone: an undo is a revision too, so no
 * other state is kept. A new edit ends what can be redone. Linear in the number of revisions.
 */
public final class UndoStack {
    private final Deque<Integer> undoable = new ArrayDeque<>();
    private final Deque<Integer> redoable = new ArrayDeque<>();

    private UndoStack() {}

    /** @param revisions of one branch, oldest first */
    public static UndoStack of(List<Revision> revisions, String author) {
        UndoStack stack = new UndoStack();
        revisions.stream().filter(revision -> revision.author().equals(author)).forEach(stack::take);
        return stack;
    }

    private void take(Revision revision) {
        switch (revision.act()) {
            case EDIT -> {
                undoable.push(revision.number());
                redoable.clear();
            }
            case UNDO -> {
                undoable.remove(revision.of());
                redoable.push(revision.of());
            }
            case REDO -> {
                redoable.remove(revision.of());
                undoable.push(revision.of());
            }
        }
    }

    /** The number of the edit that undoing would take back. */
    public OptionalInt undo() {
        return undoable.isEmpty() ? OptionalInt.empty() : OptionalInt.of(undoable.peek());
    }

    /** The number of the undone edit that redoing would bring back. */
    public OptionalInt redo() {
        return redoable.isEmpty() ? OptionalInt.empty() : OptionalInt.of(redoable.peek());
    }
}
