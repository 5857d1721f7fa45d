package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.Authoring;
import pyrite.core.verification.VerdictKind;

/** Verdicts found from the model alone follow every edit, whoever asked before and however many edits lie between. */
class StaticJudgementTest extends InProject {
    private Verdicts verdicts;

    @BeforeEach
    void start() {
        verdicts = merrow.bean(Verdicts.class);
    }

    private List<VerdictKind> of(String requirement) {
        return verdicts.of(merrow.head(), merrow.named(requirement).id()).stream()
                .map(VerdictView::kind)
                .toList();
    }

    private void commit(Edit edit) {
        merrow.workspace().commit(merrow.branch(), merrow.head().number(), edit, merrow.person("ines"), "edit");
    }

    private void undo() {
        merrow.workspace().undo(merrow.branch(), merrow.person("ines"));
    }

    @Test
    void aLimitAndAValueDecideAtOnceAndAreTakenBackAtOnce() {
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.PASS);
        merrow.change("canBeLifted", "most", "140 [t]");
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.FAIL);
        undo();
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.PASS);
        merrow.change("GateLeaf", "mass", "161 [t]");
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.FAIL);
    }

    @NewProject
    @Test
    void editsThatNobodyAskedAboutCountAsWell() {
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.PASS);
        merrow.change("GateLeaf", "mass", "161 [t]");
        commit(Edit.put(merrow.named("sea").withName("ocean")));
        commit(Edit.put(merrow.named("siren").withName("horn")));
        assertThat(of("canBeLifted")).containsExactly(VerdictKind.FAIL);
    }

    @Test
    void whatIsSatisfiedByNothingAnyMoreIsNotJudgedAndANewOneIs() {
        Element satisfaction = merrow
                .head()
                .model()
                .referrers(merrow.named("canBeLifted").id())
                .stream()
                .map(merrow.head().model()::get)
                .filter(each -> each.kind() == ElementKind.SATISFACTION)
                .findFirst()
                .orElseThrow();
        assertThat(of("canBeLifted")).hasSize(1);
        commit(Edit.remove(satisfaction.id()));
        assertThat(of("canBeLifted")).isEmpty();
        undo();
        assertThat(of("canBeLifted")).hasSize(1);
        merrow.workspace().redo(merrow.branch(), merrow.person("ines"));
        assertThat(of("canBeLifted")).isEmpty();
    }

    @Test
    void aNewRequirementIsJudgedAndTheOthersStayAsTheyWere() {
        Map<ElementId, List<VerdictView>> before = verdicts.all(merrow.head());
        Authoring.Proposal.Accepted light =
                (Authoring.Proposal.Accepted) new Authoring(merrow.head().model())
                        .members(
                                merrow.named("MerrowRequirements"),
                                "requirement <'MG-99'> isLight { subject gate : SurgeGate; "
                                        + "attribute most : MassValue = 100 [t]; require constraint { gate.leaf.mass <= "
                                        + "most } } satisfy isLight by MerrowGate::barrier.gate;");
        commit(light.edit());
        assertThat(of("isLight")).containsExactly(VerdictKind.FAIL);
        Map<ElementId, List<VerdictView>> after = verdicts.all(merrow.head());
        assertThat(after).hasSize(before.size() + 1);
        before.forEach((id, views) -> assertThat(after.get(id))
                .extracting(VerdictView::kind)
                .isEqualTo(views.stream().map(VerdictView::kind).toList()));
    }
}
