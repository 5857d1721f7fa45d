package pyrite.app.evidence;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.springframework.stereotype.Component;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.RequirementIds;

/** Finds the verdicts that rest on an element and would become stale if it changed. */
@Component
public class StaleRuns {
    private final RunStore runs;

    StaleRuns(RunStore runs) {
        this.runs = runs;
    }

    /** The requirements whose verdicts, found by a run, read any of some elements or something they own. */
    public List<Element> touchedBy(Workspace.Head head, List<Element> elements) {
        Set<ElementId> touched = new HashSet<>();
        elements.forEach(element -> head.model().subtree(element.id()).forEach(each -> touched.add(each.id())));
        return RequirementIds.sorted(
                head.model(),
                runs.newestVerdicts(head.branch(), head.number()).stream()
                        .filter(verdict ->
                                verdict.fingerprint().hashes().keySet().stream().anyMatch(touched::contains))
                        .map(RunStore.Verdict::requirement)
                        .distinct()
                        .flatMap(id -> head.model().find(id).stream()));
    }
}
