package pyrite.core.reuse;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.finding.Finding;
import pyrite.core.finding.Findings;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.model.Rank;
import pyrite.core.reuse.UsedLibrary.Pin;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.VerdictKind;

/**
 * What moving the libraries of a project to another baseline changes, and what it would break.
 *
 * @param changes the definitions that differ
 * @param breaks why it cannot be done as things are; empty if it can
 * @param findings what a check of the model would notice then that it does not now
 * @param turned the judgements without a run that no longer pass
 */
public record Moving(
        Edit edit, List<Change> changes, List<Break> breaks, List<Finding> findings, List<Judgement> turned) {
    /** How a definition differs. */
    public enum Kind {
        ADDED,
        CHANGED,
        REMOVED
    }

    /**
     * A member of a library package that differs, in itself or in what it has.
     *
     * @param before as it is used now; null if it is new
     * @param after null if it is gone
     * @param uses what refers to it from outside of the libraries
     */
    public record Change(
            Kind kind,
            String name,
            @Nullable Element before,
            @Nullable Element after,
            List<Element> uses) {}

    /** @param element in the using model; null if it is of no one element */
    public record Break(@Nullable Element element, String reason) {}

    public Moving {
        changes = List.copyOf(changes);
        breaks = List.copyOf(breaks);
        findings = List.copyOf(findings);
        turned = List.copyOf(turned);
    }

    /** @param source the other project at the baseline to move to */
    public static Moving of(Model using, Model source, Pin pin) {
        return new Mover(using, source, pin).move();
    }

    private static final class Mover {
        private final Model using;
        private final Model source;
        private final Pin pin;
        private final List<UsedLibrary> libraries;

        Mover(Model using, Model source, Pin pin) {
            this.using = using;
            this.source = source;
            this.pin = pin;
            this.libraries = UsedLibrary.of(using, pin.project()).stream()
                    .filter(library -> !isThere(library))
                    .toList();
        }

        /** Whether a library is at that baseline already and stays as it is. */
        private boolean isThere(UsedLibrary library) {
            return library.pin().revision() == pin.revision();
        }

        Moving move() {
            Map<ElementId, Element> before = new LinkedHashMap<>();
            libraries.forEach(
                    library -> using.subtree(library.top().id()).forEach(element -> before.put(element.id(), element)));
            Map<ElementId, Element> after = after();
            List<Element> put = after.values().stream()
                    .filter(element -> !element.equals(before.get(element.id())))
                    .toList();
            Set<ElementId> removed = new LinkedHashSet<>(before.keySet());
            removed.removeAll(after.keySet());
            Edit edit = new Edit(put, removed);
            List<Break> breaks = lost(removed);
            List<Finding> findings = List.of();
            List<Judgement> turned = List.of();
            switch (using.apply(edit)) {
                case EditResult.Refused(List<Problem> problems) -> {
                    if (breaks.isEmpty()) {
                        breaks = problems.stream()
                                .map(problem ->
                                        new Break(using.find(problem.element()).orElse(null), problem.message()))
                                .toList();
                    }
                }
                case EditResult.Applied(Model next, var _) -> {
                    findings = fresh(next);
                    turned = turned(next);
                }
            }
            return new Moving(edit, changes(before, after), breaks, findings, turned);
        }

        /** What the libraries have at the other baseline. */
        private Map<ElementId, Element> after() {
            Set<Element> roots = new LinkedHashSet<>();
            libraries.stream()
                    .flatMap(library -> source.find(library.top().id()).stream())
                    .forEach(root -> roots.addAll(Taking.needed(source, root)));
            roots.removeIf(root -> using.find(root.id())
                    .flatMap(known -> UsedLibrary.of(using, known))
                    .filter(this::isThere)
                    .isPresent());
            Map<ElementId, Element> after = new LinkedHashMap<>();
            Rank last = using.rankAtEnd(null);
            for (Element root : roots) {
                boolean isKnown = using.has(root.id());
                Rank rank = isKnown ? using.get(root.id()).rank() : last;
                last = isKnown ? last : Rank.after(last, 1).getFirst();
                Taking.content(source, root, rank, pin).forEach(element -> after.put(element.id(), element));
            }
            return after;
        }

        /** What is used and no longer there. */
        private List<Break> lost(Set<ElementId> removed) {
            List<Break> lost = new ArrayList<>();
            for (ElementId gone : removed) {
                for (Element user : usersOutside(gone)) {
                    lost.add(new Break(
                            user,
                            "it uses " + using.names().qualifiedName(using.get(gone)) + ", which " + pin.baseline()
                                    + " no longer has"));
                }
            }
            lost.sort(Comparator.comparing(Break::reason));
            return lost;
        }

        private List<Element> usersOutside(ElementId id) {
            return using.referrers(id).stream()
                    .map(using::get)
                    .filter(user -> UsedLibrary.around(using, user).isEmpty())
                    .sorted(Comparator.comparing(user -> using.names().qualifiedName(user)))
                    .toList();
        }

        private List<Finding> fresh(Model next) {
            List<Finding> before = Findings.in(using).all(using);
            return Findings.in(next).all(next).stream()
                    .filter(finding -> !before.contains(finding)
                            && UsedLibrary.around(next, next.get(finding.element()))
                                    .isEmpty())
                    .toList();
        }

        /** What passes now and does not then. */
        private List<Judgement> turned(Model next) {
            return using.ownElements(ElementKind.REQUIREMENT)
                    .map(requirement -> StaticJudgement.of(using, requirement))
                    .filter(now -> isPassed(now) && !now.holdsIn(next))
                    .map(now -> next.get(now.judgements().getFirst().requirement()))
                    .flatMap(requirement -> StaticJudgement.of(next, requirement).judgements().stream())
                    .filter(then -> then.verdict() != VerdictKind.PASS)
                    .toList();
        }

        private static boolean isPassed(StaticJudgement now) {
            return !now.judgements().isEmpty()
                    && now.judgements().stream().allMatch(judgement -> judgement.verdict() == VerdictKind.PASS);
        }

        private List<Change> changes(Map<ElementId, Element> before, Map<ElementId, Element> after) {
            Map<ElementId, Kind> kinds = new HashMap<>();
            Set<ElementId> all = new LinkedHashSet<>(before.keySet());
            all.addAll(after.keySet());
            for (ElementId id : all) {
                Element old = before.get(id);
                Element now = after.get(id);
                if (!Objects.equals(old, now)) {
                    Element member =
                            member(Objects.requireNonNull(now == null ? old : now), now == null ? before : after);
                    if (member != null) {
                        kinds.merge(
                                member.id(),
                                member.id().equals(id) && old == null
                                        ? Kind.ADDED
                                        : member.id().equals(id) && now == null ? Kind.REMOVED : Kind.CHANGED,
                                (one, other) -> one == Kind.CHANGED ? other : one);
                    }
                }
            }
            return kinds.entrySet().stream()
                    .map(entry -> change(entry.getValue(), before.get(entry.getKey()), after.get(entry.getKey())))
                    .sorted(Comparator.comparing(Change::kind).thenComparing(Change::name))
                    .toList();
        }

        private Change change(Kind kind, @Nullable Element before, @Nullable Element after) {
            Element known = Objects.requireNonNull(after == null ? before : after);
            return new Change(
                    kind,
                    Objects.requireNonNullElse(known.name(), known.kind().title()),
                    before,
                    after,
                    before == null
                            ? List.of()
                            : using.subtree(before.id()).stream()
                                    .flatMap(each -> usersOutside(each.id()).stream())
                                    .distinct()
                                    .toList());
        }

        /** The member of the package that an element is or stands in; null for the package itself and its mark. */
        private static @Nullable Element member(Element element, Map<ElementId, Element> among) {
            Element at = element;
            Element owner = owner(at, among);
            while (owner != null && owner.owner() != null) {
                at = owner;
                owner = owner(at, among);
            }
            return owner == null || at.kind().family() == ElementKind.Family.ANNOTATION ? null : at;
        }

        private static @Nullable Element owner(Element element, Map<ElementId, Element> among) {
            return element.owner() == null ? null : among.get(element.owner());
        }
    }
}
