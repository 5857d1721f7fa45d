package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Property;

/** Prepares what goes into and out of steps. */
final class ParametersPreparing extends Preparing {
    private final ConnectionsPreparing connections;

    ParametersPreparing(Preparing shared, ConnectionsPreparing connections) {
        super(shared);
        this.connections = connections;
    }

    void parameters(StepNode node) {
        for (Element feature : model.inheritance().features(node.element)) {
            String direction = feature.get(Property.DIRECTION).orElse("");
            if (direction.isEmpty() || model.isLibrary(feature.id())) {
                continue;
            }
            List<StepNode.Endpoint> endpoints = new ArrayList<>();
            if (direction.equals("in") || direction.equals("inout")) {
                later.add(() -> {
                    if (connections.isFedByFlow(node.instance, feature)) {
                        node.needs.add(parameter(node, feature, endpoints));
                    }
                });
            }
            if (direction.equals("out") || direction.equals("inout")) {
                later.add(() -> {
                    endpoints.addAll(connections.endpoints(node.instance, feature));
                    if (!endpoints.isEmpty()) {
                        node.gives.add(parameter(node, feature, endpoints));
                    }
                });
            }
        }
    }

    private StepNode.Parameter parameter(StepNode node, Element feature, List<StepNode.Endpoint> endpoints) {
        Formula value = model.environment().typeOf(feature.id()) instanceof Type.Thing
                ? null
                : model.inheritance()
                        .value(feature)
                        .filter(given -> !given.kind().isInitial())
                        .map(given -> number(
                                given.expression(),
                                node.instance,
                                model.environment().typeOf(feature.id()) instanceof Type.Truth,
                                feature))
                        .orElse(null);
        return new StepNode.Parameter(feature, slot(node.instance, feature), layout(feature), value, endpoints);
    }

    private ItemSlot slot(Instance instance, Element feature) {
        if (model.environment().typeOf(feature.id()) instanceof Type.Thing) {
            return new ItemSlot(
                    flattening.in(instance, feature).stream()
                            .flatMap(each -> flattening.held(each).stream())
                            .toList(),
                    false);
        }
        List<HeldAttribute> held = feature.kind() == ElementKind.ATTRIBUTE
                ? flattening.held(instance).stream()
                        .filter(each -> each.feature().id().equals(feature.id()))
                        .toList()
                : List.of();
        return new ItemSlot(held, true);
    }

    private Item.Layout layout(Element feature) {
        return typeOf(feature).map(layouts::of).orElse(Item.Layout.VALUE);
    }
}
