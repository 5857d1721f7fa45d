package pyrite.core.story;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** The use cases of a model and what is said of them beside their stories. */
public final class UseCases {
    private UseCases() {}

    /**
     * Those of the model itself, in the order of their names; a usage of another use case that adds no steps is left
     * out.
     */
    public static List<Element> all(Model model) {
        return model.ownElements(java.util.Set.of(ElementKind.USE_CASE_DEFINITION, ElementKind.USE_CASE))
                .filter(useCase -> isToldByItself(model, useCase))
                .sorted(Comparator.comparing(useCase -> model.names().qualifiedName(useCase)))
                .toList();
    }

    static boolean isToldByItself(Model model, Element useCase) {
        if (useCase.kind() == ElementKind.USE_CASE_DEFINITION) {
            return true;
        }
        boolean stands =
                useCase.owner() == null || model.get(useCase.owner()).kind().isPackage();
        boolean isOfAnother = model.inheritance().generals(useCase).stream()
                .anyMatch(general -> !general.equals(useCase) && !model.isLibrary(general.id()));
        return stands && !isOfAnother;
    }

    /** The needs that its objective frames, inherited ones included. */
    public static List<Element> needs(Model model, Element useCase) {
        return model.inheritance().generals(useCase).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.kind() == ElementKind.OBJECTIVE)
                .flatMap(objective -> model.children(objective.id()).stream())
                .filter(child -> child.kind() == ElementKind.FRAMED_CONCERN)
                .flatMap(framed -> framed.get(Property.TARGET).stream())
                .map(Reference::target)
                .flatMap(need -> model.find(need).stream())
                .distinct()
                .toList();
    }

    /** What is to be reached, in words; empty if nothing is said. */
    public static String objective(Model model, Element useCase) {
        return model.inheritance().features(useCase).stream()
                .filter(feature -> feature.kind() == ElementKind.OBJECTIVE && !model.isLibrary(feature.id()))
                .map(objective -> model.inheritance().documentation(objective))
                .findFirst()
                .orElse("");
    }

    /** The use cases that it includes. */
    public static List<Element> included(Model model, Element useCase) {
        return model.children(useCase.id()).stream()
                .filter(child -> child.kind() == ElementKind.INCLUDED_USE_CASE)
                .map(include -> include.get(Property.TARGET)
                        .flatMap(target -> model.find(target.target()))
                        .or(() -> type(model, include))
                        .orElse(include))
                .distinct()
                .toList();
    }

    /** The first definition of the model that a feature is typed by. */
    public static Optional<Element> type(Model model, Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .findFirst();
    }

    /** The use cases that it is a special case of. */
    public static List<Element> generals(Model model, Element useCase) {
        return Stream.of(Property.SPECIALIZES, Property.TYPES)
                .flatMap(property -> useCase.references(property).stream())
                .map(Reference::target)
                .flatMap(id -> model.find(id).stream())
                .filter(general -> Story.isToldOf(general.kind()) && !model.isLibrary(general.id()))
                .toList();
    }

    /** The use case around a step, condition or event; empty if it stands in none. */
    public static Optional<Element> around(Model model, Element member) {
        Element at = member;
        while (at != null && !Story.isToldOf(at.kind())) {
            ElementId owner = at.owner();
            at = owner == null ? null : model.get(owner);
        }
        return Optional.ofNullable(at);
    }
}
