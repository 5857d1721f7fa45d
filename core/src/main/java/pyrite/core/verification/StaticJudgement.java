package pyrite.core.verification;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * The verdicts on a requirement that need no run.
 *
 * @param judgements one for each part that satisfies it; empty if a run is needed or nothing satisfies it
 * @param read what the result rests on, also if it is that a run is needed
 */
public record StaticJudgement(List<Judgement> judgements, Fingerprint read) {
    public StaticJudgement {
        judgements = List.copyOf(judgements);
    }

    /** Judges a requirement from the model as it is. */
    public static StaticJudgement of(Model model, Element requirement) {
        List<Judgement> judgements = new ArrayList<>();
        Fingerprint read = Fingerprint.of(model, List.of(requirement.id()));
        for (Element satisfaction : RequirementJudge.satisfactions(model, requirement)) {
            StaticJudgement one = RequirementJudge.withoutRun(model, requirement, satisfaction);
            judgements.addAll(one.judgements);
            read = read.and(one.read);
        }
        return new StaticJudgement(judgements, read);
    }

    /** Whether the same would be found in another snapshot. */
    public boolean holdsIn(Model model) {
        return read.changedIn(model).isEmpty();
    }
}
