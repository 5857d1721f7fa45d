package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.app.store.BranchStore;
import pyrite.app.store.CheckpointMapper;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Workspace;
import pyrite.app.workspace.Workspace.Commit;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.Source;

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
        return workspace.commit(
                merrow.branch(), base, Edit.put(merrow.named(from).withName(to)), author, from + " → " + to);
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

    /**
     * Thousands of elements added at once make a checkpoint; what is edited, removed and brought back after it counts
     * all the same.
     */
    @Test
    void aLargeBranchIsLoadedFromItsCheckpointAndWhatChangedSince() {
        addValues(6000);
        restart();
        assertThat(merrow.bean(CheckpointMapper.class).numberOf(merrow.branch().id()))
                .contains(2);
        rename("value17", "renamed", 2, ines);
        workspace.commit(
                merrow.branch(), 3, Edit.remove(merrow.named("value4000").id()), odo, "gone");
        workspace.commit(
                merrow.branch(), 4, Edit.remove(merrow.named("value5000").id()), ines, "gone too");
        workspace.undo(merrow.branch(), ines);
        Model before = merrow.head().model();
        restart();
        assertThat(merrow.bean(CheckpointMapper.class).numberOf(merrow.branch().id()))
                .contains(2);
        assertThat(Set.copyOf(merrow.head().model().ownElements())).isEqualTo(Set.copyOf(before.ownElements()));
        assertThat(text(merrow.head().model()))
                .isEqualTo(text(before))
                .contains("attribute renamed = 17;", "value5000")
                .doesNotContain("value4000");
    }

    @Test
    void aDamagedCheckpointIsPassedOver() {
        addValues(6000);
        Model before = merrow.head().model();
        restart();
        CheckpointMapper checkpoints = merrow.bean(CheckpointMapper.class);
        byte[] content = checkpoints.of(merrow.branch().id()).orElseThrow().content();
        checkpoints.put(merrow.branch().id(), 2, Arrays.copyOf(content, content.length / 2));
        restart();
        assertThat(Set.copyOf(merrow.head().model().ownElements())).isEqualTo(Set.copyOf(before.ownElements()));
    }

    private void addValues(int count) {
        Model model = merrow.head().model();
        Element owner = merrow.named("MerrowComponents");
        String text = IntStream.rangeClosed(1, count)
                .mapToObj(i -> "attribute value" + i + " = " + i + ";\n")
                .collect(Collectors.joining());
        Edit edit = NotationReader.readMembers(model, owner.id(), new Source("values", text))
                .edit();
        assertThat(workspace.commit(merrow.branch(), 1, edit, ines, "values")).isInstanceOf(Commit.Saved.class);
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
        assertThat(merrow.bean(BranchStore.class).revisions(merrow.branch(), 100, 100))
                .extracting(e -> e.revision().summary())
                .startsWith("redone: basin → harbour", "undone: basin → harbour", "basin → harbour");
    }

    @Test
    void nobodyUndoesTheEditsOfOthers() {
        rename("basin", "harbour", 1, ines);
        assertThat(workspace.undo(merrow.branch(), merrow.person("admin"))).isInstanceOf(Commit.Nothing.class);
        assertThat(text(merrow.head().model())).contains("part harbour");
    }

    @Test
    void anEditOnAnOldRevisionCountsUnlessItTouchesWhatMovedSince() {
        rename("basin", "harbour", 1, ines);
        assertThat(rename("sea", "ocean", 1, odo)).isInstanceOf(Commit.Saved.class);
        Element old = merrow.named("harbour").withName("pond");
        assertThat(workspace.commit(merrow.branch(), 1, Edit.put(old), odo, "late"))
                .isInstanceOfSatisfying(
                        Commit.Overtaken.class,
                        overtaken -> assertThat(overtaken.elements()).containsExactly(old.id()));
        assertThat(merrow.head().number()).isEqualTo(3);
    }

    @Test
    void aRemovalDoesNotTakeAlongWhatSomebodyElsePutThereMeanwhile() {
        Element gate = merrow.named("SurgeGate");
        Element added =
                Element.of(ElementKind.PART, gate.id(), merrow.head().model().rankAtEnd(gate.id()), "lantern");
        assertThat(workspace.commit(merrow.branch(), 1, Edit.put(added), odo, "a lantern"))
                .isInstanceOf(Commit.Saved.class);
        assertThat(workspace.commit(merrow.branch(), 1, Edit.remove(gate.id()), ines, "no gate"))
                .isInstanceOfSatisfying(
                        Commit.Overtaken.class,
                        overtaken -> assertThat(Answer.overtaken(overtaken))
                                .isEqualTo("somebody has changed lantern since this page was loaded; look at it again,"
                                        + " then repeat your change"));
        assertThat(workspace.undo(merrow.branch(), odo)).isInstanceOf(Commit.Saved.class);
    }

    @Test
    void linkRulesAreForAnAdministratorHoweverTheyAreEdited() {
        Element rule = merrow.named("answering");
        Edit renamed = Edit.put(rule.withName("answeringNeeds"));
        assertThat(workspace.commit(merrow.branch(), 1, renamed, ines, "a rule"))
                .isInstanceOfSatisfying(
                        Commit.Refused.class,
                        refused -> assertThat(refused.problems())
                                .extracting(pyrite.core.model.Problem::message)
                                .containsExactly(
                                        "this changes a link rule of the project, which takes an administrator"));
        assertThat(workspace.commit(merrow.branch(), 1, renamed, merrow.person("admin"), "a rule"))
                .isInstanceOf(Commit.Saved.class);
    }

    @Test
    void anUndoSaysWhatIsInItsWay() {
        Element yard =
                Element.of(ElementKind.PACKAGE, null, merrow.head().model().rankAtEnd(null), "Yard");
        workspace.commit(merrow.branch(), 1, Edit.put(yard), ines, "a yard");
        Element crane =
                Element.of(ElementKind.PART, yard.id(), merrow.head().model().rankAtEnd(yard.id()), "crane");
        workspace.commit(merrow.branch(), 2, Edit.put(crane), odo, "a crane");
        assertThat(workspace.undo(merrow.branch(), ines))
                .isInstanceOfSatisfying(
                        Commit.Overtaken.class,
                        overtaken -> assertThat(Answer.overtaken(overtaken))
                                .isEqualTo("crane was changed or added since by somebody else; to take your edit back,"
                                        + " change it back first"));
        assertThat(merrow.head().model().find(crane.id())).isPresent();
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
        assertThat(rename("basin", "sea", 1, ines))
                .isInstanceOfSatisfying(
                        Commit.Refused.class,
                        refused -> assertThat(refused.problems().getFirst().message())
                                .contains("already taken"));
        assertThat(text(merrow.head().model())).isEqualTo(before);
        assertThat(merrow.head().number()).isEqualTo(1);
    }

    @Test
    void manyWritersAtOnceLoseNothing() throws Exception {
        Element owner = merrow.named("MerrowGate");
        try (ExecutorService writers = Executors.newFixedThreadPool(4)) {
            List<Callable<Commit>> tasks = IntStream.range(0, 40)
                    .<Callable<Commit>>mapToObj(i -> () -> workspace.commit(
                            merrow.branch(),
                            1,
                            Edit.put(Element.of(
                                    ElementKind.PART,
                                    owner.id(),
                                    merrow.head().model().rankAtEnd(owner.id()),
                                    "extra" + i)),
                            ines,
                            "extra " + i))
                    .toList();
            for (var task : writers.invokeAll(tasks)) {
                assertThat(task.get()).isInstanceOf(Commit.Saved.class);
            }
        }
        assertThat(merrow.head().number()).isEqualTo(41);
        restart();
        assertThat(merrow.head().model().ownElements().stream()
                        .filter(e -> e.name() != null && e.name().startsWith("extra")))
                .hasSize(40);
    }
}
