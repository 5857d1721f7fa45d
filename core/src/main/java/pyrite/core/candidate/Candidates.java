package pyrite.core.candidate;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.TextProblem;
import pyrite.core.reuse.UsedLibrary;
import pyrite.core.specification.ExternalReference;
import pyrite.core.specification.Metadata;

/**
 * The candidates for a part: definitions marked as products that specialise the definition of its role. A part is of
 * the candidate that types it.
 */
public final class Candidates {
    private static final ElementId CANDIDATE = LibraryNames.id("Candidates::Candidate");
    private static final ElementId CHOICE = LibraryNames.id("Candidates::Choice");

    private Candidates() {}

    public static boolean isCandidate(Model model, Element definition) {
        return Metadata.of(model, definition, CANDIDATE).isPresent();
    }

    /** What a part is to be: its definition, and if that is a candidate the one it is on offer for. */
    public static Optional<Element> role(Model model, Element part) {
        return model.inheritance().generals(part).stream()
                .filter(general -> general.kind() == ElementKind.PART_DEFINITION
                        && !model.isLibrary(general.id())
                        && !isCandidate(model, general))
                .findFirst();
    }

    /** Those on offer for a part, by name. */
    public static List<Element> of(Model model, Element part) {
        Element role = role(model, part).orElse(null);
        return role == null
                ? List.of()
                : Metadata.usages(model, CANDIDATE).stream()
                        .flatMap(mark -> Stream.ofNullable(mark.owner()))
                        .distinct()
                        .map(model::get)
                        .filter(candidate -> candidate.kind() == ElementKind.PART_DEFINITION
                                && model.inheritance().isA(candidate, role.id()))
                        .sorted(Comparator.comparing(candidate -> String.valueOf(candidate.name())))
                        .toList();
    }

    public static String supplier(Model model, Element candidate) {
        return Metadata.of(model, candidate, CANDIDATE)
                .map(mark -> Metadata.text(model, mark, "supplier"))
                .orElse("");
    }

    /** The candidate that a part is of. */
    public static Optional<Element> chosen(Model model, Element part) {
        return model.inheritance().generals(part).stream()
                .filter(general -> general.kind() == ElementKind.PART_DEFINITION && isCandidate(model, general))
                .findFirst();
    }

    /** Why a part is of its candidate; empty if nobody said so. */
    public static String reason(Model model, Element part) {
        return Metadata.of(model, part, CHOICE)
                .map(mark -> Metadata.text(model, mark, "reason"))
                .orElse("");
    }

    /** Makes a part a candidate, with the reason. Values that the part redefines itself stay. */
    public static Edit choose(Model model, Element part, Element candidate, String reason) {
        Element mark = Element.of(ElementKind.METADATA, part.id(), model.rankAtEnd(part.id()), null)
                .with(Property.TYPES, List.of(Reference.to(CHOICE)));
        Set<ElementId> old = choices(model, part);
        Element typed = typed(model, part, candidate);
        return reason.isBlank()
                ? new Edit(List.of(typed), old)
                : new Edit(
                        List.of(
                                typed,
                                mark,
                                Metadata.text(
                                        model,
                                        mark,
                                        "reason",
                                        reason.strip(),
                                        Rank.after(null, 1).getFirst())),
                        old);
    }

    /** Makes a part what its role says again. */
    public static Edit takeBack(Model model, Element part) {
        return new Edit(List.of(typed(model, part, role(model, part).orElseThrow())), choices(model, part));
    }

    private static Set<ElementId> choices(Model model, Element part) {
        Set<ElementId> old = new HashSet<>();
        Metadata.allOf(model, part, CHOICE).forEach(each -> old.add(each.id()));
        return old;
    }

    /** Its role or candidate replaced, other types kept. */
    private static Element typed(Model model, Element part, Element by) {
        Element role = role(model, part).orElseThrow();
        List<Reference> types = new ArrayList<>(List.of(Reference.to(by.id())));
        part.references(Property.TYPES).stream()
                .filter(type -> !model.inheritance().isA(model.get(type.target()), role.id()))
                .forEach(types::add);
        boolean isInherited =
                by.equals(role) && !part.references(Property.REDEFINES).isEmpty();
        return part.with(Property.TYPES, isInherited ? null : types);
    }

