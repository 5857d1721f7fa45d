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

/** The coverage of the snapshots that were looked at last, as the verdicts stand. */
@Component
public class Coverages {
    private static final int MOST_KEPT = 4;

    private final Verdicts verdicts;
    private final Cache<Key, Kept> kept = Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    Coverages(Verdicts verdicts) {
        this.verdicts = verdicts;
    }

    private record Key(long branch, int number) {
    }

    /** A coverage with the verdicts it was found from. */
    private record Kept(Map<ElementId, List<VerdictView>> judged, Coverage coverage) {
    }

    public Coverage of(Workspace.Head head) {
        Map<ElementId, List<VerdictView>> judged = verdicts.all(head);
        Key key = new Key(head.branch().id(), head.number());
        Kept known = kept.getIfPresent(key);
        if (known == null || known.judged() != judged) {
            known = new Kept(judged, Coverage.of(TraceGraph.of(head.model()), standing(judged)));
            kept.put(key, known);
        }
        return known.coverage();
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
