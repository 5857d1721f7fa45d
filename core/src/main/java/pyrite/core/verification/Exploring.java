package pyrite.core.verification;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.Exploration;
import pyrite.core.execution.Outside;
import pyrite.core.execution.Program;
import pyrite.core.execution.ProgramBuilder;
import pyrite.core.execution.Subject;
import pyrite.core.expression.FaultException;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.sequence.SequenceNotes;
import pyrite.core.sequence.SequenceStep;

/**
 * Explores what a part can do, and whether the requirements that it satisfies hold in every situation: those whose
 * constraint is a condition, not an observation of a whole run.
 */
public final class Exploring {
    private final Model model;
    private final Exploration exploration;
    private final List<Subject> subjects;
    private final List<String> asked;

    private Exploring(Model model, Exploration exploration, List<Subject> subjects, List<String> asked) {
        this.model = model;
        this.exploration = exploration;
        this.subjects = subjects;
        this.asked = asked;
    }

    /** @throws ModelFault if the part cannot run */
    public static Exploring of(Model model, Element part, Exploration.Bounds bounds, RunControl control) {
        Flattening flattening = new Flattening(model, control);
        Instance root = flattening.running(part);
        Map<String, Condition> claims = new LinkedHashMap<>();
        Program program =
                ProgramBuilder.build(model, flattening, () -> claims.putAll(claims(model, part, flattening, root)));
        Outside outside = new Outside(model, flattening, program);
        return new Exploring(
                model,
                new Exploration(program, outside, claims, bounds, control),
                program.subjects(),
                List.copyOf(claims.keySet()));
    }

    private static Map<String, Condition> claims(Model model, Element part, Flattening flattening, Instance root) {
        Map<String, Condition> claims = new LinkedHashMap<>();
        for (Element requirement : RequirementJudge.satisfiedBy(model, Set.of(part.id()))) {
            Map<ElementId, Instance> links = new HashMap<>();
            model.inheritance().features(requirement).stream()
                    .filter(feature -> feature.kind() == ElementKind.SUBJECT)
                    .forEach(subject -> links.put(subject.id(), root));
            String name = Objects.requireNonNullElse(
                    requirement.shortName(), Objects.requireNonNullElse(requirement.name(), "a requirement"));
            for (Element constraint : model.inheritance().features(requirement)) {
                if (constraint.kind() == ElementKind.REQUIRED_CONSTRAINT) {
                    try {
                        Instance scope = flattening.inside(constraint, flattening.root(requirement, links));
                        model.inheritance()
                                .owning(constraint, Property.RESULT)
                                .flatMap(owner -> owner.get(Property.RESULT))
                                .ifPresent(result -> claims.put(name, flattening.momentaryCondition(result, scope)));
                    } catch (FaultException | ModelFault _) {
                        // An observation of a whole run is judged by runs.
                    }
                }
            }
        }
        return claims;
    }

    /** The requirements that are asked in every situation. */
    public List<String> asked() {
        return asked;
    }

    public Exploration.Result explore() {
        return exploration.explore();
    }

    /** What happens on a way, as the steps of a sequence, and when it ends, s. */
    public Told tell(List<Integer> way) {
        SequenceNotes notes = new SequenceNotes(model, subjects);
        double ends = exploration.replay(way, notes);
        return new Told(notes.steps(), ends);
    }

    public record Told(List<SequenceStep> steps, double ends) {}
}
