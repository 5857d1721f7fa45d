package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * Connects what a drawing shows. Ends are given as the way to them from the outermost box: parts, then a port or
 * nothing. A way that leads out of a part gets a port at that part's border, bound to the port within. What does not
 * fit is refused.
 */
public final class Wiring {
    private final Model model;
    private final Insides insides;
    private final @Nullable Naming naming;
    private final Extent extent;
    private final List<Element> put = new ArrayList<>();
    private final List<String> also = new ArrayList<>();

    private Wiring(Model model, @Nullable Naming naming, Extent extent) {
        this.model = model;
        this.insides = new Insides(model, extent);
        this.naming = naming;
        this.extent = extent;
    }

    /**
     * Pairs of differing names, to be kept by a new interface definition.
     *
     * @param definition its name; empty for one after the two ports
     * @param pairs the name at the second port by the name at the first
     */
    public record Naming(String definition, Map<String, String> pairs) {
        public Naming {
            pairs = Map.copyOf(pairs);
        }
    }

    /** What became of a wish to connect. */
    public sealed interface Result {
        /**
         * @param connector the element that joins the ends
         * @param summary says what is made, ports at borders included
         */
        record Made(Edit edit, ElementId connector, String summary) implements Result {}

        /** Several ports fit: which are meant? */
        record Several(List<Pair> pairs) implements Result {}

        record Refused(String reason) implements Result {}
    }

    /** Two ports that fit: the ways to them, and their names. */
    public record Pair(List<ElementId> one, String oneName, List<ElementId> other, String otherName) {}

    public static Result connect(Model model, List<ElementId> one, List<ElementId> other) {
        return connect(model, one, other, null, Extent.DEFINITION);
    }

    /**
     * @param naming pairs of differing names, kept by a new interface definition; null if names meet
     * @param extent whether a connection inside a part counts in this use of it alone
     * @throws IllegalArgumentException if a part on the way cannot be redefined, or a port carries nothing of a name
     */
    public static Result connect(
            Model model, List<ElementId> one, List<ElementId> other, @Nullable Naming naming, Extent extent) {
        if (extent == Extent.DEFINITION) {
            return new Wiring(model, naming, extent).join(one, other);
        }
        int common = common(one, other);
        UseInContext use = UseInContext.of(model, one.subList(0, Math.max(1, common)))
                .and(bordersOn(model, one, common))
                .and(bordersOn(model, other, common));
        return switch (within(use, one, other, naming)) {
            // Among the ways that a person chooses from are none through redefinitions that nobody has stored.
            case Result.Several _ -> new Wiring(model, naming, extent).join(one, other);
            case Result.Made(Edit edit, ElementId connector, String summary)
            when common > 1 -> new Result.Made(edit, connector, summary + ", in this use alone");
            case Result result -> result;
        };
    }

    /** The way to the innermost part that may get a port at its border: what is around the part with the port. */
    private static List<ElementId> bordersOn(Model model, List<ElementId> way, int common) {
        boolean isPort = model.get(way.getLast()).kind() == ElementKind.PORT;
        return way.subList(0, Math.max(Math.max(1, common), isPort ? way.size() - 2 : 0));
    }

    /** Joins in the model of a use, whose redefinitions go along. */
    private static Result within(
            UseInContext use, List<ElementId> one, List<ElementId> other, @Nullable Naming naming) {
        Model model = use.model();
        Result result = new Wiring(model, naming, Extent.USE)
                .join(UseInContext.current(model, one), UseInContext.current(model, other));
        return result instanceof Result.Made(Edit edit, ElementId connector, String summary)
                ? new Result.Made(use.with(edit), connector, summary)
                : result;
    }

    /** Leads a port of a part to the border of what the part stands in: a port there, bound to it. */
    public static Result lead(Model model, Element around, Element part, Element port) {
        Wiring wiring = new Wiring(model, null, Extent.DEFINITION);
        return wiring.borderPort(around, part, port) == null
                ? new Result.Refused("the port has its features at its usage; give it a port definition")
                : new Result.Made(
                        new Edit(wiring.put, Set.of()), wiring.put.getLast().id(), String.join("; ", wiring.also));
    }

