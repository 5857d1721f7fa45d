package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.expression.Referent;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * The flows that a connection allows: what one port sends and the other receives goes from the one to the other (SysML
 * 2.0, 7.16).
 */
public final class Flows {
    private Flows() {}

    /**
     * A flow that is not there yet.
     *
     * @param words {@code oil from pump.outlet to tank.inlet}
     */
    public record Proposal(String words, Reference source, Reference target, List<Reference> payload) {}

    /** None for what is no connection of two ports, or does not fit. */
    public static List<Proposal> proposed(Model model, Element connector) {
        List<Fit.End> ends = connector.kind().isConnector() ? Fit.ends(model, connector) : List.of();
        if (ends.size() != 2 || !Fit.of(model, connector).isEmpty()) {
            return List.of();
        }
        List<Reference> ways = ConnectorEnds.of(model, connector);
        Pairs pairs = Pairs.of(model, connector);
        List<Proposal> proposals = new ArrayList<>();
        for (PortFace.Feature one : ends.getFirst().face().features()) {
            pairs.second(one, ends.getLast().face())
                    .filter(other -> isOwn(one) && isOwn(other))
                    .ifPresent(other -> {
                        if (one.way().sends() && other.way().receives()) {
                            proposals.add(proposal(model, ways.getFirst(), one, ways.getLast(), other));
                        }
                        if (one.way().receives() && other.way().sends()) {
                            proposals.add(proposal(model, ways.getLast(), other, ways.getFirst(), one));
                        }
                    });
        }
        return proposals.stream()
                .filter(proposal -> !isThere(model, connector, proposal))
                .toList();
    }

    /**
     * Something that can go from one port to another; features of ports within ports have no way by their name alone.
     */
    private static boolean isOwn(PortFace.Feature feature) {
        return !feature.name().contains(".") && feature.element().kind() != ElementKind.ACTION;
    }

    private static Proposal proposal(
            Model model, Reference from, PortFace.Feature sent, Reference to, PortFace.Feature received) {
        return new Proposal(
                sent.name() + " from " + words(model, from) + " to " + words(model, to),
                longer(from, sent.element().id()),
                longer(to, received.element().id()),
                model.inheritance().nearest(sent.element(), Property.TYPES).orElse(List.of()));
    }

    private static Reference longer(Reference way, ElementId last) {
        List<ElementId> chain = new ArrayList<>(way.chain());
        chain.add(last);
        return new Reference(chain);
    }

    private static String words(Model model, Reference way) {
        return way.chain().stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    private static boolean isThere(Model model, Element connector, Proposal proposal) {
        return model.referrers(proposal.source().target()).stream()
                .map(model::get)
                .anyMatch(user -> user.kind().isFlow()
                        && Objects.equals(user.owner(), connector.owner())
                        && user.get(Property.SOURCE)
                                .filter(proposal.source()::equals)
                                .isPresent()
                        && user.get(Property.TARGET)
                                .filter(proposal.target()::equals)
                                .isPresent());
    }

    /** Makes all that are proposed, beside the connection. */
    public static Edit make(Model model, Element connector) {
        List<Element> put = new ArrayList<>();
        ElementId owner = Objects.requireNonNull(connector.owner());
        Rank last = model.rankAtEnd(owner);
        for (Proposal proposal : proposed(model, connector)) {
            Element made = Element.of(ElementKind.FLOW, owner, last, null)
                    .with(Property.SOURCE, proposal.source())
                    .with(Property.TARGET, proposal.target());
            put.add(made);
            if (!proposal.payload().isEmpty()) {
                put.add(Element.of(
                                ElementKind.PAYLOAD,
                                made.id(),
                                Rank.after(null, 1).getFirst(),
                                null)
                        .with(Property.TYPES, proposal.payload()));
            }
            last = Rank.after(last, 1).getFirst();
        }
        return new Edit(put, Set.of());
    }
}
