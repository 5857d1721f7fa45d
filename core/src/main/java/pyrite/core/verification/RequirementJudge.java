package pyrite.core.verification;

import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Composition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.Recording;
import pyrite.core.dynamics.Trajectory;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Span;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.sequence.SequenceComparison;

/** Judges requirements for the parts that satisfy them, over a trajectory, or without one where nothing varies. */
public final class RequirementJudge {
    private static final int DEEPEST = 50;

    private final Map<String, DisplayUnit> shownIn = new HashMap<>();
    private final Model model;
    private final Flattening flattening;
    private final Instance root;
    private final @Nullable Trajectory trajectory;
    private final @Nullable Recording recording;
    private final @Nullable SequenceComparison comparison;

    RequirementJudge(
            Model model,
            Flattening flattening,
            Instance root,
            @Nullable Trajectory trajectory,
            @Nullable Recording recording,
            @Nullable SequenceComparison comparison) {
        this.comparison = comparison;
        this.model = model;
        this.flattening = flattening;
        this.root = root;
        this.trajectory = trajectory;
        this.recording = recording;
    }

    /** The units of the limits that varying quantities were held against so far, by their paths. */
    Map<String, DisplayUnit> shownIn() {
        return shownIn;
    }

    /** What is found for one satisfying part, without a run. */
    static StaticJudgement withoutRun(Model model, Element requirement, Element satisfaction) {
        Fingerprint said = Fingerprint.of(model, List.of(satisfaction.id()));
        List<ElementId> chain = satisfier(satisfaction);
        if (chain.isEmpty() || !model.get(chain.getFirst()).kind().isUsage()) {
            return new StaticJudgement(List.of(), List.of(said), false);
        }
        Element system = model.get(chain.getFirst());
        Buildable buildable = Buildable.of(model, system);
        if (buildable.fault() != null) {
            Judgement error = unjudged(
                    requirement,
                    model.names().qualifiedName(requirement),
                    VerdictKind.ERROR,
                    buildable.fault().getMessage());
            return new StaticJudgement(List.of(error), List.of(said, buildable.read()), false);
        }
        Flattening flattening = Flattening.asNeeded(model);
        Set<ElementId> read = new LinkedHashSet<>();
        List<Judgement> judgements;
        try {
            Instance root = flattening.running(system);
            read.addAll(flattening.drainRead());
            judgements =
                    new RequirementJudge(model, flattening, root, null, null, null).judge(requirement, satisfaction);
        } catch (ModelFault e) {
            judgements = List.of(
                    unjudged(requirement, model.names().qualifiedName(requirement), VerdictKind.ERROR, e.getMessage()));
        }
        read.addAll(flattening.drainRead());
        judgements.forEach(
                judgement -> read.addAll(judgement.fingerprint().hashes().keySet()));
        return new StaticJudgement(
                flattening.isOverBudget() ? List.of(gaveUp(model, requirement, satisfaction)) : judgements,
                List.of(said, buildable.read(), Fingerprint.of(model, read).withoutSpare(model)),
                flattening.isOverBudget());
    }

    /** Whether a system can be built, and what that rests on; found once in a snapshot. */
    private record Buildable(Fingerprint read, @Nullable ModelFault fault) {
        private static final class Known {
            private final Map<ElementId, Buildable> bySystem = new ConcurrentHashMap<>();
        }

        static Buildable of(Model model, Element system) {
            return model.derived(Known.class, _ -> new Known()).bySystem.computeIfAbsent(system.id(), _ -> {
                Composition composition = Composition.of(model, system);
                return new Buildable(
                        Fingerprint.of(model, composition.read()).withoutSpare(model), composition.fault());
            });
        }
    }

    private static Judgement gaveUp(Model model, Element requirement, Element satisfaction) {
        return unjudged(
                requirement,
                Subjects.path(model, satisfaction),
                VerdictKind.INCONCLUSIVE,
                "too many parts or values are needed to judge this without a run; "
                        + "run a case that verifies it, or let its condition look at fewer");
    }

    /**
     * The verdicts of the run on a requirement, one for each satisfying part within the system. The run says nothing
     * about others; if it says nothing at all, that is the verdict.
     */
    List<Judgement> judge(Element requirement) {
        List<Element> satisfactions = satisfactions(model, requirement);
        if (satisfactions.isEmpty()) {
            return List.of(judged(requirement, root, root.path()));
        }
        List<Judgement> judgements = satisfactions.stream()
                .flatMap(satisfaction -> judge(requirement, satisfaction).stream())
                .toList();
        return judgements.isEmpty() ? List.of(elsewhere(requirement, satisfactions)) : judgements;
    }

