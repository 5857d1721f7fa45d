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
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;

/**
 * Finds elements by name after the rules of KerML 8.2.3.5: in a namespace the own members come first, then the
 * inherited, then the imported; what is not found there is looked for in the namespace around it, at last among the
 * elements at the top.
 */
public final class Names {
    private static final Predicate<Element> FUNCTIONS = element -> element.kind() == ElementKind.CALCULATION_DEFINITION
            || element.kind() == ElementKind.CONSTRAINT_DEFINITION;
    private static final Predicate<Element> VALUES = element -> element.kind() != ElementKind.CALCULATION_DEFINITION;

    /** Before a qualified name it says that the first part is at the top, whatever else goes by it: {@code $::A::b}. */
    private static final String FROM_THE_TOP = "$";

    private final Namespaces namespaces;
    private final Map<ElementId, Namespace> byId = new ConcurrentHashMap<>();
    private final Map<ElementId, List<ElementId>> within = new ConcurrentHashMap<>();
    private volatile @Nullable Map<String, Element> roots;

    public Names(Namespaces namespaces) {
        this.namespaces = namespaces;
    }

    /** The name an element goes by: declared, or that of what it redefines. */
    public @Nullable String effectiveName(Element element) {
        return element.name() != null ? element.name() : namespaces.inheritedName(element);
    }

    /**
     * Where the names in an element's value are looked up: where the element stands. For an input that is outside
     * what it is an input of, so that {@code in angle = angle} binds it to the angle around.
     */
    public @Nullable ElementId valueScope(Element element) {
        ElementId owner = element.owner();
        return owner == null || !element.get(Property.DIRECTION).orElse("").startsWith("in") ? owner
                : namespaces.find(owner).map(Element::owner).orElse(null);
    }

    /**
     * Finds a qualified name from within {@code scope}; null stands for the top of the model. Calculations are passed
     * over: {@code min} is the minute where a function is not called.
     */
    public Optional<ElementId> resolve(Name name, @Nullable ElementId scope) {
        return resolve(name, scope, VALUES);
    }

    /** Finds the calculation that a call by this name means. */
    public Optional<ElementId> resolveFunction(Name name, @Nullable ElementId scope) {
        return resolve(name, scope, FUNCTIONS);
    }

    private Optional<ElementId> resolve(Name name, @Nullable ElementId scope, Predicate<Element> wanted) {
        List<String> parts = name.parts();
        if (parts.size() > 1 && parts.getFirst().equals(FROM_THE_TOP)) {
            return resolve(new Name(parts.subList(1, parts.size())), null, wanted);
        }
        Optional<ElementId> found = visible(parts.getFirst(), scope, parts.size() == 1 ? wanted : VALUES);
        for (int i = 1; i < parts.size(); i++) {
            String part = parts.get(i);
            Predicate<Element> here = i == parts.size() - 1 ? wanted : VALUES;
            found = found.flatMap(owner -> member(owner, part, false, here, null));
        }
        return found;
    }

    /** Finds a name among what {@code owner} inherits, leaving out its own members: what it may redefine. */
    public Optional<ElementId> resolveInherited(Name name, ElementId owner) {
        Element element = namespaces.find(owner).orElseThrow();
        return namespaces.generals(element).stream()
                .flatMap(general -> member(general, name.last()).stream()).findFirst().or(() -> implied(owner, name.last()));
    }

    /** A member of {@code owner} as seen from outside: own, inherited or imported for everybody. */
    public Optional<ElementId> member(ElementId owner, String name) {
        return member(owner, name, false, VALUES, null).or(() -> implied(owner, name));
    }

    private Optional<ElementId> visible(String name, @Nullable ElementId scope, Predicate<Element> wanted) {
        ElementId at = scope;
        while (at != null) {
            Namespace namespace = namespace(at);
            Optional<ElementId> found = namespace == null ? Optional.empty() : namespace.home.member(namespace, name, true, wanted, null);
            if (found.isPresent()) {
                return found;
            }
            at = namespace == null ? null : namespace.element.owner();
        }
        Element root = roots().get(name);
        return root != null ? Optional.of(root.id()) : impliedAround(name, scope);
    }

