package pyrite.core.verification;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;

/**
 * The part that is played to see what an element does. A part is played as it is, a case by the part it runs, a step or
 * state by the part around it. For a definition, and for a behaviour that no part performs, a part is made that is
 * played alone and that nobody stores.
 *
 * @param model the model with the part
 * @param isMade whether the part was made to be played
 */
public record Playable(Model model, Element part, boolean isMade) {
    private static final String ALONE = "bench";

    /** Whether an element of this kind can be played, or is part of something that can. */
    public static boolean isOfKind(ElementKind kind) {
        return kind == ElementKind.PART || kind == ElementKind.PART_DEFINITION || isBehavior(kind);
    }

    private static boolean isBehavior(ElementKind kind) {
        return switch (kind) {
            case ACTION, ACTION_DEFINITION, PERFORM, STATE, STATE_DEFINITION, EXHIBIT -> true;
            default -> false;
        };
    }

    /** @throws IllegalArgumentException if it is nothing that can be played; the message says what can */
    public static Playable of(Model model, Element element) {
        if (CaseSetup.isRunnable(model, element)) {
            return new Playable(model, CaseSetup.system(model, element), false);
        }
        Element behavior = null;
        for (@Nullable Element at = element; at != null; at = owner(model, at)) {
            if (isBehavior(at.kind())) {
                behavior = at;
            } else if (at.kind() == ElementKind.PART || at.kind() == ElementKind.PART_DEFINITION) {
                return inside(model, at, behavior);
            } else if (at.kind() == ElementKind.PACKAGE) {
                break;
            }
        }
        if (behavior == null) {
            throw new IllegalArgumentException("a part, an action or a state machine is played, and this is "
                    + element.kind().titleWithArticle());
        }
        return made(model, behavior, ALONE, " { " + performing(model, behavior) + " }");
    }

    private static @Nullable Element owner(Model model, Element element) {
        return element.owner() == null ? null : model.get(element.owner());
    }

    /** @param behavior the outermost behaviour in the part around what is played; null if that is the part itself */
    private static Playable inside(Model model, Element part, @Nullable Element behavior) {
        Element added = behavior == null || isPerformed(behavior) ? null : behavior;
        if (added == null && part.kind() == ElementKind.PART) {
            return new Playable(model, part, false);
        }
        String name = Objects.requireNonNullElse(model.names().effectiveName(part), ALONE);
        String body = added == null ? ";" : " { " + performingOwn(model, added) + " }";
        String relation = part.kind() == ElementKind.PART ? " :> " : " : ";
        return made(
                model,
                part,
                name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1),
                relation + qualified(model, part) + body);
    }

    private static boolean isPerformed(Element behavior) {
        return behavior.kind() == ElementKind.PERFORM || behavior.kind() == ElementKind.EXHIBIT;
    }

    /** Lets a part do what a behaviour outside it says. */
    private static String performing(Model model, Element behavior) {
        String name = qualified(model, behavior);
        String own = Name.quoted(String.valueOf(model.names().effectiveName(behavior)));
        return switch (behavior.kind()) {
            case ACTION_DEFINITION -> "perform action " + own + " : " + name + ";";
            case STATE_DEFINITION -> "exhibit state " + own + " : " + name + ";";
            case STATE, EXHIBIT -> "exhibit state " + own + " ::> " + name + ";";
            default -> "perform action " + own + " ::> " + name + ";";
        };
    }

    /** Lets a part do what stands in it and is not performed yet. */
    private static String performingOwn(Model model, Element behavior) {
        String name = Name.quoted(Objects.requireNonNullElse(behavior.name(), ""));
        return switch (behavior.kind()) {
            case ACTION_DEFINITION, STATE_DEFINITION -> performing(model, behavior);
            case STATE -> "exhibit " + name + ";";
            default -> "perform " + name + ";";
        };
    }

    private static String qualified(Model model, Element element) {
        if (model.names().effectiveName(element) == null) {
            throw new IllegalArgumentException("give it a name first, so that it can be played");
        }
        return model.names().qualifiedName(element);
    }

    private static Playable made(Model model, Element beside, String name, String rest) {
        Element place = place(model, beside);
        Set<String> taken = model.children(place.id()).stream()
                .map(model.names()::effectiveName)
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
        String free = name;
        for (int i = 1; taken.contains(free); i++) {
            free = name + i;
        }
        return switch (new Authoring(model).members(place, "part " + Name.quoted(free) + rest)) {
            case Authoring.Proposal.Rejected(var problems) ->
                throw new IllegalArgumentException(
                        "it cannot be played alone: " + problems.getFirst().message());
            case Authoring.Proposal.Accepted(var edit, var _) ->
                switch (model.apply(edit)) {
                    case EditResult.Refused(var problems) ->
                        throw new IllegalArgumentException("it cannot be played alone: "
                                + problems.getFirst().message());
                    case EditResult.Applied(Model next, var _) -> new Playable(next, partIn(place, edit.put()), true);
                };
        };
    }

    private static Element partIn(Element place, List<Element> added) {
        return added.stream()
                .filter(each -> place.id().equals(each.owner()))
                .findFirst()
                .orElseThrow();
    }

    /** The package around it, if it is one of the project, else another of the project. */
    private static Element place(Model model, Element beside) {
        Optional<Element> around = model.owners(beside).stream()
                .filter(owner -> owner.kind() == ElementKind.PACKAGE && !model.isLibrary(owner.id()))
                .findFirst();
        return around.or(() -> model.ownRoots().stream()
                        .filter(root -> root.kind() == ElementKind.PACKAGE)
                        .findFirst())
                .orElseThrow(
                        () -> new IllegalArgumentException("the project has no package in which it could be played"));
    }
}
