package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/** A port by which a part sends something: one that it has, or a new one with a port definition for just that. */
public final class SendingPort {
    private final Model model;
    private final Insides insides;
    private final List<Element> put = new ArrayList<>();

    private SendingPort(Model model) {
        this.model = model;
        this.insides = new Insides(model);
    }

    /**
     * @param edit empty if the part has such a port
     * @param summary what is added; empty if nothing is
     */
    public record Made(Edit edit, ElementId port, String summary) {}

    /** @param item the definition of what is sent */
    public static Made of(Model model, Element part, Element item) {
        return new SendingPort(model).make(part, item);
    }

    private Made make(Element part, Element item) {
        Element known = model.inheritance().features(part).stream()
                .filter(feature -> feature.kind() == ElementKind.PORT && !model.isLibrary(feature.id()))
                .filter(port -> sendsOnly(port, item))
                .findFirst()
                .orElse(null);
        if (known != null) {
            return new Made(new Edit(List.of(), Set.of()), known.id(), "");
        }
        Element owner = insides.of(part, List.of());
        Element definition = definition(owner, item);
        Element port = new Element(
                        ElementId.fresh(),
                        ElementKind.PORT,
                        owner.id(),
                        model.rankAtEnd(owner.id()),
                        insides.freeName(part, lower(name(item))),
                        null,
                        Map.of())
                .with(Property.TYPES, List.of(Reference.to(definition.id())));
        put.add(port);
        return new Made(
                new Edit(put, Set.of()),
                port.id(),
                "port " + port.name() + " : " + definition.name() + " added to " + name(owner));
    }

    private boolean sendsOnly(Element port, Element item) {
        List<PortFace.Feature> features = PortFace.of(model, port).features();
        return features.size() == 1
                && features.getFirst().way() == PortFace.Way.OUT
                && model.inheritance().isA(features.getFirst().element(), item.id());
    }

    private Element definition(Element owner, Element item) {
        Element place = insides.packageAround(owner);
        Element known = model.ownElements(ElementKind.PORT_DEFINITION)
                .filter(definition -> Objects.equals(definition.owner(), place.id()) && sendsOnly(definition, item))
                .findFirst()
                .orElse(null);
        if (known != null) {
            return known;
        }
        Element definition = new Element(
                ElementId.fresh(),
                ElementKind.PORT_DEFINITION,
                place.id(),
                before(place, owner),
                insides.freeName(place, name(item) + "Port"),
                null,
                Map.of());
        ElementKind kind =
                item.kind() == ElementKind.ATTRIBUTE_DEFINITION || item.kind() == ElementKind.ENUMERATION_DEFINITION
                        ? ElementKind.ATTRIBUTE
                        : ElementKind.ITEM;
        put.add(definition);
        put.add(new Element(
                        ElementId.fresh(),
                        kind,
                        definition.id(),
                        Rank.between(null, null),
                        lower(name(item)),
                        null,
                        Map.of())
                .with(Property.DIRECTION, "out")
                .with(Property.TYPES, List.of(Reference.to(item.id()))));
        return definition;
    }

    /** Before what uses it, where that stands in the same package. */
    private Rank before(Element place, Element owner) {
        Rank before = null;
        for (Element child : model.children(place.id())) {
            if (child.equals(owner)) {
                return Rank.between(before, child.rank());
            }
            before = child.rank();
        }
        return Rank.between(before, null);
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    private String name(@Nullable Element element) {
        return element == null
                ? ""
                : Objects.requireNonNullElseGet(
                        model.names().effectiveName(element),
                        () -> element.kind().title());
    }
}
