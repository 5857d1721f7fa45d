package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.consolidation.Feature.Kind;
import pyrite.core.consolidation.Feature.Parameter;
import pyrite.core.consolidation.Feature.Place;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.story.Actors;
import pyrite.core.story.Turning;
import pyrite.core.story.UseCases;

/**
 * Collects what the use cases of a model found: the functions and items of turned steps, the attributes of use cases,
 * and the flows between steps.
 */
final class FoundFeatures {
    private final Model model;
    private final Map<List<Object>, List<Place>> places = new LinkedHashMap<>();
    private final Map<List<Object>, Element> elements = new LinkedHashMap<>();

    private FoundFeatures(Model model) {
        this.model = model;
    }

    static List<Feature> in(Model model) {
        FoundFeatures found = new FoundFeatures(model);
        UseCases.all(model)
                .forEach(useCase -> model.subtree(useCase.id()).forEach(member -> found.add(useCase, member)));
        return found.places.entrySet().stream()
                .map(each -> found.feature((Kind) each.getKey().getFirst(), each.getKey(), each.getValue()))
                .toList();
    }

    private void add(Element useCase, Element member) {
        if (member.kind().isFlow()) {
            flow(useCase, member);
        } else if (member.kind() == ElementKind.ATTRIBUTE && useCase.id().equals(member.owner())) {
            Element value = ofSubject(member).orElse(member);
            add(List.of(Kind.VALUE, value.id()), value, useCase, member);
        } else {
            Turning.became(model, member)
                    .flatMap(_ -> Turning.definition(model, member))
                    .ifPresent(definition -> {
                        Kind kind = definition.kind() == ElementKind.ACTION_DEFINITION ? Kind.FUNCTION : Kind.ITEM;
                        add(List.of(kind, definition.id()), definition, useCase, member);
                    });
        }
    }

    private void add(List<Object> key, Element element, Element useCase, Element member) {
        elements.putIfAbsent(key, element);
        places.computeIfAbsent(key, _ -> new ArrayList<>()).add(new Place(useCase, member));
    }

    /** The attribute of the subject that an attribute of a use case has its value from. */
    private Optional<Element> ofSubject(Element attribute) {
        return attribute
                .get(Property.VALUE)
                .map(FeatureValue::expression)
                .filter(Expression.FeatureReference.class::isInstance)
                .map(value -> ((Expression.FeatureReference) value).chain())
                .filter(chain -> chain.size() > 1
                        && chain.getFirst() instanceof ElementId first
                        && model.find(first)
                                .filter(each -> each.kind() == ElementKind.SUBJECT)
                                .isPresent())
                .map(List::getLast)
                .filter(ElementId.class::isInstance)
                .flatMap(last -> model.find((ElementId) last));
    }

    /** Flows are the same if what they join is the same, and what goes. */
    private void flow(Element useCase, Element flow) {
        Element from = end(flow, Property.SOURCE);
        Element to = end(flow, Property.TARGET);
        if (from != null && to != null) {
            List<Object> key = new ArrayList<>(List.of(Kind.FLOW, from.id(), to.id()));
            key.add(item(flow).map(Element::id).map(Object.class::cast).orElse(""));
            add(List.copyOf(key), flow, useCase, flow);
        }
    }

    /** What the step at an end of a flow does. */
    private @Nullable Element end(Element flow, Property<Reference> end) {
        return flow.get(end).stream()
                .flatMap(reference -> reference.chain().stream())
                .flatMap(id -> model.find(id).stream())
                .flatMap(step -> Turning.became(model, step).flatMap(_ -> Turning.definition(model, step)).stream())
                .reduce((_, later) -> later)
                .orElse(null);
    }

    private Optional<Element> item(Element flow) {
        return model.children(flow.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .flatMap(payload -> UseCases.type(model, payload).stream())
                .findFirst();
    }

    private Feature feature(Kind kind, List<Object> key, List<Place> found) {
        Element element = Objects.requireNonNull(elements.get(key));
        String said = found.stream()
                .map(place -> model.inheritance().documentation(place.member()))
                .distinct()
                .collect(Collectors.joining(" "));
        return new Feature(
                kind,
                element,
                found,
                parameters(model, kind, element),
                Actors.spaced(name(model, kind, element)) + " "
                        + (kind == Kind.VALUE ? "" : model.inheritance().documentation(element)) + " " + said);
    }

    /** A definition that no use case found, as a feature without places. */
    static Feature standing(Model model, Kind kind, Element definition) {
        return new Feature(
                kind,
                definition,
                List.of(),
                parameters(model, kind, definition),
                Actors.spaced(String.valueOf(definition.name())) + " "
                        + model.inheritance().documentation(definition));
    }

    /** Of a flow, what it joins. */
    static String name(Model model, Kind kind, Element element) {
        if (kind != Kind.FLOW) {
            return Objects.requireNonNullElse(model.names().effectiveName(element), kind.title());
        }
        FoundFeatures found = new FoundFeatures(model);
        Element from = found.end(element, Property.SOURCE);
        Element to = found.end(element, Property.TARGET);
        return from == null || to == null
                ? kind.title()
                : model.names().effectiveName(from) + " to " + model.names().effectiveName(to);
    }

    static List<Parameter> parameters(Model model, Kind kind, Element element) {
        return switch (kind) {
            case FUNCTION, ITEM ->
                model.inheritance().features(element).stream()
                        .filter(feature -> !model.isLibrary(feature.id()) && isParameter(model, kind, feature))
                        .map(feature -> parameter(model, feature))
                        .toList();
            case VALUE, FLOW -> List.of();
        };
    }

    private static boolean isParameter(Model model, Kind kind, Element feature) {
        return kind == Kind.FUNCTION
                ? model.inheritance().nearest(feature, Property.DIRECTION).isPresent()
                : feature.kind() == ElementKind.ATTRIBUTE
                        || feature.kind() == ElementKind.ITEM
                        || feature.kind() == ElementKind.REFERENCE;
    }

    static Parameter parameter(Model model, Element feature) {
        Multiplicity multiplicity = model.inheritance().multiplicity(feature);
        Element type = model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition())
                .findFirst()
                .orElse(null);
        return new Parameter(
                feature,
                Objects.requireNonNullElse(model.names().effectiveName(feature), "parameter"),
                model.inheritance().nearest(feature, Property.DIRECTION).orElse(""),
                type,
                multiplicity.lower() == 0);
    }
}
