package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** Leads the ends of connections elsewhere. */
public final class Reending {
    private Reending() {}

    /**
     * Leads one end of a connection elsewhere. It stays the same element where it can still stand in the same body.
     *
     * @param stays the way to the end that it keeps
     * @param extent whether only a connection of this use may change
     */
    public static Wiring.Result reconnect(
            Model model, Element connector, List<ElementId> stays, List<ElementId> to, Extent extent) {
        if (extent == Extent.USE && !isOwn(model, connector, stays)) {
            Element owner = model.get(Objects.requireNonNull(connector.owner()));
            return new Wiring.Result.Refused(
                    "this line stands in '" + model.names().effectiveName(owner)
                            + "', for every use of it; let edits inside parts change the definition to lead it elsewhere");
        }
        return switch (Wiring.connect(model, stays, to, null, extent)) {
            case Wiring.Result.Made made -> moved(model, connector, made);
            case Wiring.Result.Several several -> several;
            case Wiring.Result.Refused refused -> refused;
        };
    }

    /**
     * Whether a connection stands in a use on the way or around all of it, and not in a definition that others use,
     * too.
     */
    public static boolean isOwn(Model model, Element connector, List<ElementId> way) {
        int place = way.indexOf(connector.owner());
        return place < 0
                ? Objects.equals(connector.owner(), model.get(way.getFirst()).owner())
                : UseInContext.isOwn(model, way.subList(0, place + 1));
    }

    private static Wiring.Result moved(Model model, Element connector, Wiring.Result.Made made) {
        List<Element> put = new ArrayList<>(made.edit().put());
        Element fresh = put.stream()
                .filter(element -> element.id().equals(made.connector()))
                .findFirst()
                .orElseThrow();
        if (fresh.kind() != ElementKind.CONNECTION
                || !connector.kind().isConnector()
                || !Objects.equals(fresh.owner(), connector.owner())) {
            // Elsewhere it is another element, of the same name and type.
            put.replaceAll(element ->
                    element.equals(fresh) && connector.kind().isConnector() ? like(connector, fresh) : element);
            return new Wiring.Result.Made(new Edit(put, Set.of(connector.id())), fresh.id(), made.summary());
        }
        List<Element> ends = put.stream()
                .filter(element -> fresh.id().equals(element.owner()))
                .toList();
        put.remove(fresh);
        put.removeAll(ends);
        List<Element> old = model.children(connector.id()).stream()
                .filter(child -> child.kind() == ElementKind.CONNECTOR_END)
                .toList();
        boolean isTurned =
                old.getLast().get(Property.TARGET).equals(ends.getFirst().get(Property.TARGET));
        for (int i = 0; i < old.size(); i++) {
            Element end = ends.get(isTurned ? ends.size() - 1 - i : i);
            put.add(old.get(i).with(Property.TARGET, end.get(Property.TARGET).orElseThrow()));
        }
        return new Wiring.Result.Made(new Edit(put, Set.of()), connector.id(), made.summary());
    }

    private static Element like(Element connector, Element fresh) {
        return fresh.kind() != ElementKind.CONNECTION
                ? fresh
                : new Element(
                        fresh.id(),
                        connector.kind(),
                        fresh.owner(),
                        fresh.rank(),
                        connector.name(),
                        connector.shortName(),
                        connector.properties());
    }
}
