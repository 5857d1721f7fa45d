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
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ForkJoinTask;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;

/**
 * An immutable snapshot of all elements, library packages included. {@link #apply} returns the next snapshot. The two
 * share everything unchanged ({@link SnapshotMap}s by id and by owner), so the cost of an edit depends on what it
 * touches and its siblings, not on the size of the model.
 */
public final class Model implements Namespaces {
    public static final Model EMPTY = new Model(SnapshotMap.empty(), Ownership.NONE, null);
    /** By what an element inherits, the nearest first. */
    private static final List<Property<List<Reference>>> GENERALS =
            List.of(Property.REDEFINES, Property.REFERS, Property.SPECIALIZES, Property.TYPES);

    /** More than the library has, which is read on one thread. */
    private static final int WORTH_SHARING = 4000;

    private final SnapshotMap<Element> byId;
    private final Ownership ownership;
    private final @Nullable Model library;
    private volatile @Nullable List<Element> own;
    private final Map<Class<?>, Object> derived = new ConcurrentHashMap<>();
    private final Inheritance inheritance = new Inheritance(this);
    private final Names names = new Names(this);
    private final ModelEnvironment environment = new ModelEnvironment(this);

    private Model(SnapshotMap<Element> byId, Ownership ownership, @Nullable Model library) {
        this.byId = byId;
        this.ownership = ownership;
        this.library = library;
    }

    @Override
    public Optional<Element> find(ElementId id) {
        return Optional.ofNullable(byId.get(id));
    }

    public boolean has(ElementId id) {
        return byId.get(id) != null;
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
        return ownership.of(owner);
    }

    @Override
    public List<Element> roots() {
        return ownership.roots();
    }

    /** The elements at the top that somebody wrote, without the library packages. */
    public List<Element> ownRoots() {
        return roots().stream().filter(root -> !isLibrary(root.id())).toList();
    }

    /** The ids of the elements that refer to this one, in a property or an expression. */
    public Set<ElementId> referrers(ElementId id) {
        return Referrers.in(this).of(id);
    }

    /** All elements that are not of the library, in no particular order. Found once for each snapshot. */
    public List<Element> ownElements() {
        List<Element> known = own;
        if (known == null) {
            known = byId.values().stream()
                    .filter(element -> !isLibrary(element.id()))
                    .toList();
            own = known;
        }
        return known;
    }

    /** The own elements of some kinds, in no particular order; their number is what it costs, not that of all. */
    public Stream<Element> ownElements(Set<ElementKind> requested) {
        KindIndex known = derived(KindIndex.class, KindIndex::of);
        return requested.stream().map(known::of).flatMap(List::stream);
    }

    public Stream<Element> ownElements(ElementKind requested) {
        return ownElements(Set.of(requested));
    }

    /**
     * Something that follows from this snapshot alone: made when it is first asked for, and kept as long as the
     * snapshot, or taken to the next one if it is {@link IncrementalIndex}. Two who ask first at once may both make it.
     *
     * @param type says what it is; for each there is one
     */
    public <T> T derived(Class<T> type, Function<Model, T> make) {
        Object known = derived.get(type);
        if (known == null) {
            T made = make.apply(this);
            Object before = derived.putIfAbsent(type, made);
            known = before == null ? made : before;
        }
        return type.cast(known);
    }

    public int size() {
        return byId.size();
    }

    public boolean isLibrary(ElementId id) {
        return library != null && id.isNameBased() && library.has(id);
    }

    /** The library packages alone, the snapshot every project begins with. */
    public Model library() {
        return library == null ? EMPTY : library;
    }

