package pyrite.core.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.history.Revision.Act;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

class UndoStackTest {
    private final List<Revision> revisions = new ArrayList<>();

    private void by(String author, Act act, int of) {
        revisions.add(new Revision(revisions.size() + 1, author, Instant.EPOCH, "", act, of));
    }

    private UndoStack of(String author) {
        return UndoStack.of(revisions, author);
    }

    @Test
    void nothingIsUndoneWhereNothingWasDone() {
        assertThat(of("ines").undo()).isEmpty();
        assertThat(of("ines").redo()).isEmpty();
    }

    @Test
    void undoingGoesBackThroughOnesOwnEdits() {
        by("ines", Act.EDIT, 0);
        by("odo", Act.EDIT, 0);
        by("ines", Act.EDIT, 0);
        assertThat(of("ines").undo()).isEqualTo(OptionalInt.of(3));
        by("ines", Act.UNDO, 3);
        assertThat(of("ines").undo()).isEqualTo(OptionalInt.of(1));
        assertThat(of("ines").redo()).isEqualTo(OptionalInt.of(3));
        assertThat(of("odo").undo()).isEqualTo(OptionalInt.of(2));
    }

    @Test
    void redoingBringsBackTheLastUndoneFirst() {
        by("ines", Act.EDIT, 0);
        by("ines", Act.EDIT, 0);
        by("ines", Act.UNDO, 2);
        by("ines", Act.UNDO, 1);
        assertThat(of("ines").redo()).isEqualTo(OptionalInt.of(1));
        by("ines", Act.REDO, 1);
        assertThat(of("ines").redo()).isEqualTo(OptionalInt.of(2));
        assertThat(of("ines").undo()).isEqualTo(OptionalInt.of(1));
    }

    @Test
    void aNewEditEndsWhatCanBeRedone() {
        by("ines", Act.EDIT, 0);
        by("ines", Act.UNDO, 1);
        by("ines", Act.EDIT, 0);
        assertThat(of("ines").redo()).isEmpty();
        assertThat(of("ines").undo()).isEqualTo(OptionalInt.of(3));
    }

    @Test
    void anEditIsOnlyTakenBackWhileItsElementsAreWhatItMadeThem() {
        Model before = Models.of("part a;");
        Element a = Models.element(before, "Test::a");
        EditResult.Applied renamed = (EditResult.Applied) before.apply(Edit.put(a.withName("b")));
        Difference back = renamed.difference().inverse();
        assertThat(Revert.on(renamed.model(), back, List.of())).isEqualTo(new Revert.Possible(Edit.put(a)));
        Model since = ((EditResult.Applied) renamed.model().apply(Edit.put(a.withName("c")))).model();
        assertThat(Revert.on(since, back, List.of())).isEqualTo(new Revert.Overtaken(List.of(a.id())));
    }
}