    /** A new product, or why it cannot be. */
    public sealed interface Offer {
        record Made(Edit edit, ElementId candidate) implements Offer {}

        record Refused(String reason) implements Offer {}
    }

    /**
     * What is known of a product.
     *
     * @param address of a page about it; empty if there is none
     * @param values expressions by the names of attributes; blank ones are left out
     */
    public record Product(String name, String supplier, String address, Map<String, String> values) {}

    /** A new candidate for a part, in the package of its role; where that is another project's, in that of the part. */
    public static Offer add(Model model, Element part, Product product) {
        Element role = role(model, part).orElse(null);
        if (role == null) {
            return new Offer.Refused("give the part a definition first; a candidate is a special one of it");
        }
        Element beside = UsedLibrary.around(model, role).isPresent() ? part : role;
        Element place = model.owners(beside).stream()
                .filter(owner -> owner.kind().isPackage())
                .findFirst()
                .orElse(null);
        if (product.name().isEmpty() || place == null) {
            return new Offer.Refused("a candidate has a name, such as 'Pump 85'");
        }
        Element made = Element.of(ElementKind.PART_DEFINITION, place.id(), model.rankAtEnd(place.id()), product.name())
                .with(Property.SPECIALIZES, List.of(Reference.to(role.id())));
        Rank first = Rank.after(null, 1).getFirst();
        Element mark = Element.of(ElementKind.METADATA, made.id(), first, null)
                .with(Property.TYPES, List.of(Reference.to(CANDIDATE)));
        Map<ElementId, Element> put = new LinkedHashMap<>();
        List.of(made, mark, Metadata.text(model, mark, "supplier", product.supplier(), first))
                .forEach(element -> put.put(element.id(), element));
        return switch (model.apply(edit(put))) {
            case EditResult.Refused(var problems) ->
                new Offer.Refused(problems.getFirst().message());
            case EditResult.Applied(Model next, var _) -> {
                try {
                    if (!product.address().isEmpty()) {
                        ExternalReference.add(next, made, product.address(), "", false)
                                .put()
                                .forEach(element -> put.put(element.id(), element));
                    }
                    yield valued(next, made, product.values(), put);
                } catch (IllegalArgumentException fault) {
                    yield new Offer.Refused(Objects.requireNonNullElse(fault.getMessage(), fault.toString()));
                }
            }
        };
    }

    private static Offer valued(Model model, Element made, Map<String, String> values, Map<ElementId, Element> put) {
        Model at = model;
        for (Map.Entry<String, String> value : values.entrySet()) {
            if (value.getValue().isBlank()) {
                continue;
            }
            Model now = at;
            Element feature = now.inheritance().features(made).stream()
                    .filter(each -> each.kind() == ElementKind.ATTRIBUTE
                            && value.getKey().equals(now.names().effectiveName(each)))
                    .findFirst()
                    .orElse(null);
            if (feature == null) {
                return new Offer.Refused("there is no attribute '" + value.getKey() + "'");
            }
            switch (new Authoring(now).value(now.get(made.id()), feature, value.getValue())) {
                case Authoring.Proposal.Rejected(List<TextProblem> problems) -> {
                    return new Offer.Refused(value.getKey() + ": "
                            + problems.stream()
                                    .map(TextProblem::message)
                                    .findFirst()
                                    .orElse("no value"));
                }
                case Authoring.Proposal.Accepted(Edit edit, var _) -> {
                    edit.put().forEach(element -> put.put(element.id(), element));
                    at = ((EditResult.Applied) now.apply(edit)).model();
                }
            }
        }
        return new Offer.Made(edit(put), made.id());
    }

    private static Edit edit(Map<ElementId, Element> put) {
        return new Edit(List.copyOf(put.values()), Set.of());
    }
}
