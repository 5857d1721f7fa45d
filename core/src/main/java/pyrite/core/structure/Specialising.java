package pyrite.core.structure;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Redefinitions;
import pyrite.core.model.Reference;

/**
 * Takes up an inherited feature where it is inherited: redefined to say more of it, or subset by one that is some of
 * it.
 */
public final class Specialising {
    private Specialising() {}

    /** What became of the wish. */
    public sealed interface Result {
        record Made(Edit edit, ElementId feature, String summary) implements Result {}

        record Refused(String reason) implements Result {}
    }

    public static Result redefine(Model model, Element holder, Element feature) {
        String name = name(model, feature);
        if (holder.id().equals(feature.owner())) {
            return new Result.Refused("'" + name + "' is its own already; only what is inherited is redefined");
        }
        Element made = like(model, holder, feature, null).with(Property.REDEFINES, List.of(Reference.to(feature.id())));
        return checked(model, made, name + " redefined in " + name(model, holder));
    }

    /** @param name of the new feature */
    public static Result subset(Model model, Element holder, Element feature, String name) {
        if (name.isBlank()) {
            return new Result.Refused("what subsets '" + name(model, feature) + "' has a name of its own");
        }
        Element made = like(model, holder, feature, name.strip())
                .with(Property.SPECIALIZES, List.of(Reference.to(feature.id())));
        return checked(
                model, made, name.strip() + " added to " + name(model, holder) + ", some of " + name(model, feature));
    }

    private static Element like(Model model, Element holder, Element feature, @Nullable String name) {
        return new Element(
                ElementId.fresh(), feature.kind(), holder.id(), model.rankAtEnd(holder.id()), name, null, Map.of());
    }

    private static Result checked(Model model, Element made, String summary) {
        Edit edit = Redefinitions.nearest(model, Edit.put(made));
        return switch (model.apply(edit)) {
            case EditResult.Applied _ -> new Result.Made(edit, made.id(), summary);
            case EditResult.Refused(var problems) ->
                new Result.Refused(problems.getFirst().message());
        };
    }

    private static String name(Model model, Element element) {
        return String.valueOf(model.names().effectiveName(element));
    }
}
