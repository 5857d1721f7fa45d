package pyrite.core.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.organicdesign.fp.collections.ImMap;
import org.organicdesign.fp.collections.ImSet;
import org.organicdesign.fp.collections.MutMap;
import org.organicdesign.fp.collections.MutSet;
import org.organicdesign.fp.collections.PersistentHashMap;
import org.organicdesign.fp.collections.PersistentHashSet;

/**
 * An immutable snapshot of all elements, the library packages included. {@link #apply} makes the next snapshot; the two
 * share all that did not change (persistent hash tries by id, by owner and by incoming reference), so an edit costs what
 * it touches and its siblings, not what there is.
 */
public final class Model implements Namespaces {
    public static final Model EMPTY = new Model(PersistentHashMap.empty(), PersistentHashMap.empty(), PersistentHashMap.empty(),
            List.of(), null);
    private static final Comparator<Element> ORDER = Comparator.comparing(Element::rank).thenComparing(Element::id);

    private final ImMap<ElementId, Element> byId;
    private final ImMap<ElementId, List<Element>> byOwner;
    private final ImMap<ElementId, ImSet<ElementId>> referrers;
    private final List<Element> roots;
    private final @Nullable Model library;
    private final Inheritance inheritance = new Inheritance(this);
    private final Names names = new Names(this);
    private final ModelEnvironment environment = new ModelEnvironment(this);

    private Model(ImMap<ElementId, Element> byId, ImMap<ElementId, List<Element>> byOwner,
            ImMap<ElementId, ImSet<ElementId>> referrers, List<Element> roots, @Nullable Model library) {
        this.byId = byId;
        this.byOwner = byOwner;
        this.referrers = referrers;
        this.roots = roots;
        this.library = library;
    }

    @Override
    public Optional<Element> find(ElementId id) {
        return Optional.ofNullable(byId.get(id));
    }

    @Override
    public @Nullable Names namesIn(ElementId owner) {
        return isLibrary(owner) ? library().names() : null;
    }

    /** @throws IllegalArgumentException if there is no such element */
    public Element get(ElementId id) {
        Element element = byId.get(id);
        if (element == null) {
            throw new IllegalArgumentException("no element has the id " + id);
        }
        return element;
    }

    @Override
    public List<Element> children(ElementId owner) {
        List<Element> children = byOwner.get(owner);
        return children == null ? List.of() : children;
    }

    @Override
    public List<Element> roots() {
        return roots;
    }

    /** The elements at the top that somebody wrote, without the library packages. */
    public List<Element> ownRoots() {
        return roots().stream().filter(root -> !isLibrary(root.id())).toList();
    }

    /** The ids of the elements that refer to this one, in a property or an expression. */
    public Set<ElementId> referrers(ElementId id) {
        ImSet<ElementId> found = referrers.get(id);
        return found == null ? Set.of() : found;
    }

    /** All elements that are not of the library, in no particular order. */
    public List<Element> ownElements() {
        return byId.values().stream().filter(element -> !isLibrary(element.id())).toList();
    }

    public int size() {
        return byId.size();
    }

    public boolean isLibrary(ElementId id) {
        return library != null && id.isNameBased() && library.byId.containsKey(id);
    }

    /** The library packages alone, the snapshot every project begins with. */
    public Model library() {
        return library == null ? EMPTY : library;
    }

    /** This snapshot as the library of models to come: from here on its elements cannot be edited. */
    public Model asLibrary() {
        return new Model(byId, byOwner, referrers, roots, this);
    }

    public Names names() {
        return names;
    }

    public Inheritance inheritance() {
        return inheritance;
    }

    /** Types, functions and units as the expressions of this snapshot see them. */
    public ModelEnvironment environment() {
        return environment;
    }

    @Override
    public List<ElementId> generals(Element element) {
        if (element.properties().isEmpty()) {
            return List.of();
        }
        List<ElementId> generals = new ArrayList<>(redefined(element));
        element.references(Property.REFERS).forEach(reference -> generals.add(reference.target()));
        element.references(Property.SPECIALIZES).forEach(reference -> generals.add(reference.target()));
        element.references(Property.TYPES).forEach(reference -> generals.add(reference.target()));
        return generals;
    }

    @Override
    public List<ElementId> redefined(Element element) {
        List<Reference> redefined = element.references(Property.REDEFINES);
        return redefined.isEmpty() ? List.of() : redefined.stream().map(Reference::target).toList();
    }

    @Override
    public Optional<ElementId> imported(Element importElement) {
        return importElement.get(Property.TARGET).map(Reference::target);
    }

