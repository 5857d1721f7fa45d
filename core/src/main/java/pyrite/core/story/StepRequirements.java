package pyrite.core.story;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.Linking;
import pyrite.core.trace.Links;

/** The requirements that come from steps: which there are, and the edits that make more of them or link them. */
public final class StepRequirements {
    private static final List<String> PREFERRED = List.of("refinement", LinkKind.DERIVE);

    private final Model model;

    public StepRequirements(Model model) {
        this.model = model;
    }

    /** The requirements that a link of any kind joins with a step. */
    public List<Element> of(Element step) {
        return links(step).stream()
                .map(link -> model.get(link.other(step.id())))
                .distinct()
                .toList();
    }

    /** The links between a step and requirements. */
    public List<Link> links(Element step) {
        return Links.in(model).of(step).stream()
                .filter(link -> model.find(link.other(step.id()))
                        .filter(Specification::isRequirement)
                        .isPresent())
                .toList();
    }

    /** The kind of link that leads from a requirement to a step it comes from; empty if the rules allow none. */
    public Optional<LinkKind> kind(Element requirement, Element step) {
        List<LinkKind> allowed = LinkRules.in(model).allowed(requirement, step).stream()
                .filter(LinkKind::upward)
                .toList();
        return PREFERRED.stream()
                .flatMap(key -> allowed.stream().filter(kind -> kind.key().equals(key)))
                .findFirst()
                .or(() -> allowed.stream().findFirst());
    }

    /**
     * A requirement to make.
     *
     * @param id its number
     */
    public record Wish(String id, String text, List<Element> steps) {}

    /**
     * The edit that makes requirements at the end of a specification and links each to the steps that it comes from.
     *
     * @throws IllegalArgumentException if the link rules allow no link from there to a step
     */
    public Edit make(Element specification, List<Wish> wishes) {
        Structuring structuring = new Structuring(model);
        Structuring.Place end = structuring.below(specification);
        List<pyrite.core.model.Rank> ranks = pyrite.core.model.Rank.between(
                end.after() == null ? null : end.after().rank(), null, wishes.size());
        List<Element> put = new ArrayList<>();
        List<Element> requirements = new ArrayList<>();
        for (int i = 0; i < wishes.size(); i++) {
            List<Element> made = structuring.requirement(
                    end, wishes.get(i).id(), wishes.get(i).text().strip());
            Element requirement = made.getFirst().withOwner(specification.id(), ranks.get(i));
            requirements.add(requirement);
            put.add(requirement);
            put.addAll(made.subList(1, made.size()));
        }
        Model with = model.with(put);
        StepRequirements after = new StepRequirements(with);
        List<Linking.Request> requests = new ArrayList<>();
        for (int i = 0; i < wishes.size(); i++) {
            for (Element step : wishes.get(i).steps()) {
                requests.add(after.request(requirements.get(i), step));
            }
        }
        return Edit.joined(List.of(new Edit(put, Set.of()), after.linked(requests)));
    }

    /**
     * The edit that links requirements there are to steps.
     *
     * @throws IllegalArgumentException if the link rules allow no such link
     */
    public Edit link(Element requirement, List<Element> steps) {
        return linked(steps.stream().map(step -> request(requirement, step)).toList());
    }

    private Linking.Request request(Element requirement, Element step) {
        LinkKind kind = kind(requirement, step)
                .orElseThrow(() -> new IllegalArgumentException(
                        "no link rule lets a requirement of this level come from a step; allow one with 'step' as its"
                                + " end under Requirements, Link rules"));
        return new Linking.Request(kind, requirement, step);
    }

    private Edit linked(List<Linking.Request> requests) {
        Linking.Proposal proposal = new Linking(model).make(requests);
        if (!proposal.refused().isEmpty()) {
            throw new IllegalArgumentException(proposal.refused().getFirst());
        }
        return proposal.edit();
    }

    /** The edit that takes the links between a requirement and a step away. */
    public Edit unlink(ElementId requirement, Element step) {
        return new Linking(model)
                .remove(links(step).stream()
                        .filter(link -> link.other(step.id()).equals(requirement))
                        .toList());
    }
}
