package pyrite.core.structure;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Type;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.structure.PortFace.Way;

/**
 * Makes a port from features of a part: a port definition that carries them, the port, and bindings between what the
 * port carries and what the part has.
 */
public final class Exposing {
    private final Model model;
    private final Request request;
    private final Element owner;
    private final Insides insides;
    private final List<Element> put = new ArrayList<>();

    private Exposing(Model model, Request request) {
        this.model = model;
        this.request = request;
        this.insides = new Insides(model);
        this.owner = insides.of(
                request.part(),
                request.features().stream().map(Exposed::feature).toList());
    }

    /**
     * A feature that goes through the port.
     *
     * @param way in or out seen from outside the part; of an action, out is provided and in is required
     * @param name at the port
     */
    public record Exposed(ElementId feature, Way way, String name) {}

    /**
     * @param port the name of the port
     * @param definition the port definition to use; null for a new one
     * @param definitionName the name of a new one
     */
    public record Request(
            Element part,
            List<Exposed> features,
            String port,
            @Nullable Element definition,
            String definitionName,
            Multiplicity multiplicity) {
        public Request {
            features = List.copyOf(features);
        }
    }

    /** What became of a wish to expose features. */
    public sealed interface Result {
        record Made(Edit edit, ElementId port, String summary) implements Result {}

        record Refused(String reason) implements Result {}
    }

    /** What a part has that can go through a port, own features first. */
    public static List<Element> candidates(Model model, Element part) {
        return model.inheritance().features(part).stream()
                .filter(feature -> switch (feature.kind()) {
                    case ATTRIBUTE, ITEM, ACTION -> true;
                    default -> false;
                })
                .filter(feature ->
                        !model.isLibrary(feature.id()) && model.names().effectiveName(feature) != null)
                .toList();
    }

    public static Result expose(Model model, Request request) {
        return new Exposing(model, request).run();
    }

    private Result run() {
        Optional<String> fault = fault();
        if (fault.isPresent()) {
            return new Result.Refused(fault.get());
        }
        Element definition = request.definition();
        Map<String, ElementId> carried;
        boolean isConjugated = false;
        if (definition == null) {
            definition = newDefinition();
            carried = newFeatures(definition);
        } else {
            carried = featuresOf(definition);
            List<Boolean> ways = Stream.of(false, true)
                    .filter(conjugated -> suits(request.definition(), conjugated))
                    .toList();
            if (ways.isEmpty()) {
                return new Result.Refused(mismatch(definition));
            }
            isConjugated = ways.getFirst();
        }
        Element port = new Element(
                        ElementId.fresh(), ElementKind.PORT, owner.id(), next(owner), request.port(), null, Map.of())
                .with(Property.TYPES, List.of(Reference.to(definition.id())))
                .with(Property.CONJUGATED, isConjugated ? true : null)
                .with(
                        Property.MULTIPLICITY,
                        request.multiplicity().equals(Multiplicity.ONE) ? null : request.multiplicity());
        put.add(port);
        if (request.multiplicity().equals(Multiplicity.ONE)) {
            bind(port, carried);
        }
        Edit edit = new Edit(put, Set.of());
        return switch (model.apply(edit)) {
            case EditResult.Refused(var problems) ->
                new Result.Refused(problems.getFirst().message());
            case EditResult.Applied _ ->
                new Result.Made(
                        edit,
                        port.id(),
                        "port " + port.name() + " : " + (isConjugated ? "~" : "")
                                + Objects.requireNonNullElse(definition.name(), "?") + " added to " + name(owner)
                                + ", carrying "
                                + request.features().stream().map(Exposed::name).collect(Collectors.joining(", ")));
        };
    }

    private Optional<String> fault() {
        if (request.features().isEmpty()) {
            return Optional.of("choose at least one feature that the port is to carry");
        }
        if (request.port().isBlank()) {
            return Optional.of("a port has a name");
        }
        if (model.names().membersOf(owner.id()).contains(request.port())) {
            return Optional.of("'" + name(owner) + "' has a '" + request.port() + "' already");
        }
        if (request.definition() != null && request.definition().kind() != ElementKind.PORT_DEFINITION) {
            return Optional.of("a port is typed by a port definition, and '" + name(request.definition()) + "' is "
                    + request.definition().kind().titleWithArticle());
        }
        Set<String> names = request.features().stream().map(Exposed::name).collect(Collectors.toSet());
        if (names.size() < request.features().size()) {
            return Optional.of("two features would have the same name at the port");
        }
        List<Element> candidates = candidates(model, request.part());
        return request.features().stream()
                .filter(exposed -> candidates.stream()
                        .noneMatch(candidate -> candidate.id().equals(exposed.feature())))
                .findFirst()
                .map(exposed -> "'" + name(request.part()) + "' has no such attribute, item or action");
    }

