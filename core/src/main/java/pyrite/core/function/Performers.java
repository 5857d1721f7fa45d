package pyrite.core.function;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;

/**
 * Which parts of a whole have which functions: by {@code perform} in the part, in what it is typed by or in what that
 * specialises (SysML 2.0, 7.17.6), or by an allocation (7.15). What names one use of a function counts before what
 * names its definition; a function that nobody has is performed by who has the one around it.
 */
public final class Performers {
    private final Model model;
    private final Map<ElementId, Set<Part>> byFunction = new HashMap<>();

    private Performers(Model model) {
        this.model = model;
    }

    public static Performers of(Model model, PartTree parts) {
        Performers performers = new Performers(model);
        parts.parts().forEach(performers::performed);
        performers.allocated(parts);
        return performers;
    }

    private void performed(Part part) {
        model.inheritance().features(part.element()).stream()
                .filter(feature -> feature.kind() == ElementKind.PERFORM && !model.isLibrary(feature.id()))
                .forEach(perform -> named(model, perform).forEach(function -> put(function, part)));
    }

    private void put(ElementId function, Part part) {
        byFunction.computeIfAbsent(function, _ -> new LinkedHashSet<>()).add(part);
    }

    /** What a perform action performs: what it refers to, or its type; and itself, where flows lead to it. */
    static List<ElementId> named(Model model, Element perform) {
        List<ElementId> referred = Stream.concat(
                        perform.get(Property.TARGET).stream(), perform.references(Property.REFERS).stream())
                .map(Reference::target)
                .toList();
        List<ElementId> named = new ArrayList<>(List.of(perform.id()));
        if (referred.isEmpty()) {
            model.inheritance().generals(perform).stream()
                    .filter(general ->
                            general.kind() == ElementKind.ACTION_DEFINITION && !model.isLibrary(general.id()))
                    .map(Element::id)
                    .forEach(named::add);
        } else {
            named.addAll(referred);
        }
        return named;
    }

    private void allocated(PartTree parts) {
        Map<ElementId, List<Part>> byElement = new HashMap<>();
        parts.parts()
                .forEach(part -> model.inheritance().generals(part.element()).stream()
                        .filter(general -> !model.isLibrary(general.id()))
                        .forEach(general -> byElement
                                .computeIfAbsent(general.id(), _ -> new ArrayList<>())
                                .add(part)));
        model.ownElements(ElementKind.ALLOCATION).forEach(allocation -> {
            List<Reference> ends = ConnectorEnds.of(model, allocation);
            if (ends.size() == 2) {
                List<ElementId> way = ends.getLast().chain();
                byElement.getOrDefault(way.getLast(), List.of()).stream()
                        .filter(part -> endsWith(part, way))
                        .forEach(part -> put(ends.getFirst().target(), part));
            }
        });
    }

    /** Whether the way to a part ends as an allocation names it; what redefines a part of that way stands for it. */
    private boolean endsWith(Part part, List<ElementId> way) {
        Part at = part;
        for (int i = way.size() - 1; i >= 0 && at != null; i--) {
            ElementId step = way.get(i);
            boolean isThere = model.inheritance().generals(at.element()).stream()
                    .anyMatch(general -> general.id().equals(step));
            if (!isThere) {
                return false;
            }
            at = at.within();
            if (at == null || at.way().isEmpty()) {
                // An allocation outside names the whole by a usage of it, too.
                return true;
            }
        }
        return true;
    }

    /** The parts that have a function of their own accord; none if it comes to them with a function around it. */
    public Set<Part> own(Use use) {
        Set<Part> exact = new LinkedHashSet<>();
        model.inheritance().redefined(use.function()).forEach(each -> exact.addAll(of(each.id())));
        exact.addAll(of(use.function().id()));
        if (use.function().kind() == ElementKind.PERFORM) {
            named(model, use.function()).forEach(each -> exact.addAll(of(each)));
        }
        if (!exact.isEmpty()) {
            return exact;
        }
        Set<Part> byType = new LinkedHashSet<>();
        model.inheritance().generals(use.function()).stream()
                .filter(general -> general.kind().isDefinition())
                .forEach(general -> byType.addAll(of(general.id())));
        return byType;
    }

    private Set<Part> of(ElementId function) {
        return byFunction.getOrDefault(function, Set.of());
    }

    /** The parts that perform a function: its own, else those of the function around it. */
    public Set<Part> of(Use use) {
        Use at = use;
        while (at != null) {
            Set<Part> own = own(at);
            if (!own.isEmpty()) {
                return own;
            }
            at = at.within();
        }
        return Set.of();
    }

    /** The functions that parts perform and that realise nothing: no use in the tree is one of them. */
    public List<Element> apart(FunctionTree tree) {
        Set<ElementId> used = new HashSet<>();
        tree.uses().forEach(use -> {
            model.inheritance().generals(use.function()).forEach(general -> used.add(general.id()));
            used.addAll(named(model, use.function()));
        });
        return byFunction.keySet().stream()
                .filter(function -> !used.contains(function))
                .map(model::get)
                .filter(function -> function.kind() == ElementKind.ACTION_DEFINITION)
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
    }
}
