package pyrite.core.model;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;

/**
 * Resolves names after KerML 8.2.3.5: within a namespace own members come first, then inherited, then imported ones;
 * then the owning namespaces are searched outward, at last the elements at the top.
 */
public final class Names {
    private static final Predicate<Element> FUNCTIONS = element ->
            element.kind() == ElementKind.CALCULATION_DEFINITION || element.kind() == ElementKind.CONSTRAINT_DEFINITION;
    private static final Predicate<Element> VALUES = element -> element.kind() != ElementKind.CALCULATION_DEFINITION;

    /** Before a qualified name it says that the first part is at the top, whatever else goes by it: {@code $::A::b}. */
    public static final String FROM_THE_TOP = "$";

    /** What a calculation gives has this name where it declares none: it redefines the result of all (KerML 9.4.3). */
    private static final String RESULT = "result";

    private final Namespaces namespaces;
    private final Map<ElementId, Namespace> byId = new ConcurrentHashMap<>();
    private final Map<ElementId, List<ElementId>> within = new ConcurrentHashMap<>();
    private volatile @Nullable Map<String, Element> roots;
    private volatile @Nullable List<Namespace.Import> rootImports;

    public Names(Namespaces namespaces) {
        this.namespaces = namespaces;
    }

    /** The name an element goes by: declared, or that of what it redefines. */
    public @Nullable String effectiveName(Element element) {
        if (element.name() != null || !element.kind().takes(Property.REDEFINES)) {
            return element.name();
        }
        String inherited = namespaces.inheritedName(element);
        return inherited == null && "return".equals(element.properties().get(Property.DIRECTION)) ? RESULT : inherited;
    }

    /**
     * Finds a qualified name from within {@code scope}; null stands for the top of the model. Calculations that are
     * imported are passed over: {@code min} is the minute where a function is not called.
     */
    public Optional<ElementId> resolve(Name name, @Nullable ElementId scope) {
        return resolve(name, scope, VALUES);
    }

    /** Finds the calculation that a call by this name means. */
    public Optional<ElementId> resolveFunction(Name name, @Nullable ElementId scope) {
        return resolve(name, scope, FUNCTIONS);
    }

    private Optional<ElementId> resolve(Name name, @Nullable ElementId scope, Predicate<Element> requested) {
        List<String> parts = name.parts();
        if (parts.size() > 1 && parts.getFirst().equals(FROM_THE_TOP)) {
            return resolve(new Name(parts.subList(1, parts.size())), null, requested);
        }
        return visible(parts.getFirst(), scope, parts.size() == 1 ? requested : VALUES)
                .flatMap(first -> memberAt(first, parts.subList(1, parts.size()), requested));
    }

    /**
     * Finds what an import in {@code owner} names. It is looked up from the top and from the packages around the
     * import's own, not through the imports beside it: an import never depends on another one, so there is no order to
     * find.
     */
    public Optional<ElementId> imported(Name name, @Nullable ElementId owner) {
        ElementId around = owner == null
                ? null
                : namespaces.find(owner).map(Element::owner).orElse(null);
        return resolve(name, around)
                .or(() -> resolveFunction(name, around))
                .or(() -> owner == null ? Optional.empty() : importedMember(name, owner));
    }

    /** Finds the alias that an import of one element names; who imports an alias sees its name. */
    public Optional<ElementId> importedAlias(Name name, @Nullable ElementId owner) {
        int last = name.parts().size() - 1;
        return last == 0
                ? Optional.empty()
                : imported(new Name(name.parts().subList(0, last)), owner)
                        .map(this::namespace)
                        .map(container -> container.members.get(name.last()))
                        .filter(member -> member.kind() == ElementKind.ALIAS && !isPrivate(member))
                        .map(Element::id);
    }

