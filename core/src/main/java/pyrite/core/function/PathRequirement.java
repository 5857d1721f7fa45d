package pyrite.core.function;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.EditSequence;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationReader;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Structuring;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Linking;

/** Makes a requirement that limits an attribute of a function path, satisfied by the whole that has the path. */
public final class PathRequirement {
    private final EditSequence edits;

    private PathRequirement(Model model) {
        this.edits = new EditSequence(model);
    }

    /**
     * @param operator a comparison
     * @param limit in the notation, such as {@code 5 [s]}
     * @param specification the package that gets it
     * @param id its number
     * @param text its text
     */
    public record Wish(
            Element attribute, Operator operator, String limit, Element specification, String id, String text) {}

    /** The requirements whose constraints name a path. */
    public static List<Element> on(Model model, Element path) {
        return model.referrers(path.id()).stream()
                .map(model::get)
                .flatMap(user -> Stream.concat(Stream.of(user), model.owners(user).stream()))
                .filter(Specification::isRequirement)
                .distinct()
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
    }

    /** @throws IllegalArgumentException with the reason if it cannot be made */
    public static Edit make(Model model, FunctionPath path, Wish wish) {
        return new PathRequirement(model).make(path, wish);
    }

    private Edit make(FunctionPath path, Wish wish) {
        if (!wish.operator().isOrdering()) {
            throw new IllegalArgumentException("a limit compares: <=, <, >= or >");
        }
        Model before = edits.model();
        NotationReader.ExpressionReading limit =
                NotationReader.readExpression(before, path.whole().id(), wish.limit());
        Expression most = limit.expression();
        if (most == null) {
            throw new IllegalArgumentException("the limit '" + wish.limit() + "': "
                    + limit.problems().getFirst().message());
        }
        Structuring structuring = new Structuring(before);
        List<Element> put = new ArrayList<>(structuring.requirement(
                structuring.below(wish.specification()), wish.id(), wish.text().strip()));
        Element requirement = put.getFirst();
        List<Rank> ranks = Rank.after(put.size() > 1 ? put.getLast().rank() : null, 2);
        String name = String.valueOf(path.whole().name());
        Element subject = Element.of(
                        ElementKind.SUBJECT,
                        requirement.id(),
                        ranks.getFirst(),
                        name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1))
                .with(Property.TYPES, List.of(Reference.to(path.whole().id())));
        List<ElementId> way =
                List.of(subject.id(), path.path().id(), wish.attribute().id());
        Element constraint = Element.of(ElementKind.REQUIRED_CONSTRAINT, requirement.id(), ranks.getLast(), null)
                .with(
                        Property.RESULT,
                        new Expression.Binary(
                                wish.operator(),
                                new Expression.FeatureReference(List.copyOf(way), Span.NONE),
                                most,
                                Span.NONE));
        put.add(subject);
        put.add(constraint);
        edits.then(new Edit(put, Set.of()));
        satisfy(path.whole(), requirement.id());
        return edits.edit();
    }

    /** By the part that satisfies most others of the whole, so that there is something to judge. */
    private void satisfy(Element whole, ElementId requirement) {
        Model model = edits.model();
        Map<Reference, List<Element>> known = model.ownElements(ElementKind.SATISFACTION)
                .filter(satisfaction -> satisfaction
                        .get(Property.BY)
                        .flatMap(by -> model.find(by.target()))
                        .filter(part -> model.inheritance().generals(part).contains(whole))
                        .isPresent())
                .collect(Collectors.groupingBy(
                        satisfaction -> satisfaction.get(Property.BY).orElseThrow(),
                        LinkedHashMap::new,
                        Collectors.toList()));
        Optional<Element> example =
                known.values().stream().max(Comparator.comparingInt(List::size)).map(List::getLast);
        if (example.isPresent()) {
            Element like = example.get();
            ElementId owner = Objects.requireNonNull(like.owner());
            edits.then(Edit.put(Element.of(ElementKind.SATISFACTION, owner, model.rankAtEnd(owner), null)
                    .with(Property.TARGET, Reference.to(requirement))
                    .with(Property.BY, like.get(Property.BY).orElseThrow())));
            return;
        }
        Linking.Proposal link =
                new Linking(model).make(List.of(new Linking.Request(LinkKind.SATISFY, whole, model.get(requirement))));
        if (!link.refused().isEmpty()) {
            throw new IllegalArgumentException(link.refused().getFirst());
        }
        edits.then(link.edit());
    }
}
