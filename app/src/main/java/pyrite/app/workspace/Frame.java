package pyrite.app.workspace;

import pyrite.app.store.Person;
import pyrite.core.history.UndoStack;

/** What the frame around every page shows. */
public record Frame(Workspace.Head head, Person person, Station station, String title, boolean canUndo, boolean canRedo) {

    static Frame of(Workspace workspace, Workspace.Head head, Person person, Station station, String title) {
        UndoStack stack = workspace.undoStack(head.branch(), person);
        return new Frame(head, person, station, title, stack.undo().isPresent(), stack.redo().isPresent());
    }

    /** The address of a page of this branch: {@code /p/merrow/main/} and the rest. */
    public String at(String rest) {
        return head.branch().address() + "/" + rest;
    }

    public Station[] stations() {
        return Station.values();
    }

    public boolean mayEdit() {
        return person.mayEdit();
    }
}
