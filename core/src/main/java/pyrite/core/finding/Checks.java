package pyrite.core.finding;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.behavior.BehaviorChecks;
import pyrite.core.behavior.ItemUse;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Inheritance;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.story.Story;
import pyrite.core.story.StoryChecks;
import pyrite.core.structure.ConnectorEnds;
import pyrite.core.structure.Fit;

/** Looks at one element after the other. What it reads beyond an element, {@link Reach} must lead back from. */
final class Checks {
    /** So many features are followed from a definition in search of itself. */
    private static final int FARTHEST = 10_000;

    private final Model model;
    private final Inheritance inheritance;

    Checks(Model model) {
        this.model = model;
        this.inheritance = model.inheritance();
    }

    List<Finding> of(Element element) {
        List<Finding> found = new ArrayList<>();
        switch (element.kind()) {
            case PART -> {
                untyped(element, found);
                openPorts(element, found);
                subsetters(element, found);
            }
            case PART_DEFINITION -> {
                cycle(element, found);
                unused(element, found);
            }
            case ITEM_DEFINITION -> {
                unused(element, found);
                exchanged(element, found);
            }
            case PORT_DEFINITION,
                    INTERFACE_DEFINITION,
                    CONNECTION_DEFINITION,
                    ATTRIBUTE_DEFINITION,
                    ENUMERATION_DEFINITION -> unused(element, found);
            case PORT, ITEM -> subsetters(element, found);
            case SATISFACTION -> gone(element, found);
            case USE_CASE_DEFINITION, USE_CASE -> {
                story(element, found);
                behavior(element, found);
            }
            case ACTION_DEFINITION, ACTION, PERFORM, STATE_DEFINITION, STATE, EXHIBIT -> behavior(element, found);
            default -> {
                if (element.kind().isConnector() || element.kind().isFlow() || element.kind() == ElementKind.BINDING) {
                    misfits(element, found);
                    absentEnds(element, found);
                }
            }
        }
        return List.copyOf(found);
    }

    /** What is missing in the story of a use case. One that only inherits its story lacks nothing of its own. */
    private void story(Element useCase, List<Finding> found) {
        Map<String, Integer> times = new HashMap<>();
        StoryChecks.of(model, useCase).stream()
                .filter(gap -> model.owners(gap.element()).contains(useCase)
                        || gap.element().equals(useCase))
                .forEach(gap -> {
                    String at = gap.element().equals(useCase) ? "" : name(gap.element());
                    int time = times.merge(gap.kind() + at, 1, Integer::sum);
                    found.add(new Finding(
                            switch (gap.kind()) {
                                case UNREACHED -> Rule.UNREACHED;
                                case UNTOLD -> Rule.UNTOLD;
                                case ENDLESS -> Rule.ENDLESS;
                                case IDLE -> Rule.IDLE;
                            },
                            useCase.id(),
                            at + (time == 1 ? "" : time),
                            name(useCase) + ": " + gap.sentence()));
                });
    }

    /** What a behaviour lacks before it runs; what a story does not reach is said with the story. */
    private void behavior(Element behavior, List<Finding> found) {
        boolean isTold = Story.isToldOf(behavior.kind())
                || model.owners(behavior).stream().anyMatch(owner -> Story.isToldOf(owner.kind()));
        Map<String, Integer> times = new HashMap<>();
        BehaviorChecks.of(model, behavior).stream()
                .filter(gap -> !isTold || gap.kind() != BehaviorChecks.Kind.UNREACHED)
                .forEach(gap -> {
                    String at = name(gap.member());
                    int time = times.merge(gap.kind() + at, 1, Integer::sum);
                    found.add(new Finding(
                            switch (gap.kind()) {
                                case UNREACHED -> Rule.UNREACHED;
                                case STANDSTILL -> Rule.STANDSTILL;
                                case UNENTERED -> Rule.UNENTERED;
                                case UNLEFT -> Rule.UNLEFT;
                                case COMPETING -> Rule.COMPETING;
                                case UNENDING -> Rule.UNENDING;
                                case UNFIT -> Rule.UNFIT;
                            },
                            behavior.id(),
                            at + (time == 1 ? "" : time),
                            name(behavior) + ": " + gap.sentence()));
                });
    }

    private void exchanged(Element item, List<Finding> found) {
        ItemUse.neverSent(model, item)
                .ifPresent(sentence -> found.add(new Finding(Rule.UNSENT, item.id(), "", capital(sentence))));
        ItemUse.neverAccepted(model, item)
                .ifPresent(sentence -> found.add(new Finding(Rule.UNACCEPTED, item.id(), "", capital(sentence))));
    }

    private void misfits(Element connector, List<Finding> found) {
        Fit.of(model, connector)
                .forEach(misfit -> found.add(
                        new Finding(Rule.MISFIT, connector.id(), misfit.feature(), capital(misfit.sentence()))));
    }

