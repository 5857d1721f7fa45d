package pyrite.core.function;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;
import pyrite.core.structure.Fit;
import pyrite.core.structure.PortFace;

/**
 * The connections between the parts of a whole, and what each can carry which way. A port at a border stands for the
 * ports within that are bound to it, so a connection reaches as deep as bindings hand it on.
 */
final class Carriers {
    private final Model model;
    private final PartTree parts;
    private final List<Joint> joints = new ArrayList<>();
    /** The joints that reach a part, by its way. */
    private final Map<List<ElementId>, List<Joint>> reaching = new HashMap<>();

    /** What the ports at a connection carry. */
    private final Map<ElementId, List<PortFace>> faces = new HashMap<>();

    /** A connection with the parts that its two ends reach: the one it is written at, and those within. */
    private record Joint(Element connector, Set<Part> one, Set<Part> other, Part first, Part second) {}

    Carriers(Model model, PartTree parts) {
        this.model = model;
        this.parts = parts;
        parts.parts().forEach(this::joints);
    }

    private void joints(Part holder) {
        model.inheritance().features(holder.element()).stream()
                .filter(feature -> feature.kind() == ElementKind.CONNECTION
                        || feature.kind() == ElementKind.INTERFACE
                        || feature.kind() == ElementKind.FLOW)
                .filter(feature -> !model.isLibrary(feature.id()))
                .forEach(connector -> joint(holder, connector));
    }

    private void joint(Part holder, Element connector) {
        List<Reference> ends = ConnectorEnds.of(model, connector);
        if (ends.size() != 2) {
            return;
        }
        Reach one = reach(holder, ends.getFirst().chain());
        Reach other = reach(holder, ends.getLast().chain());
        if (one == null || other == null || one.part().equals(other.part())) {
            return;
        }
        Joint joint = new Joint(connector, one.all(), other.all(), one.part(), other.part());
        joints.add(joint);
        Set<Part> both = new HashSet<>(joint.one());
        both.addAll(joint.other());
        both.forEach(part ->
                reaching.computeIfAbsent(part.way(), _ -> new ArrayList<>()).add(joint));
    }

    private record Reach(Part part, Set<Part> all) {}

    /** The part that an end of a connection stands at, and those within it that its port is handed on to. */
    private @Nullable Reach reach(Part holder, List<ElementId> chain) {
        List<ElementId> way = new ArrayList<>(holder.way());
        Part at = holder;
        int next = 0;
        for (; next < chain.size(); next++) {
            ElementId step = model.inheritance()
                    .effective(at.element(), chain.get(next))
                    .map(Element::id)
                    .orElse(chain.get(next));
            way.add(step);
            Part inner = parts.get(way);
            if (inner == null) {
                break;
            }
            at = inner;
        }
        if (at.equals(holder)) {
            return null;
        }
        Set<Part> all = new HashSet<>(Set.of(at));
        if (next < chain.size()) {
            handedOn(at, chain.get(next), all);
        } else {
            // A connection of a part and not of a port joins whatever is in it.
            Part top = at;
            parts.parts().stream().filter(part -> part.isIn(top)).forEach(all::add);
        }
        return new Reach(at, all);
    }

    /** Follows bindings and connections from a port of a part to ports of the parts within. */
    private void handedOn(Part part, ElementId port, Set<Part> reached) {
        Set<ElementId> ports = new HashSet<>(Set.of(port));
        model.inheritance()
                .effective(part.element(), port)
                .ifPresent(each -> model.inheritance().redefined(each).forEach(old -> ports.add(old.id())));
        model.inheritance().generals(part.element()).stream()
                .filter(general -> !model.isLibrary(general.id()))
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.kind() == ElementKind.BINDING
                        || child.kind() == ElementKind.CONNECTION
                        || child.kind() == ElementKind.INTERFACE)
                .forEach(child -> {
                    List<Reference> ends = ConnectorEnds.of(model, child);
                    for (int i = 0; i < ends.size() && ends.size() == 2; i++) {
                        List<ElementId> outer = ends.get(i).chain();
                        List<ElementId> inner = ends.get(1 - i).chain();
                        if (outer.size() == 1 && ports.contains(outer.getFirst()) && inner.size() > 1) {
                            Reach within = reach(part, inner);
                            if (within != null && reached.add(within.part())) {
                                reached.addAll(within.all());
                            }
                        }
                    }
                });
    }

    /** The connections that can carry what goes from one part to another. */
    List<Element> between(Part sender, Part receiver, FlowWays.Way way) {
        return reaching.getOrDefault(sender.way(), List.of()).stream()
                .filter(joint -> carries(joint, sender, receiver, way))
                .map(Joint::connector)
                .distinct()
                .toList();
    }

    private boolean carries(Joint joint, Part sender, Part receiver, FlowWays.Way way) {
        boolean isForth = joint.one().contains(sender) && joint.other().contains(receiver);
        boolean isBack = joint.other().contains(sender) && joint.one().contains(receiver);
        return isForth && carries(joint.connector(), true, way) || isBack && carries(joint.connector(), false, way);
    }

    /** A connection whose ports say what they carry carries that; one that says nothing carries anything. */
    private boolean carries(Element connector, boolean isForth, FlowWays.Way way) {
        if (connector.kind() == ElementKind.FLOW) {
            return isForth && carriesFlow(connector, way);
        }
        List<PortFace> faces = faces(connector);
        if (faces.size() != 2 || !faces.stream().allMatch(PortFace::isComparable)) {
            return true;
        }
        PortFace sending = isForth ? faces.getFirst() : faces.getLast();
        PortFace receiving = isForth ? faces.getLast() : faces.getFirst();
        return sending.features().stream().anyMatch(feature -> feature.way().sends() && suits(feature.element(), way))
                && receiving.features().stream()
                        .anyMatch(feature -> feature.way().receives() && suits(feature.element(), way));
    }

    private List<PortFace> faces(Element connector) {
        return faces.computeIfAbsent(connector.id(), _ -> Fit.faces(model, connector));
    }

    private boolean carriesFlow(Element flow, FlowWays.Way way) {
        return model.children(flow.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .allMatch(payload -> suits(payload, way));
    }

    /** Whether a feature of a port can be what goes: of its type or, where none is said, of its name. */
    private boolean suits(Element feature, FlowWays.Way way) {
        if (way.item() == null) {
            String name = String.valueOf(model.names().effectiveName(feature));
            return name.equals(model.names().effectiveName(way.sent()))
                    || name.equals(model.names().effectiveName(way.received()));
        }
        Element item = way.item();
        return model.inheritance().isA(feature, item.id())
                || model.inheritance().generals(feature).stream()
                        .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                        .anyMatch(type -> model.inheritance().isA(item, type.id()));
    }

    /** The connections that none of what is exchanged uses. */
    List<ExchangeTable.Idle> idle(Set<Element> used) {
        return joints.stream()
                .filter(joint ->
                        !used.contains(joint.connector()) && joint.connector().kind() != ElementKind.FLOW)
                .map(joint -> new ExchangeTable.Idle(joint.connector(), joint.first(), joint.second()))
                .distinct()
                .toList();
    }
}
