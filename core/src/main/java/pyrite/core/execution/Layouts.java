package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;

/** The attributes of the types of items, and what an item is made of. */
final class Layouts {
    private final Model model;
    private final Flattening flattening;
    private final Map<ElementId, Item.Layout> known = new HashMap<>();

    Layouts(Model model, Flattening flattening) {
        this.model = model;
        this.flattening = flattening;
    }

    /** An item that is made, with what gives each attribute its value; null where nothing does. */
    record Made(Item.Layout layout, List<@Nullable Formula> values) {}

    Item.Layout of(Element type) {
        return known.computeIfAbsent(type.id(), _ -> {
            List<Element> attributes = model.inheritance().features(type).stream()
                    .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE && !model.isLibrary(feature.id()))
                    .toList();
            Map<ElementId, Integer> places = new HashMap<>();
            for (int i = 0; i < attributes.size(); i++) {
                for (Element each : model.inheritance().redefined(attributes.get(i))) {
                    places.put(each.id(), i);
                }
            }
            return new Item.Layout(type, attributes, places);
        });
    }

    /** What an expression makes; null if it makes nothing. */
    @Nullable
    Made made(Expression expression, Instance scope) {
        return switch (expression) {
            case Expression.Construction(var type, List<Expression> arguments, var _) ->
                made((ElementId) type, arguments, scope);
            case Expression.Invocation(var type, List<Expression> arguments, var _)
            when type instanceof ElementId id
                    && model.get(id).kind().isDefinition()
                    && model.environment().function(type).isEmpty() -> made(id, arguments, scope);
            default -> null;
        };
    }

    private Made made(ElementId id, List<Expression> arguments, Instance scope) {
        Element type = model.get(id);
        flattening.noteRead(type);
        Item.Layout layout = of(type);
        List<String> features = model.inheritance().features(type).stream()
                .filter(feature -> feature.kind().isFeature() && !Names.isPrivate(feature))
                .map(model.names()::effectiveName)
                .toList();
        Map<String, Expression> given = new HashMap<>();
        for (int i = 0; i < arguments.size(); i++) {
            if (arguments.get(i) instanceof Expression.NamedArgument(String name, Expression value, var _)) {
                given.put(name, value);
            } else if (i < features.size()) {
                given.put(features.get(i), arguments.get(i));
            }
        }
        Instance sample = flattening.sample(type, scope);
        List<@Nullable Formula> values = new ArrayList<>();
        for (Element attribute : layout.attributes()) {
            Expression value = given.get(model.names().effectiveName(attribute));
            values.add(
                    value != null
                            ? number(attribute, value, scope)
                            : model.inheritance()
                                    .value(attribute)
                                    .map(usual -> number(attribute, usual.expression(), sample))
                                    .orElse(null));
        }
        return new Made(layout, values);
    }

    /** Only numbers and conditions travel; other values are left out. */
    private @Nullable Formula number(Element attribute, Expression value, Instance scope) {
        Type type = model.environment().typeOf(attribute.id());
        if (!(type instanceof Type.Number || type instanceof Type.Truth)) {
            return null;
        }
        flattening.takeDraws();
        return new Formula(
                flattening.momentaryNumber(value, scope, type instanceof Type.Truth), flattening.takeDraws());
    }
}
