package pyrite.core.trace;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/** Makes and removes links. A link is written inside its source where possible, so that it is removed with it. */
public final class Linking {
    private final Model model;
    private final Links links;
    private final LinkRules rules;
    private final LinkRules.Labelled names;

    public Linking(Model model) {
        this.model = model;
        this.links = Links.in(model);
        this.rules = LinkRules.in(model);
        this.names = new LinkRules.Labelled(model);
    }

    /** A link to make. */
    public record Request(LinkKind kind, Element source, Element target) {}

    /**
     * The edit that makes all requested links, or the reasons why some are refused. If any is refused, none is made.
     *
     * @param summary one line for the history
     */
    public record Proposal(Edit edit, String summary, List<String> refused) {}

    /** The edit that makes several links at once; those that are there already are passed over. */
    public Proposal make(List<Request> requests) {
        List<String> refused = new ArrayList<>();
        Map<ElementId, Rank> last = new LinkedHashMap<>();
        List<Element> made = new ArrayList<>();
        List<Request> fresh =
                requests.stream().distinct().filter(request -> !exists(request)).toList();
        for (Request request : fresh) {
            String violation = violation(request);
            if (violation.isEmpty()) {
                made.addAll(elements(request, last));
            } else {
                refused.add(violation);
            }
        }
        made.addAll(named(fresh));
        return new Proposal(new Edit(made, Set.of()), summary(fresh), refused);
    }

    /** What links refer to and has neither a name nor a short name gets one: a reference is written by it. */
    private List<Element> named(List<Request> requests) {
        Map<ElementId, Element> named = new LinkedHashMap<>();
        Map<ElementId, Set<String>> taken = new LinkedHashMap<>();
        requests.stream().flatMap(this::referredTo).forEach(element -> {
            Element at = element;
            while (at != null) {
                if (model.names().calledBy(at) == null && model.has(at.id()) && !named.containsKey(at.id())) {
                    named.put(at.id(), at.withName(freeName(at, taken)));
                }
                at = at.owner() == null ? null : model.find(at.owner()).orElse(null);
            }
        });
        return List.copyOf(named.values());
    }

    /** Those that stand in the text of the link; what owns it does not. */
    private Stream<Element> referredTo(Request request) {
        return switch (request.kind().carrier()) {
            case SATISFACTION, FRAMED_CONCERN, VERIFIED_REQUIREMENT -> Stream.of(request.target());
            default -> Stream.of(request.source(), request.target());
        };
    }

    private String freeName(Element element, Map<ElementId, Set<String>> taken) {
        ElementId owner = Objects.requireNonNull(element.owner(), "what stands at the top and is linked has a name");
        Set<String> names = taken.computeIfAbsent(
                owner,
                id -> model.children(id).stream()
                        .flatMap(sibling -> Stream.of(
                                Objects.requireNonNullElse(model.names().effectiveName(sibling), ""),
                                Objects.requireNonNullElse(sibling.shortName(), "")))
                        .collect(Collectors.toSet()));
        String stem = element.kind().keyword().replace(" ", "");
        int number = 1;
        while (!names.add(stem + number)) {
            number++;
        }
        return stem + number;
    }

    private String summary(List<Request> requests) {
        if (requests.size() == 1) {
            Request one = requests.getFirst();
            return names.of(one.source()) + " " + one.kind().forward() + " " + names.of(one.target());
        }
        return requests.size() + " links added";
    }

    public boolean exists(Request request) {
        return find(request).isPresent();
    }

    /** The link that is as wished, if there is one. */
    public Optional<Link> find(Request request) {
        return links.of(request.source()).stream()
                .filter(link -> link.kind().equals(request.kind())
                        && link.source().equals(request.source().id())
                        && link.target().equals(request.target().id()))
                .findFirst();
    }

    private String violation(Request request) {
        Link link = new Link(
                request.source().id(),
                request.kind(),
                request.source().id(),
                request.target().id());
        String violation = rules.violation(link);
        return violation.isEmpty() ? LinkCycles.violation(model, links, link) : violation;
    }

    private List<Element> elements(Request request, Map<ElementId, Rank> last) {
        Element source = request.source();
        Reference target = Reference.to(request.target().id());
        return switch (request.kind().carrier()) {
            case SATISFACTION ->
                List.of(at(ElementKind.SATISFACTION, source, last).with(Property.TARGET, target));
            case FRAMED_CONCERN ->
                List.of(at(ElementKind.FRAMED_CONCERN, source, last).with(Property.TARGET, target));
            case VERIFIED_REQUIREMENT -> verified(source, target, last);
            case ALLOCATION -> allocation(source, target, last);
            default -> List.of(dependency(request, source, target, last));
        };
    }

