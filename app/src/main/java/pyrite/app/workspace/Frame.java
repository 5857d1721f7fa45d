package pyrite.app.workspace;

import org.jspecify.annotations.Nullable;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.core.history.UndoStack;
import pyrite.core.model.Element;
import pyrite.core.sequence.Sequence;

/**
 * The content of the frame around every page.
 *
 * @param read the revision being read; null if the page shows the newest
 */
public record Frame(
        Workspace.Head head,
        Person person,
        Station station,
        String title,
        boolean canUndo,
        boolean canRedo,
        BranchStore.@Nullable Entry read) {

    static Frame of(Workspace workspace, Workspace.Head head, Person person, Station station, String title) {
        UndoStack stack = workspace.undoStack(head.branch(), person);
        return new Frame(
                head,
                person,
                station,
                title,
                stack.undo().isPresent(),
                stack.redo().isPresent(),
                head.past() ? workspace.revision(head).orElse(null) : null);
    }

    /** The address of a page of this branch, at the revision that is being read. */
    public String at(String rest) {
        return head.address(rest);
    }

    public Station[] stations() {
        return Station.values();
    }

    /** Whether an element is a recording, which has a sequence. */
    public boolean isRecording(Element element) {
        return Sequence.isRecording(head.model(), element);
    }

    public boolean mayEdit() {
        return person.mayEdit() && !head.past();
    }
}
