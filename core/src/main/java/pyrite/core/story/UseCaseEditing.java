package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.SimilarNames;

/**
 * The edits that say what a use case is about: its subject, actors, objective and needs; and of a requirement or need
 * the subject and the stakeholders.
 *
 * <p>Each throws an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class UseCaseEditing {
    private final Model model;
    private final List<Element> put = new ArrayList<>();

    public UseCaseEditing(Model model) {
        this.model = model;
    }

    /** What is done, and the element that is made. */
    public record Made(Edit edit, ElementId element, String summary) {}

    /** A use case definition in a package, with its text. */
    public Made add(Element owner, String text) {
        if (!owner.kind().isPackage()) {
            throw new IllegalArgumentException("a use case stands in a package");
        }
        String name = model.names().free(owner.id(), ProposedNames.ofDefinition(text, "UseCase"));
        Element useCase = Element.of(ElementKind.USE_CASE_DEFINITION, owner.id(), model.rankAtEnd(owner.id()), name);
        put.add(useCase);
        put.addAll(Documenting.with(model, useCase, text));
        return made(useCase, "use case " + name + " added");
    }

    /**
     * An actor of a type.
     *
     * @param type the name of a part or item definition; a new part definition beside the use case if there is none
     */
    public Made actor(Element useCase, String type) {
        Element definition = definition(useCase, type);
        boolean isThere = Actors.all(model, useCase).stream()
                .anyMatch(actor ->
                        UseCases.type(model, actor).filter(definition::equals).isPresent());
        if (isThere) {
            throw new IllegalArgumentException("'" + definition.name() + "' is an actor already");
        }
        Element actor = typed(useCase, ElementKind.ACTOR, definition);
        return made(actor, "actor " + actor.name() + " : " + definition.name() + " added");
    }

    /** Who wants a need, by the name of a definition; a new one beside the need if there is none. */
    public Made stakeholder(Element need, String type) {
        Element definition = definition(need, type);
        boolean isThere = model.children(need.id()).stream()
                .anyMatch(child -> child.kind() == ElementKind.STAKEHOLDER
                        && child.references(Property.TYPES).contains(Reference.to(definition.id())));
        if (isThere) {
            throw new IllegalArgumentException("'" + definition.name() + "' is a stakeholder of this need already");
        }
        Element stakeholder = typed(need, ElementKind.STAKEHOLDER, definition);
        return made(stakeholder, "stakeholder " + stakeholder.name() + " : " + definition.name() + " added");
    }

    /** What the use case is about; takes the place of what it was about before. */
    public Made subject(Element useCase, String type) {
        Element old = model.children(useCase.id()).stream()
                .filter(child -> child.kind() == ElementKind.SUBJECT)
                .findFirst()
                .orElse(null);
        if (old != null
                && !model.referrers(old.id()).isEmpty()
                && definitions(type.strip()).isEmpty()) {
            // Of a new definition nothing is known yet, and what names features of the subject would not find them.
            throw new IllegalArgumentException("there is no part or item definition '" + type.strip() + "'"
                    + SimilarNames.to(
                            type.strip(),
                            allDefinitions()
                                    .map(each -> String.valueOf(each.name()))
                                    .toList()));
        }
        Element definition = definition(useCase, type);
        List<Reference> types = List.of(Reference.to(definition.id()));
        Element subject =
                old == null ? typed(useCase, ElementKind.SUBJECT, definition) : old.with(Property.TYPES, types);
        if (old != null) {
            put.add(subject);
        }
        return made(subject, "subject of " + called(useCase) + " is a " + definition.name());
    }

    private static String called(Element element) {
        return element.shortName() != null ? element.shortName() : String.valueOf(element.name());
    }

    private Element typed(Element useCase, ElementKind kind, Element definition) {
        String name = String.valueOf(definition.name());
        Element made = Element.of(
                        kind,
                        useCase.id(),
                        beforeSteps(useCase),
                        model.names()
                                .free(useCase.id(), name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1)))
                .with(Property.TYPES, List.of(Reference.to(definition.id())));
        put.add(made);
        return made;
    }

    /** A need that the use case frames. */
    public Made frame(Element useCase, Element need) {
        if (!need.kind().isNeed()) {
            throw new IllegalArgumentException("a use case frames needs, and '" + need.name() + "' is "
                    + need.kind().titleWithArticle());
        }
        if (UseCases.needs(model, useCase).contains(need)) {
            throw new IllegalArgumentException("the use case frames this need already");
        }
        Element objective = objective(useCase);
        Rank rank = model.has(objective.id()) ? model.rankAtEnd(objective.id()) : Rank.between(null, null);
        Element framed = Element.of(ElementKind.FRAMED_CONCERN, objective.id(), rank, null)
                .with(Property.TARGET, Reference.to(need.id()));
        put.add(framed);
        return made(framed, useCase.name() + " frames " + (need.shortName() == null ? need.name() : need.shortName()));
    }

    /** The use case no longer frames a need. */
    public Edit unframe(Element useCase, Element need) {
        Set<ElementId> framed = new HashSet<>();
        model.children(useCase.id()).stream()
                .filter(child -> child.kind() == ElementKind.OBJECTIVE)
                .flatMap(objective -> model.children(objective.id()).stream())
                .filter(child -> child.kind() == ElementKind.FRAMED_CONCERN
                        && child.get(Property.TARGET)
                                .filter(target -> target.target().equals(need.id()))
                                .isPresent())
                .forEach(child -> framed.add(child.id()));
        return new Edit(List.of(), framed);
    }

    /** What is to be reached, in words. */
    public Made objective(Element useCase, String text) {
        Element objective = objective(useCase);
        put.addAll(Documenting.with(model, objective, text));
        return made(objective, "objective of " + useCase.name() + " changed");
    }

    private Element objective(Element useCase) {
        return model.children(useCase.id()).stream()
                .filter(child -> child.kind() == ElementKind.OBJECTIVE)
                .findFirst()
                .orElseGet(() -> {
                    Element made = Element.of(ElementKind.OBJECTIVE, useCase.id(), beforeSteps(useCase), null);
                    put.add(made);
                    return made;
                });
    }

    /** Behind subject, actors and objective and before the steps. */
    private Rank beforeSteps(Element useCase) {
        Rank before = null;
        for (Element child : model.children(useCase.id())) {
            boolean isHead = switch (child.kind()) {
                case DOCUMENTATION, SUBJECT, ACTOR, STAKEHOLDER, OBJECTIVE, METADATA, IMPORT -> true;
                default -> false;
            };
            if (!isHead) {
                return Rank.between(before, child.rank());
            }
            before = child.rank();
        }
        return Rank.between(before, null);
    }

    /** A definition by its name, the nearest first; a new one if there is none. */
    private Element definition(Element useCase, String wished) {
        String name = wished.strip();
        if (name.isEmpty()) {
            throw new IllegalArgumentException("say who or what: the name of a part or item definition");
        }
        Element owner = packageAround(useCase);
        List<Element> named = definitions(name);
        Element near = named.stream()
                .filter(definition -> Objects.equals(definition.owner(), owner.id()))
                .findFirst()
                .orElse(named.isEmpty() ? null : named.getFirst());
        if (near != null) {
            return near;
        }
        Element made = Element.of(
                ElementKind.PART_DEFINITION,
                owner.id(),
                Rank.between(rankBefore(owner, useCase), useCase.rank()),
                model.names().free(owner.id(), ProposedNames.ofDefinition(name, "Actor")));
        put.add(made);
        return made;
    }

    private List<Element> definitions(String name) {
        return allDefinitions()
                .filter(definition -> name.equals(definition.name()))
                .toList();
    }

    private Stream<Element> allDefinitions() {
        return model.ownElements(Set.of(ElementKind.PART_DEFINITION, ElementKind.ITEM_DEFINITION));
    }

    private @Nullable Rank rankBefore(Element owner, Element member) {
        Rank before = null;
        for (Element child : model.children(owner.id())) {
            if (child.equals(member)) {
                return before;
            }
            before = child.rank();
        }
        return before;
    }

    private Element packageAround(Element element) {
        return model.owners(element).stream()
                .filter(owner -> owner.kind().isPackage())
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("a use case stands in a package"));
    }

    private Made made(Element element, String summary) {
        return new Made(new Edit(put, Set.of()), element.id(), summary);
    }
}