    /** This snapshot as the library of models to come: from here on its elements cannot be edited. */
    public Model asLibrary() {
        return new Model(byId, ownership, this);
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
        if (element.properties().isEmpty() && element.kind() != ElementKind.ENUMERATION) {
            return List.of();
        }
        List<ElementId> generals = List.of();
        for (int i = 0; i < GENERALS.size(); i++) {
            List<Reference> references = element.references(GENERALS.get(i));
            for (int k = 0; k < references.size(); k++) {
                generals = with(generals, references.get(k).target());
            }
        }
        boolean saysNoType = generals.isEmpty()
                || element.references(Property.TYPES).isEmpty()
                        && element.references(Property.SPECIALIZES).isEmpty();
        if (element.kind().shortKeyword() != null) {
            generals = with(
                    generals,
                    element.get(Property.TARGET).map(Reference::target).orElse(null));
        }
        generals = with(generals, generalAround(element));
        List<Reference> marks = element.references(Property.MARKS);
        for (int i = 0; i < marks.size(); i++) {
            generals =
                    with(generals, generalByMark(element, baseType(marks.get(i).target())));
        }
        return with(
                generals,
                saysNoType && Namespaces.takesTypeOfValue(element.kind())
                        ? named(element.get(Property.VALUE).orElse(null))
                        : null);
    }

    /** What metadata names as its base type: {@code :>> baseType = situations meta SysML::Usage}. */
    private @Nullable ElementId baseType(ElementId metadata) {
        for (Element child : children(metadata)) {
            Expression value =
                    child.get(Property.VALUE).map(FeatureValue::expression).orElse(null);
            if (value instanceof Expression.Classification c
                    && c.operand() instanceof Expression.FeatureReference reference
                    && reference.last() instanceof ElementId id
                    && LibraryNames.BASE_TYPE.equals(names().effectiveName(child))) {
                return id;
            }
        }
        return null;
    }

    /** Most have none or one, for which nothing is laid out. */
    private static List<ElementId> with(List<ElementId> generals, @Nullable ElementId further) {
        if (further == null) {
            return generals;
        }
        if (generals.isEmpty()) {
            return List.of(further);
        }
        List<ElementId> all = generals instanceof ArrayList<ElementId> growing ? growing : new ArrayList<>(generals);
        all.add(further);
        return all;
    }

    /** The element that a value names; null if the value is more than a name. */
    private static @Nullable ElementId named(@Nullable FeatureValue value) {
        return value != null
                        && value.expression() instanceof Expression.FeatureReference reference
                        && reference.last() instanceof ElementId id
                ? id
                : null;
    }

    @Override
    public List<ElementId> redefined(Element element) {
        List<Reference> redefined = element.references(Property.REDEFINES);
        return switch (redefined.size()) {
            case 0 -> List.of();
            case 1 -> List.of(redefined.getFirst().target());
            default -> redefined.stream().map(Reference::target).toList();
        };
    }

    @Override
    public Optional<ElementId> imported(Element importElement) {
        return importElement.get(Property.TARGET).map(Reference::target);
    }