    private Result join(List<ElementId> one, List<ElementId> other) {
        int common = common(one, other);
        if (common == one.size() || common == other.size()) {
            return new Result.Refused(
                    one.equals(other)
                            ? "that is one and the same thing; a connection joins two"
                            : "a part is not connected with what is inside it; connect one of its ports");
        }
        Element oneEnd = model.get(one.getLast());
        Element otherEnd = model.get(other.getLast());
        boolean isOnePort = oneEnd.kind() == ElementKind.PORT;
        boolean isOtherPort = otherEnd.kind() == ElementKind.PORT;
        if (!isOnePort && !isOtherPort) {
            return joinParts(one, other, common);
        }
        if (isOnePort != isOtherPort) {
            return isOnePort ? joinPort(one, oneEnd, other, otherEnd) : joinPort(other, otherEnd, one, oneEnd);
        }
        return connected(one, other, common);
    }

    /** By the ports that fit; without any ports the parts themselves. */
    private Result joinParts(List<ElementId> one, List<ElementId> other, int common) {
        Element oneEnd = model.get(one.getLast());
        Element otherEnd = model.get(other.getLast());
        List<Pair> pairs = ports(oneEnd).stream()
                .flatMap(port -> fitting(plus(one, port.id()), port, other, otherEnd).stream())
                .toList();
        if (pairs.size() == 1) {
            return join(pairs.getFirst().one(), pairs.getFirst().other());
        }
        if (!pairs.isEmpty()) {
            return new Result.Several(pairs);
        }
        return ports(oneEnd).isEmpty() || ports(otherEnd).isEmpty()
                ? connected(one, other, common)
                : new Result.Refused("no port of '" + name(oneEnd) + "' fits a port of '" + name(otherEnd)
                        + "'; drag from one port to the other to see why not");
    }

    /** With a port of the part that fits; where none does, the part gets the conjugate. */
    private Result joinPort(List<ElementId> way, Element port, List<ElementId> toPart, Element part) {
        List<Pair> pairs = fitting(way, port, toPart, part);
        if (pairs.size() == 1) {
            return join(way, pairs.getFirst().other());
        }
        if (!pairs.isEmpty()) {
            return new Result.Several(pairs);
        }
        List<Reference> types =
                model.inheritance().nearest(port, Property.TYPES).orElse(List.of());
        if (types.isEmpty()) {
            return connected(way, toPart, common(way, toPart));
        }
        if (extent == Extent.USE && !UseInContext.isOwn(model, toPart)) {
            return within(UseInContext.of(model, toPart), way, toPart, naming);
        }
        Element owner = insides.of(part, List.of());
        boolean isConjugated =
                !model.inheritance().nearest(port, Property.CONJUGATED).orElse(false);
        Element made = newPort(owner, insides.freeName(part, name(port)), types, isConjugated);
        also.add("port " + made.name() + " added to " + name(owner));
        return connected(way, plus(toPart, made.id()), common(way, toPart));
    }

    private Element newPort(Element owner, String name, List<Reference> types, boolean isConjugated) {
        Element made = new Element(ElementId.fresh(), ElementKind.PORT, owner.id(), next(owner), name, null, Map.of())
                .with(Property.TYPES, types.isEmpty() ? null : types)
                .with(Property.CONJUGATED, isConjugated ? true : null);
        put.add(made);
        return made;
    }

    private static int common(List<ElementId> one, List<ElementId> other) {
        int common = 0;
        while (common < one.size() && common < other.size() && one.get(common).equals(other.get(common))) {
            common++;
        }
        return common;
    }

    private static List<ElementId> plus(List<ElementId> way, ElementId port) {
        List<ElementId> longer = new ArrayList<>(way);
        longer.add(port);
        return longer;
    }

    private List<Element> ports(Element part) {
        return model.inheritance().features(part).stream()
                .filter(feature -> feature.kind() == ElementKind.PORT && !model.isLibrary(feature.id()))
                .toList();
    }

    /** A port with each port of a part that fits it. */
    private List<Pair> fitting(List<ElementId> way, Element port, List<ElementId> toPart, Element part) {
        return ports(part).stream()
                .filter(other -> Fit.areComparable(model, port, other)
                        && Fit.between(model, port, other).isEmpty())
                .map(other -> new Pair(way, name(port), plus(toPart, other.id()), name(other)))
                .toList();
    }