    private void absentEnds(Element connector, List<Finding> found) {
        for (Reference end : ConnectorEnds.of(model, connector)) {
            steps(end.chain()).stream()
                    .filter(this::isAbsent)
                    .findFirst()
                    .ifPresent(absent -> found.add(new Finding(
                            Rule.MULTIPLICITY,
                            connector.id(),
                            name(absent),
                            "It leads to '" + words(end.chain()) + "', but there are no '" + name(absent)
                                    + "': the multiplicity is [0]")));
        }
    }

    private boolean isAbsent(Element feature) {
        return feature.kind().isUsage() && inheritance.multiplicity(feature).upper() == 0;
    }

    private void untyped(Element part, List<Finding> found) {
        boolean isPlain = inheritance.generals(part).stream()
                .allMatch(general -> general.id().equals(part.id()) || model.isLibrary(general.id()));
        boolean isEmpty = model.children(part.id()).stream()
                .noneMatch(child -> child.kind().isUsage() || child.kind().isConnector());
        if (isPlain && isEmpty) {
            found.add(new Finding(
                    Rule.UNTYPED,
                    part.id(),
                    "",
                    "'" + name(part) + "' has neither a definition nor an inside, so nothing is known of it"));
        }
    }

    /** The ports of a part that must be there and that nothing around it is joined to. */
    private void openPorts(Element part, List<Finding> found) {
        Element owner = part.owner() == null ? null : model.find(part.owner()).orElse(null);
        if (owner == null
                || owner.kind().isPackage()
                || part.get(Property.REFERENTIAL).orElse(false)
                || isAbsent(part)) {
            return;
        }
        Set<Element> known = part.references(Property.REDEFINES).stream()
                .flatMap(redefined -> inheritance.features(model.get(redefined.target())).stream())
                .collect(Collectors.toSet());
        Set<ElementId> partIds = ids(inheritance.redefined(part));
        inheritance.features(part).stream()
                .filter(port -> port.kind() == ElementKind.PORT
                        && !model.isLibrary(port.id())
                        && !known.contains(port)
                        && inheritance.multiplicity(port).lower() > 0
                        && !isJoined(partIds, port))
                .forEach(port -> found.add(new Finding(
                        Rule.OPEN_PORT,
                        part.id(),
                        name(port),
                        "Port '" + name(port) + "' of '" + name(part) + "' is connected with nothing around it")));
    }

    private boolean isJoined(Set<ElementId> part, Element port) {
        Set<ElementId> ports = ids(inheritance.redefined(port));
        return ports.stream()
                .flatMap(id -> model.referrers(id).stream())
                .map(model::get)
                .flatMap(Checks::targets)
                .anyMatch(target -> passes(target.chain(), part, ports));
    }

    private static Stream<Reference> targets(Element user) {
        return Stream.of(Property.TARGET, Property.LEFT, Property.RIGHT, Property.SOURCE)
                .filter(property -> user.kind() == ElementKind.CONNECTOR_END
                        || user.kind() == ElementKind.BINDING
                        || user.kind().isFlow())
                .flatMap(property -> user.get(property).stream());
    }

    private static boolean passes(List<ElementId> chain, Set<ElementId> part, Set<ElementId> ports) {
        for (int i = 1; i < chain.size(); i++) {
            if (part.contains(chain.get(i - 1)) && ports.contains(chain.get(i))) {
                return true;
            }
        }
        return false;
    }

    /** More features that must be there subset one than it has room for. */
    private void subsetters(Element feature, List<Finding> found) {
        Multiplicity room = inheritance.multiplicity(feature);
        if (room.upper() == Multiplicity.MANY) {
            return;
        }
        List<Element> within = model.referrers(feature.id()).stream()
                .map(model::get)
                .filter(user -> Objects.equals(user.owner(), feature.owner())
                        && user.references(Property.SPECIALIZES).stream()
                                .anyMatch(general -> general.target().equals(feature.id())))
                .sorted(Comparator.comparing(Element::rank))
                .toList();
        int needed = within.stream()
                .mapToInt(each -> inheritance.multiplicity(each).lower())
                .sum();
        if (needed > room.upper()) {
            found.add(new Finding(
                    Rule.MULTIPLICITY,
                    feature.id(),
                    "",
                    "'" + name(feature) + "' has room for " + room.upper() + ", but "
                            + within.stream()
                                    .map(each -> "'" + name(each) + "'")
                                    .collect(Collectors.joining(" and "))
                            + " are " + needed + " of them"));
        }
    }