    private Optional<ElementId> impliedAround(String name, @Nullable ElementId scope) {
        for (ElementId at = scope; at != null; at = namespaces.find(at).map(Element::owner).orElse(null)) {
            Optional<ElementId> found = implied(at, name);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** What an element has by a name only because of its kind. */
    private Optional<ElementId> implied(ElementId owner, String name) {
        return namespaces.find(owner).map(element -> ImpliedGenerals.of(element.kind())).filter(general -> !general.equals(owner))
                .flatMap(general -> member(general, name, false, VALUES, null));
    }

    private Map<String, Element> roots() {
        Map<String, Element> known = roots;
        if (known == null) {
            // A package of one's own may be called like one of the library; it is the one that is meant then.
            known = index(namespaces.roots().stream()
                    .sorted(Comparator.comparing(root -> namespaces.namesIn(root.id()) != null)).toList());
            roots = known;
        }
        return known;
    }

    private Optional<ElementId> member(ElementId owner, String name, boolean inside, Predicate<Element> wanted,
            @Nullable Set<ElementId> visited) {
        Namespace namespace = namespace(owner);
        return namespace == null ? Optional.empty() : namespace.home.member(namespace, name, inside, wanted, visited);
    }

    /** @param visited the namespaces looked into on the way here, null at the beginning */
    private Optional<ElementId> member(Namespace namespace, String name, boolean inside, Predicate<Element> wanted,
            @Nullable Set<ElementId> visited) {
        ElementId owner = namespace.element.id();
        Element own = namespace.members.get(name);
        if (own != null && (visited == null || !visited.contains(owner))) {
            if (own.kind() == ElementKind.ALIAS) {
                return namespaces.imported(own).flatMap(namespaces::find).filter(wanted).map(Element::id);
            }
            if (wanted.test(own) && (inside || !isPrivate(own))) {
                return Optional.of(own.id());
            }
        }
        List<ElementId> generals = namespaces.generals(namespace.element);
        if (generals.isEmpty() && namespace.imports.isEmpty()) {
            return Optional.empty();
        }
        Set<ElementId> seen = visited == null ? new HashSet<>() : visited;
        if (!seen.add(owner)) {
            return Optional.empty();
        }
        for (ElementId general : generals) {
            Optional<ElementId> inherited = member(general, name, false, wanted, seen);
            if (inherited.isPresent()) {
                return inherited;
            }
        }
        return inside && wanted == VALUES ? namespace.imported(name, () -> imported(namespace, name, true, VALUES, seen))
                : imported(namespace, name, inside, wanted, seen);
    }

    /** The member of {@code owner} by a name that only {@code owner} itself may use. */
    public Optional<ElementId> hidden(ElementId owner, String name) {
        Namespace namespace = namespace(owner);
        return Optional.ofNullable(namespace == null ? null : namespace.members.get(name)).filter(Names::isPrivate).map(Element::id);
    }

    private static boolean isPrivate(Element element) {
        return element.get(Property.VISIBILITY).filter("private"::equals).isPresent();
    }

    private Optional<ElementId> imported(Namespace namespace, String name, boolean inside, Predicate<Element> wanted, Set<ElementId> visited) {
        for (Namespace.Import candidate : namespace.imports) {
            Namespace target = inside || candidate.isPublic ? target(candidate) : null;
            Optional<ElementId> found = target == null ? Optional.empty() : throughImport(candidate, target, name, wanted, visited);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private @Nullable Namespace target(Namespace.Import candidate) {
        if (candidate.target == null) {
            candidate.target = namespaces.imported(candidate.element).map(this::namespace).orElse(null);
        }
        return candidate.target;
    }

    private Optional<ElementId> throughImport(Namespace.Import candidate, Namespace target, String name,
            Predicate<Element> wanted, Set<ElementId> visited) {
        return switch (candidate.reach) {
            case "members" -> target.home.member(target, name, candidate.seesAll, wanted, visited);
            case "all", "self" -> memberOfAny(descendants(target.element.id()), name, wanted, visited);
            default -> Optional.of(target.element).filter(wanted).filter(e -> goesBy(e, name)).map(Element::id);
        };
    }

    private Optional<ElementId> memberOfAny(List<ElementId> owners, String name, Predicate<Element> wanted, Set<ElementId> visited) {
        for (ElementId owner : owners) {
            Optional<ElementId> found = member(owner, name, false, wanted, visited);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** A namespace with the packages and definitions in it, however deep; remembered, because whoever imports them all asks for every name. */
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
            namespaces.children(at).stream().filter(child -> child.kind().isPackage() || child.kind().isDefinition())
                    .forEach(child -> open.add(child.id()));
        }
        return all;
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
        if (children.isEmpty()) {
            return new Namespace(this, element, Map.of(), List.of());
        }
        Namespace found = new Namespace(this, element, index(children),
                children.stream().filter(child -> child.kind() == ElementKind.IMPORT).map(Namespace.Import::new).toList());
        byId.put(id, found);
        return found;
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
        for (ElementId at = scope; at != null; at = namespaces.find(at).map(Element::owner).orElse(null)) {
            collect(at, true, names, new HashSet<>());
        }
        namespaces.roots().forEach(root -> addNames(root, names));
        return names;
    }

    /** The names of the members of {@code owner} as seen from outside. */
    public Collection<String> membersOf(ElementId owner) {
        Set<String> names = new LinkedHashSet<>();
        collect(owner, false, names, new HashSet<>());
        return names;
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
        Stream.of(effectiveName(element), element.shortName()).filter(java.util.Objects::nonNull).forEach(names::add);
    }

    /** {@code A::B::c} from the top; an element without a name is called by its kind in angle quotes. */
    public String qualifiedName(Element element) {
        ArrayDeque<String> parts = new ArrayDeque<>();
        for (Element at = element; at != null; at = at.owner() == null ? null : namespaces.find(at.owner()).orElse(null)) {
            String name = effectiveName(at);
            parts.addFirst(name == null ? "‹" + at.kind().title() + "›" : Name.quoted(name));
        }
        return String.join("::", parts);
    }

    /** The shortest name that, written in {@code scope}, means {@code target}. */
    public Optional<Name> shortest(Element target, @Nullable ElementId scope) {
        List<String> parts = new ArrayList<>();
        for (Element at = target; at != null; at = at.owner() == null ? null : namespaces.find(at.owner()).orElse(null)) {
            String name = effectiveName(at);
            if (name == null) {
                return Optional.empty();
            }
            parts.addFirst(name);
            Name candidate = new Name(parts);
            if (resolve(candidate, scope, VALUES.test(target) ? VALUES : FUNCTIONS).filter(target.id()::equals).isPresent()) {
                return Optional.of(candidate);
            }
        }
        return Optional.empty();
    }
}
