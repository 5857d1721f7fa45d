package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.story.UseCases;

/**
 * Makes a value of use cases an attribute of the system: what the subject is defined by gets the attribute, and each
 * use case takes its value from there, {@code attribute vesselInChannel = gate.vesselInChannel}.
 */
final class SystemValues {
    private final Model model;

    SystemValues(Model model) {
        this.model = model;
    }

    /** @param attribute the attribute of the system, made or there already */
    record Made(Edit edit, Element attribute) {}

    /** @param origins the attributes of use cases that are one value */
    Made make(List<Feature> features, String name) {
        List<Feature.Place> places =
                features.stream().flatMap(feature -> feature.places().stream()).toList();
        Element system = system(places);
        Element known = features.stream()
                .map(Feature::element)
                .filter(element -> system.id().equals(element.owner()))
                .findFirst()
                .or(() -> model.names().member(system.id(), name).flatMap(model::find))
                .orElse(null);
        List<Reference> types = types(features);
        List<Element> put = new ArrayList<>();
        Element attribute = known;
        if (attribute == null) {
            attribute = Element.of(ElementKind.ATTRIBUTE, system.id(), model.rankAtEnd(system.id()), name)
                    .with(Property.TYPES, types);
            String text = features.stream()
                    .map(feature -> model.inheritance().documentation(feature.element()))
                    .filter(each -> !each.isBlank())
                    .findFirst()
                    .orElse("");
            if (!text.isEmpty()) {
                put.add(Element.of(ElementKind.DOCUMENTATION, attribute.id(), Rank.between(null, null), null)
                        .with(Property.TEXT, text));
            }
        } else if (attribute.kind() != ElementKind.ATTRIBUTE
                || !Objects.equals(
                        typeOf(attribute),
                        types.isEmpty() ? null : types.getFirst().target())) {
            throw new IllegalArgumentException(
                    "'" + system.name() + "' has something else named '" + name + "'; choose another name");
        }
        put.addFirst(attribute.withName(name));
        for (Feature.Place place : places) {
            put.add(bound(place, attribute));
        }
        return new Made(new Edit(put, Set.of()), attribute);
    }

    private Element system(List<Feature.Place> places) {
        Set<Element> systems = new HashSet<>();
        places.forEach(place -> systems.add(type(subject(place.useCase()))));
        if (systems.size() != 1) {
            throw new IllegalArgumentException(
                    "the use cases have different subjects, so that their values are those of"
                            + " different systems: "
                            + systems.stream().map(Element::name).sorted().toList());
        }
        return systems.iterator().next();
    }

    private Element subject(Element useCase) {
        return model.inheritance().features(useCase).stream()
                .filter(feature -> feature.kind() == ElementKind.SUBJECT && !model.isLibrary(feature.id()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "'" + useCase.name() + "' has no subject; say which system it is about"));
    }

    private Element type(Element subject) {
        return UseCases.type(model, subject)
                .orElseThrow(() -> new IllegalArgumentException(
                        "the subject '" + subject.name() + "' has no type; say what defines it"));
    }

    private List<Reference> types(List<Feature> features) {
        List<List<Reference>> types = features.stream()
                .map(feature -> model.inheritance()
                        .nearest(feature.element(), Property.TYPES)
                        .orElse(List.of()))
                .distinct()
                .toList();
        if (types.size() != 1) {
            throw new IllegalArgumentException("the values have different types; one value has one type");
        }
        return types.getFirst();
    }

    private @Nullable ElementId typeOf(Element attribute) {
        return model.inheritance().nearest(attribute, Property.TYPES).orElse(List.of()).stream()
                .findFirst()
                .map(Reference::target)
                .orElse(null);
    }

    private Element bound(Feature.Place place, Element attribute) {
        Element member = place.member();
        FeatureReference value =
                new FeatureReference(List.of(subject(place.useCase()).id(), attribute.id()), Span.NONE);
        FeatureValue given = member.get(Property.VALUE).orElse(null);
        boolean isOfSystem = given != null
                && given.expression() instanceof FeatureReference reference
                && reference.chain().size() == 2;
        if (given != null && !isOfSystem) {
            throw new IllegalArgumentException("'" + member.name() + "' of '"
                    + place.useCase().name() + "' has a value of its own; take it out first");
        }
        return member.with(Property.VALUE, new FeatureValue(FeatureValue.Kind.FIXED, value));
    }
}