    @Override
    public @Nullable String inheritedName(Element element) {
        List<Reference> redefined = element.references(Property.REDEFINES);
        if (redefined.isEmpty()) {
            return null;
        }
        // As a rule the first has a name; only else it matters what that redefines in turn.
        Element first = byId.get(redefined.getFirst().target());
        return first != null && first.name() != null
                ? first.name()
                : inheritance.redefined(element).stream()
                        .map(Element::name)
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null);
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
        for (ElementId at = element.owner(); at != null; ) {
            Element owner = get(at);
            owners.add(owner);
            at = owner.owner();
        }
        return owners;
    }

    /** A rank behind everything {@code owner} owns now; null stands for the top. */
    public Rank rankAtEnd(@Nullable ElementId owner) {
        List<Element> siblings = owner == null ? roots() : children(owner);
        return Rank.between(siblings.isEmpty() ? null : siblings.getLast().rank(), null);
    }

    /**
     * The snapshot after an edit with the exact difference, or what is wrong with it. Checked is what changed and
     * whatever depends on it.
     */
    public EditResult apply(Edit edit) {
        return apply(difference(edit));
    }

    /** The same for what an edit is known to change. */
    public EditResult apply(Difference difference) {
        List<Problem> problems = new ArrayList<>(untouchable(difference));
        problems.addAll(dangling(difference));
        if (!problems.isEmpty()) {
            return new EditResult.Refused(problems);
        }
        if (difference.changes().size() < size() / 2) {
            // What an edit affects is found by it; found here once, it goes with every snapshot that follows.
            Referrers.in(this);
        }
        Model next = replay(difference);
        problems.addAll(next.ownedByThemselves(difference));
        if (!problems.isEmpty()) {
            return new EditResult.Refused(problems);
        }
        problems.addAll(WellFormedness.check(next, affectedBy(difference, next)));
        return problems.isEmpty() ? new EditResult.Applied(next, difference) : new EditResult.Refused(problems);
    }

    /**
     * What else is wrong among elements of which some are known to be faulty: of those only the expressions are looked
     * at, and what they lack is not held against the others. For reporting all faults of a text at once; makes no
     * snapshot.
     */
    public static List<Problem> faultsAmong(Model base, List<Element> elements, Set<ElementId> faulty) {
        Model tentative = base.with(elements);
        List<Element> sound = elements.stream()
                .filter(element -> !faulty.contains(element.id()))
                .toList();
        List<Element> unsound = elements.stream()
                .filter(element -> faulty.contains(element.id()))
                .toList();
        List<Problem> problems = new ArrayList<>(WellFormedness.check(tentative, sound));
        problems.addAll(WellFormedness.checkExpressions(tentative, unsound));
        return problems;
    }

    /** What an edit would change, removals with all they own, not yet checked. */
    public Difference difference(Edit edit) {
        Map<ElementId, ElementChange> changes =
                LinkedHashMap.newLinkedHashMap(edit.put().size());
        edit.remove()
                .forEach(top ->
                        subtree(top).forEach(removed -> changes.put(removed.id(), new ElementChange(removed, null))));
        edit.put().forEach(after -> changes.put(after.id(), new ElementChange(byId.get(after.id()), after)));
        return new Difference(List.copyOf(changes.values()));
    }

    /** This snapshot with a difference that was checked before: one read from a store, or one just checked. */
    public Model replay(Difference difference) {
        Model next = next(difference.changes());
        // These two first, for the others look things up in them.
        follow(KindIndex.class, next, difference);
        follow(Referrers.class, next, difference);
        derived.keySet().forEach(type -> follow(type, next, difference));
        return next;
    }

    private static <T> Stream<T> stream(List<T> all) {
        return all.size() > WORTH_SHARING ? all.parallelStream() : all.stream();
    }

    /** The two maps have nothing to do with each other: two processors share the work where it is much. */
    private Model next(List<ElementChange> changes) {
        ForkJoinTask<Ownership> owned = ForkJoinTask.adapt(() -> ownership.after(changes));
        if (changes.size() > WORTH_SHARING) {
            owned.fork();
        }
        SnapshotMap<Element> elements =
                byId.with(changes.size(), each -> changes.forEach(change -> each.accept(change.id(), change.after())));
        return new Model(elements, changes.size() > WORTH_SHARING ? owned.join() : owned.invoke(), library);
    }

    private void follow(Class<?> type, Model next, Difference difference) {
        if (derived.get(type) instanceof IncrementalIndex known && !next.derived.containsKey(type)) {
            IncrementalIndex after = known.after(next, difference);
            if (after != null) {
                next.derived.put(type, after);
            }
        }
    }

    /** This snapshot with elements added that are known to be right. */
    public Model with(Collection<Element> elements) {
        return replay(putting(elements));
    }

    /** What an edit would change that only puts elements, each of them once. */
    public Difference putting(Collection<Element> elements) {
        return new Difference(stream(List.copyOf(elements))
                .map(element -> new ElementChange(byId.get(element.id()), element))
                .toList());
    }

    private List<Problem> untouchable(Difference difference) {
        return stream(difference.changes())
                .filter(change -> isLibrary(change.id())
                        || change.after() != null
                                && change.after().owner() != null
                                && isLibrary(change.after().owner()))
                .map(change -> new Problem(
                        change.id(),
                        null,
                        pyrite.core.expression.Span.NONE,
                        "this belongs to the library, which is the same in every project and cannot be edited"))
                .toList();
    }

    /** Found before anything else is asked, because every walk up the owners relies on there being an end. */
    private List<Problem> ownedByThemselves(Difference difference) {
        List<Problem> problems = new ArrayList<>();
        Set<ElementId> endsAtTop = new HashSet<>();
        // Owners come before what they own as a rule, so that an element's owner is the one before it or owns that one.
        ArrayDeque<ElementId> way = new ArrayDeque<>();
        for (ElementChange change : difference.changes()) {
            Element changed = change.after();
            if (changed == null || changed.owner() == null) {
                continue;
            }
            ElementId owner = changed.owner();
            while (!way.isEmpty() && !owner.equals(way.getLast())) {
                way.removeLast();
            }
            if (way.isEmpty() && endsAtTop(owner, endsAtTop)) {
                way.add(owner);
            }
            if (way.isEmpty()) {
                problems.add(Problem.of(changed, "an element cannot be owned by itself or by what it owns"));
            } else {
                way.add(changed.id());
            }
        }
        return problems;
    }

    /** Whether the way up from an element comes to an end; those on it that does are added to the ones known. */
    private boolean endsAtTop(ElementId from, Set<ElementId> known) {
        ElementId above = ownerOf(from);
        if (above == null || known.contains(above)) {
            known.add(from);
            return true;
        }
        Set<ElementId> way = new HashSet<>(Set.of(from));
        for (ElementId at = above; at != null && !known.contains(at); at = ownerOf(at)) {
            if (!way.add(at)) {
                return false;
            }
        }
        known.addAll(way);
        return true;
    }

    private @Nullable ElementId ownerOf(ElementId id) {
        Element element = byId.get(id);
        return element == null ? null : element.owner();
    }

    private List<Problem> dangling(Difference difference) {
        if (difference.changes().stream().allMatch(change -> change.after() != null)) {
            return List.of();
        }
        Set<ElementId> removed = new HashSet<>();
        Set<ElementId> written = new HashSet<>();
        difference.changes().forEach(change -> (change.after() == null ? removed : written).add(change.id()));
        List<Problem> problems = new ArrayList<>();
        for (ElementId id : removed) {
            referrers(id).stream()
                    .filter(user -> !removed.contains(user) && !written.contains(user))
                    .map(this::get)
                    .forEach(user -> problems.add(Problem.of(
                            user,
                            names.qualifiedName(user) + " uses " + names.qualifiedName(get(id))
                                    + "; remove or change that use first")));
        }
        return problems;
    }

    /**
     * The changed elements of the next snapshot and all whose meaning may rest on them: what refers to them, step by
     * step.
     */
    private List<Element> affectedBy(Difference difference, Model next) {
        List<Element> affected = new ArrayList<>(difference.changes().size());
        ArrayDeque<ElementId> open = new ArrayDeque<>();
        ElementId last = null;
        for (ElementChange change : difference.changes()) {
            if (change.before() == null) {
                // Nothing refers to what is new, except what is new or changed itself.
                affected.add(change.after());
            } else {
                open.add(change.id());
                addKnown(change.before().owner(), open);
            }
            ElementId owner = change.after() == null ? null : change.after().owner();
            if (owner != last) {
                addKnown(owner, open);
                last = owner;
            }
        }
        Set<ElementId> known = new LinkedHashSet<>();
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            if (has(at) && known.add(at)) {
                open.addAll(next.referrers(at));
            }
        }
        known.stream().flatMap(id -> next.find(id).stream()).forEach(affected::add);
        if (difference.changes().stream().anyMatch(change -> turns(change, next))) {
            known.stream()
                    .flatMap(id -> next.children(id).stream())
                    .filter(child -> !child.references(Property.REDEFINES).isEmpty() && !known.contains(child.id()))
                    .forEach(affected::add);
        }
        return affected;
    }

    /** Whether what stands in an element may inherit something else than before. */
    private boolean turns(ElementChange change, Model next) {
        return change.before() != null
                && change.after() != null
                && !generals(change.before()).equals(next.generals(change.after()));
    }

    private void addKnown(@Nullable ElementId id, Collection<ElementId> into) {
        if (id != null && has(id)) {
            into.add(id);
        }
    }
}