    private Result connected(List<ElementId> one, List<ElementId> other, int common) {
        Element around = common == 0 ? outer(one, other) : model.get(one.get(common - 1));
        if (around == null) {
            return new Result.Refused(
                    "these stand in different wholes; a connection stands in something that has both");
        }
        List<ElementId> oneWay = outward(one.subList(common, one.size()));
        List<ElementId> otherWay = outward(other.subList(common, other.size()));
        if (oneWay.isEmpty() || otherWay.isEmpty()) {
            return new Result.Refused(
                    "the port inside has its features at its usage and no definition; give it a port definition, so that"
                            + " the port at the border can have the same");
        }
        Element owner = common == 0 ? around : insides.of(around, List.of(oneWay.getFirst(), otherWay.getFirst()));
        if (isJoined(owner, oneWay, otherWay)) {
            return new Result.Refused("these two are connected already");
        }
        boolean isHandedOn = (oneWay.size() == 1) != (otherWay.size() == 1)
                && isPort(oneWay.getLast())
                && isPort(otherWay.getLast())
                && !around.kind().isPackage();
        if (naming != null
                && (types(oneWay.getLast()).isEmpty()
                        || types(otherWay.getLast()).isEmpty())) {
            return new Result.Refused("an interface definition pairs what port definitions carry; give both ports one");
        }
        Element connector = isHandedOn ? binding(owner, oneWay, otherWay) : connection(owner, oneWay, otherWay);
        Edit edit = new Edit(put, Set.of());
        return switch (model.apply(edit)) {
            case EditResult.Refused(var problems) ->
                new Result.Refused(problems.getFirst().message());
            case EditResult.Applied(Model next, var _) -> {
                String misfits = Fit.of(next, next.get(connector.id())).stream()
                        .map(Fit.Misfit::sentence)
                        .collect(Collectors.joining("; "));
                yield misfits.isEmpty()
                        ? new Result.Made(edit, connector.id(), summary(next, owner, oneWay, otherWay))
                        : new Result.Refused(misfits);
            }
        };
    }

    private boolean isPort(ElementId id) {
        return element(id).filter(element -> element.kind() == ElementKind.PORT).isPresent();
    }

    /** What owns both of two that stand at the top of a drawing; null if they stand in different things. */
    private @Nullable Element outer(List<ElementId> one, List<ElementId> other) {
        ElementId owner = model.get(one.getFirst()).owner();
        return owner != null
                        && owner.equals(model.get(other.getFirst()).owner())
                        && model.get(one.getFirst()).kind().isUsage()
                        && model.get(other.getFirst()).kind().isUsage()
                ? model.get(owner)
                : null;
    }

    /**
     * The way shortened to at most a part and its port: each border on it gets a port. Empty if that cannot be made.
     */
    private List<ElementId> outward(List<ElementId> way) {
        Element port = element(way.getLast()).orElseThrow();
        if (port.kind() != ElementKind.PORT) {
            return way;
        }
        List<ElementId> parts = way.subList(0, way.size() - 1);
        for (int i = parts.size() - 1; i > 0; i--) {
            Element around = model.get(parts.get(i - 1));
            Element inner = model.get(parts.get(i));
            Element outerPort = borderPort(around, inner, port);
            if (outerPort == null) {
                return List.of();
            }
            port = outerPort;
        }
        return parts.isEmpty() ? List.of(port.id()) : List.of(parts.getFirst(), port.id());
    }

    /** The port of {@code around} that hands on a port within it: the one that is bound to it already, or a new one. */
    private @Nullable Element borderPort(Element around, Element inner, Element port) {
        List<ElementId> within = List.of(inner.id(), port.id());
        for (Element known : ports(around)) {
            if (isBound(around, within, known)) {
                return known;
            }
        }
        Element owner = insides.of(around, List.of(inner.id()));
        List<Reference> types =
                model.inheritance().nearest(port, Property.TYPES).orElse(List.of());
        if (types.isEmpty() && !PortFace.of(model, port).features().isEmpty()) {
            return null;
        }
        Element made = newPort(
                owner,
                insides.freeName(around, name(port)),
                types,
                model.inheritance().nearest(port, Property.CONJUGATED).orElse(false));
        binding(owner, within, List.of(made.id()));
        also.add(
                "port " + made.name() + " added to " + name(owner) + " and bound to " + name(inner) + "." + name(port));
        return made;
    }

