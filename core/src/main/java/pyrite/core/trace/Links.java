package pyrite.core.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The links of one snapshot, found at their ends: the cost of a query depends on the references to the element, not on
 * the size of the model. The order of links is unspecified but stable.
 */
public final class Links {
    private static final ElementId DERIVATION = LibraryNames.id("RequirementDerivation::DerivationMetadata");
    private static final ElementId ORIGINAL = LibraryNames.id("RequirementDerivation::OriginalRequirementMetadata");
    private static final ElementId DERIVED = LibraryNames.id("RequirementDerivation::DerivedRequirementMetadata");

    private final Model model;
    private final Map<ElementId, LinkKind> marks;

    /** The links of a snapshot, known once they were asked for. */
    public static Links in(Model model) {
        return model.derived(Links.class, Links::new);
    }

    private Links(Model model) {
        this.model = model;
        this.marks = LinkKind.all(model).stream()
                .filter(kind -> kind.mark() != null)
                .collect(Collectors.toMap(LinkKind::mark, kind -> kind, (a, _) -> a, ConcurrentHashMap::new));
    }

    /** Every link that begins or ends at an element. */
    public List<Link> of(Element element) {
        List<Link> found = new ArrayList<>();
        own(element, found::add);
        for (ElementId id : model.referrers(element.id())) {
            carriedBy(model.get(id), link -> {
                if (link.source().equals(element.id()) || link.target().equals(element.id())) {
                    found.add(link);
                }
            });
        }
        return each(found);
    }

    public List<Link> of(ElementId id) {
        return model.find(id).map(this::of).orElse(List.of());
    }

    /** The links upward: to what the element comes from. */
    public List<Link> up(ElementId id) {
        return of(id).stream().filter(link -> link.below().equals(id)).toList();
    }

    /** The links downward: to what realises, refines or proves the element. */
    public List<Link> down(ElementId id) {
        return of(id).stream().filter(link -> link.above().equals(id)).toList();
    }

    /** The links whose carrier stands in the element and does not name it. */
    private void own(Element element, Consumer<Link> found) {
        for (Element child : model.children(element.id())) {
            switch (child.kind()) {
                case FRAMED_CONCERN, SATISFACTION ->
                    carriedBy(child, link -> {
                        if (link.source().equals(element.id())) {
                            found.accept(link);
                        }
                    });
                case OBJECTIVE -> model.children(child.id()).forEach(verified -> carriedBy(verified, found));
                default -> {}
            }
        }
    }

    /** The links that an element makes, each once; none if it is no carrier of links. */
    public List<Link> carriedBy(Element carrier) {
        List<Link> found = new ArrayList<>(1);
        carriedBy(carrier, found::add);
        return each(found);
    }

    /** A dependency may name the same end twice. */
    private static List<Link> each(List<Link> found) {
        return found.size() < 2 ? found : found.stream().distinct().toList();
    }

    private void carriedBy(Element carrier, Consumer<Link> found) {
        switch (carrier.kind()) {
            case DEPENDENCY -> dependency(carrier, found);
            case SATISFACTION -> {
                if (!carrier.get(Property.NEGATED).orElse(false)) {
                    join(
                            carrier,
                            LinkKind.SATISFY,
                            carrier.get(Property.BY)
                                    .map(Reference::target)
                                    .or(() -> Optional.ofNullable(carrier.owner())),
                            found);
                }
            }
            case VERIFIED_REQUIREMENT -> join(carrier, LinkKind.VERIFY, around(carrier, Links::isVerifier), found);
            case FRAMED_CONCERN -> join(carrier, LinkKind.FRAME, around(carrier, Links::isRequirement), found);
            case CONNECTOR_END ->
                model.find(Objects.requireNonNull(carrier.owner()))
                        .filter(owner -> owner.kind() == ElementKind.ALLOCATION)
                        .ifPresent(allocation -> carriedBy(allocation, found));
            case ALLOCATION -> allocation(carrier, found);
            case CONNECTION -> derivation(carrier, found);
            default -> {
                if (isEnd(carrier)) {
                    model.find(Objects.requireNonNull(carrier.owner()))
                            .filter(owner -> owner.kind() == ElementKind.CONNECTION)
                            .ifPresent(connection -> derivation(connection, found));
                }
            }
        }
    }

