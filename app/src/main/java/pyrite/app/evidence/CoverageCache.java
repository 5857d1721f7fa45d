package pyrite.app.evidence;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.TraceGraph;
import pyrite.core.verification.VerdictKind;

/** Caches the coverage of recent snapshots with the current verdicts. */
@Component
public class CoverageCache {
    private final VerdictDependentCache<Coverage> kept;

    CoverageCache(Verdicts verdicts) {
        this.kept = new VerdictDependentCache<>(
                verdicts, (head, judged) -> Coverage.of(TraceGraph.of(head.model()), verdicts(judged)));
    }

    public Coverage of(Workspace.Head head) {
        return kept.of(head);
    }

    private static Coverage.VerdictLookup verdicts(Map<ElementId, List<VerdictView>> judged) {
        return new Coverage.VerdictLookup() {
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
