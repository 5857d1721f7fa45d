package pyrite.app.recheck;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.ElementId;
import pyrite.core.trace.Agreements;

/**
 * The links of each branch that need recheck. On first use a branch is read from its first revision; then it is
 * followed commit by commit.
 */
@Service
public class Rechecks {
    private final Workspace workspace;
    private final BranchStore store;

    Rechecks(Workspace workspace, BranchStore store) {
        this.workspace = workspace;
        this.store = store;
    }

    /** The state of one branch at the newest revision requested so far. */
    private static final class Followed {
        private final Agreements agreements;
        private Map<ElementId, List<Agreements.Doubt>> byEnd = Map.of();
        private int counted = -1;

        Followed(Agreements agreements) {
            this.agreements = agreements;
        }

        synchronized Map<ElementId, List<Agreements.Doubt>> upTo(Branch branch, int number, BranchStore store) {
            while (agreements.number() < number) {
                int next = agreements.number() + 1;
                agreements.advance(store.difference(branch, next), next);
            }
            if (counted != agreements.number()) {
                counted = agreements.number();
                byEnd = byEnd(agreements.doubts());
            }
            return byEnd;
        }

        private static Map<ElementId, List<Agreements.Doubt>> byEnd(Collection<Agreements.Doubt> doubts) {
            Map<ElementId, List<Agreements.Doubt>> found = new java.util.HashMap<>();
            doubts.forEach(doubt -> List.of(doubt.link().source(), doubt.link().target())
                    .forEach(end -> found.computeIfAbsent(end, _ -> new java.util.ArrayList<>(1))
                            .add(doubt)));
            return found;
        }
    }

    private Map<ElementId, List<Agreements.Doubt>> byEnd(Workspace.Head head) {
        if (head.past() || head.number() == 0) {
            return Map.of();
        }
        return workspace
                .follower(head.branch(), Followed.class, () -> new Followed(Agreements.begin(workspace.at(head, 1), 1)))
                .upTo(head.branch(), head.number(), store);
    }

    /**
     * The links at an element that need recheck. Where the past is read there are none: then they were judged by what
     * was known then.
     */
    public List<Agreements.Doubt> of(Workspace.Head head, ElementId end) {
        return byEnd(head).getOrDefault(end, List.of());
    }

    /** All links that need recheck, each once. */
    public List<Agreements.Doubt> all(Workspace.Head head) {
        return byEnd(head).values().stream().flatMap(List::stream).distinct().toList();
    }
}
