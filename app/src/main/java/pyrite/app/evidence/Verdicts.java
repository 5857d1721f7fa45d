package pyrite.app.evidence;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import pyrite.app.store.BranchStore;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.history.Revision;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.Fingerprint;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.Subjects;
import pyrite.core.verification.VerdictKind;

/** Finds the current verdicts at a head, and the changes that made stale ones stale. */
@Service
public class Verdicts {
    private static final int MOST_CHANGES = 5;
    private static final int MOST_STANDINGS = 16;
    /** So long the requirements of a branch are judged at once; those that are left wait for the next revision. */
    private static final Duration LONGEST = Duration.ofSeconds(10);

    private static final int FARTHEST_BACK = 200;
    private static final Comparator<VerdictView> WORST_FIRST = Comparator.comparing(view -> switch (view.kind()) {
        case ERROR -> 0;
        case FAIL -> 1;
        case INCONCLUSIVE -> 2;
        case PASS -> 3;
    });

    private final RunStore runs;
    private final BranchStore branches;
    private final Workspace workspace;
    private final Cache<VerdictsKey, Map<ElementId, List<VerdictView>>> inForce =
            Caffeine.newBuilder().maximumSize(MOST_STANDINGS).build();

    Verdicts(RunStore runs, BranchStore branches, Workspace workspace) {
        this.runs = runs;
        this.branches = branches;
        this.workspace = workspace;
    }

    /** What the current verdicts depend on: the head of a branch and which of its runs have ended. */
    private record VerdictsKey(long branch, int head, long endedRuns) {}

    /** All verdicts by requirement, the worst first. Requirements without any are left out. */
    public Map<ElementId, List<VerdictView>> all(Workspace.Head head) {
        return inForce.get(
                new VerdictsKey(head.branch().id(), head.number(), runs.ended(head.branch())), _ -> find(head));
    }

    private Map<ElementId, List<VerdictView>> find(Workspace.Head head) {
        Map<ElementId, List<VerdictView>> views = new HashMap<>();
        History history = new History(head);
        for (RunStore.Verdict verdict : inForce(head)) {
            views.computeIfAbsent(verdict.requirement(), _ -> new ArrayList<>()).add(view(head, verdict, history));
        }
        Set<ElementId> judgedByRuns = Set.copyOf(views.keySet());
        atOnce(head)
                .forEach((requirement, found) -> found.judgements().stream()
                        .filter(judgement -> judgement.verdict() != VerdictKind.INCONCLUSIVE
                                || found.isCutShort() && !judgedByRuns.contains(requirement))
                        .forEach(judgement -> put(views, VerdictView.of(judgement, head.number()), requirement)));
        views.forEach((requirement, list) -> addMissing(head, requirement, list));
        views.values().forEach(list -> list.sort(WORST_FIRST));
        return views;
    }

    /** What needs no run replaces what a run found for the same subject. */
    private static void put(Map<ElementId, List<VerdictView>> views, VerdictView view, ElementId requirement) {
        List<VerdictView> list = views.computeIfAbsent(requirement, _ -> new ArrayList<>());
        list.removeIf(other -> other.subject().equals(view.subject()));
        list.add(view);
    }

    /** A requirement is as good as the worst of its subjects; one without a verdict is among them. */
    private static void addMissing(Workspace.Head head, ElementId requirement, List<VerdictView> views) {
        List<String> judged = views.stream().map(VerdictView::subject).toList();
        Subjects.withoutVerdict(head.model(), head.model().get(requirement), judged).stream()
                .map(judgement -> VerdictView.of(judgement, head.number()))
                .forEach(views::add);
    }

