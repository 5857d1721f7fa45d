package pyrite.app.links;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.TraceGraph;

/** The links of the snapshots that were looked at last, found once for all questions about them, and how verdicts stand. */
@Component
public class Graphs {
    private static final int MOST_KEPT = 4;

    private final Verdicts verdicts;
    private final Cache<Key, TraceGraph> kept = Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    Graphs(Verdicts verdicts) {
        this.verdicts = verdicts;
    }

    private record Key(long branch, int number) {
    }

    public TraceGraph of(Workspace.Head head) {
        return kept.get(new Key(head.branch().id(), head.number()), _ -> TraceGraph.of(head.model()));
    }

    public Coverage coverage(Workspace.Head head) {
        return Coverage.of(of(head), standing(verdicts.all(head)));
    }

    private static Coverage.Standing standing(Map<ElementId, List<VerdictView>> judged) {
        return new Coverage.Standing() {
            @Override
            public boolean isJudged(ElementId requirement) {
                return judged.getOrDefault(requirement, List.of()).stream().anyMatch(view -> !view.kind().word().equals("inconclusive"));
            }

            @Override
            public boolean passes(ElementId requirement) {
                List<VerdictView> all = judged.getOrDefault(requirement, List.of());
                return !all.isEmpty() && all.stream().allMatch(view -> view.kind().word().equals("pass") && !view.stale());
            }
        };
    }
}
