package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Redefinitions;
import pyrite.core.model.Reference;

/**
 * One use of a feature deep inside a whole, as an element that can be changed by itself. Where the way to it leads
 * through features of definitions, each of them is redefined in what is around it, so that the definitions and their
 * other uses stay as they are (SysML 2.0, 7.6.5).
 *
 * @param model the model with these redefinitions
 * @param way from the whole to the use, each step a member of the one before
 * @param made the redefinitions and what is led to them; empty if there is nothing to redefine
 */
public record UseInContext(Model model, List<ElementId> way, List<Element> made) {
    public UseInContext {
        way = List.copyOf(way);
        made = List.copyOf(made);
    }

    /**
     * @param way ids from the whole inward, as the key of a box has them
     * @throws IllegalArgumentException if a feature on the way cannot be redefined
     */
    public static UseInContext of(Model model, List<ElementId> way) {
        Model next = model;
        List<Element> made = new ArrayList<>();
        Element around = model.get(way.getFirst());
        List<ElementId> own = new ArrayList<>(List.of(around.id()));
        for (ElementId step : way.subList(1, way.size())) {
            Element feature = at(next, around, step);
            if (!around.id().equals(feature.owner())) {
                Element redefinition = redefinition(next, around, feature);
                Edit edit = Redefinitions.nearest(next, Edit.put(redefinition));
                next = applied(next, edit, feature);
                made.addAll(edit.put());
                feature = redefinition;
            }
            around = feature;
            own.add(around.id());
        }
        return new UseInContext(next, own, made);
    }

    /** The definition that the inside of the part at the end comes from; the part itself if it has none. */
    public static UseInContext ofDefinition(Model model, List<ElementId> way) {
        Element definition = new Insides(model, Extent.DEFINITION).of(model.get(way.getLast()), List.of());
        return new UseInContext(model, List.of(definition.id()), List.of());
    }

    /** This use and another one. */
    public UseInContext and(List<ElementId> other) {
        UseInContext more = of(model, current(model, other));
        List<Element> all = new ArrayList<>(made);
        all.addAll(more.made);
        return new UseInContext(more.model, way, all);
    }

    /** The way as it leads now: by what takes the place of each step in what is around it. */
    public static List<ElementId> current(Model model, List<ElementId> way) {
        List<ElementId> now = new ArrayList<>(way.subList(0, 1));
        Element around = model.find(way.getFirst()).orElse(null);
        for (ElementId step : way.subList(1, way.size())) {
            around = around == null
                    ? null
                    : model.inheritance()
                            .effective(around, step)
                            .or(() -> model.find(step))
                            .orElse(null);
            now.add(around == null ? step : around.id());
        }
        return now;
    }

    /** Whether every step is a member of the one before, so that an edit of the last reaches this use alone. */
    public static boolean isOwn(Model model, List<ElementId> way) {
        for (int i = 1; i < way.size(); i++) {
            if (!way.get(i - 1).equals(model.get(way.get(i)).owner())) {
                return false;
            }
        }
        return true;
    }

    private static Element at(Model model, Element around, ElementId step) {
        return model.inheritance().effective(around, step).orElseGet(() -> model.get(step));
    }

    private static Element redefinition(Model model, Element around, Element feature) {
        return new Element(
                        ElementId.fresh(),
                        feature.kind(),
                        around.id(),
                        model.rankAtEnd(around.id()),
                        null,
                        null,
                        Map.of())
                .with(Property.REDEFINES, List.of(Reference.to(feature.id())));
    }

    private static Model applied(Model model, Edit edit, Element feature) {
        return switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> next;
            case EditResult.Refused(var problems) ->
                throw new IllegalArgumentException("'" + name(model, feature) + "' cannot differ in one use: "
                        + problems.getFirst().message());
        };
    }

    public Element element() {
        return model.get(way.getLast());
    }

    /** An edit of {@link #model} together with the redefinitions that it needs. */
    public Edit with(Edit edit) {
        return Edit.joined(List.of(new Edit(made, Set.of()), edit));
    }

    /** The names on the way, such as {@code unit.pump.motor}. */
    public String path() {
        return path(model, way);
    }

    public static String path(Model model, List<ElementId> way) {
        return way.stream().map(id -> name(model, model.get(id))).collect(Collectors.joining("."));
    }

    /** What became of the wish to leave a feature out of one use. */
    public sealed interface Without {
        record Made(Edit edit, String summary) implements Without {}

        record Refused(String reason) implements Without {}
    }

    /**
     * Leaves features out of one use: each gets the multiplicity 0, if its definition allows that.
     *
     * @param ways the way to each
     */
    public static Without without(Model model, List<List<ElementId>> ways) {
        List<Edit> edits = new ArrayList<>();
        List<String> summaries = new ArrayList<>();
        Model next = model;
        for (List<ElementId> way : ways) {
            switch (leftOut(next, current(next, way))) {
                case Without.Refused refused -> {
                    return refused;
                }
                case Without.Made(Edit edit, String summary) -> {
                    edits.add(edit);
                    summaries.add(summary);
                    next = ((EditResult.Applied) next.apply(edit)).model();
                }
            }
        }
        return new Without.Made(Edit.joined(edits), String.join("; ", summaries));
    }

    private static Without leftOut(Model model, List<ElementId> way) {
        Element feature = model.get(way.getLast());
        String owner = name(model, model.get(Objects.requireNonNull(feature.owner())));
        if (model.inheritance().multiplicity(feature).lower() > 0) {
            return new Without.Refused("every " + owner + " has '" + name(model, feature)
                    + "', so one use cannot leave it out; give it a multiplicity such as [0..1] in " + owner
                    + ", or remove it there");
        }
        UseInContext use = of(model, way);
        Edit edit = use.with(Edit.put(use.element().with(Property.MULTIPLICITY, new Multiplicity(0, 0))));
        String place = path(model, way.subList(0, way.size() - 1));
        return switch (model.apply(edit)) {
            case EditResult.Applied _ ->
                new Without.Made(
                        edit, name(model, feature) + " left out of " + place + " alone; " + owner + " keeps it");
            case EditResult.Refused(var problems) ->
                new Without.Refused(problems.getFirst().message());
        };
    }

    private static String name(Model model, Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