    private Element newDefinition() {
        Element place = insides.packageAround(owner);
        String wished = request.definitionName().isBlank()
                ? request.port().substring(0, 1).toUpperCase(Locale.ROOT)
                        + request.port().substring(1) + "Port"
                : request.definitionName();
        Element definition = new Element(
                ElementId.fresh(),
                ElementKind.PORT_DEFINITION,
                place.id(),
                next(place),
                insides.freeName(place, wished),
                null,
                Map.of());
        put.add(definition);
        return definition;
    }

    private Map<String, ElementId> newFeatures(Element definition) {
        Map<String, ElementId> carried = new HashMap<>();
        for (Exposed exposed : request.features()) {
            Element feature = model.get(exposed.feature());
            Multiplicity multiplicity = model.inheritance().multiplicity(feature);
            Element made = new Element(
                            ElementId.fresh(),
                            feature.kind(),
                            definition.id(),
                            next(definition),
                            exposed.name(),
                            null,
                            Map.of())
                    .with(Property.DIRECTION, direction(exposed.way()))
                    .with(
                            Property.TYPES,
                            model.inheritance().nearest(feature, Property.TYPES).orElse(null))
                    .with(Property.MULTIPLICITY, multiplicity.equals(Multiplicity.ONE) ? null : multiplicity);
            put.add(made);
            carried.put(exposed.name(), made.id());
        }
        return carried;
    }

    private static @Nullable String direction(Way way) {
        return switch (way) {
            case IN -> "in";
            case OUT -> "out";
            case INOUT -> "inout";
            case NONE -> null;
        };
    }

    private Map<String, ElementId> featuresOf(Element definition) {
        Map<String, ElementId> carried = new HashMap<>();
        PortFace.of(model, definition)
                .features()
                .forEach(
                        feature -> carried.put(feature.name(), feature.element().id()));
        return carried;
    }

    private boolean suits(@Nullable Element definition, boolean isConjugated) {
        PortFace face = PortFace.of(model, Objects.requireNonNull(definition));
        return request.features().stream()
                .allMatch(exposed -> face.named(exposed.name())
                        .filter(feature -> feature.way().conjugated(isConjugated) == exposed.way())
                        .filter(feature -> sameType(feature.element(), model.get(exposed.feature())))
                        .isPresent());
    }

    private boolean sameType(Element carried, Element feature) {
        return model.environment().typeOf(carried.id()) instanceof Type.Number number
                ? number.equals(model.environment().typeOf(feature.id()))
                : definitions(carried).equals(definitions(feature));
    }

    private List<Element> definitions(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition())
                .toList();
    }

    private String mismatch(Element definition) {
        String has = PortFace.of(model, definition).features().stream()
                .map(feature -> (feature.way() == Way.NONE ? "" : direction(feature.way()) + " ") + feature.name())
                .collect(Collectors.joining(", "));
        return "'" + name(definition) + "' carries " + (has.isEmpty() ? "nothing" : has)
                + ", which is not what was chosen, in neither direction; choose the same names, types and directions, or"
                + " make a new definition";
    }

    private void bind(Element port, Map<String, ElementId> carried) {
        for (Exposed exposed : request.features()) {
            put.add(Element.of(ElementKind.BINDING, owner.id(), next(owner), null)
                    .with(
                            Property.LEFT,
                            new Reference(List.of(port.id(), Objects.requireNonNull(carried.get(exposed.name())))))
                    .with(Property.RIGHT, Reference.to(exposed.feature())));
        }
    }

    private Rank next(Element body) {
        return put.stream()
                .filter(element -> body.id().equals(element.owner()))
                .map(Element::rank)
                .max(Rank::compareTo)
                .map(rank -> Rank.after(rank, 1).getFirst())
                .orElseGet(() -> model.has(body.id()) ? model.rankAtEnd(body.id()) : Rank.between(null, null));
    }

    private String name(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
