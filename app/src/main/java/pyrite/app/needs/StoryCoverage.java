package pyrite.app.needs;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.stereotype.Component;
import pyrite.app.recheck.Rechecks;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.story.StepRequirements;
import pyrite.core.story.Story;
import pyrite.core.story.UseCases;

/** How far the steps of stories have requirements, and which links between the two need recheck. */
@Component
public class StoryCoverage {
    private final Rechecks rechecks;

    StoryCoverage(Rechecks rechecks) {
        this.rechecks = rechecks;
    }

    /**
     * @param uncovered the number of steps without a requirement
     * @param doubted the number of steps with a link that needs recheck
     */
    public record Row(Element useCase, int steps, int uncovered, int doubted) {}

    /** The use cases that are told. */
    public List<Row> rows(Workspace.Head head) {
        Model model = head.model();
        StepRequirements requirements = new StepRequirements(model);
        return UseCases.all(model).stream()
                .map(useCase -> {
                    List<Story.Line> lines = Story.of(model, useCase).lines();
                    return new Row(
                            useCase,
                            lines.size(),
                            (int) lines.stream()
                                    .filter(line -> requirements.of(line.step()).isEmpty())
                                    .count(),
                            doubted(head, lines).size());
                })
                .filter(row -> row.steps() > 0)
                .toList();
    }

    /** What each step is linked with by a link that needs recheck. */
    Map<ElementId, Set<ElementId>> doubted(Workspace.Head head, List<Story.Line> lines) {
        Map<ElementId, Set<ElementId>> doubted = new HashMap<>();
        lines.forEach(line -> {
            ElementId step = line.step().id();
            rechecks.of(head, step)
                    .forEach(doubt -> doubted.computeIfAbsent(step, _ -> new HashSet<>())
                            .add(doubt.link().other(step)));
        });
        return doubted;
    }
}
