package pyrite.core.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.pcollections.HashTreePMap;
import org.pcollections.HashTreePSet;
import org.pcollections.PMap;
import org.pcollections.PSet;
import org.pcollections.TreePVector;

/**
 * An immutable snapshot of all elements, the library packages included. {@link #apply} makes the next snapshot; the two
 * share all that did not change (persistent maps by id, by owner and by incoming reference), so an edit costs what it
 * touches and not what there is.
 */
public final class Model implements Namespaces {
    public static final Model EMPTY = new Model(HashTreePMap.empty(), HashTreePMap.empty(), HashTreePMap.empty(),
            TreePVector.empty(), null);

    private final PMap<ElementId, Element> byId;
    private final PMap<ElementId, TreePVector<ElementId>> byOwner;
    private final PMap<ElementId, PSet<ElementId>> referrers;
    private final TreePVector<ElementId> roots;
    private final @Nullable Model library;
    private final Inheritance inheritance = new Inheritance(this);
    private final Names names = new Names(this);
    private final ModelEnvironment environment = new ModelEnvironment(this);

    private Model(PMap<ElementId, Element> byId, PMap<ElementId, TreePVector<ElementId>> byOwner,
            PMap<ElementId, PSet<ElementId>> referrers, TreePVector<ElementId> roots, @Nullable Model library) {
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
        return byOwner.getOrDefault(owner, TreePVector.empty()).stream().map(byId::get).toList();
    }

    @Override
    public List<Element> roots() {
        return roots.stream().map(byId::get).toList();
    }

    /** The elements at the top that somebody wrote, without the library packages. */
    public List<Element> ownRoots() {
        return roots().stream().filter(root -> !isLibrary(root.id())).toList();
    }

    /** The ids of the elements that refer to this one, in a property or an expression. */
    public Set<ElementId> referrers(ElementId id) {
        return referrers.getOrDefault(id, HashTreePSet.empty());
    }

    /** All elements that are not of the library, in no particular order. */
    public List<Element> ownElements() {
        return byId.values().stream().filter(element -> !isLibrary(element.id())).toList();
    }

    public int size() {
        return byId.size();
    }

    public boolean isLibrary(ElementId id) {
        return library != null && library.byId.containsKey(id);
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
        List<ElementId> generals = new ArrayList<>(redefined(element));
        element.references(Property.REFERS).forEach(reference -> generals.add(reference.target()));
        element.references(Property.SPECIALIZES).forEach(reference -> generals.add(reference.target()));
        element.references(Property.TYPES).forEach(reference -> generals.add(reference.target()));
        return generals;
    }

    @Override
    public List<ElementId> redefined(Element element) {
        return element.references(Property.REDEFINES).stream().map(Reference::target).toList();
    }

    @Override
    public Optional<ElementId> imported(Element importElement) {
        return importElement.get(Property.TARGET).map(Reference::target);
    }

    @Override
    public @Nullable String inheritedName(Element element) {
        return inheritance.redefined(element).stream().map(Element::name).filter(Objects::nonNull).findFirst().orElse(null);
    }

    /** The element and everything it owns, owners before what they own. */
    public List<Element> subtree(ElementId top) {
        List<Element> all = new ArrayList<>();
        ArrayDeque<ElementId> open = new ArrayDeque<>(List.of(top));
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            find(at).ifPresent(all::add);
            open.addAll(byOwner.getOrDefault(at, TreePVector.empty()));
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
        List<ElementId> siblings = owner == null ? roots : byOwner.getOrDefault(owner, TreePVector.empty());
        return Rank.between(siblings.isEmpty() ? null : get(siblings.getLast()).rank(), null);
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
        problems.addAll(WellFormedness.check(next, next.affectedBy(difference)));
        return problems.isEmpty() ? new Outcome.Applied(next, difference) : new Outcome.Refused(problems);
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

    private List<Problem> dangling(Difference difference) {
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
            open.add(change.id());
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
        private final @Nullable Model library;
        private PMap<ElementId, Element> byId;
        private PMap<ElementId, TreePVector<ElementId>> byOwner;
        private PMap<ElementId, PSet<ElementId>> referrers;
        private TreePVector<ElementId> roots;

        Builder(Model from) {
            library = from.library;
            byId = from.byId;
            byOwner = from.byOwner;
            referrers = from.referrers;
            roots = from.roots;
        }

        Builder change(List<ElementChange> changes) {
            changes.forEach(change -> {
                if (change.before() != null) {
                    unlink(change.before());
                }
            });
            changes.forEach(change -> byId = change.after() == null ? byId.minus(change.id())
                    : byId.plus(change.id(), change.after()));
            changes.forEach(change -> {
                if (change.after() != null) {
                    link(change.after());
                }
            });
            return this;
        }

        private void link(Element element) {
            place(element.owner(), siblings -> siblings.plus(position(siblings, element), element.id()));
            for (ElementId target : new HashSet<>(element.outgoing())) {
                referrers = referrers.plus(target,
                        referrers.getOrDefault(target, HashTreePSet.empty()).plus(element.id()));
            }
        }

        private void unlink(Element element) {
            place(element.owner(), siblings -> siblings.minus(position(siblings, element)));
            for (ElementId target : new HashSet<>(element.outgoing())) {
                referrers = referrers.plus(target,
                        referrers.getOrDefault(target, HashTreePSet.empty()).minus(element.id()));
            }
        }

        private void place(@Nullable ElementId owner,
                java.util.function.UnaryOperator<TreePVector<ElementId>> change) {
            if (owner == null) {
                roots = change.apply(roots);
            } else {
                byOwner = byOwner.plus(owner, change.apply(byOwner.getOrDefault(owner, TreePVector.empty())));
            }
        }

        /** Where the element is or belongs among its siblings: by rank, then by id (binary search). */
        private int position(TreePVector<ElementId> siblings, Element element) {
            int low = 0;
            int high = siblings.size();
            while (low < high) {
                int middle = (low + high) >>> 1;
                if (order(byId.get(siblings.get(middle)), element) < 0) {
                    low = middle + 1;
                } else {
                    high = middle;
                }
            }
            return low;
        }

        private static int order(Element a, Element b) {
            int byRank = a.rank().compareTo(b.rank());
            return byRank != 0 ? byRank : a.id().compareTo(b.id());
        }

        Model build() {
            return new Model(byId, byOwner, referrers, roots, library);
        }
    }
}