    /**
     * For each requirement, subject and case the newest verdict that is fresh, or else the newest: after an undo the
     * one that held before counts again. A case that verifies the requirement no more has no say.
     */
    private List<RunStore.Verdict> inForce(Workspace.Head head) {
        Map<ElementId, Set<ElementId>> verifiedBy = new HashMap<>();
        List<RunStore.Verdict> newest = runs.newestVerdicts(head.branch(), head.number()).stream()
                .filter(verdict -> verifiedBy
                        .computeIfAbsent(verdict.caseId(), id -> verifiedBy(head.model(), id))
                        .contains(verdict.requirement()))
                .toList();
        List<RunStore.Verdict> staleOnes =
                newest.stream().filter(verdict -> !isFresh(verdict, head)).toList();
        Set<ElementId> stale =
                staleOnes.stream().map(RunStore.Verdict::requirement).collect(Collectors.toSet());
        Set<Place> stalePlaces = staleOnes.stream().map(Place::of).collect(Collectors.toSet());
        Map<Place, RunStore.Verdict> freshAgain = new HashMap<>();
        for (RunStore.Verdict older : runs.earlierVerdicts(head.branch(), head.number(), stale)) {
            Place place = Place.of(older);
            if (stalePlaces.contains(place) && !freshAgain.containsKey(place) && isFresh(older, head)) {
                freshAgain.put(place, older);
            }
        }
        return newest.stream()
                .map(verdict -> freshAgain.getOrDefault(Place.of(verdict), verdict))
                .toList();
    }

    private static Set<ElementId> verifiedBy(Model model, ElementId usage) {
        return model.find(usage).stream()
                .flatMap(found -> CaseSetup.requirements(model, found).stream())
                .map(Element::id)
                .collect(Collectors.toSet());
    }

    /** What a verdict is about, and which case came to it: one that fails is not outdone by another that passes. */
    private record Place(ElementId requirement, String subject, ElementId usage) {
        static Place of(RunStore.Verdict verdict) {
            return new Place(verdict.requirement(), verdict.subject(), verdict.caseId());
        }
    }

    private static boolean isFresh(RunStore.Verdict verdict, Workspace.Head head) {
        return verdict.fingerprint().changedIn(head.model()).isEmpty();
    }

    /** The verdicts without a run at the newest revision of a branch that was asked for. */
    private static final class Judged {
        private int number;
        private Map<ElementId, StaticJudgement> byRequirement = Map.of();
    }

    /** What can be judged from the model alone; what changes since left as it was is not judged again. */
    private Map<ElementId, StaticJudgement> atOnce(Workspace.Head head) {
        if (head.past()) {
            return atOnce(head.model(), Map.of(), _ -> false);
        }
        Judged known = workspace.follower(head.branch(), Judged.class, Judged::new);
        synchronized (known) {
            known.byRequirement = atOnce(head.model(), known.byRequirement, untouched(head, known.number));
            known.number = head.number();
            return known.byRequirement;
        }
    }

    /**
     * What surely holds still: nothing it rests on was changed between a revision and the head. Of what is too far away
     * nothing is sure.
     */
    private Predicate<StaticJudgement> untouched(Workspace.Head head, int since) {
        if (since > head.number() || head.number() - since > FARTHEST_BACK) {
            return _ -> false;
        }
        Set<ElementId> alterable = Fingerprint.alterableBy(
                branches.difference(head.branch(), since, head.number()).changes(), head.model());
        return judged -> judged.isApartFrom(alterable);
    }

    private static Map<ElementId, StaticJudgement> atOnce(
            Model model, Map<ElementId, StaticJudgement> before, Predicate<StaticJudgement> untouched) {
        long end = System.nanoTime() + LONGEST.toNanos();
        return model.ownElements(ElementKind.REQUIREMENT).collect(Collectors.toMap(Element::id, requirement -> {
            StaticJudgement known = before.get(requirement.id());
            if (known != null && known.isReached() && (untouched.test(known) || known.holdsIn(model))) {
                return known;
            }
            return System.nanoTime() < end
                    ? StaticJudgement.of(model, requirement)
                    : StaticJudgement.notReached(requirement);
        }));
    }

    public List<VerdictView> of(Workspace.Head head, ElementId requirement) {
        return all(head).getOrDefault(requirement, List.of());
    }

