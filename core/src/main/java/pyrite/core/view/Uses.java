package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** The uses of an element: every reference to it in the model, with the relation. */
public final class Uses {
    private static final Map<Property<?>, String> WORDS = Map.ofEntries(
            Map.entry(Property.TYPES, "types"),
            Map.entry(Property.SPECIALIZES, "is specialised by"),
            Map.entry(Property.REDEFINES, "is redefined by"),
            Map.entry(Property.REFERS, "is referred to by"),
            Map.entry(Property.VALUE, "is in the value of"),
            Map.entry(Property.BOUNDS, "is in the multiplicity of"),
            Map.entry(Property.RESULT, "is in the expression of"),
            Map.entry(Property.LEFT, "is bound by"),
            Map.entry(Property.RIGHT, "is bound by"),
            Map.entry(Property.BY, "is what satisfies in"),
            Map.entry(Property.GUARD, "is in the guard of"),
            Map.entry(Property.SOURCE, "is where it begins:"),
            Map.entry(Property.CLIENTS, "depends on something:"),
            Map.entry(Property.SUPPLIERS, "is depended on by"),
            Map.entry(Property.MARKS, "marks"),
            Map.entry(Property.ABOUT, "is what it is about:"));

    private Uses() {}

    /** @param relation reads on from the element to what uses it: "types", "is in the value of" */
    public record Use(String relation, Element element) {}

    /** All uses, by relation and then by where they are. The order is the same each time. */
    public static List<Use> of(Model model, ElementId id) {
        record Placed(Use use, String place) {}

        List<Placed> uses = new ArrayList<>();
        model.referrers(id).stream()
                .map(model::get)
                .forEach(user -> user.properties().forEach((property, value) -> {
                    if (holds(value, id)) {
                        uses.add(new Placed(
                                new Use(WORDS.getOrDefault(property, "is named by"), user),
                                model.names().qualifiedName(user)));
                    }
                }));
        return uses.stream()
                .sorted(Comparator.comparing((Placed each) -> each.use().relation())
                        .thenComparing(Placed::place)
                        .thenComparing(each -> each.use().element().id()))
                .map(Placed::use)
                .toList();
    }

    private static boolean holds(Object value, ElementId id) {
        return switch (value) {
            case Reference reference -> reference.chain().contains(id);
            case List<?> list -> list.stream().anyMatch(each -> holds(each, id));
            case FeatureValue featureValue -> holds(featureValue.expression(), id);
            case Expression expression -> expression.referents().contains(id);
            default -> false;
        };
    }
}
