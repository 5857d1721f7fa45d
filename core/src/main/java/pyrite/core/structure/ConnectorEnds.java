package pyrite.core.structure;

import java.util.List;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** What a connection, interface, binding or flow joins. */
public final class ConnectorEnds {
    private ConnectorEnds() {}

    /** The ways to what it joins, in the order in which they are written. */
    public static List<Reference> of(Model model, Element connector) {
        if (connector.kind() == ElementKind.BINDING) {
            return both(connector, Property.LEFT, Property.RIGHT);
        }
        return connector.kind().isFlow()
                ? both(connector, Property.SOURCE, Property.TARGET)
                : model.children(connector.id()).stream()
                        .filter(child -> child.kind() == ElementKind.CONNECTOR_END)
                        .flatMap(end -> end.get(Property.TARGET).stream())
                        .toList();
    }

    private static List<Reference> both(Element connector, Property<Reference> one, Property<Reference> other) {
        return Stream.of(one, other)
                .flatMap(property -> connector.get(property).stream())
                .toList();
    }
}