    /** The verdicts a run came to, whether or not newer ones have replaced them. */
    public Map<ElementId, List<VerdictView>> ofRun(Workspace.Head head, long run) {
        Map<ElementId, List<VerdictView>> views = new LinkedHashMap<>();
        History history = new History(head);
        runs.verdictsOf(run)
                .forEach(verdict -> views.computeIfAbsent(verdict.requirement(), _ -> new ArrayList<>())
                        .add(view(head, verdict, history)));
        return views;
    }

    private static String caseName(Model model, RunStore.Verdict verdict) {
        return model.find(verdict.caseId()).map(model.names()::effectiveName).orElse(verdict.caseName());
    }

    private VerdictView view(Workspace.Head head, RunStore.Verdict verdict, History history) {
        List<ElementId> changed = verdict.fingerprint().changedIn(head.model());
        return new VerdictView(
                verdict.id(),
                verdict.kind(),
                verdict.subject(),
                verdict.margin(),
                verdict.unit(),
                verdict.worstInstant(),
                verdict.firstViolation(),
                verdict.reason(),
                verdict.run(),
                verdict.caseId(),
                caseName(head.model(), verdict),
                verdict.revision(),
                history.changes(changed, verdict.revision()),
                !changed.isEmpty());
    }

    /** Finds the revisions that changed an element; reads each revision once. */
    private final class History {
        private final Workspace.Head head;
        private final Labels labels;
        private final Map<Integer, Difference> differences = new HashMap<>();
        private List<BranchStore.Entry> revisions = List.of();

        History(Workspace.Head head) {
            this.head = head;
            this.labels = new Labels(head.model());
        }

        List<VerdictView.Change> changes(List<ElementId> changed, int since) {
            if (changed.isEmpty()) {
                return List.of();
            }
            List<VerdictView.Change> found = new ArrayList<>();
            Set<ElementId> requested = new HashSet<>(changed);
            for (BranchStore.Entry entry : revisionsSince(since)) {
                Optional<ElementId> hit = hit(entry.revision(), requested);
                hit.ifPresent(id -> found.add(new VerdictView.Change(
                        labels.name(id),
                        address(id),
                        entry.revision().label(),
                        entry.revision().summary(),
                        entry.authorName())));
                if (found.size() == MOST_CHANGES) {
                    break;
                }
            }
            if (found.isEmpty()) {
                changed.stream()
                        .limit(MOST_CHANGES)
                        .forEach(id ->
                                found.add(new VerdictView.Change(labels.name(id), address(id), "", "changed", "")));
            }
            return found;
        }

        /** Edits after a revision that are not undone, newest first. */
        private List<BranchStore.Entry> revisionsSince(int since) {
            if (revisions.isEmpty()) {
                revisions = branches.revisions(head.branch(), head.number(), FARTHEST_BACK);
            }
            Set<Integer> undone = new HashSet<>();
            revisions.reversed().forEach(entry -> {
                Revision revision = entry.revision();
                switch (revision.act()) {
                    case UNDO -> undone.add(revision.of());
                    case REDO -> undone.remove(revision.of());
                    case EDIT -> {}
                }
            });
            return revisions.stream()
                    .takeWhile(entry -> entry.revision().number() > since)
                    .filter(entry -> entry.revision().act() == Revision.Act.EDIT
                            && !undone.contains(entry.revision().number()))
                    .toList();
        }

        /** The changed element that a revision touched, itself or through something it owns. */
        private Optional<ElementId> hit(Revision revision, Set<ElementId> requested) {
            Difference difference =
                    differences.computeIfAbsent(revision.number(), n -> branches.difference(head.branch(), n));
            return difference.changes().stream()
                    .flatMap(change -> touched(change).stream())
                    .filter(requested::contains)
                    .findFirst();
        }

        private List<ElementId> touched(ElementChange change) {
            List<ElementId> ids = new ArrayList<>();
            Element one = change.after() != null ? change.after() : change.before();
            if (one != null && one.owner() != null) {
                ids.add(one.owner());
            }
            ids.add(change.id());
            return ids;
        }

        private String address(ElementId id) {
            return head.address("element/" + id);
        }
    }
}