    /**
     * A connection of the standard's derivation library: each derived end follows from each original one (SysML 2.0,
     * 9.6).
     */
    private void derivation(Element connection, Consumer<Link> found) {
        LinkKind derive = isMarked(connection, DERIVATION)
                ? LinkKind.named(model, LinkKind.DERIVE).orElse(null)
                : null;
        if (derive == null) {
            return;
        }
        for (ElementId derived : ends(connection, DERIVED)) {
            for (ElementId original : ends(connection, ORIGINAL)) {
                found.accept(new Link(connection.id(), derive, derived, original));
            }
        }
    }

    private List<ElementId> ends(Element connection, ElementId mark) {
        return model.children(connection.id()).stream()
                .filter(end -> isEnd(end) && isMarked(end, mark))
                .flatMap(end -> end.references(Property.REFERS).stream())
                .map(Reference::target)
                .toList();
    }

    private static boolean isMarked(Element element, ElementId mark) {
        return element.references(Property.MARKS).stream()
                .anyMatch(reference -> reference.target().equals(mark));
    }

    private static boolean isEnd(Element element) {
        return element.owner() != null && element.get(Property.END).orElse(false);
    }

    private void join(Element carrier, LinkKind kind, Optional<ElementId> source, Consumer<Link> found) {
        Optional<ElementId> target = carrier.get(Property.TARGET).map(Reference::target);
        if (source.isPresent() && target.isPresent()) {
            found.accept(new Link(carrier.id(), kind, source.get(), target.get()));
        }
    }

    private void dependency(Element carrier, Consumer<Link> found) {
        LinkKind kind = carrier.references(Property.MARKS).stream()
                .map(mark -> marks.get(mark.target()))
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(LinkKind.TRACE);
        for (Reference client : carrier.references(Property.CLIENTS)) {
            for (Reference supplier : carrier.references(Property.SUPPLIERS)) {
                found.accept(new Link(carrier.id(), kind, client.target(), supplier.target()));
            }
        }
    }

    private void allocation(Element carrier, Consumer<Link> found) {
        List<ElementId> ends = model.children(carrier.id()).stream()
                .filter(child -> child.kind() == ElementKind.CONNECTOR_END)
                .flatMap(end -> end.get(Property.TARGET).stream())
                .map(Reference::target)
                .toList();
        if (ends.size() == 2) {
            found.accept(new Link(carrier.id(), LinkKind.ALLOCATE, ends.get(0), ends.get(1)));
        }
    }

    private Optional<ElementId> around(Element inside, java.util.function.Predicate<Element> requested) {
        return model.owners(inside).stream().filter(requested).findFirst().map(Element::id);
    }

    private static boolean isVerifier(Element element) {
        return switch (element.kind()) {
            case VERIFICATION,
                    VERIFICATION_DEFINITION,
                    ANALYSIS,
                    ANALYSIS_DEFINITION,
                    CASE,
                    CASE_DEFINITION,
                    USE_CASE,
                    USE_CASE_DEFINITION -> true;
            default -> false;
        };
    }

    private static boolean isRequirement(Element element) {
        return pyrite.core.specification.Specification.isRequirement(element);
    }

    /** Elements that carry links, or are the ends of one that does. */
    static boolean isCarrier(Element element) {
        return element.kind().carriesLinks() || carrier(element) != element.id();
    }

    /** The element itself, or what it is an end of. */
    static ElementId carrier(Element element) {
        return (element.kind() == ElementKind.CONNECTOR_END || isEnd(element)) && element.owner() != null
                ? element.owner()
                : element.id();
    }
}
