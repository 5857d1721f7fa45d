package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * What goes in and out of the functions of a turned story: a function takes what was received since the function before
 * it, and gives what is sent before the next one. Each becomes a parameter of the function and a flow of the use case;
 * what is there already is not made twice.
 */
public final class StoryFlows {
    private final Model model;
    private final Element useCase;

    public StoryFlows(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
    }

    /**
     * Something that goes between an event or message and a function.
     *
     * @param event the step that receives or sends
     * @param function the step that takes or gives it
     * @param definition what that step does
     * @param item what goes
     * @param parameter the parameter there is for it; null if it has to be made
     */
    public record Proposal(
            Element event,
            Element function,
            Element definition,
            Element item,
            @Nullable Element parameter) {
        public boolean isIn() {
            return event.kind() == ElementKind.ACCEPT;
        }

        /** {@code in}, or {@code out}. */
        public String direction() {
            return isIn() ? "in" : "out";
        }
    }

    /** The flows that are not made yet, in the order of the story. */
    public List<Proposal> proposals() {
        Story story = Story.of(model, useCase);
        Set<Proposal> proposals = new LinkedHashSet<>();
        story.ways().forEach(way -> along(story.path(way), proposals));
        return proposals.stream().filter(proposal -> !isMade(proposal)).toList();
    }

    private void along(List<Story.Line> path, Set<Proposal> proposals) {
        List<Element> received = new ArrayList<>();
        Element function = null;
        for (Story.Line line : path) {
            Element step = line.step();
            Turning.Kind kind = Turning.became(model, step).orElse(null);
            if (kind == Turning.Kind.RECEIVE) {
                received.add(step);
            } else if (kind == Turning.Kind.FUNCTION) {
                function = step;
                received.forEach(event -> propose(event, step, proposals));
                received.clear();
            } else if (kind == Turning.Kind.SEND && function != null) {
                propose(step, function, proposals);
            }
        }
    }

    private void propose(Element event, Element function, Set<Proposal> proposals) {
        Element item = Turning.definition(model, event).orElse(null);
        Element definition = Turning.definition(model, function).orElse(null);
        if (item != null && definition != null && event.owner() != null) {
            String direction = event.kind() == ElementKind.ACCEPT ? "in" : "out";
            proposals.add(new Proposal(event, function, definition, item, parameter(definition, direction, item)));
        }
    }

    private @Nullable Element parameter(Element definition, String direction, Element item) {
        return model.inheritance().features(definition).stream()
                .filter(feature -> direction.equals(model.inheritance()
                                .nearest(feature, Property.DIRECTION)
                                .orElse(""))
                        && model.inheritance().generals(feature).contains(item))
                .findFirst()
                .orElse(null);
    }

    private boolean isMade(Proposal proposal) {
        return proposal.isIn()
                ? model.referrers(proposal.function().id()).stream()
                        .map(model::get)
                        .filter(user -> user.kind().isFlow())
                        .anyMatch(flow -> passes(flow, Property.SOURCE, proposal.event())
                                && passes(flow, Property.TARGET, proposal.function()))
                : proposal.event()
                        .get(Property.CONTENT)
                        .filter(FeatureReference.class::isInstance)
                        .isPresent();
    }

    private static boolean passes(Element flow, Property<Reference> end, Element step) {
        return flow.get(end)
                .filter(reference -> reference.chain().contains(step.id()))
                .isPresent();
    }

    /** Makes flows and the parameters they need, as one edit. */
    public Edit make(List<Proposal> proposals) {
        Map<ElementId, Element> put = new LinkedHashMap<>();
        Map<List<Object>, Element> parameters = new HashMap<>();
        Rank last = model.rankAtEnd(useCase.id());
        for (Proposal proposal : proposals) {
            Element parameter = proposal.parameter() != null
                    ? proposal.parameter()
                    : parameters.computeIfAbsent(
                            List.of(
                                    proposal.definition().id(),
                                    proposal.direction(),
                                    proposal.item().id()),
                            _ -> made(proposal, put));
            if (proposal.isIn()) {
                Element payload = named(proposal.event(), proposal.item(), put);
                put.put(payload.id(), payload);
                Element flow = Element.of(ElementKind.FLOW, useCase.id(), last, null)
                        .with(Property.SOURCE, new Reference(way(proposal.event(), payload)))
                        .with(Property.TARGET, new Reference(way(proposal.function(), parameter)));
                put.put(flow.id(), flow);
                Element what = Element.of(ElementKind.PAYLOAD, flow.id(), Rank.between(null, null), null)
                        .with(
                                Property.TYPES,
                                List.of(Reference.to(proposal.item().id())));
                put.put(what.id(), what);
                last = Rank.between(last, null);
            } else {
                Element event = proposal.event();
                put.put(
                        event.id(),
                        event.with(
                                Property.CONTENT,
                                new FeatureReference(List.copyOf(way(proposal.function(), parameter)), Span.NONE)));
            }
        }
        return new Edit(List.copyOf(put.values()), Set.of());
    }

    private Element made(Proposal proposal, Map<ElementId, Element> put) {
        Element definition = proposal.definition();
        Set<String> taken = new HashSet<>(model.names().membersOf(definition.id()));
        Rank last = model.rankAtEnd(definition.id());
        for (Element other : put.values()) {
            if (definition.id().equals(other.owner())) {
                taken.add(String.valueOf(other.name()));
                last = Rank.between(other.rank(), null);
            }
        }
        Element parameter = Element.of(
                        ElementKind.ITEM, definition.id(), last, Names.free(taken, lower(proposal.item())))
                .with(Property.DIRECTION, proposal.direction())
                .with(Property.TYPES, List.of(Reference.to(proposal.item().id())));
        put.put(parameter.id(), parameter);
        return parameter;
    }

    /** What is received, with a name, so that a flow can say where it comes from. */
    private Element named(Element event, Element item, Map<ElementId, Element> put) {
        Element payload = model.children(event.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .findFirst()
                .orElseThrow();
        Element known = put.getOrDefault(payload.id(), payload);
        return known.name() == null ? known.withName(lower(item)) : known;
    }

    /** From the use case to a feature of a step in it. */
    private List<ElementId> way(Element step, Element feature) {
        List<ElementId> way = new ArrayList<>(List.of(step.id(), feature.id()));
        for (Element around : model.owners(step)) {
            if (around.equals(useCase)) {
                break;
            }
            way.addFirst(around.id());
        }
        return way;
    }

    private static String lower(Element item) {
        String name = String.valueOf(item.name());
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }
}