    private boolean isBound(Element around, List<ElementId> within, Element port) {
        return model.inheritance().generals(around).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.kind() == ElementKind.BINDING || child.kind() == ElementKind.CONNECTION)
                .anyMatch(child -> joins(child, within, List.of(port.id())));
    }

    private boolean isJoined(Element owner, List<ElementId> one, List<ElementId> other) {
        return model.inheritance().generals(owner).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.kind().isConnector() || child.kind() == ElementKind.BINDING)
                .anyMatch(child -> joins(child, one, other));
    }

    private boolean joins(Element connector, List<ElementId> one, List<ElementId> other) {
        List<List<ElementId>> ends = ConnectorEnds.of(model, connector).stream()
                .map(Reference::chain)
                .toList();
        return ends.equals(List.of(one, other)) || ends.equals(List.of(other, one));
    }

    private Rank next(Element owner) {
        return put.stream()
                .filter(element -> owner.id().equals(element.owner()))
                .map(Element::rank)
                .max(Rank::compareTo)
                .map(rank -> Rank.after(rank, 1).getFirst())
                .orElseGet(() -> model.rankAtEnd(owner.id()));
    }

    private List<Reference> types(ElementId port) {
        return element(port)
                .map(each -> model.has(each.id())
                        ? model.inheritance().nearest(each, Property.TYPES).orElse(List.of())
                        : each.references(Property.TYPES))
                .orElse(List.of());
    }

    private Optional<Element> element(ElementId id) {
        return model.find(id)
                .or(() -> put.stream().filter(made -> made.id().equals(id)).findFirst());
    }

    /** An interface definition whose ends are like two ports, with a binding for each pair. */
    private Element definition(Naming pairing, Element owner, ElementId one, ElementId other) {
        Element place = insides.packageAround(owner);
        String oneName = name(element(one).orElseThrow());
        String otherName = name(element(other).orElseThrow());
        String wished =
                pairing.definition().isBlank() ? capital(oneName) + "To" + capital(otherName) : pairing.definition();
        Element definition = new Element(
                ElementId.fresh(),
                ElementKind.INTERFACE_DEFINITION,
                place.id(),
                next(place),
                insides.freeName(place, wished),
                null,
                Map.of());
        put.add(definition);
        Element first = end(definition, oneName, one);
        Element second = end(definition, otherName.equals(oneName) ? otherName + "2" : otherName, other);
        pairing.pairs().entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .filter(pair -> !pair.getKey().equals(pair.getValue()))
                .forEach(pair -> put.add(Element.of(ElementKind.BINDING, definition.id(), next(definition), null)
                        .with(Property.LEFT, new Reference(List.of(first.id(), feature(one, pair.getKey()))))
                        .with(Property.RIGHT, new Reference(List.of(second.id(), feature(other, pair.getValue()))))));
        also.add("interface definition " + definition.name() + " added to " + name(place));
        return definition;
    }

    private static String capital(String name) {
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    private Element end(Element definition, String name, ElementId port) {
        Element end = new Element(
                        ElementId.fresh(), ElementKind.PORT, definition.id(), next(definition), name, null, Map.of())
                .with(Property.END, true)
                .with(Property.TYPES, types(port))
                .with(
                        Property.CONJUGATED,
                        element(port)
                                .flatMap(each -> model.has(each.id())
                                        ? model.inheritance().nearest(each, Property.CONJUGATED)
                                        : each.get(Property.CONJUGATED))
                                .orElse(null));
        put.add(end);
        return end;
    }

    /** @throws IllegalArgumentException if the port carries nothing of that name */
    private ElementId feature(ElementId port, String name) {
        return PortFace.of(model, element(port).orElseThrow())
                .named(name)
                .orElseThrow(() -> new IllegalArgumentException("the port carries no '" + name + "'"))
                .element()
                .id();
    }

    private Element connection(Element owner, List<ElementId> one, List<ElementId> other) {
        Element definition = naming == null ? null : definition(naming, owner, one.getLast(), other.getLast());
        Element connection = Element.of(
                        definition == null ? ElementKind.CONNECTION : ElementKind.INTERFACE,
                        owner.id(),
                        next(owner),
                        null)
                .with(Property.TYPES, definition == null ? null : List.of(Reference.to(definition.id())));
        List<Rank> ranks = Rank.after(null, 2);
        put.add(connection);
        put.add(Element.of(ElementKind.CONNECTOR_END, connection.id(), ranks.getFirst(), null)
                .with(Property.TARGET, new Reference(one)));
        put.add(Element.of(ElementKind.CONNECTOR_END, connection.id(), ranks.getLast(), null)
                .with(Property.TARGET, new Reference(other)));
        return connection;
    }

    private Element binding(Element owner, List<ElementId> one, List<ElementId> other) {
        Element binding = Element.of(ElementKind.BINDING, owner.id(), next(owner), null)
                .with(Property.LEFT, new Reference(one))
                .with(Property.RIGHT, new Reference(other));
        put.add(binding);
        return binding;
    }

    private String summary(Model next, Element owner, List<ElementId> one, List<ElementId> other) {
        String made = words(next, one) + " connected to " + words(next, other) + " in " + name(owner);
        return also.isEmpty() ? made : made + "; " + String.join("; ", also);
    }

    private static String words(Model next, List<ElementId> way) {
        return way.stream()
                .map(id -> Objects.requireNonNullElse(next.names().effectiveName(next.get(id)), "?"))
                .collect(Collectors.joining("."));
    }

    private String name(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