    /** A definition whose parts, or their parts, are of it again and must be there. */
    private void cycle(Element definition, List<Finding> found) {
        Map<ElementId, Element> cameFrom = new HashMap<>();
        Deque<Element> open = new ArrayDeque<>(List.of(definition));
        while (!open.isEmpty() && cameFrom.size() < FARTHEST) {
            Element around = open.poll();
            for (Element part : inheritance.features(around)) {
                if (isAlwaysThere(part) && cameFrom.putIfAbsent(part.id(), around) == null) {
                    if (inheritance.isA(part, definition.id())) {
                        found.add(endless(definition, part, cameFrom));
                        return;
                    }
                    open.add(part);
                }
            }
        }
    }

    private boolean isAlwaysThere(Element feature) {
        return feature.kind() == ElementKind.PART
                && !model.isLibrary(feature.id())
                && !feature.get(Property.REFERENTIAL).orElse(false)
                && feature.get(Property.PORTION).isEmpty()
                && inheritance.value(feature).isEmpty()
                && inheritance.multiplicity(feature).lower() > 0;
    }

    private Finding endless(Element definition, Element last, Map<ElementId, Element> cameFrom) {
        List<String> way = new ArrayList<>();
        Element at = last;
        while (at != null && !at.id().equals(definition.id())) {
            way.addFirst(name(at));
            at = cameFrom.get(at.id());
        }
        return new Finding(
                Rule.CYCLE,
                definition.id(),
                String.join(".", way),
                "'" + name(definition) + "' contains itself: '" + String.join(".", way)
                        + "' is one again, without end");
    }

    private void unused(Element definition, List<Finding> found) {
        boolean isOffered = model.owners(definition).stream()
                .anyMatch(owner -> owner.kind() == ElementKind.LIBRARY_PACKAGE
                        || !owner.kind().isPackage());
        if (isOffered || definition.name() == null) {
            return;
        }
        Set<ElementId> own = ids(model.subtree(definition.id()));
        boolean isUsed = model.referrers(definition.id()).stream()
                .filter(user -> !own.contains(user))
                .map(model::get)
                .anyMatch(Checks::uses);
        if (!isUsed) {
            found.add(new Finding(
                    Rule.UNUSED, definition.id(), "", "Nothing is a '" + name(definition) + "' or made from it"));
        }
    }

    /** Whether a reference makes something of what it refers to; to import or to show it does not. */
    private static boolean uses(Element user) {
        return switch (user.kind().family()) {
            case ANNOTATION -> false;
            default ->
                switch (user.kind()) {
                    case IMPORT, EXPOSURE -> false;
                    default -> true;
                };
        };
    }

    /** A satisfy link whose part the model no longer has, although the elements of the way to it are there. */
    private void gone(Element satisfaction, List<Finding> found) {
        List<ElementId> chain =
                satisfaction.get(Property.BY).map(Reference::chain).orElse(List.of());
        String requirement = satisfaction
                .get(Property.TARGET)
                .flatMap(target -> model.find(target.target()))
                .map(this::requirement)
                .orElse("It");
        lost(chain)
                .ifPresent(reason -> found.add(new Finding(
                        Rule.GONE,
                        satisfaction.id(),
                        "",
                        requirement + " is satisfied by '" + words(chain) + "', but " + reason)));
    }

    private Optional<String> lost(List<ElementId> chain) {
        Element at = null;
        for (ElementId step : chain) {
            Element next = at == null
                    ? model.find(step).orElse(null)
                    : inheritance.effective(at, step).orElse(null);
            if (next == null) {
                return Optional.of("'" + name(Objects.requireNonNull(at)) + "' has no '"
                        + model.environment().nameOf((Referent) step) + "'");
            }
            if (isAbsent(next)) {
                return Optional.of("there are no '" + name(next) + "': the multiplicity is [0]");
            }
            at = next;
        }
        return Optional.empty();
    }

    private List<Element> steps(List<ElementId> chain) {
        List<Element> steps = new ArrayList<>();
        for (ElementId id : chain) {
            Optional<Element> next = steps.isEmpty()
                    ? model.find(id)
                    : inheritance.effective(steps.getLast(), id).or(() -> model.find(id));
            if (next.isEmpty()) {
                return steps;
            }
            steps.add(next.get());
        }
        return steps;
    }

    private String requirement(Element requirement) {
        return requirement.shortName() != null ? requirement.shortName() : "'" + name(requirement) + "'";
    }

    private String words(List<ElementId> chain) {
        return chain.stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    private String name(Element element) {
        return model.names().nameOrKind(element);
    }

    private static String capital(String sentence) {
        return sentence.substring(0, 1).toUpperCase(Locale.ROOT) + sentence.substring(1);
    }

    private static Set<ElementId> ids(List<Element> elements) {
        Set<ElementId> ids = new HashSet<>();
        elements.forEach(element -> ids.add(element.id()));
        return ids;
    }
}
