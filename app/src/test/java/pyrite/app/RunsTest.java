package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.awaitility.Awaitility.await;
import static org.mockito.Mockito.mock;

import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.store.RunMapper;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.VerdictKind;
import pyrite.core.verification.VerdictPlot;

/** Runs and verdicts in a real database: kept, fresh and stale, and honest about what was cut off. */
class RunsTest extends InProject {
    private RunStore runs;
    private Verdicts verdicts;

    @BeforeEach
    void start() {
        take();
    }

    private void take() {
        runs = merrow.bean(RunStore.class);
        verdicts = merrow.bean(Verdicts.class);
    }

    private void restart() {
        merrow.restart();
        take();
    }

    private long run(String name, RunControl control) {
        Workspace.Head head = merrow.head();
        long id = runs.queue(head.branch(), merrow.named(name), name, head.number(), merrow.person("ines"));
        assertThat(runs.started(id)).isTrue();
        runs.end(runs.get(id), CaseRun.of(head.model(), merrow.named(name), control));
        return id;
    }

    private VerdictView verdict(String requirement) {
        return verdicts.of(merrow.head(), merrow.named(requirement).id()).getFirst();
    }

    @Test
    void aRunIsThereAfterARestartWithSeriesAndVerdicts() {
        long id = run("closingCheck", RunControl.NONE);
        RunStore.Recorded before = runs.series(id);
        VerdictView verdict = verdict("closesInTime");
        VerdictPlot picture = runs.plot(id, verdict.stored());
        assertThat(picture.lines()).isNotEmpty();
        restart();
        assertThat(runs.find(merrow.head().branch(), id))
                .get()
                .extracting(RunRecord::status)
                .isEqualTo(RunRecord.Status.DONE);
        assertThat(runs.series(id).times()).containsExactly(before.times());
        assertThat(runs.series(id).series()).hasSameSizeAs(before.series());
        assertThat(verdict("closesInTime").margin()).isEqualTo(verdict.margin());
        assertThat(verdict("closesInTime").stale()).isFalse();
        assertThat(runs.plot(id, verdict("closesInTime").stored()).lines()).isEqualTo(picture.lines());
    }

    @NewProject
    @Test
    void aVerdictGoesStaleNamesTheChangeAndIsFreshAgainAfterUndo() {
        run("closingCheck", RunControl.NONE);
        merrow.change("drive", "cushionedSpeed", "0.05 [deg/s]");
        assertThat(verdict("closesInTime")).satisfies(view -> {
            assertThat(view.stale()).isTrue();
            assertThat(view.words()).isEqualTo("pass, stale");
            assertThat(view.changes()).singleElement().satisfies(change -> {
                assertThat(change.element()).isEqualTo("drive");
                assertThat(change.revision()).isEqualTo("r2");
                assertThat(change.author()).isEqualTo("Ines Marl");
                assertThat(change.summary()).isEqualTo("cushionedSpeed of drive: 0.1 [deg/s] → 0.05 [deg/s]");
            });
        });
        merrow.workspace().undo(merrow.head().branch(), merrow.person("ines"));
        assertThat(verdict("closesInTime").stale()).isFalse();
        merrow.workspace().redo(merrow.head().branch(), merrow.person("ines"));
        assertThat(verdict("closesInTime").stale()).isTrue();
        run("closingCheck", RunControl.NONE);
        assertThat(verdict("closesInTime").stale()).isFalse();
    }

    @NewProject
    @Test
    void afterAnUndoTheVerdictThatHeldBeforeCountsAgain() {
        run("closingCheck", RunControl.NONE);
        VerdictView before = verdict("closesInTime");
        merrow.change("drive", "cushionedSpeed", "0.02 [deg/s]");
        run("closingCheck", RunControl.NONE);
        assertThat(verdict("closesInTime").margin()).isNotEqualTo(before.margin());
        merrow.workspace().undo(merrow.head().branch(), merrow.person("ines"));
        assertThat(verdict("closesInTime").stale()).isFalse();
        assertThat(verdict("closesInTime").run()).isEqualTo(before.run());
    }

    /** Both judge the same part, one for too short a time: the other passes later, and its failure still counts. */
    @NewProject
    @Test
    void aCaseThatPassesDoesNotOutdoAnotherThatFails() throws Exception {
        merrow.add("MerrowVerification", """
                verification hurriedCheck : SimulatedCheck { subject :>> system = barrier; attribute :>> stopTime = 1 [min];
                    objective { verify closesInTime; } }
                """);
        run("hurriedCheck", RunControl.NONE);
        run("closingCheck", RunControl.NONE);
        assertThat(verdicts.of(merrow.head(), merrow.named("closesInTime").id()))
                .extracting(VerdictView::caseName, VerdictView::kind)
                .containsExactly(tuple("hurriedCheck", VerdictKind.FAIL), tuple("closingCheck", VerdictKind.PASS));
        String page = new Session(merrow.address())
                .signIn("ines", "merrow")
                .get("/p/merrow/main/runs")
                .body();
        assertThat(markBehind(page, "hurriedCheck")).isEqualTo("fail");
        assertThat(markBehind(page, "closingCheck")).isEqualTo("pass");

        Workspace.Head head = merrow.head();
        merrow.workspace()
                .commit(
                        head.branch(),
                        head.number(),
                        Edit.remove(merrow.named("hurriedCheck").id()),
                        merrow.person("ines"),
                        "removed");
        assertThat(verdicts.of(merrow.head(), merrow.named("closesInTime").id()))
                .extracting(VerdictView::caseName)
                .containsExactly("closingCheck");
    }

