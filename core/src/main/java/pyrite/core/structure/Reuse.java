package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** Puts a definition to use in a part: makes a usage typed by it, unless the part would then contain itself. */
public final class Reuse {
    private final Model model;

    private Reuse(Model model) {
        this.model = model;
    }

    /** What became of a wish to use a definition somewhere. */
    public sealed interface Result {
        record Made(Edit edit, ElementId usage, String summary) implements Result {}

        record Refused(String reason) implements Result {}
    }

    /** @param into a definition, usage or package */
    public static Result of(Model model, Element definition, Element into) {
        return new Reuse(model).use(definition, into, Extent.DEFINITION);
    }

    /**
     * @param into the way to the part that gets it
     * @throws IllegalArgumentException if a part on the way cannot be redefined
     */
    public static Result of(Model model, Element definition, List<ElementId> into, Extent extent) {
        if (extent == Extent.DEFINITION) {
            return of(model, definition, model.get(into.getLast()));
        }
        UseInContext use = UseInContext.of(model, into);
        return switch (new Reuse(use.model()).use(definition, use.element(), extent)) {
            case Result.Made(Edit edit, ElementId usage, String summary) ->
                new Result.Made(use.with(edit), usage, summary);
            case Result.Refused refused -> refused;
        };
    }

    private Result use(Element definition, Element into, Extent extent) {
        ElementKind kind = definition.kind().isDefinition()
                ? ElementKind.declaredBy(definition.kind().keyword(), false).orElse(null)
                : null;
        if (kind == null) {
            return new Result.Refused("only a definition can be used, and '" + name(definition) + "' is "
                    + definition.kind().titleWithArticle());
        }
        Insides insides = new Insides(model, extent);
        Element owner = insides.of(into, List.of());
        if (!owner.kind().mayOwn(kind)) {
            return new Result.Refused("'" + name(owner) + "' is " + owner.kind().titleWithArticle()
                    + " and cannot have " + kind.titleWithArticle());
        }
        List<Element> way = wayTo(owner, definition, new ArrayList<>());
        if (!way.isEmpty()) {
            return new Result.Refused("'" + name(owner) + "' would contain itself: "
                    + way.stream().map(this::name).collect(Collectors.joining(" has "))
                    + "; make it a reference instead");
        }
        Element usage = new Element(
                        ElementId.fresh(),
                        kind,
                        owner.id(),
                        model.rankAtEnd(owner.id()),
                        insides.freeName(owner, usageName(definition)),
                        null,
                        Map.of())
                .with(Property.TYPES, List.of(Reference.to(definition.id())));
        Edit edit = new Edit(List.of(usage), Set.of());
        return switch (model.apply(edit)) {
            case EditResult.Applied _ ->
                new Result.Made(
                        edit,
                        usage.id(),
                        kind.title() + " " + usage.name() + " : " + name(definition) + " added to " + name(owner));
            case EditResult.Refused(var problems) ->
                new Result.Refused(problems.getFirst().message());
        };
    }

    /** The chain of definitions from the owner by way of the new usage back to the owner; empty if there is none. */
    private List<Element> wayTo(Element owner, Element definition, List<Element> seen) {
        if (owner.kind().isPackage()) {
            return List.of();
        }
        if (owner.kind().isDefinition() && model.inheritance().isA(definition, owner.id())) {
            return List.of(owner, definition);
        }
        seen.add(definition);
        for (Element feature : model.inheritance().features(definition)) {
            boolean isComposite = (feature.kind() == ElementKind.PART || feature.kind() == ElementKind.ITEM)
                    && !feature.get(Property.REFERENTIAL).orElse(false);
            Element type = isComposite ? type(feature) : null;
            if (type != null && !seen.contains(type)) {
                List<Element> rest = wayTo(owner, type, seen);
                if (!rest.isEmpty()) {
                    List<Element> way = new ArrayList<>(List.of(owner, definition));
                    way.addAll(rest.subList(1, rest.size()));
                    return way;
                }
            }
        }
        return List.of();
    }

    private @Nullable Element type(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .findFirst()
                .orElse(null);
    }

    /** {@code HydraulicPump} gives {@code hydraulicPump}. */
    private String usageName(Element definition) {
        String name = name(definition);
        return name.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + name.substring(1);
    }

    private String name(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
