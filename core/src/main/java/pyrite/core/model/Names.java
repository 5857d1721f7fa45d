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

    private final Namespaces namespaces;
    private final Map<ElementId, Map<String, ElementId>> members = new ConcurrentHashMap<>();
    private final Map<ElementId, List<Element>> imports = new ConcurrentHashMap<>();
    private final Map<ElementId, List<ElementId>> within = new ConcurrentHashMap<>();
    private final Map<ElementId, Map<String, ElementId>> fromLibrary = new ConcurrentHashMap<>();
    private volatile @Nullable Map<String, ElementId> roots;

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
                .flatMap(general -> member(general, name.last()).stream()).findFirst();
    }

    /** A member of {@code owner} as seen from outside: own, inherited or imported for everybody. */
    public Optional<ElementId> member(ElementId owner, String name) {
        return member(owner, name, false, VALUES, null);
    }

    private Optional<ElementId> visible(String name, @Nullable ElementId scope, Predicate<Element> wanted) {
        for (ElementId at = scope; at != null; at = namespaces.find(at).map(Element::owner).orElse(null)) {
            Optional<ElementId> found = member(at, name, true, wanted, null);
            if (found.isPresent()) {
                return found;
            }
        }
        ElementId root = roots().get(name);
        return root != null ? Optional.of(root) : LibraryNames.SEEN_EVERYWHERE.contains(name)
                ? Optional.of(LibraryNames.id(LibraryNames.ACTION + "::" + name)).filter(id -> namespaces.find(id).isPresent()) : Optional.empty();
    }

    private Map<String, ElementId> roots() {
        Map<String, ElementId> known = roots;
        if (known == null) {
            // A package of one's own may be called like one of the library; it is the one that is meant then.
            known = index(namespaces.roots().stream()
                    .sorted(Comparator.comparing(root -> namespaces.namesIn(root.id()) != null)).toList());
            roots = known;
        }
        return known;
    }

    /** @param visited the namespaces looked into on the way here, null at the beginning */
    private Optional<ElementId> member(ElementId owner, String name, boolean inside, Predicate<Element> wanted,
            @Nullable Set<ElementId> visited) {
        Names responsible = namespaces.namesIn(owner);
        if (responsible != null && responsible != this) {
            return responsible.member(owner, name, inside, wanted, visited);
        }
        ElementId own = own(owner).get(name);
        if (own != null && (visited == null || !visited.contains(owner))) {
            Element found = namespaces.find(own).orElse(null);
            if (found != null && found.kind() == ElementKind.ALIAS) {
                return namespaces.imported(found).flatMap(namespaces::find).filter(wanted).map(Element::id);
            }
            if (found != null && wanted.test(found) && (inside || !isPrivate(found))) {
                return Optional.of(own);
            }
        }
        Element element = namespaces.find(owner).orElse(null);
        if (element == null) {
            return Optional.empty();
        }
        List<ElementId> generals = namespaces.generals(element);
        List<Element> imports = importsIn(owner);
        if (generals.isEmpty() && imports.isEmpty()) {
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
        return inside && wanted == VALUES ? importedBefore(owner, imports, name, seen) : imported(imports, name, inside, wanted, seen);
    }

    /**
     * What the imports of a namespace bring in, remembered where only the library answers: it is the same whenever it is
     * asked, and few names make up most of what a model uses.
     */
    private Optional<ElementId> importedBefore(ElementId owner, List<Element> imports, String name, Set<ElementId> visited) {
        Map<String, ElementId> known = fromLibrary.get(owner);
        ElementId before = known == null ? null : known.get(name);
        if (before != null) {
            return Optional.of(before);
        }
        Optional<ElementId> found = imported(imports, name, true, VALUES, visited);
        if (found.isPresent() && imports.stream().allMatch(each -> namespaces.imported(each).filter(target -> namespaces.namesIn(target) != null).isPresent())) {
            fromLibrary.computeIfAbsent(owner, _ -> new ConcurrentHashMap<>()).put(name, found.get());
        }
        return found;
    }

    /** The member of {@code owner} by a name that only {@code owner} itself may use. */
    public Optional<ElementId> hidden(ElementId owner, String name) {
        return Optional.ofNullable(own(owner).get(name)).filter(id -> namespaces.find(id).filter(Names::isPrivate).isPresent());
    }

    private static boolean isPrivate(Element element) {
        return element.get(Property.VISIBILITY).filter("private"::equals).isPresent();
    }

    private List<Element> importsIn(ElementId owner) {
        List<Element> known = imports.get(owner);
        if (known == null) {
            List<Element> children = namespaces.children(owner);
            if (children.isEmpty()) {
                return List.of();
            }
            known = children.stream().filter(child -> child.kind() == ElementKind.IMPORT).toList();
            imports.put(owner, known);
        }
        return known;
    }

    private Optional<ElementId> imported(List<Element> imports, String name, boolean inside, Predicate<Element> wanted,
            Set<ElementId> visited) {
        for (Element candidate : imports) {
            if (!inside && !isPublicImport(candidate)) {
                continue;
            }
            Optional<ElementId> target = namespaces.imported(candidate);
            Optional<ElementId> found = target.isEmpty() ? target : throughImport(candidate, target.get(), name, wanted, visited);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    private Optional<ElementId> throughImport(Element importElement, ElementId target, String name,
            Predicate<Element> wanted, Set<ElementId> visited) {
        return switch (importElement.get(Property.REACH).orElse("one")) {
            case "members" -> member(target, name, false, wanted, visited);
            case "all", "self" -> memberOfAny(descendants(target), name, wanted, visited);
            default -> namespaces.find(target).filter(wanted).filter(e -> goesBy(e, name)).map(Element::id);
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

    /** Imports are private unless they say otherwise (SysML 2.0, 8.2.2.5.1). */
    private static boolean isPublicImport(Element importElement) {
        return importElement.get(Property.VISIBILITY).orElse("private").equals("public");
    }

    private boolean goesBy(Element element, String name) {
        return name.equals(element.shortName()) || name.equals(effectiveName(element));
    }

    private Map<String, ElementId> own(ElementId owner) {
        Map<String, ElementId> known = members.get(owner);
        if (known == null) {
            List<Element> children = namespaces.children(owner);
            if (children.isEmpty()) {
                return Map.of();
            }
            known = index(children);
            members.put(owner, known);
        }
        return known;
    }

    private Map<String, ElementId> index(List<Element> elements) {
        Map<String, ElementId> index = new HashMap<>();
        for (Element element : elements) {
            if (element.shortName() != null) {
                index.putIfAbsent(element.shortName(), element.id());
            }
            String name = effectiveName(element);
            if (name != null) {
                index.putIfAbsent(name, element.id());
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
            if (child.kind() == ElementKind.IMPORT && (inside || isPublicImport(child))) {
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
