package pyrite.core.verification;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/**
 * The verdicts on a requirement that need no run.
 *
 * @param judgements one for each part that satisfies it; empty if a run is needed or nothing satisfies it
 * @param read what the result rests on, also if it is that a run is needed; judgements of one system share a part of it
 * @param isCutShort whether something was given up because it would take too much; a run may still tell
 */
public record StaticJudgement(List<Judgement> judgements, List<Fingerprint> read, boolean isCutShort) {
    public StaticJudgement {
        judgements = List.copyOf(judgements);
        read = List.copyOf(read);
    }

    /** For a requirement that nobody has the time to judge. */
    public static StaticJudgement notReached(Element requirement) {
        Judgement unjudged = RequirementJudge.unjudged(
                requirement,
                "",
                VerdictKind.INCONCLUSIVE,
                "not judged yet: the requirements before it took too long; run a case that verifies it");
        return new StaticJudgement(List.of(unjudged), List.of(), true);
    }

    public boolean isReached() {
        return !read.isEmpty();
    }

    /** Judges a requirement from the model as it is. */
    public static StaticJudgement of(Model model, Element requirement) {
        List<Judgement> judgements = new ArrayList<>();
        List<Fingerprint> read = new ArrayList<>(List.of(Fingerprint.of(model, List.of(requirement.id()))));
        boolean isCutShort = false;
        for (Element satisfaction : RequirementJudge.satisfactions(model, requirement)) {
            StaticJudgement one = RequirementJudge.withoutRun(model, requirement, satisfaction);
            judgements.addAll(one.judgements);
            read.addAll(one.read);
            isCutShort |= one.isCutShort;
        }
        return new StaticJudgement(judgements, read, isCutShort);
    }

    /** Whether the same would be found in another snapshot. */
    public boolean holdsIn(Model model) {
        return read.stream().allMatch(each -> each.changedIn(model).isEmpty());
    }

    /** Whether nothing that was read is among some elements. */
    public boolean isApartFrom(Set<ElementId> elements) {
        return read.stream().allMatch(each -> each.isApartFrom(elements));
    }
}
