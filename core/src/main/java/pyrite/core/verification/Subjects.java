package pyrite.core.verification;

import java.util.List;
import java.util.stream.Collectors;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** The parts that are to satisfy a requirement. Each of them needs a verdict of its own. */
public final class Subjects {
    private Subjects() {}

    /**
     * Says of the parts that satisfy a requirement which ones no verdict is about.
     *
     * @param judged the subjects of the verdicts there are, as {@link Judgement#subject} gives them; if there are none,
     *     nothing is said
     */
    public static List<Judgement> withoutVerdict(Model model, Element requirement, List<String> judged) {
        return judged.isEmpty()
                ? List.of()
                : RequirementJudge.satisfactions(model, requirement).stream()
                        .map(satisfaction -> path(model, satisfaction))
                        .filter(path -> !path.isEmpty() && judged.stream().noneMatch(subject -> isOf(path, subject)))
                        .distinct()
                        .map(path -> RequirementJudge.unjudged(
                                requirement,
                                path,
                                VerdictKind.INCONCLUSIVE,
                                "no verdict for '" + path + "': no run of a case that verifies this includes it"))
                        .toList();
    }

    /** The paths of the satisfying parts that are in a system, or are the system itself. */
    static List<String> within(Model model, Element system, Element requirement) {
        return RequirementJudge.satisfactions(model, requirement).stream()
                .filter(satisfaction -> RequirementJudge.satisfier(satisfaction).stream()
                        .anyMatch(id -> id.equals(system.id())
                                || model.inheritance().effective(system, id).isPresent()))
                .map(satisfaction -> path(model, satisfaction))
                .distinct()
                .toList();
    }

    /** The path of a satisfying part, such as {@code barrier.gate}; empty where none is named. */
    static String path(Model model, Element satisfaction) {
        List<ElementId> chain = RequirementJudge.satisfier(satisfaction);
        return chain.stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    /** Whether a subject, given from the root of a run, is a satisfying part or one of several of it. */
    private static boolean isOf(String path, String subject) {
        String plain = subject.replaceAll("#\\(\\d+\\)", "");
        return path.equals(plain) || path.endsWith("." + plain);
    }
}
