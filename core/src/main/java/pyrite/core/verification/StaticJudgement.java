package pyrite.core.verification;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * What can be said about a requirement without a run.
 *
 * @param judgements one for each part that satisfies it; none if it needs a run or if nothing satisfies it
 * @param read what that rests on, also where it says that a run is needed
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
