package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.workspace.Workspace;
import pyrite.app.workspace.Workspace.Commit;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** The store and the commits to it, on a real database with the demo in it. */
class WorkspaceTest {
    private Merrow merrow;
    private Workspace workspace;
    private Person ines;
    private Person odo;

    @BeforeEach
    void start() {
        merrow = new Merrow();
        take();
    }

    @AfterEach
    void stop() {
        merrow.close();
    }

    private void take() {
        workspace = merrow.workspace();
        ines = merrow.person("ines");
        odo = merrow.person("odo");
    }

    private void restart() {
        merrow.restart();
        take();
    }

    private static String text(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    private Commit rename(String from, String to, int base, Person author) {
        return workspace.commit(merrow.branch(), base, Edit.put(merrow.named(from).withName(to)), author, from + " → " + to);
    }

    @Test
    void everythingIsThereAfterARestart() {
        rename("basin", "harbour", 1, ines);
        workspace.commit(merrow.branch(), 2, Edit.remove(merrow.named("tideRun").id()), ines, "gone");
        Model before = merrow.head().model();
        restart();
        assertThat(merrow.head().number()).isEqualTo(3);
        assertThat(Set.copyOf(merrow.head().model().ownElements())).isEqualTo(Set.copyOf(before.ownElements()));
        assertThat(text(merrow.head().model())).isEqualTo(text(before)).contains("part harbour : Basin;");
    }

    @Test
    void undoAndRedoAreRevisionsOfTheirOwn() {
        String before = text(merrow.head().model());
        rename("basin", "harbour", 1, ines);
        String after = text(merrow.head().model());
        assertThat(workspace.undo(merrow.branch(), ines)).isInstanceOf(Commit.Saved.class);
        assertThat(text(merrow.head().model())).isEqualTo(before);
        assertThat(workspace.redo(merrow.branch(), ines)).isInstanceOf(Commit.Saved.class);
        assertThat(text(merrow.head().model())).isEqualTo(after);
        assertThat(merrow.bean(BranchStore.class).revisions(merrow.branch(), 100, 100)).extracting(e -> e.revision().summary())
                .startsWith("redone: basin → harbour", "undone: basin → harbour", "basin → harbour");
    }

    @Test
    void nobodyUndoesTheEditsOfOthers() {
        rename("basin", "harbour", 1, ines);
        assertThat(workspace.undo(merrow.branch(), merrow.person("admin")))
                .isInstanceOf(Commit.Nothing.class);
        assertThat(text(merrow.head().model())).contains("part harbour");
    }

    @Test
    void anEditOnAnOldRevisionCountsUnlessItTouchesWhatMovedSince() {
        rename("basin", "harbour", 1, ines);
        assertThat(rename("sea", "ocean", 1, odo)).isInstanceOf(Commit.Saved.class);
        Element old = merrow.named("harbour").withName("pond");
        assertThat(workspace.commit(merrow.branch(), 1, Edit.put(old), odo, "late")).isInstanceOfSatisfying(Commit.Overtaken.class,
                overtaken -> assertThat(overtaken.elements()).containsExactly(old.id()));
        assertThat(merrow.head().number()).isEqualTo(3);
    }

    @Test
    void anUndoThatOthersHaveOvertakenIsRefusedWithTheElement() {
        rename("basin", "harbour", 1, ines);
        rename("harbour", "pond", 2, odo);
        assertThat(workspace.undo(merrow.branch(), ines)).isInstanceOf(Commit.Overtaken.class);
    }

    @Test
    void aFaultyEditChangesNothing() {
        String before = text(merrow.head().model());
        assertThat(rename("basin", "sea", 1, ines)).isInstanceOfSatisfying(Commit.Refused.class,
                refused -> assertThat(refused.problems().getFirst().message()).contains("already taken"));
        assertThat(text(merrow.head().model())).isEqualTo(before);
        assertThat(merrow.head().number()).isEqualTo(1);
    }

    @Test
    void manyWritersAtOnceLoseNothing() throws Exception {
        Element owner = merrow.named("MerrowGate");
        try (ExecutorService writers = Executors.newFixedThreadPool(4)) {
            List<Callable<Commit>> tasks = IntStream.range(0, 40).<Callable<Commit>>mapToObj(i -> () ->
                    workspace.commit(merrow.branch(), 1, Edit.put(Element.of(ElementKind.PART, owner.id(),
                            merrow.head().model().rankAtEnd(owner.id()), "extra" + i)), ines, "extra " + i)).toList();
            for (var task : writers.invokeAll(tasks)) {
                assertThat(task.get()).isInstanceOf(Commit.Saved.class);
            }
        }
        assertThat(merrow.head().number()).isEqualTo(41);
        restart();
        assertThat(merrow.head().model().ownElements().stream().filter(e -> e.name() != null && e.name().startsWith("extra"))).hasSize(40);
    }
}
