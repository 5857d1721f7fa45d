package pyrite.core.exchange;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * A query of the Systems Modeling API (clause 7.1.4): which elements are wanted, by what their attributes are, and which of
 * their attributes.
 *
 * @param scope ids of the elements to look among; empty for all
 * @param select the attributes wanted, with id and type in any case; empty for all
 */
public record Query(Set<String> scope, List<String> select, Constraint where) {

    /** What an element must be like. */
    public sealed interface Constraint {
        boolean holds(Map<String, @Nullable Object> json);

        /** Any element. */
        record Any() implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                return true;
            }
        }

        /** One attribute compared with some values; for a list, whether one of it compares so. */
        record Primitive(String property, String operator, List<@Nullable Object> values, boolean inverse) implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                Object value = json.get(property);
                List<?> all = value instanceof List<?> list ? list : Collections.singletonList(value);
                return inverse != all.stream().anyMatch(each -> values.stream().anyMatch(wanted -> compares(each, wanted)));
            }

            private boolean compares(@Nullable Object value, @Nullable Object wanted) {
                if (operator.equals("=") || operator.equals("in")) {
                    return Objects.equals(identity(value), identity(wanted));
                }
                return value instanceof String a && wanted instanceof String b && (operator.equals("<") ? a.compareTo(b) < 0 : a.compareTo(b) > 0);
            }

            private static @Nullable Object identity(@Nullable Object value) {
                return value instanceof Map<?, ?> object ? object.get(ElementJson.ID) : value;
            }
        }

        /** All of some constraints, or any of them. */
        record Composite(boolean all, List<Constraint> parts) implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                return all ? parts.stream().allMatch(part -> part.holds(json)) : parts.stream().anyMatch(part -> part.holds(json));
            }
        }
    }

    /** @throws IllegalArgumentException if the JSON is no query, with what would be right */
    public static Query read(Map<String, @Nullable Object> json) {
        List<String> select = strings(json.get("select"));
        Set<String> scope = json.get("scope") instanceof List<?> list
                ? list.stream().map(each -> each instanceof Map<?, ?> object ? String.valueOf(object.get(ElementJson.ID)) : String.valueOf(each)).collect(Collectors.toSet())
                : Set.of();
        return new Query(scope, select, json.get("where") == null ? new Constraint.Any() : constraint(json.get("where")));
    }

    private static List<String> strings(@Nullable Object value) {
        return value instanceof List<?> list ? list.stream().map(String::valueOf).toList() : List.of();
    }

    private static Constraint constraint(@Nullable Object value) {
        if (!(value instanceof Map<?, ?> json)) {
            throw new IllegalArgumentException("a constraint is an object, a PrimitiveConstraint or a CompositeConstraint");
        }
        String operator = String.valueOf(json.get("operator"));
        if ("CompositeConstraint".equals(json.get(ElementJson.TYPE))) {
            if (!Set.of("and", "or").contains(operator) || !(json.get("constraint") instanceof List<?> parts)) {
                throw new IllegalArgumentException("a CompositeConstraint has the operator and or or, and a list called constraint");
            }
            return new Constraint.Composite(operator.equals("and"), parts.stream().map(Query::constraint).toList());
        }
        if (!Set.of("=", "in", "<", ">").contains(operator) || json.get("property") == null) {
            throw new IllegalArgumentException("a PrimitiveConstraint has a property, the operator =, in, < or >, and a value");
        }
        List<@Nullable Object> values = new ArrayList<>();
        if (json.get("value") instanceof List<?> list) {
            values.addAll(list);
        } else {
            values.add(json.get("value"));
        }
        return new Constraint.Primitive(String.valueOf(json.get("property")), operator, values, Boolean.TRUE.equals(json.get("inverse")));
    }

    /** The elements of a model that are wanted, in the order of their ids. */
    public List<Map<String, @Nullable Object>> on(Model model) {
        ElementJson writer = new ElementJson(model);
        return model.ownElements().stream().filter(element -> scope.isEmpty() || scope.contains(element.id().toString()))
                .sorted(Comparator.comparing(Element::id)).map(writer::write).filter(where::holds).map(this::selected).toList();
    }

    private Map<String, @Nullable Object> selected(Map<String, @Nullable Object> json) {
        if (select.isEmpty()) {
            return json;
        }
        Map<String, @Nullable Object> chosen = new LinkedHashMap<>();
        json.forEach((name, value) -> {
            if (name.equals(ElementJson.ID) || name.equals(ElementJson.TYPE) || select.contains(name)) {
                chosen.put(name, value);
            }
        });
        return chosen;
    }
}