    /** The verdict on closesInTime in the row of a case. */
    private static String markBehind(String page, String usage) {
        Matcher mark = Pattern.compile(">" + usage + "</span>.*?closesInTime</a>.*?verdict[- ](\\w+)", Pattern.DOTALL)
                .matcher(page);
        assertThat(mark.find()).isTrue();
        return mark.group(1);
    }

    @Test
    void aSubjectWithoutAVerdictIsNamed() {
        run("closingCheck", RunControl.NONE);
        merrow.add("MerrowGate", "part spareGate : SurgeGate; satisfy closesInTime by spareGate;");
        assertThat(verdicts.of(merrow.head(), merrow.named("closesInTime").id()))
                .extracting(VerdictView::subject, VerdictView::kind)
                .contains(tuple("spareGate", VerdictKind.INCONCLUSIVE));
    }

    @Test
    void whatNeedsNoRunIsJudgedFromTheModelAsItIs() {
        assertThat(verdict("canBeLifted").kind()).isEqualTo(VerdictKind.PASS);
        merrow.change("leaf", "mass", "170 [t]");
        assertThat(verdict("canBeLifted").kind()).isEqualTo(VerdictKind.FAIL);
        assertThat(verdict("canBeLifted").marginText()).isEqualTo("−10 t");
        assertThat(verdict("canBeLifted").stale()).isFalse();
    }

    @NewProject
    @Test
    void aCancelledRunKeepsNoVerdictAndReplacesNone() {
        run("closingCheck", RunControl.NONE);
        RunControl control = mock(RunControl.class);
        org.mockito.Mockito.when(control.isCancelled()).thenReturn(true);
        long cancelled = run("closingCheck", control);
        assertThat(runs.find(merrow.head().branch(), cancelled).orElseThrow().status())
                .isEqualTo(RunRecord.Status.CANCELLED);
        assertThat(runs.verdictsOf(cancelled)).isEmpty();
        assertThat(verdict("closesInTime").kind()).isEqualTo(VerdictKind.PASS);
    }

    @Test
    void aRunThatWasCutOffIsMarkedAtTheNextStart() {
        long id = runs.queue(
                merrow.head().branch(), merrow.named("closingCheck"), "closingCheck", 1, merrow.person("ines"));
        runs.started(id);
        restart();
        assertThat(runs.find(merrow.head().branch(), id).orElseThrow()).satisfies(run -> {
            assertThat(run.status()).isEqualTo(RunRecord.Status.INTERRUPTED);
            assertThat(run.message()).contains("the program stopped");
        });
    }

    @Test
    void whatWasQueuedGoesOnAfterARestartAtTheRevisionItWasQueuedAt() {
        long id = runs.queue(
                merrow.head().branch(), merrow.named("closingCheck"), "closingCheck", 1, merrow.person("ines"));
        merrow.change("drive", "cushionedSpeed", "0.02 [deg/s]");
        restart();
        await().until(() -> runs.get(id).status() == RunRecord.Status.DONE);
        assertThat(runs.get(id).revisionNumber()).isEqualTo(1);
        assertThat(verdicts.ofRun(merrow.head(), id)
                        .get(merrow.named("closesInTime").id())
                        .getFirst()
                        .kind())
                .isEqualTo(VerdictKind.PASS);
    }

    @Test
    void olderRunsOfACaseLoseTheirSeriesAndKeepTheirVerdicts() {
        RunStore keepingOne = new RunStore(merrow.bean(RunMapper.class), InstantSource.system(), 1);
        long old = run("closingCheck", RunControl.NONE);
        Workspace.Head head = merrow.head();
        long other = run("powerCutCheck", RunControl.NONE);
        long young = runs.queue(
                head.branch(), merrow.named("closingCheck"), "closingCheck", head.number(), merrow.person("ines"));
        keepingOne.end(runs.get(young), CaseRun.of(head.model(), merrow.named("closingCheck"), RunControl.NONE));
        assertThat(runs.seriesNames(old)).isEmpty();
        assertThat(runs.times(old)).isNotEmpty();
        assertThat(runs.verdictsOf(old)).isNotEmpty();
        assertThat(runs.seriesNames(young)).isNotEmpty();
        assertThat(runs.seriesNames(other)).isNotEmpty();
    }

    @Test
    void aRequirementWhoseQuantityNothingDeterminesHasTheVerdictErrorWithTheReason() {
        Workspace.Head head = merrow.head();
        Element leaf = merrow.named("GateLeaf");
        Element tip = head.model().children(leaf.id()).stream()
                .filter(e -> "tip".equals(e.name()))
                .findFirst()
                .orElseThrow();
        merrow.workspace().commit(head.branch(), 1, Edit.remove(tip.id()), merrow.person("ines"), "tip removed");
        long id = run("closingCheck", RunControl.NONE);
        assertThat(runs.find(merrow.head().branch(), id).orElseThrow().status()).isEqualTo(RunRecord.Status.DONE);
        Map<?, List<VerdictView>> all = verdicts.all(merrow.head());
        assertThat(all.get(merrow.named("landsSoftly").id()).getFirst().kind()).isEqualTo(VerdictKind.ERROR);
        assertThat(all.get(merrow.named("landsSoftly").id()).getFirst().reason())
                .contains("tipSpeed");
    }
}
