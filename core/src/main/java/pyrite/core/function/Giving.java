package pyrite.core.function;

import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Gives functions to parts and takes them back: a {@code perform action} in what the part is defined by, so that every
 * use of it performs the function.
 *
 * <p>Both throw an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class Giving {
    private Giving() {}

    public record Made(Edit edit, String summary) {}

    /** @param function an action definition, or a usage that stands for its definition */
    public static Made give(Model model, Element function, Element part) {
        Element definition = definition(model, function);
        Element owner = owner(model, part);
        if (!performs(model, part, definition).isEmpty()) {
            throw new IllegalArgumentException(
                    "'" + name(model, part) + "' performs '" + name(model, definition) + "' already");
        }
        if (!owner.kind().mayOwn(ElementKind.PERFORM) || owner.kind().isPackage() || FunctionTree.isFunction(owner)) {
            throw new IllegalArgumentException("a part performs functions, and '" + name(model, part) + "' is "
                    + part.kind().titleWithArticle());
        }
        Element perform = new Element(
                        ElementId.fresh(),
                        ElementKind.PERFORM,
                        owner.id(),
                        model.rankAtEnd(owner.id()),
                        freeName(model, part, lower(name(model, definition))),
                        null,
                        Map.of())
                .with(Property.TYPES, List.of(Reference.to(definition.id())));
        return new Made(Edit.put(perform), name(model, owner) + " performs " + name(model, definition));
    }

    public static Made take(Model model, Element function, Element part) {
        Element definition = definition(model, function);
        List<Element> performs = performs(model, part, definition);
        if (performs.isEmpty()) {
            throw new IllegalArgumentException(
                    "'" + name(model, part) + "' no longer performs '" + name(model, definition) + "'");
        }
        Element owner = owner(model, part);
        Set<ElementId> own = new HashSet<>();
        performs.stream()
                .filter(perform ->
                        owner.id().equals(perform.owner()) || part.id().equals(perform.owner()))
                .forEach(perform -> own.add(perform.id()));
        if (own.isEmpty()) {
            throw new IllegalArgumentException("'" + name(model, part) + "' has this function from '"
                    + name(
                            model,
                            model.get(Objects.requireNonNull(performs.getFirst().owner())))
                    + "'; take it away there");
        }
        return new Made(
                new Edit(List.of(), own), name(model, owner) + " no longer performs " + name(model, definition));
    }

    private static List<Element> performs(Model model, Element part, Element definition) {
        return model.inheritance().features(part).stream()
                .filter(feature -> feature.kind() == ElementKind.PERFORM
                        && model.inheritance().generals(feature).contains(definition))
                .toList();
    }

    private static Element definition(Model model, Element function) {
        Element definition = function.kind() == ElementKind.ACTION_DEFINITION
                ? function
                : FunctionTree.isFunction(function) ? type(model, function) : null;
        if (definition == null) {
            throw new IllegalArgumentException("'" + name(model, function)
                    + "' has no action definition; give it one, so that a part can perform it");
        }
        return definition;
    }

    private static @Nullable Element type(Model model, Element function) {
        return model.inheritance().generals(function).stream()
                .filter(general -> general.kind() == ElementKind.ACTION_DEFINITION && !model.isLibrary(general.id()))
                .findFirst()
                .orElse(null);
    }

    /** What a part is defined by; itself if it is a definition or has none. */
    private static Element owner(Model model, Element part) {
        return part.kind().isDefinition()
                ? part
                : model.inheritance().generals(part).stream()
                        .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                        .findFirst()
                        .orElse(part);
    }

    private static String freeName(Model model, Element part, String wished) {
        Set<String> taken = new HashSet<>(model.names().membersOf(part.id()));
        taken.addAll(model.names().membersOf(owner(model, part).id()));
        return Names.free(taken, wished);
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    private static String name(Model model, Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }
}
