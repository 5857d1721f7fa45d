package pyrite.core.structure;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Which features of two connected ports belong together. Those of one name do; an interface definition says by bindings
 * between its ends which others do, {@code bind source.oil = sink.fluid}.
 *
 * @param forth names at the second port by the names at the first, where they differ
 */
record Pairs(Map<String, String> forth) {
    static final Pairs BY_NAME = new Pairs(Map.of());

    Pairs {
        forth = Map.copyOf(forth);
    }

    /** What the definition of a connection or interface says, or that definition itself. */
    static Pairs of(Model model, Element connector) {
        if (!connector.kind().isConnector()
                && connector.kind() != ElementKind.INTERFACE_DEFINITION
                && connector.kind() != ElementKind.CONNECTION_DEFINITION) {
            return BY_NAME;
        }
        List<Element> ends = model.inheritance().features(connector).stream()
                .filter(feature -> feature.get(Property.END).orElse(false) && !model.isLibrary(feature.id()))
                .toList();
        if (ends.size() != 2) {
            return BY_NAME;
        }
        Map<String, String> forth = new LinkedHashMap<>();
        model.inheritance().generals(connector).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(member -> member.kind() == ElementKind.BINDING)
                .forEach(binding -> {
                    List<Reference> sides = ConnectorEnds.of(model, binding);
                    Optional<String> one = name(model, sides, ends.getFirst());
                    Optional<String> other = name(model, sides, ends.getLast());
                    if (one.isPresent() && other.isPresent()) {
                        forth.put(one.get(), other.get());
                    }
                });
        return new Pairs(forth);
    }

    /** What a binding names at an end. */
    private static Optional<String> name(Model model, List<Reference> sides, Element end) {
        return sides.stream()
                .map(Reference::chain)
                .filter(chain -> chain.size() > 1 && chain.getFirst().equals(end.id()))
                .findFirst()
                .map(chain -> path(model, chain.subList(1, chain.size())));
    }

    private static String path(Model model, List<ElementId> chain) {
        return chain.stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    /** The feature of the second port that belongs to one of the first. */
    Optional<PortFace.Feature> second(PortFace.Feature first, PortFace other) {
        return other.named(forth.getOrDefault(first.name(), first.name()));
    }

    /** The feature of the first port that belongs to one of the second. */
    Optional<PortFace.Feature> first(PortFace one, PortFace.Feature second) {
        return one.features().stream()
                .filter(feature -> Objects.equals(forth.getOrDefault(feature.name(), feature.name()), second.name()))
                .findFirst();
    }
}