    @Override
    public @Nullable String inheritedName(Element element) {
        return element.references(Property.REDEFINES).isEmpty() ? null : inheritance.redefined(element).stream().map(Element::name).filter(Objects::nonNull).findFirst().orElse(null);
    }

    /** The element and everything it owns, owners before what they own. */
    public List<Element> subtree(ElementId top) {
        List<Element> all = new ArrayList<>();
        ArrayDeque<ElementId> open = new ArrayDeque<>(List.of(top));
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            find(at).ifPresent(all::add);
            children(at).forEach(child -> open.add(child.id()));
        }
        return all;
    }

    /** The owner, the owner's owner and so on up to the top, nearest first. */
    public List<Element> owners(Element element) {
        List<Element> owners = new ArrayList<>();
        for (ElementId at = element.owner(); at != null;) {
            Element owner = get(at);
            owners.add(owner);
            at = owner.owner();
        }
        return owners;
    }

    /** A rank behind everything {@code owner} owns now; null stands for the top. */
    public Rank rankAtEnd(@Nullable ElementId owner) {
        List<Element> siblings = owner == null ? roots : children(owner);
        return Rank.between(siblings.isEmpty() ? null : siblings.getLast().rank(), null);
    }

    /**
     * The snapshot after an edit with the exact difference, or what is wrong with it. Checked is what changed and
     * whatever depends on it.
     */
    public Outcome apply(Edit edit) {
        Difference difference = difference(edit);
        List<Problem> problems = new ArrayList<>(untouchable(difference));
        problems.addAll(dangling(difference));
        if (!problems.isEmpty()) {
            return new Outcome.Refused(problems);
        }
        Model next = replay(difference);
        problems.addAll(next.ownedByThemselves(difference));
        if (!problems.isEmpty()) {
            return new Outcome.Refused(problems);
        }
        problems.addAll(WellFormedness.check(next, next.affectedBy(difference)));
        return problems.isEmpty() ? new Outcome.Applied(next, difference) : new Outcome.Refused(problems);
    }

    /**
     * What else is wrong among elements of which some are known to be faulty: those are not looked at, and what they lack is
     * not held against the others. For reporting all faults of a text at once; makes no snapshot.
     */
    public static List<Problem> faultsAmong(Model base, List<Element> elements, Set<ElementId> faulty) {
        Model tentative = base.with(elements);
        return WellFormedness.check(tentative, elements.stream().map(Element::id).filter(id -> !faulty.contains(id)).toList());
    }

    /** What an edit would change, removals with all they own, not yet checked. */
    public Difference difference(Edit edit) {
        Map<ElementId, ElementChange> changes = new LinkedHashMap<>();
        edit.remove().forEach(top -> subtree(top).forEach(gone -> changes.put(gone.id(), new ElementChange(gone, null))));
        edit.putById().forEach((id, after) -> changes.put(id, new ElementChange(byId.get(id), after)));
        return new Difference(List.copyOf(changes.values()));
    }

    /** This snapshot with a difference that was checked before: one read from a store, or one just checked. */
    public Model replay(Difference difference) {
        return new Builder(this).change(difference.changes()).build();
    }

    /** This snapshot with elements added that are known to be right. */
    public Model with(Collection<Element> elements) {
        return replay(new Difference(elements.stream().map(e -> new ElementChange(byId.get(e.id()), e)).toList()));
    }

    private List<Problem> untouchable(Difference difference) {
        return difference.changes().stream()
                .filter(change -> isLibrary(change.id()) || change.after() != null && change.after().owner() != null
                        && isLibrary(change.after().owner()))
                .map(change -> new Problem(change.id(), null, pyrite.core.expression.Span.NONE,
                        "this belongs to the library, which is the same in every project and cannot be edited"))
                .toList();
    }

    /** Found before anything else is asked, because every walk up the owners relies on there being an end. */
    private List<Problem> ownedByThemselves(Difference difference) {
        List<Problem> problems = new ArrayList<>();
        Set<ElementId> endsAtTop = new HashSet<>();
        for (ElementChange change : difference.changes()) {
            Set<ElementId> way = new LinkedHashSet<>();
            Element at = change.after();
            while (at != null && !endsAtTop.contains(at.id()) && way.add(at.id())) {
                at = at.owner() == null ? null : byId.get(at.owner());
            }
            if (at != null && !endsAtTop.contains(at.id())) {
                problems.add(Problem.of(change.after(), "an element cannot be owned by itself or by what it owns"));
            } else {
                endsAtTop.addAll(way);
            }
        }
        return problems;
    }

    private List<Problem> dangling(Difference difference) {
        if (difference.changes().stream().allMatch(change -> change.after() != null)) {
            return List.of();
        }
        Set<ElementId> gone = new HashSet<>();
        Set<ElementId> written = new HashSet<>();
        difference.changes().forEach(change -> (change.after() == null ? gone : written).add(change.id()));
        List<Problem> problems = new ArrayList<>();
        for (ElementId id : gone) {
            referrers(id).stream().filter(user -> !gone.contains(user) && !written.contains(user)).map(this::get)
                    .forEach(user -> problems.add(Problem.of(user, names.qualifiedName(user) + " uses "
                            + names.qualifiedName(get(id)) + "; remove or change that use first")));
        }
        return problems;
    }

    /** The changed elements and all whose meaning may rest on them: what refers to them, step by step. */
    private Set<ElementId> affectedBy(Difference difference) {
        Set<ElementId> affected = new LinkedHashSet<>();
        ArrayDeque<ElementId> open = new ArrayDeque<>();
        difference.changes().forEach(change -> {
            if (change.before() == null) {
                // Nothing refers to what is new, except what is new or changed itself.
                affected.add(change.id());
            } else {
                open.add(change.id());
            }
            open.addAll(owners(change));
        });
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            if (affected.add(at)) {
                open.addAll(referrers(at));
            }
        }
        affected.removeIf(id -> !byId.containsKey(id));
        return affected;
    }

    private static List<ElementId> owners(ElementChange change) {
        List<ElementId> owners = new ArrayList<>();
        if (change.before() != null && change.before().owner() != null) {
            owners.add(change.before().owner());
        }
        if (change.after() != null && change.after().owner() != null) {
            owners.add(change.after().owner());
        }
        return owners;
    }

    /** Collects changes to the persistent maps before a snapshot is made of them. */
    private static final class Builder {
        private final Model from;
        private final MutMap<ElementId, Element> byId;
        private final Map<ElementId, Members> members = new HashMap<>();
        private final Members top;
        private final Map<ElementId, Incoming> incoming = new HashMap<>();

        /** What changes among the members of one owner. */
        private static final class Members {
            private final Set<ElementId> gone = new HashSet<>();
            private final List<Element> come = new ArrayList<>();

            /** The members after the change, in their order. */
            List<Element> after(List<Element> before) {
                List<Element> all = new ArrayList<>(before.size() + come.size());
                if (gone.isEmpty()) {
                    all.addAll(before);
                } else {
                    before.stream().filter(element -> !gone.contains(element.id())).forEach(all::add);
                }
                all.addAll(come);
                all.sort(ORDER);
                return java.util.Collections.unmodifiableList(all);
            }
        }

        /** Who ceases and who begins to refer to an element. */
        private record Incoming(Set<ElementId> gone, Set<ElementId> come) {
        }

        Builder(Model from) {
            this.from = from;
            this.byId = from.byId.mutable();
            this.top = new Members();
        }

        Builder change(List<ElementChange> changes) {
            changes.forEach(this::change);
            return this;
        }

        private void change(ElementChange change) {
            Element before = change.before();
            Element after = change.after();
            if (before != null) {
                members(before.owner()).gone.add(before.id());
                before.outgoing().forEach(target -> incoming(target).gone.add(before.id()));
            }
            if (after == null) {
                byId.without(change.id());
            } else {
                byId.assoc(after.id(), after);
                members(after.owner()).come.add(after);
                after.outgoing().forEach(target -> incoming(target).come.add(after.id()));
            }
        }

        private Members members(@Nullable ElementId owner) {
            return owner == null ? top : members.computeIfAbsent(owner, _ -> new Members());
        }

        private Incoming incoming(ElementId target) {
            return incoming.computeIfAbsent(target, _ -> new Incoming(new HashSet<>(), new HashSet<>()));
        }

        Model build() {
            MutMap<ElementId, List<Element>> byOwner = from.byOwner.mutable();
            members.forEach((owner, change) -> byOwner.assoc(owner, change.after(from.children(owner))));
            MutMap<ElementId, ImSet<ElementId>> referrers = from.referrers.mutable();
            incoming.forEach((target, change) -> {
                ImSet<ElementId> known = from.referrers.get(target);
                MutSet<ElementId> users = (known == null ? PersistentHashSet.<ElementId>empty() : known).mutable();
                change.gone.stream().filter(user -> !change.come.contains(user)).forEach(users::without);
                change.come.forEach(users::put);
                referrers.assoc(target, users.immutable());
            });
            return new Model(byId.immutable(), byOwner.immutable(), referrers.immutable(), top.after(from.roots), from.library);
        }
    }
}
