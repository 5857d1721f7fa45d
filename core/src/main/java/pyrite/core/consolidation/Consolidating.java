package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.consolidation.Feature.Kind;
import pyrite.core.consolidation.Feature.Parameter;
import pyrite.core.consolidation.Feature.Place;
import pyrite.core.model.Edit;
import pyrite.core.model.EditSequence;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * The acts of consolidation. Each ends in one edit that can be undone, and in links that keep what was decided.
 *
 * <p>All throw an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class Consolidating {
    private final EditSequence edits;
    private final @Nullable Element home;
    private final @Nullable Element whole;

    /**
     * @param home the package that definitions move to which stand beside a use case; null if they stay
     * @param whole the function of the system that gets the flows; null if none is chosen
     */
    public Consolidating(Model model, @Nullable Element home, @Nullable Element whole) {
        this.edits = new EditSequence(model);
        this.home = home;
        this.whole = whole;
    }

    /** Takes features as they are into the system, each as one definition. */
    public Edit adopt(List<Feature> features) {
        for (Feature feature : features) {
            Element definition = switch (feature.kind()) {
                case FUNCTION, ITEM -> atHome(feature);
                case VALUE -> value(List.of(feature), name(feature));
                case FLOW -> flow(feature);
            };
            link(definition, feature.places());
        }
        return edits.edit();
    }

    /**
     * Makes one definition of several features of one kind.
     *
     * @param features the one whose definition stays first
     * @param parameters of the one definition; they are not asked for of values and flows
     */
    public Edit unify(List<Feature> features, String name, List<United> parameters) {
        Kind kind = features.getFirst().kind();
        if (features.size() < 2 || features.stream().anyMatch(feature -> feature.kind() != kind)) {
            throw new IllegalArgumentException("choose at least two features of one kind");
        }
        if (name.isBlank()) {
            throw new IllegalArgumentException("give the one definition a name");
        }
        List<Place> places =
                features.stream().flatMap(feature -> feature.places().stream()).toList();
        switch (kind) {
            case VALUE -> link(value(features, name.strip()), places);
            case FLOW ->
                throw new IllegalArgumentException(
                        "flows are one if they join the same and carry the same; make their functions and items one");
            case FUNCTION, ITEM -> {
                Element lead = features.getFirst().element();
                List<Element> others =
                        features.stream().skip(1).map(Feature::element).toList();
                requireFree(lead, others, name.strip());
                edits.then(Unifying.of(edits.model(), lead, others, name.strip(), all(features, parameters)));
                link(atHome(features.getFirst()), places);
            }
        }
        return edits.edit();
    }

    /** What is asked for, and what of the features it leaves out. */
    private static List<United> all(List<Feature> features, List<United> asked) {
        if (asked.stream().anyMatch(united -> united.name().isBlank())) {
            throw new IllegalArgumentException("give each parameter a name");
        }
        List<Parameter> taken =
                asked.stream().flatMap(united -> united.sources().stream()).toList();
        List<United> all = new ArrayList<>(asked);
        features.stream()
                .flatMap(feature -> feature.parameters().stream())
                .filter(parameter -> !taken.contains(parameter))
                .forEach(parameter -> all.add(new United(parameter.name(), List.of(parameter), true)));
        return all;
    }

    /** Keeps features that look alike apart, and gives those a name that get one. */
    public Edit apart(List<Feature> features, Map<Element, String> names, String reason) {
        for (Map.Entry<Element, String> each : names.entrySet()) {
            String name = each.getValue().strip();
            if (name.isEmpty()) {
                throw new IllegalArgumentException("'" + each.getKey().name() + "' needs a name");
            }
            requireFree(each.getKey(), List.of(), name);
            edits.then(Edit.put(edits.model().get(each.getKey().id()).withName(name)));
        }
        edits.then(KeptApart.mark(
                edits.model(),
                features.stream()
                        .map(feature -> edits.model().get(feature.element().id()))
                        .toList(),
                reason.strip()));
        return edits.edit();
    }

    private void requireFree(Element element, List<Element> others, String name) {
        if (element.owner() == null || name.equals(element.name())) {
            return;
        }
        edits.model()
                .names()
                .member(element.owner(), name)
                .flatMap(edits.model()::find)
                .filter(known -> !known.equals(element)
                        && !others.contains(known)
                        && !Unifying.isNameOf(edits.model(), known, element, others))
                .ifPresent(known -> {
                    throw new IllegalArgumentException(
                            "there is already " + known.kind().titleWithArticle() + " '" + name + "' where '"
                                    + element.name() + "' stands");
                });
    }

    private static String name(Feature feature) {
        return Objects.requireNonNullElse(feature.element().name(), "value");
    }

    /** A definition that stands in the package of a use case moves to the one chosen for the system. */
    private Element atHome(Feature feature) {
        Element definition = edits.model().get(feature.element().id());
        boolean isBesideUseCase = feature.places().stream()
                .anyMatch(place -> Objects.equals(place.useCase().owner(), definition.owner()));
        if (home == null || !isBesideUseCase || home.id().equals(definition.owner())) {
            return definition;
        }
        String name = String.valueOf(definition.name());
        if (edits.model().names().member(home.id(), name).isPresent()) {
            throw new IllegalArgumentException("'" + home.name() + "' has something named '" + name
                    + "' already; make the two one, or rename one");
        }
        edits.then(Edit.put(definition.withOwner(home.id(), edits.model().rankAtEnd(home.id()))));
        return edits.model().get(definition.id());
    }

    private Element value(List<Feature> features, String name) {
        SystemValues.Made made = new SystemValues(edits.model()).make(features, name);
        edits.then(made.edit());
        return edits.model().get(made.attribute().id());
    }

    private Element flow(Feature feature) {
        if (whole == null || whole.kind() != ElementKind.ACTION_DEFINITION) {
            throw new IllegalArgumentException("choose the function of the system that the flows belong to");
        }
        SystemFlows.Made made = new SystemFlows(edits.model(), edits.model().get(whole.id())).make(feature.element());
        edits.then(made.edit());
        return edits.model().get(made.flow().id());
    }

    private void link(Element definition, List<Place> places) {
        Set<Place> now = new LinkedHashSet<>();
        new ArrayList<>(places)
                .forEach(place -> now.add(new Place(
                        place.useCase(), edits.model().get(place.member().id()))));
        edits.then(Adopting.link(edits.model(), definition, List.copyOf(now)));
    }
}