    private Optional<ElementId> importedMember(Name name, ElementId owner) {
        return namespaces.children(owner).stream()
                .filter(child -> name.parts().getFirst().equals(child.name()))
                .findFirst()
                .flatMap(child ->
                        child.kind() == ElementKind.ALIAS ? namespaces.imported(child) : Optional.of(child.id()))
                .flatMap(first ->
                        memberAt(first, name.parts().subList(1, name.parts().size()), VALUES));
    }

    /** The member of a member and so on, from one element inwards. */
    private Optional<ElementId> memberAt(ElementId first, List<String> path, Predicate<Element> requested) {
        Optional<ElementId> found = Optional.of(first);
        for (int i = 0; i < path.size(); i++) {
            String part = path.get(i);
            Predicate<Element> here = i == path.size() - 1 ? requested : VALUES;
            found = found.flatMap(owner -> member(owner, part, false, here, null));
        }
        return found;
    }

    /** Finds a name among what {@code owner} inherits, leaving out its own members: what it may redefine. */
    public Optional<ElementId> resolveInherited(Name name, ElementId owner) {
        Element element = namespaces.find(owner).orElseThrow();
        for (ElementId general : namespaces.generals(element)) {
            Optional<ElementId> found = member(general, name.last());
            if (found.isPresent()) {
                return found;
            }
        }
        return implied(owner, name.last());
    }

    /** A member of {@code owner} as seen from outside: own, inherited or imported for everybody. */
    public Optional<ElementId> member(ElementId owner, String name) {
        Optional<ElementId> found = member(owner, name, false, VALUES, null);
        return found.isPresent() ? found : implied(owner, name);
    }

    /** A calculation of {@code owner} as seen from outside. */
    public Optional<ElementId> functionIn(ElementId owner, String name) {
        return member(owner, name, false, FUNCTIONS, null);
    }

    /** Whether an element has a member by a name, own, inherited or imported, for its own use. */
    public boolean isWithin(ElementId id, String name) {
        Namespace namespace = namespace(id);
        return namespace != null
                && namespace.home.member(namespace, name, true, VALUES, null).isPresent();
    }

    private Optional<ElementId> visible(String name, @Nullable ElementId scope, Predicate<Element> requested) {
        for (Namespace at = scope == null ? null : namespace(scope); at != null; at = around(at)) {
            Optional<ElementId> found = at.home.member(at, name, true, requested, null);
            if (found.isPresent()) {
                return found;
            }
        }
        return atTop(name, requested).or(() -> impliedAround(name, scope));
    }

