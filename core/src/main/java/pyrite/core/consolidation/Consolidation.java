package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.consolidation.Feature.Kind;
import pyrite.core.consolidation.Feature.Place;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.story.SimilarTexts;
import pyrite.core.trace.Link;
import pyrite.core.trace.Links;

/**
 * What use cases found, sorted by case: found once, the same in several, the same under differing names or with
 * differing parameters, or different things of one name. What looks alike is proposed by names, types, parameters and
 * texts; what a person has decided is read from the model.
 */
public final class Consolidation {
    /** From this similarity of texts on, two features look the same. */
    private static final double CLEARLY_ALIKE = 0.5;

    private static final int MOST_ALIKE = 12;
    private static final int MOST_EXISTING = 3;
    /** Each text is compared with every other; of more features than this only the names are compared. */
    private static final int MOST_COMPARED = 1_000;

    private final Model model;
    private final Links links;
    private final List<Group> groups = new ArrayList<>();

    /** How features are to each other; what takes most to decide comes first. */
    public enum Case {
        PARAMETERS("differing parameters"),
        NAMES("differing names"),
        HOMONYM("one name, different things"),
        SAME("the same in several"),
        ONCE("found once");

        private final String title;

        Case(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** How far a group is decided. */
    public enum State {
        OPEN("to decide"),
        /** Decided, and found in further places since. */
        NEW("new places"),
        /** A place of it has become something else since. */
        CHANGED("changed since"),
        DECIDED("decided");

        private final String title;

        State(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** Features that are, or look like, one; or that share a name only. */
    public record Group(Kind kind, Case relation, State state, List<Feature> members) {
        public Group {
            members = List.copyOf(members);
        }

        public List<Element> useCases() {
            return members.stream()
                    .flatMap(member -> member.useCases().stream())
                    .distinct()
                    .toList();
        }
    }

    private Consolidation(Model model) {
        this.model = model;
        this.links = Links.in(model);
        Map<Kind, List<Feature>> byKind = FoundFeatures.in(model).stream()
                .collect(Collectors.groupingBy(Feature::kind, LinkedHashMap::new, Collectors.toList()));
        for (Kind kind : Kind.values()) {
            group(byKind.getOrDefault(kind, List.of()));
        }
        groups.sort(Comparator.comparing(Group::kind).thenComparing(Group::relation));
    }

    public static Consolidation of(Model model) {
        return model.derived(Consolidation.class, Consolidation::new);
    }

    public List<Group> groups() {
        return groups;
    }

    public String name(Feature feature) {
        return FoundFeatures.name(model, feature.kind(), feature.element());
    }

    /** The feature that something stands for. */
    public Optional<Feature> feature(ElementId element) {
        return groups.stream()
                .flatMap(group -> group.members().stream())
                .filter(member -> member.element().id().equals(element))
                .findFirst();
    }

    /**
     * Definitions of the system that no use case found and that say much the same as features do: one of them may be
     * the one that they become.
     */
    public List<Feature> existing(List<Feature> features) {
        Kind kind = features.getFirst().kind();
        if (kind != Kind.FUNCTION && kind != Kind.ITEM) {
            return List.of();
        }
        Map<Element, String> said = new LinkedHashMap<>();
        model.ownElements(kind == Kind.FUNCTION ? ElementKind.ACTION_DEFINITION : ElementKind.ITEM_DEFINITION)
                .filter(definition ->
                        definition.name() != null && feature(definition.id()).isEmpty())
                .map(definition -> FoundFeatures.standing(model, kind, definition))
                .forEach(standing -> said.put(standing.element(), standing.text()));
        SimilarTexts texts = SimilarTexts.of(said);
        return features.stream()
                .flatMap(feature -> texts.to(feature.text(), MOST_EXISTING).stream())
                .map(SimilarTexts.Match::element)
                .distinct()
                .map(definition -> FoundFeatures.standing(model, kind, definition))
                .toList();
    }

    /** A feature, or a definition that may become the one for features of a kind. */
    public Optional<Feature> featureOrStanding(ElementId id, Kind kind) {
        return feature(id)
                .or(() -> model.find(id)
                        .filter(element -> element.kind()
                                == (kind == Kind.FUNCTION
                                        ? ElementKind.ACTION_DEFINITION
                                        : ElementKind.ITEM_DEFINITION))
                        .map(element -> FoundFeatures.standing(model, kind, element)));
    }

    /** The names that what stands for a feature had before, or that were those of what became it. */
    public List<String> remembered(Feature feature) {
        return model.referrers(feature.element().id()).stream()
                .map(model::get)
                .filter(user -> user.kind() == ElementKind.ALIAS && user.name() != null)
                .map(Element::name)
                .distinct()
                .sorted()
                .toList();
    }

    /** The link that says what a place became. */
    public Optional<Link> origin(Place place) {
        return links.of(place.member()).stream()
                .filter(link -> link.kind().key().equals(Adopting.ORIGIN)
                        && link.target().equals(place.member().id()))
                .findFirst();
    }

    private void group(List<Feature> features) {
        List<Feature> ordered = features.stream()
                .sorted(Comparator.comparing(
                                (Feature feature) -> -feature.useCases().size())
                        .thenComparing(this::name))
                .toList();
        Likeness likeness = new Likeness(ordered);
        Set<Feature> open = new LinkedHashSet<>(ordered);
        for (Feature feature : ordered) {
            if (open.remove(feature)) {
                List<Feature> alike = open.stream()
                        .filter(other -> likeness.isAlike(feature, other))
                        .toList();
                List<Feature> members = new ArrayList<>(List.of(feature));
                members.addAll(
                        alike.isEmpty()
                                ? open.stream()
                                        .filter(other -> likeness.isHomonym(feature, other))
                                        .toList()
                                : alike);
                open.removeAll(members);
                Case relation = alike.isEmpty() && members.size() > 1 ? Case.HOMONYM : relation(members);
                groups.add(new Group(feature.kind(), relation, state(members), members));
            }
        }
    }

    private Case relation(List<Feature> members) {
        Feature first = members.getFirst();
        if (members.size() == 1) {
            return first.useCases().size() == 1 ? Case.ONCE : Case.SAME;
        }
        if (!members.stream().allMatch(first::hasSameParameters)) {
            return Case.PARAMETERS;
        }
        return members.stream().map(this::key).distinct().count() == 1 ? Case.SAME : Case.NAMES;
    }

    private String key(Feature feature) {
        return name(feature).toLowerCase(Locale.ROOT);
    }

    private State state(List<Feature> members) {
        if (members.size() > 1) {
            return State.OPEN;
        }
        Feature feature = members.getFirst();
        List<Place> decided = feature.places().stream()
                .filter(place -> origin(place).isPresent())
                .toList();
        boolean isAnother = feature.kind() != Kind.FLOW
                && decided.stream()
                        .anyMatch(place -> !origin(place)
                                .orElseThrow()
                                .source()
                                .equals(feature.element().id()));
        return isAnother
                ? State.CHANGED
                : decided.isEmpty()
                        ? State.OPEN
                        : decided.size() < feature.places().size() ? State.NEW : State.DECIDED;
    }

    /** Which features look like one. */
    private final class Likeness {
        private final Map<ElementId, Map<ElementId, Double>> similarities = new HashMap<>();
        private final Set<Set<ElementId>> apart = KeptApart.in(model);

        Likeness(List<Feature> features) {
            if (features.size() > MOST_COMPARED) {
                return;
            }
            SimilarTexts texts = SimilarTexts.of(features.stream()
                    .collect(Collectors.toMap(Feature::element, Feature::text, (one, _) -> one, LinkedHashMap::new)));
            features.forEach(feature -> {
                Map<ElementId, Double> similar = new HashMap<>();
                texts.to(feature.text(), MOST_ALIKE)
                        .forEach(match -> similar.put(match.element().id(), match.similarity()));
                similarities.put(feature.element().id(), similar);
            });
        }

        private double similarity(Feature one, Feature other) {
            return similarities
                    .getOrDefault(one.element().id(), Map.of())
                    .getOrDefault(other.element().id(), 0.0);
        }

        boolean isAlike(Feature one, Feature other) {
            if (areApart(one, other) || one.kind() == Kind.FLOW) {
                return false;
            }
            double similarity = similarity(one, other);
            return similarity >= CLEARLY_ALIKE
                    || similarity > 0 && (one.sharesParameters(other) || haveOneName(one, other))
                    || haveOneName(one, other) && one.sharesParameters(other);
        }

        boolean isHomonym(Feature one, Feature other) {
            return haveOneName(one, other) && !areApart(one, other);
        }

        private boolean haveOneName(Feature one, Feature other) {
            return key(one).equals(key(other));
        }

        private boolean areApart(Feature one, Feature other) {
            return apart.contains(Set.of(one.element().id(), other.element().id()));
        }
    }
}
