package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;

/** Prepares what joins ports, and what flows between steps. */
final class ConnectionsPreparing extends Preparing {
    private final Routes routes = new Routes();
    private final Map<Instance, Map<ElementId, List<StepNode.Endpoint>>> flows = new IdentityHashMap<>();
    /** The parameters that something flows to, by the step. */
    private final Map<Instance, Set<ElementId>> fed = new IdentityHashMap<>();

    ConnectionsPreparing(Preparing shared) {
        super(shared);
    }

    Routes routes() {
        return routes;
    }

    /** The ports that the connections and bindings of a part join, and the flows between what its parts perform. */
    void joined(Instance part) {
        for (Element general : model.inheritance().generals(part.usage())) {
            for (Element member : model.children(general.id())) {
                if (member.kind() == ElementKind.BINDING) {
                    flattening.noteReadAlone(member);
                    ports(member, part, null);
                } else if (member.kind().isFlow() && member.kind() != ElementKind.MESSAGE) {
                    flattening.noteReadAlone(member);
                    flow(member, part);
                }
            }
        }
        model.inheritance().features(part.usage()).stream()
                .filter(feature -> feature.kind() == ElementKind.CONNECTION || feature.kind() == ElementKind.INTERFACE)
                .forEach(connector -> connection(connector, part));
    }

    private void connection(Element connector, Instance part) {
        flattening.noteRead(connector);
        model.children(connector.id()).forEach(flattening::noteReadAlone);
        if (model.inheritance().isA(connector, LibraryNames.id(LibraryNames.CHANNEL))) {
            Instance instance = flattening.inside(connector, part);
            later.add(() -> ports(connector, part, channel(connector, instance, LibraryNames.CHANNEL)));
        } else {
            ports(connector, part, null);
        }
    }

    private Routes.ChannelNode channel(Element over, Instance instance, String definition) {
        return new Routes.ChannelNode(
                instance,
                valueOf(instance, over, definition + "::rate").orElse(null),
                valueOf(instance, over, definition + "::latency").orElse(null));
    }

    private void ports(Element connector, Instance part, Routes.@Nullable ChannelNode channel) {
        List<List<Instance>> ends = ConnectorEnds.of(model, connector).stream()
                .map(end -> instances(end.chain(), part))
                .toList();
        for (int i = 0; i < ends.size(); i++) {
            for (int j = i + 1; j < ends.size(); j++) {
                for (Instance one : ends.get(i)) {
                    ends.get(j).forEach(other -> routes.join(one, other, channel));
                }
            }
        }
    }

    private void flowBetweenPorts(Element flow, Instance part, Routes.@Nullable ChannelNode channel) {
        List<Reference> ends = ConnectorEnds.of(model, flow);
        if (ends.size() == 2) {
            for (Instance from : owners(ends.getFirst(), part)) {
                owners(ends.getLast(), part).stream()
                        .filter(to -> from.usage().kind() == ElementKind.PORT
                                && to.usage().kind() == ElementKind.PORT)
                        .forEach(to -> routes.hop(from, to, channel));
            }
        }
    }

    private List<Instance> instances(List<ElementId> chain, Instance scope) {
        try {
            return flattening.instances(new FeatureReference(List.copyOf(chain), Span.NONE), scope);
        } catch (FaultException _) {
            // What is not there joins nothing; that it is not there is said elsewhere.
            return List.of();
        }
    }

    /** The flows between the parameters of steps that stand in the body of an element. */
    void flows(Element element, Instance instance) {
        for (Element general : model.inheritance().generals(element)) {
            for (Element member : model.children(general.id())) {
                if (member.kind().isFlow() && member.kind() != ElementKind.MESSAGE) {
                    flow(member, instance);
                }
            }
        }
    }

    /** What flows is known before what it flows to is prepared; how long it takes may rest on what is assigned. */
    private void flow(Element flow, Instance scope) {
        boolean isPaced = model.inheritance().isA(flow, LibraryNames.id(LibraryNames.PACED_FLOW));
        @Nullable Instance instance = isPaced ? flattening.inside(flow, scope) : null;
        if (instance != null) {
            flattening.noteRead(flow);
            model.children(flow.id()).forEach(flattening::noteReadAlone);
        }
        later.addFirst(() -> {
            Routes.ChannelNode over = instance == null ? null : channel(flow, instance, LibraryNames.PACED_FLOW);
            flowBetweenSteps(flow, scope, over);
            flowBetweenPorts(flow, scope, over);
        });
    }

    private void flowBetweenSteps(Element flow, Instance scope, Routes.@Nullable ChannelNode over) {
        List<Reference> ends = ConnectorEnds.of(model, flow);
        if (ends.size() != 2) {
            return;
        }
        for (Instance from : owners(ends.getFirst(), scope)) {
            for (Instance to : owners(ends.getLast(), scope)) {
                ElementId target = ends.getLast().target();
                flows.computeIfAbsent(from, _ -> new HashMap<>())
                        .computeIfAbsent(ends.getFirst().target(), _ -> new ArrayList<>())
                        .add(new StepNode.Endpoint(to, target, over));
                fed.computeIfAbsent(to, _ -> new HashSet<>()).add(target);
            }
        }
    }

    /** What has the last feature of a way. */
    private List<Instance> owners(Reference end, Instance scope) {
        List<ElementId> chain = end.chain();
        if (chain.size() == 1) {
            return List.of(scope);
        }
        return flattening.instances(
                new FeatureReference(List.copyOf(chain.subList(0, chain.size() - 1)), Span.NONE), scope);
    }

    boolean isFedByFlow(Instance instance, Element feature) {
        Set<ElementId> own = fed.getOrDefault(instance, Set.of());
        return model.inheritance().redefined(feature).stream().anyMatch(each -> own.contains(each.id()));
    }

    List<StepNode.Endpoint> endpoints(Instance instance, Element feature) {
        Map<ElementId, List<StepNode.Endpoint>> own = flows.getOrDefault(instance, Map.of());
        return model.inheritance().redefined(feature).stream()
                .flatMap(each -> own.getOrDefault(each.id(), List.of()).stream())
                .toList();
    }
}