    /** What has no owner, and what imports without an owner bring in (KerML 8.2.3.4, root namespaces). */
    private Optional<ElementId> atTop(String name, Predicate<Element> requested) {
        Element root = roots().get(name);
        Optional<ElementId> own = root == null
                ? Optional.empty()
                : (root.kind() == ElementKind.ALIAS
                                ? namespaces.imported(root).flatMap(namespaces::find)
                                : Optional.of(root))
                        .filter(requested)
                        .map(Element::id);
        if (own.isPresent()) {
            return own;
        }
        for (Namespace.Import candidate : rootImports()) {
            Optional<ElementId> found = through(candidate, name, true, requested, new Visited());
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private List<Namespace.Import> rootImports() {
        List<Namespace.Import> known = rootImports;
        if (known == null) {
            known = imports(namespaces.roots());
            rootImports = known;
        }
        return known;
    }

    private Optional<ElementId> impliedAround(String name, @Nullable ElementId scope) {
        for (ElementId at = scope;
                at != null;
                at = namespaces.find(at).map(Element::owner).orElse(null)) {
            Optional<ElementId> found = implied(at, name);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** What an element has by a name only because of its kind. */
    private Optional<ElementId> implied(ElementId owner, String name) {
        return namespaces
                .find(owner)
                .map(element -> ImpliedGenerals.of(element.kind()))
                .filter(general -> !general.equals(owner))
                .flatMap(general -> member(general, name, false, VALUES, null));
    }

    private Map<String, Element> roots() {
        Map<String, Element> known = roots;
        if (known == null) {
            // A package of one's own may be called like one of the library; it is the one that is meant then.
            known = index(namespaces.roots().stream()
                    .sorted(Comparator.comparing(root -> namespaces.namesIn(root.id()) != null))
                    .toList());
            roots = known;
        }
        return known;
    }

    private Optional<ElementId> member(
            ElementId owner, String name, boolean inside, Predicate<Element> requested, @Nullable Visited visited) {
        Namespace namespace = namespace(owner);
        return namespace == null
                ? Optional.empty()
                : namespace.home.member(namespace, name, inside, requested, visited);
    }

    /** @param visited the namespaces looked into on the way here, null at the beginning */
    private Optional<ElementId> member(
            Namespace namespace, String name, boolean inside, Predicate<Element> requested, @Nullable Visited visited) {
        ElementId owner = namespace.element.id();
        Element own = namespace.members.get(name);
        if (own != null && (visited == null || !visited.contains(owner))) {
            if (own.kind() == ElementKind.ALIAS) {
                return namespaces
                        .imported(own)
                        .flatMap(namespaces::find)
                        .filter(requested)
                        .map(Element::id);
            }
            if (inside ? requested == VALUES || requested.test(own) : requested.test(own) && !isPrivate(own)) {
                return Optional.of(own.id());
            }
        }
        List<Namespace> generals = generals(namespace);
        if (generals.isEmpty() && (namespace.imports.isEmpty() || visited != null && visited.contains(owner))) {
            return Optional.empty();
        }
        boolean remembered = inside && visited == null && requested == VALUES && !namespace.imports.isEmpty();
        Optional<ElementId> before = remembered && generals.isEmpty() ? namespace.found.get(name) : null;
        if (before != null) {
            return before;
        }
        Visited seen = visited == null ? new Visited() : visited;
        if (!seen.add(owner)) {
            return Optional.empty();
        }
        Optional<ElementId> inherited = inherited(generals, name, requested, seen);
        if (inherited.isPresent()) {
            return inherited;
        }
        return remembered ? importedOnce(namespace, name, seen) : imported(namespace, name, inside, requested, seen);
    }

    /** The first that a general has; one that redefines it hides it, whichever general has that (KerML 8.3.3.1.5). */
    private Optional<ElementId> inherited(
            List<Namespace> generals, String name, Predicate<Element> requested, Visited seen) {
        Optional<ElementId> first = Optional.empty();
        for (int i = 0; i < generals.size(); i++) {
            Namespace general = generals.get(i);
            Optional<ElementId> next = general.home.member(general, name, false, requested, seen);
            if (next.isPresent() && (first.isEmpty() || isUnder(next.get(), first.get(), new Visited()))) {
                first = next;
            }
        }
        return first;
    }

    private boolean isUnder(ElementId special, ElementId general, Visited visited) {
        Namespace namespace = visited.add(special) ? namespace(special) : null;
        return namespace != null
                && generals(namespace).stream()
                        .anyMatch(each ->
                                each.element.id().equals(general) || isUnder(each.element.id(), general, visited));
    }

    /**
     * What the imports of a namespace bring in by a name. It is searched for once, because few names make up most of
     * what a model uses, and remembered if all imports up to the one that has it bring in the same from now on.
     */
    private Optional<ElementId> importedOnce(Namespace namespace, String name, Visited visited) {
        Optional<ElementId> found = namespace.found.get(name);
        if (found != null) {
            return found;
        }
        boolean forGood = true;
        found = Optional.empty();
        for (int i = 0; i < namespace.imports.size() && found.isEmpty(); i++) {
            Namespace.Import candidate = namespace.imports.get(i);
            found = through(candidate, name, true, VALUES, visited);
            forGood &= candidate.bringsInPackage() || namespaces.isSettled();
        }
        if (forGood) {
            namespace.found.put(name, found);
        }
        return found;
    }

    /** The member of {@code owner} by a name that only {@code owner} itself may use. */
    public Optional<ElementId> hidden(ElementId owner, String name) {
        Namespace namespace = namespace(owner);
        return Optional.ofNullable(namespace == null ? null : namespace.members.get(name))
                .filter(Names::isPrivate)
                .map(Element::id);
    }

    public static boolean isPrivate(Element element) {
        return "private".equals(element.properties().get(Property.VISIBILITY));
    }

    private Optional<ElementId> imported(
            Namespace namespace, String name, boolean inside, Predicate<Element> requested, Visited visited) {
        for (int i = 0; i < namespace.imports.size(); i++) {
            Optional<ElementId> found = through(namespace.imports.get(i), name, inside, requested, visited);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private Optional<ElementId> through(
            Namespace.Import candidate, String name, boolean inside, Predicate<Element> requested, Visited visited) {
        Namespace target = inside || candidate.isPublic ? target(candidate) : null;
        if (target == null) {
            return Optional.empty();
        }
        return switch (candidate.reach) {
            case "members" ->
                target.home != this && !candidate.seesAll && requested == VALUES
                        ? Optional.ofNullable(
                                target.home.seenFromOutside(target).get(name))
                        : target.home.member(target, name, candidate.seesAll, requested, visited);
            case "all", "self" -> memberOfAny(descendants(target.element.id()), name, requested, visited);
            default ->
                Optional.of(target.element)
                        .filter(e -> goesBy(e, name))
                        .flatMap(e -> e.kind() == ElementKind.ALIAS
                                ? namespaces.imported(e).flatMap(namespaces::find)
                                : Optional.of(e))
                        .filter(requested)
                        .map(Element::id);
        };
    }

    /**
     * What a namespace of the library has for those who import it, by all names; gathered once, because they look there
     * for most names they use.
     */
    private Map<String, ElementId> seenFromOutside(Namespace namespace) {
        Map<String, ElementId> known = namespace.seenFromOutside;
        if (known == null) {
            Map<String, ElementId> found = new HashMap<>();
            membersOf(namespace.element.id())
                    .forEach(
                            name -> member(namespace, name, false, VALUES, null).ifPresent(id -> found.put(name, id)));
            namespace.seenFromOutside = found;
            known = found;
        }
        return known;
    }

    private @Nullable Namespace target(Namespace.Import candidate) {
        if (candidate.target == null) {
            candidate.target =
                    namespaces.imported(candidate.element).map(this::namespace).orElse(null);
        }
        return candidate.target;
    }

    private Optional<ElementId> memberOfAny(
            List<ElementId> owners, String name, Predicate<Element> requested, Visited visited) {
        for (ElementId owner : owners) {
            Optional<ElementId> found = member(owner, name, false, requested, visited);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /**
     * A namespace with the packages and definitions in it, however deep; remembered, because whoever imports them all
     * asks for every name.
     */
    private List<ElementId> descendants(ElementId top) {
        List<ElementId> known = within.get(top);
        if (known == null) {
            known = findDescendants(top);
            within.put(top, known);
        }
        return known;
    }

    private List<ElementId> findDescendants(ElementId top) {
        List<ElementId> all = new ArrayList<>();
        ArrayDeque<ElementId> open = new ArrayDeque<>(List.of(top));
        while (!open.isEmpty()) {
            ElementId at = open.poll();
            all.add(at);
            namespaces.children(at).stream()
                    .filter(child -> child.kind().isPackage() || child.kind().isDefinition())
                    .forEach(child -> open.add(child.id()));
        }
        return all;
    }

    private @Nullable Namespace around(Namespace namespace) {
        ElementId owner = namespace.element.owner();
        Namespace known = namespace.outer;
        if (known == null && owner != null) {
            known = namespace(owner);
            namespace.outer = known;
        }
        return known;
    }

    /** What a namespace of these elements inherits from, remembered as soon as nothing is added to it any more. */
    private List<Namespace> generals(Namespace namespace) {
        List<Namespace> known = namespace.generals;
        if (known == null) {
            known = namespacesOf(namespaces.generals(namespace.element));
            if (namespaces.isSettled(namespace.element)) {
                namespace.generals = known;
            }
        }
        return known;
    }

    private List<Namespace> namespacesOf(List<ElementId> ids) {
        if (ids.isEmpty()) {
            return List.of();
        }
        List<Namespace> found = new ArrayList<>(ids.size());
        for (ElementId id : ids) {
            Namespace namespace = namespace(id);
            if (namespace != null) {
                found.add(namespace);
            }
        }
        return found;
    }

    private boolean goesBy(Element element, String name) {
        return name.equals(element.shortName()) || name.equals(effectiveName(element));
    }

    private @Nullable Namespace namespace(ElementId id) {
        Names responsible = namespaces.namesIn(id);
        if (responsible != null && responsible != this) {
            return responsible.namespace(id);
        }
        Namespace before = byId.get(id);
        if (before != null) {
            return before;
        }
        Element element = namespaces.find(id).orElse(null);
        if (element == null) {
            return null;
        }
        List<Element> children = namespaces.children(id);
        Namespace found = children.isEmpty()
                ? new Namespace(this, element, Map.of(), List.of())
                : new Namespace(this, element, index(children), imports(children));
        byId.put(id, found);
        return found;
    }

    private static List<Namespace.Import> imports(List<Element> children) {
        List<Namespace.Import> imports = List.of();
        for (Element child : children) {
            if (child.kind() == ElementKind.IMPORT) {
                imports = imports.isEmpty() ? new ArrayList<>(4) : imports;
                imports.add(new Namespace.Import(child));
            }
        }
        return imports;
    }

    private Map<String, Element> index(List<Element> elements) {
        Map<String, Element> index = HashMap.newHashMap(elements.size());
        for (Element element : elements) {
            if (element.shortName() != null) {
                index.putIfAbsent(element.shortName(), element);
            }
            String name = effectiveName(element);
            if (name != null) {
                index.putIfAbsent(name, element);
            }
        }
        return index;
    }

    /** All names that can be written alone in {@code scope}, nearest first; for completion and for near misses. */
    public Collection<String> inScope(@Nullable ElementId scope) {
        Set<String> names = new LinkedHashSet<>();
        for (ElementId at = scope;
                at != null;
                at = namespaces.find(at).map(Element::owner).orElse(null)) {
            collect(at, true, names, new HashSet<>());
        }
        for (Element root : namespaces.roots()) {
            addNames(root, names);
            if (root.kind() == ElementKind.IMPORT) {
                namespaces.imported(root).ifPresent(target -> collectImport(root, target, names, new HashSet<>()));
            }
        }
        return names;
    }

    /** The names of the members of {@code owner} as seen from outside. */
    public Collection<String> membersOf(ElementId owner) {
        Set<String> names = new LinkedHashSet<>();
        collect(owner, false, names, new HashSet<>());
        return names;
    }

    /**
     * A name that no member of {@code owner} has, inherited ones included: the one wished for, or with a number behind
     * it.
     */
    public String free(ElementId owner, String wished) {
        return free(membersOf(owner), wished);
    }

    /** A name that is not taken: the one wished for, or with a number behind it. */
    public static String free(Collection<String> taken, String wished) {
        String free = wished;
        for (int number = 2; taken.contains(free); number++) {
            free = wished + number;
        }
        return free;
    }

    private void collect(ElementId owner, boolean inside, Set<String> names, Set<ElementId> visited) {
        Element element = namespaces.find(owner).orElse(null);
        if (element == null || !visited.add(owner)) {
            return;
        }
        List<Element> children = namespaces.children(owner);
        children.forEach(child -> addNames(child, names));
        namespaces.generals(element).forEach(general -> collect(general, false, names, visited));
        for (Element child : children) {
            if (child.kind() == ElementKind.IMPORT && (inside || Namespace.Import.isPublic(child))) {
                namespaces.imported(child).ifPresent(target -> collectImport(child, target, names, visited));
            }
        }
    }

    private void collectImport(Element importElement, ElementId target, Set<String> names, Set<ElementId> visited) {
        switch (importElement.get(Property.REACH).orElse("one")) {
            case "members" -> collect(target, false, names, visited);
            case "all", "self" -> descendants(target).forEach(each -> collect(each, false, names, visited));
            default -> namespaces.find(target).ifPresent(element -> addNames(element, names));
        }
    }

    private void addNames(Element element, Set<String> names) {
        Stream.of(effectiveName(element), element.shortName())
                .filter(Objects::nonNull)
                .forEach(names::add);
    }

    /** The name others refer to an element by: its name, or its short name where it has no other; null if neither. */
    public @Nullable String calledBy(Element element) {
        String name = effectiveName(element);
        return name == null ? element.shortName() : name;
    }

    /** The name an element goes by, or {@code unnamed loop}: what people read where there is none. */
    public String nameOrKind(Element element) {
        String name = effectiveName(element);
        return name == null ? "unnamed " + element.kind().title() : name;
    }

    /** {@code A::B::c} from the top, for people: an element without a name is called by its kind. */
    public String qualifiedName(Element element) {
        ArrayDeque<String> parts = new ArrayDeque<>();
        for (Element at = element;
                at != null;
                at = at.owner() == null ? null : namespaces.find(at.owner()).orElse(null)) {
            String name = calledBy(at);
            parts.addFirst(name == null ? nameOrKind(at) : Name.quoted(name));
        }
        return String.join("::", parts);
    }

    /** Whether a path may lead through an element: it begins with its name, or an alias of that name is on the way. */
    private boolean leadsThrough(@Nullable ElementId id, List<String> path, @Nullable ElementId scope) {
        Element element = id == null ? null : namespaces.find(id).orElse(null);
        if (element == null) {
            return false;
        }
        boolean leads = goesBy(element, path.getFirst());
        for (int i = 1; i < path.size() && !leads && element.kind() == ElementKind.ALIAS; i++) {
            String name = path.get(i);
            leads = goesBy(element, name)
                    && resolve(new Name(path.subList(0, i)), scope)
                            .filter(owner -> !owns(owner, name))
                            .isPresent();
        }
        return leads;
    }

    /** Whether a name in a namespace is that of a member of its own; one it inherits or imports may be an alias. */
    private boolean owns(ElementId owner, String name) {
        Namespace namespace = namespace(owner);
        Element own = namespace == null ? null : namespace.members.get(name);
        return own != null && own.kind() != ElementKind.ALIAS && !isPrivate(own);
    }

    /** The shortest name that, written in {@code scope}, means {@code target}. */
    public Optional<Name> shortest(Element target, @Nullable ElementId scope) {
        return shortest(target, scope, null);
    }

    /**
     * @param from the element that refers to the target; a name that begins with its own leads through it and is left
     *     out
     */
    public Optional<Name> shortest(Element target, @Nullable ElementId scope, @Nullable ElementId from) {
        List<String> parts = new ArrayList<>();
        for (Element at = target;
                at != null;
                at = at.owner() == null ? null : namespaces.find(at.owner()).orElse(null)) {
            String name = calledBy(at);
            if (name == null) {
                return Optional.empty();
            }
            parts.addFirst(name);
            Name candidate = new Name(parts);
            if (resolve(candidate, scope, VALUES.test(target) ? VALUES : FUNCTIONS)
                            .filter(target.id()::equals)
                            .isPresent()
                    && !leadsThrough(from, parts, scope)) {
                return Optional.of(candidate);
            }
        }
        return Optional.empty();
    }
}