    private Element dependency(Request request, Element source, Reference target, Map<ElementId, Rank> last) {
        Element dependency = at(ElementKind.DEPENDENCY, holder(source, ElementKind.DEPENDENCY), last)
                .with(Property.CLIENTS, List.of(Reference.to(source.id())))
                .with(Property.SUPPLIERS, List.of(target));
        return request.kind().mark() == null
                ? dependency
                : dependency.with(
                        Property.MARKS, List.of(Reference.to(request.kind().mark())));
    }

    private List<Element> verified(Element source, Reference target, Map<ElementId, Rank> last) {
        Optional<Element> objective = model.children(source.id()).stream()
                .filter(child -> child.kind() == ElementKind.OBJECTIVE)
                .findFirst();
        Element holder = objective.orElseGet(() -> at(ElementKind.OBJECTIVE, source, last));
        Element verified = at(ElementKind.VERIFIED_REQUIREMENT, holder, last).with(Property.TARGET, target);
        return objective.isPresent() ? List.of(verified) : List.of(holder, verified);
    }

    private List<Element> allocation(Element source, Reference target, Map<ElementId, Rank> last) {
        Element allocation = at(
                ElementKind.ALLOCATION,
                holder(model.get(Objects.requireNonNull(source.owner())), ElementKind.ALLOCATION),
                last);
        List<Rank> ranks = Rank.after(null, 2);
        return List.of(
                allocation,
                Element.of(ElementKind.CONNECTOR_END, allocation.id(), ranks.get(0), null)
                        .with(Property.TARGET, way(source)),
                Element.of(ElementKind.CONNECTOR_END, allocation.id(), ranks.get(1), null)
                        .with(Property.TARGET, way(model.get(target.target()))));
    }

    /** The way to a usage along the usages that own it. */
    private Reference way(Element usage) {
        List<ElementId> chain = new ArrayList<>(List.of(usage.id()));
        Element at = usage;
        while (at.owner() != null && model.get(at.owner()).kind().isUsage()) {
            at = model.get(at.owner());
            chain.addFirst(at.id());
        }
        return new Reference(chain);
    }

    /** The element itself if its body may hold this, else the nearest around it whose body may. */
    private Element holder(Element element, ElementKind member) {
        return element.kind().mayOwn(member) || element.owner() == null
                ? element
                : holder(model.get(element.owner()), member);
    }

    private Element at(ElementKind kind, Element owner, Map<ElementId, Rank> last) {
        Rank rank = last.containsKey(owner.id())
                ? Rank.between(last.get(owner.id()), null)
                : model.has(owner.id()) ? model.rankAtEnd(owner.id()) : Rank.between(null, null);
        last.put(owner.id(), rank);
        return Element.of(kind, owner.id(), rank, null);
    }

    /** The edit that takes links away; of a dependency that joins several only what these join. */
    public Edit remove(List<Link> removed) {
        List<Element> put = new ArrayList<>();
        Set<ElementId> remove = new java.util.LinkedHashSet<>();
        Map<ElementId, List<Link>> byCarrier = new LinkedHashMap<>();
        removed.forEach(link -> byCarrier
                .computeIfAbsent(link.carrier(), _ -> new ArrayList<>())
                .add(link));
        byCarrier.forEach((id, taken) -> {
            List<Link> left = new ArrayList<>(links.carriedBy(model.get(id)));
            left.removeAll(taken);
            remove.add(id);
            left.forEach(link -> put.add(only(model.get(id), link)));
        });
        return new Edit(put, remove);
    }

    /** What is left of a connection is written as a dependency, too: it says the same of two. */
    private Element only(Element carrier, Link link) {
        Element dependency = carrier.kind() == ElementKind.DEPENDENCY
                ? new Element(
                        ElementId.fresh(),
                        carrier.kind(),
                        carrier.owner(),
                        carrier.rank(),
                        null,
                        null,
                        carrier.properties())
                : new Element(
                                ElementId.fresh(),
                                ElementKind.DEPENDENCY,
                                carrier.owner(),
                                carrier.rank(),
                                null,
                                null,
                                Map.of())
                        .with(
                                Property.MARKS,
                                List.of(Reference.to(
                                        Objects.requireNonNull(link.kind().mark()))));
        return dependency
                .with(Property.CLIENTS, List.of(Reference.to(link.source())))
                .with(Property.SUPPLIERS, List.of(Reference.to(link.target())));
    }

    /** What a removal says in the history. */
    public String removalSummary(List<Link> removed) {
        return removed.size() == 1
                ? "unlinked: " + names.of(model.get(removed.getFirst().source())) + " "
                        + removed.getFirst().kind().forward() + " "
                        + names.of(model.get(removed.getFirst().target()))
                : removed.size() + " links removed";
    }
}