    private Judgement elsewhere(Element requirement, List<Element> satisfactions) {
        String paths = satisfactions.stream()
                .map(satisfaction -> "'" + Subjects.path(model, satisfaction) + "'")
                .collect(Collectors.joining(", "));
        Set<ElementId> read = new LinkedHashSet<>(List.of(requirement.id()));
        satisfactions.forEach(satisfaction -> read.add(satisfaction.id()));
        return unjudged(
                        requirement,
                        root.path(),
                        VerdictKind.INCONCLUSIVE,
                        "what satisfies it (" + paths + ") is not part of '" + root.path() + "', which was run")
                .with(Fingerprint.of(model, read));
    }

    /** One judgement for each instance that a satisfying part has in the system; none if only a run could tell. */
    private List<Judgement> judge(Element requirement, Element satisfaction) {
        List<ElementId> chain = satisfier(satisfaction);
        List<Instance> subjects = chain.isEmpty() ? List.of(root) : subjects(chain);
        // Parts on the way to the subject were read too.
        Set<ElementId> read = new LinkedHashSet<>(flattening.drainRead());
        read.add(satisfaction.id());
        Fingerprint said = Fingerprint.of(model, read);
        try {
            return subjects.stream()
                    .map(subject -> judged(requirement, subject, subject.path()))
                    .map(judgement -> judgement.with(judgement.fingerprint().and(said)))
                    .toList();
        } catch (Observations.NeedsRun _) {
            return List.of();
        }
    }

    static List<ElementId> satisfier(Element satisfaction) {
        return satisfaction
                .get(Property.BY)
                .map(Reference::chain)
                .orElseGet(() -> satisfaction.owner() == null ? List.of() : List.of(satisfaction.owner()));
    }

    /** The requirements that are satisfied by a way to one of some parts. */
    public static List<Element> satisfiedBy(Model model, Set<ElementId> parts) {
        return parts.stream()
                .flatMap(part -> model.referrers(part).stream())
                .map(model::get)
                .filter(user -> user.kind() == ElementKind.SATISFACTION
                        && satisfier(user).stream()
                                .reduce((_, last) -> last)
                                .filter(parts::contains)
                                .isPresent())
                .flatMap(satisfaction -> satisfaction.get(Property.TARGET).stream())
                .map(target -> model.get(target.target()))
                .distinct()
                .toList();
    }

    public static List<Element> satisfactions(Model model, Element requirement) {
        return model.referrers(requirement.id()).stream()
                .map(model::get)
                .filter(e -> e.kind() == ElementKind.SATISFACTION
                        && !e.get(Property.NEGATED).orElse(false))
                .filter(e -> e.get(Property.TARGET)
                        .filter(t -> t.target().equals(requirement.id()))
                        .isPresent())
                .sorted(Comparator.comparing(Element::id))
                .toList();
    }

    /** The instances a satisfying part has in the system that runs. */
    private List<Instance> subjects(List<ElementId> chain) {
        List<ElementId> from = chain.indexOf(root.usage().id()) > 0
                ? chain.subList(chain.indexOf(root.usage().id()), chain.size())
                : chain;
        return reachable(from.getFirst())
                ? flattening.instances(new FeatureReference(List.copyOf(from), Span.NONE), root)
                : List.of();
    }

    /** A part outside the system would be built anew, apart from what ran; only parts inside count. */
    private boolean reachable(ElementId first) {
        return first.equals(root.usage().id())
                || model.inheritance().effective(root.usage(), first).isPresent();
    }

    private Judgement judged(Element requirement, Instance subject, String path) {
        flattening.drainRead();
        Set<ElementId> read = new LinkedHashSet<>();
        Judgement judgement;
        try {
            judgement = evaluate(requirement, subject, path);
        } catch (Observations.Undecided e) {
            judgement = unjudged(requirement, path, VerdictKind.INCONCLUSIVE, e.getMessage());
        } catch (FaultException | ModelFault e) {
            judgement = unjudged(requirement, path, VerdictKind.ERROR, e.getMessage());
        } catch (ArithmeticException e) {
            judgement = unjudged(requirement, path, VerdictKind.ERROR, Objects.toString(e.getMessage(), e.toString()));
        }
        read.addAll(flattening.drainRead());
        read.add(requirement.id());
        return judgement.with(Fingerprint.of(model, read));
    }

