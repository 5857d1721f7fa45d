package pyrite.core.exchange;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/**
 * A query of the Systems Modeling API (clause 7.1.4): which elements are requested, by the values of their attributes,
 * and which of their attributes.
 *
 * @param scope ids of the elements to search; empty for all
 * @param select the attributes requested, besides id and type; empty for all
 * @param orderBy the attributes to order by, most significant first; elements without the attribute come last, and
 *     equal ones are ordered by id
 */
public record Query(Set<String> scope, Set<String> select, Constraint where, List<String> orderBy) {
    /** Each of them is asked of every element. */
    private static final int MOST_CONDITIONS = 200;

    private static final int MOST_LIMITS = 10;

    /** A condition on an element. */
    public sealed interface Constraint {
        boolean holds(Map<String, @Nullable Object> json);

        /** Any element. */
        record Any() implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                return true;
            }
        }

        /** Compares one attribute with values; a list matches if one of its items does. */
        record Primitive(String property, String operator, Set<@Nullable Object> values, boolean inverse)
                implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                Object value = json.get(property);
                List<?> all = value instanceof List<?> list ? list : Collections.singletonList(value);
                return inverse != all.stream().anyMatch(this::isAmongValues);
            }

            private boolean isAmongValues(@Nullable Object value) {
                return operator.equals("=") || operator.equals("in")
                        ? values.contains(identity(value))
                        : values.stream().anyMatch(requested -> compares(value, requested));
            }

            private boolean compares(@Nullable Object value, @Nullable Object requested) {
                boolean alike = value instanceof String && requested instanceof String
                        || value instanceof Number && requested instanceof Number;
                return alike && (operator.equals("<") ? compare(value, requested) < 0 : compare(value, requested) > 0);
            }
        }

        /** A conjunction or disjunction of constraints. */
        record Composite(boolean all, List<Constraint> parts) implements Constraint {
            @Override
            public boolean holds(Map<String, @Nullable Object> json) {
                return all
                        ? parts.stream().allMatch(part -> part.holds(json))
                        : parts.stream().anyMatch(part -> part.holds(json));
            }
        }
    }

    /** @throws IllegalArgumentException if the JSON is no query, with what would be right */
    public static Query read(Map<String, @Nullable Object> json) {
        List<String> select = strings(json.get("select"));
        Set<String> scope = json.get("scope") instanceof List<?> list
                ? list.stream()
                        .map(each -> each instanceof Map<?, ?> object
                                ? String.valueOf(object.get(ElementJson.ID))
                                : String.valueOf(each))
                        .collect(Collectors.toSet())
                : Set.of();
        Constraint where = json.get("where") == null ? new Constraint.Any() : constraint(json.get("where"));
        List<String> orderBy = strings(json.get("orderBy"));
        if (conditions(where) > MOST_CONDITIONS || orderBy.size() > MOST_CONDITIONS) {
            throw new IllegalArgumentException("a query has at most " + MOST_CONDITIONS
                    + " constraints and attributes to order by; values of one attribute stand in one constraint");
        }
        return new Query(scope, Set.copyOf(select), where, orderBy);
    }

    private static int conditions(Constraint constraint) {
        return constraint instanceof Constraint.Composite composite
                ? 1 + composite.parts().stream().mapToInt(Query::conditions).sum()
                : 1;
    }

    private static List<String> strings(@Nullable Object value) {
        return value instanceof List<?> list
                ? list.stream().map(String::valueOf).toList()
                : List.of();
    }

    private static Constraint constraint(@Nullable Object value) {
        if (!(value instanceof Map<?, ?> json)) {
            throw new IllegalArgumentException(
                    "a constraint is an object, a PrimitiveConstraint or a CompositeConstraint");
        }
        String operator = String.valueOf(json.get("operator"));
        if ("CompositeConstraint".equals(json.get(ElementJson.TYPE))) {
            if (!Set.of("and", "or").contains(operator) || !(json.get("constraint") instanceof List<?> parts)) {
                throw new IllegalArgumentException(
                        "a CompositeConstraint has the operator and or or, and a list called constraint");
            }
            return new Constraint.Composite(
                    operator.equals("and"),
                    parts.stream().map(Query::constraint).toList());
        }
        if (!Set.of("=", "in", "<", ">").contains(operator) || json.get("property") == null) {
            throw new IllegalArgumentException(
                    "a PrimitiveConstraint has a property, the operator =, in, < or >, and a value");
        }
        List<?> given = json.get("value") instanceof List<?> list ? list : Collections.singletonList(json.get("value"));
        Set<@Nullable Object> values = new HashSet<>();
        given.forEach(each -> values.add(identity(each)));
        if (Set.of("<", ">").contains(operator) && values.size() > MOST_LIMITS) {
            throw new IllegalArgumentException("a comparison with < or > has at most " + MOST_LIMITS + " values");
        }
        return new Constraint.Primitive(
                String.valueOf(json.get("property")), operator, values, Boolean.TRUE.equals(json.get("inverse")));
    }

    /** All elements of a model that are wanted, in their order. */
    public List<Map<String, @Nullable Object>> on(Model model) {
        return on(model, null, Integer.MAX_VALUE);
    }

    /**
     * The elements of a model that are wanted, page by page.
     *
     * @param after the last element of the page before; null for the first page
     * @throws IllegalArgumentException if the elements are ordered by an attribute and {@code after} is none of them
     */
    public List<Map<String, @Nullable Object>> on(Model model, @Nullable ElementId after, int most) {
        ElementJson writer = new ElementJson(model);
        boolean byId = orderBy.isEmpty();
        Stream<Map<String, @Nullable Object>> found = model.ownElements().stream()
                .filter(element ->
                        scope.isEmpty() || scope.contains(element.id().toString()))
                .filter(element -> !byId || after == null || element.id().compareTo(after) > 0)
                .sorted(Comparator.comparing(Element::id))
                .map(writer::write)
                .filter(where::holds);
        List<Map<String, @Nullable Object>> page =
                byId ? found.limit(most).toList() : ordered(found.toList(), after, most);
        return page.stream().map(this::selected).toList();
    }

    private List<Map<String, @Nullable Object>> ordered(
            List<Map<String, @Nullable Object>> found, @Nullable ElementId after, int most) {
        List<Map<String, @Nullable Object>> all = new ArrayList<>(found);
        all.sort(orderBy.stream()
                .map(Query::by)
                .reduce(Comparator::thenComparing)
                .orElseThrow());
        int from = 0;
        if (after != null) {
            from = all.stream().map(json -> json.get(ElementJson.ID)).toList().indexOf(after.toString()) + 1;
            if (from == 0) {
                throw new IllegalArgumentException(
                        "the element " + after + " is not among what the query finds; begin with the first page");
            }
        }
        return all.subList(from, (int) Math.min(all.size(), (long) from + most));
    }

    private static Comparator<Map<String, @Nullable Object>> by(String attribute) {
        return Comparator.comparing(json -> json.get(attribute), Comparator.nullsLast(Query::compare));
    }

    /** Numbers by their size, all else as text; of a list its first counts, of an element its id. */
    private static int compare(@Nullable Object left, @Nullable Object right) {
        Object a = first(left);
        Object b = first(right);
        return a instanceof Number x && b instanceof Number y
                ? Double.compare(x.doubleValue(), y.doubleValue())
                : String.valueOf(a).compareTo(String.valueOf(b));
    }

    private static @Nullable Object first(@Nullable Object value) {
        return value instanceof List<?> list ? list.isEmpty() ? "" : identity(list.getFirst()) : identity(value);
    }

    private static @Nullable Object identity(@Nullable Object value) {
        return value instanceof Map<?, ?> object ? object.get(ElementJson.ID) : value;
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
