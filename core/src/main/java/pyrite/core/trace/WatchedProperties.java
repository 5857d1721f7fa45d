package pyrite.core.trace;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.StoredExpression;
import pyrite.core.specification.Attributes;

/**
 * The properties of a link end that link rules can watch: its {@code name}, {@code text}, {@code constraint} (with the
 * values it compares with), {@code type}, {@code value} of its own features, {@code parameters}, or an attribute by
 * name.
 */
final class WatchedProperties {
    private final Model model;
    private final Attributes attributes;

    WatchedProperties(Model model) {
        this.model = model;
        this.attributes = Attributes.in(model);
    }

    /**
     * The state of an end, to be compared only: references stand in it as ids, so that a rename is no change. Empty
     * ones are left out.
     */
    Map<String, String> state(Element end, Set<String> properties) {
        return states(end, properties, false);
    }

    /** The same to be read. */
    String readable(Element end, String property) {
        return of(end, property, true);
    }

    private Map<String, String> states(Element end, Set<String> properties, boolean readable) {
        Map<String, String> state = new TreeMap<>();
        for (String property : properties) {
            String value = of(end, property, readable);
            if (!value.isEmpty()) {
                state.put(property, value);
            }
        }
        return state;
    }

    private String of(Element end, String property, boolean readable) {
        return switch (property) {
            case "name" -> Objects.requireNonNullElse(model.names().effectiveName(end), "");
            case "text" -> model.inheritance().documentation(end);
            case "type" -> types(end, readable);
            case "parameters" -> lines(parameters(end, readable));
            case "constraint" ->
                pyrite.core.specification.Specification.isRequirement(end)
                        ? lines(Stream.concat(constraints(end, readable), values(end, readable)))
                        : "";
            case "value" ->
                pyrite.core.specification.Specification.isRequirement(end) ? "" : lines(values(end, readable));
            default ->
                pyrite.core.specification.Specification.isRequirement(end) ? attributes.value(end, property) : "";
        };
    }

    private String types(Element feature, boolean readable) {
        return feature.references(Property.TYPES).stream()
                .map(type -> readable
                        ? Objects.toString(model.names().effectiveName(model.get(type.target())), "")
                        : type.target().toString())
                .collect(Collectors.joining(", "));
    }

    private Stream<String> parameters(Element end, boolean readable) {
        return model.children(end.id()).stream()
                .flatMap(child -> child.get(Property.DIRECTION).stream()
                        .map(direction ->
                                direction + " " + (readable ? model.names().effectiveName(child) : child.id())
                                        + " : " + types(child, readable)
                                        + child.get(Property.MULTIPLICITY)
                                                .map(multiplicity -> " [" + multiplicity + "]")
                                                .orElse("")));
    }

    private static String lines(Stream<String> lines) {
        return lines.collect(Collectors.joining("\n"));
    }

    private Stream<String> constraints(Element end, boolean readable) {
        return model.children(end.id()).stream()
                .filter(child -> child.kind() == ElementKind.REQUIRED_CONSTRAINT
                        || child.kind() == ElementKind.ASSUMED_CONSTRAINT)
                .flatMap(child -> Stream.concat(
                        child.get(Property.RESULT).map(result -> text(child, result, readable)).stream(),
                        child
                                .get(Property.TARGET)
                                .map(target -> readable
                                        ? Objects.toString(model.names().effectiveName(model.get(target.target())), "")
                                        : target.toString())
                                .stream()));
    }

    private Stream<String> values(Element end, boolean readable) {
        return model.children(end.id()).stream()
                .filter(child -> child.kind() == ElementKind.ATTRIBUTE)
                .flatMap(child -> child.get(Property.VALUE).stream()
                        .map(value -> (readable ? model.names().effectiveName(child) : child.id()) + " "
                                + value.kind().sign() + " " + text(child, value, readable)));
    }

    private String text(Element holder, FeatureValue value, boolean readable) {
        return text(holder, value.expression(), readable);
    }

    private String text(Element holder, Expression expression, boolean readable) {
        return readable
                ? NotationWriter.expression(model, expression, holder.id())
                : StoredExpression.write(expression);
    }

    static List<String> differing(Map<String, String> then, Map<String, String> now) {
        return Stream.concat(then.keySet().stream(), now.keySet().stream())
                .distinct()
                .sorted()
                .filter(property -> !Objects.equals(then.get(property), now.get(property)))
                .toList();
    }
}