    private Judgement evaluate(Element requirement, Instance subject, String path) {
        Assessor assessor = new Assessor(
                model, flattening, trajectory, new VerdictPlotter(model, flattening, trajectory, recording, shownIn));
        Instance instance = instance(requirement, subject);
        for (Element assumption : constraints(requirement, ElementKind.ASSUMED_CONSTRAINT)) {
            Assessment assumed = assess(assumption, instance, subject, assessor, 0);
            if (!assumed.holds()) {
                return unjudged(
                        requirement,
                        path,
                        VerdictKind.INCONCLUSIVE,
                        "what it assumes does not hold: " + assumed.reason());
            }
        }
        Assessment whole = asRecorded(assessAll(requirement, instance, subject, assessor, 0));
        if (whole == null) {
            return unjudged(requirement, path, VerdictKind.INCONCLUSIVE, "it has no constraint that could be computed");
        }
        return new Judgement(
                requirement.id(),
                path,
                whole.holds() ? VerdictKind.PASS : VerdictKind.FAIL,
                whole.margin(),
                whole.worstInstant(),
                whole.firstViolation(),
                whole.reason(),
                assessor.plot().thinned(),
                Fingerprint.NONE);
    }

    /** In a replay a requirement holds only if what was recorded happens again. */
    private @Nullable Assessment asRecorded(@Nullable Assessment found) {
        if (comparison == null) {
            return found;
        }
        Double differs = comparison.first().map(SequenceComparison.Row::at).orElse(null);
        Assessment replayed = new Assessment(comparison.follows(), null, null, differs, comparison.sentence());
        if (found == null || found.holds() && !replayed.holds()) {
            return replayed;
        }
        return new Assessment(
                found.holds(),
                found.margin(),
                found.worstInstant(),
                found.firstViolation(),
                found.reason() + "; " + replayed.reason());
    }

    /** The requirement with its subject in place. */
    private Instance instance(Element requirement, Instance subject) {
        Map<ElementId, Instance> links = new HashMap<>();
        model.inheritance().features(requirement).stream()
                .filter(f -> f.kind() == ElementKind.SUBJECT)
                .forEach(feature -> links.put(feature.id(), subject));
        return flattening.root(requirement, links);
    }

    private List<Element> constraints(Element requirement, ElementKind kind) {
        return model.inheritance().features(requirement).stream()
                .filter(feature -> feature.kind() == kind)
                .toList();
    }

    /** All that a requirement requires; null if it requires nothing that could be computed. */
    private @Nullable Assessment assessAll(
            Element requirement, Instance instance, Instance subject, Assessor assessor, int depth) {
        Assessment whole = null;
        for (Element constraint : constraints(requirement, ElementKind.REQUIRED_CONSTRAINT)) {
            Assessment one = assess(constraint, instance, subject, assessor, depth);
            whole = whole == null ? one : Assessment.weaker(whole, one);
        }
        return whole;
    }

    /** A constraint of its own, or another requirement that is required of the same subject. */
    private Assessment assess(
            Element constraint, Instance requirement, Instance subject, Assessor assessor, int depth) {
        flattening.noteRead(constraint);
        Element required = constraint
                .get(Property.TARGET)
                .map(reference -> model.get(reference.target()))
                .orElse(null);
        if (required != null
                && model.inheritance().owning(required, Property.RESULT).isEmpty()) {
            if (depth > DEEPEST) {
                throw new ModelFault(
                        "'" + requirement.path() + "' requires itself, directly or in a circle",
                        List.of(constraint.id()));
            }
            flattening.noteRead(required);
            Assessment inner = assessAll(required, instance(required, subject), subject, assessor, depth + 1);
            if (inner != null) {
                return inner;
            }
        }
        Element owner = model.inheritance()
                .owning(constraint, Property.RESULT)
                .orElseThrow(() -> new ModelFault(
                        "a required constraint of '" + requirement.path() + "' is empty", List.of(constraint.id())));
        return assessor.assess(owner.get(Property.RESULT).orElseThrow(), flattening.inside(constraint, requirement));
    }

    static Judgement unjudged(Element requirement, String subject, VerdictKind verdict, String reason) {
        return new Judgement(
                requirement.id(), subject, verdict, null, null, null, reason, VerdictPlot.NONE, Fingerprint.NONE);
    }
}
