package pyrite.app.links;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import pyrite.app.evidence.FromVerdicts;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.TraceGraph;
import pyrite.core.verification.VerdictKind;

/** The coverage of the snapshots that were looked at last, as the verdicts stand. */
@Component
public class Coverages {
    private final FromVerdicts<Coverage> kept;

    Coverages(Verdicts verdicts) {
        this.kept =
                new FromVerdicts<>(verdicts, (model, judged) -> Coverage.of(TraceGraph.of(model), standing(judged)));
    }

    public Coverage of(Workspace.Head head) {
        return kept.of(head);
    }

    private static Coverage.Standing standing(Map<ElementId, List<VerdictView>> judged) {
        return new Coverage.Standing() {
            @Override
            public boolean isJudged(ElementId requirement) {
                List<VerdictView> all = judged.get(requirement);
                return all != null && all.stream().anyMatch(view -> view.kind() != VerdictKind.INCONCLUSIVE);
            }

            @Override
            public boolean passes(ElementId requirement) {
                List<VerdictView> all = judged.get(requirement);
                return all != null
                        && !all.isEmpty()
                        && all.stream().allMatch(view -> view.kind() == VerdictKind.PASS && !view.stale());
            }
        };
    }
}
