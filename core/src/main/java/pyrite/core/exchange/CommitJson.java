package pyrite.core.exchange;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.ExplainedException;
import pyrite.core.expression.Expression;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationReader;

/**
 * Reads the changes of a commit from JSON: each names an element and gives its complete new state, or null to remove it
 * with all it owns (Systems Modeling API, DataVersion). New elements may refer to each other. Expressions are read
 * last, when everything they can name is known.
 */
public final class CommitJson {
    private final Model base;
    private final Map<ElementId, Element> put = new LinkedHashMap<>();
    private final Set<ElementId> removed = new HashSet<>();
    private final List<Pending> pending = new ArrayList<>();
    private final List<Fault> faults = new ArrayList<>();

    private CommitJson(Model base) {
        this.base = base;
    }

    /** One change: the element's id (null for a new element, whose payload may bring its own id) and its new state. */
    public record Change(
            @Nullable ElementId identity, @Nullable Map<String, @Nullable Object> payload) {}

    /** A fault in a change: the index of the change, the attribute, and a message that says what would be right. */
    public record Fault(int change, String attribute, String message) {}

    /** The resulting edit; empty if there are faults. */
    public record Read(Edit edit, List<Fault> faults) {}

    private record Pending(
            int change, ElementId element, Property<?> property, String text, FeatureValue.@Nullable Kind kind) {}

    private static final class Wrong extends ExplainedException {
        private final String attribute;

        Wrong(String attribute, String message) {
            super(message);
            this.attribute = attribute;
        }
    }

    /** The last rank given out, by the owner; empty for the top. */
    private final Map<Optional<ElementId>, Rank> lastOf = new HashMap<>();

    public static Read read(Model base, List<Change> changes) {
        CommitJson commit = new CommitJson(base);
        for (int i = 0; i < changes.size(); i++) {
            try {
                commit.take(i, changes.get(i));
            } catch (Wrong wrong) {
                commit.faults.add(new Fault(i, wrong.attribute, wrong.getMessage()));
            }
        }
        commit.expressions();
        return commit.faults.isEmpty()
                ? new Read(new Edit(List.copyOf(commit.put.values()), commit.removed), List.of())
                : new Read(new Edit(List.of(), Set.of()), commit.faults);
    }

    private void take(int number, Change change) {
        if (change.payload() == null) {
            if (change.identity() == null || !base.has(change.identity())) {
                throw new Wrong(
                        "identity", "a change without payload removes an element, but there is none with this id");
            }
            removed.add(change.identity());
            return;
        }
        Map<String, @Nullable Object> json = change.payload();
        Object own = json.get(ElementJson.ID);
        ElementId id = change.identity() != null
                ? change.identity()
                : own != null ? id(ElementJson.ID, own) : ElementId.fresh();
        if (own != null && !id(ElementJson.ID, own).equals(id)) {
            throw new Wrong(ElementJson.ID, "the payload has another id than the identity it is given for");
        }
        put.put(id, element(number, id, json));
    }

    private Element element(int number, ElementId id, Map<String, @Nullable Object> json) {
        ElementKind kind = kind(json);
        ElementId owner = json.get("owner") == null
                ? null
                : reference("owner", Objects.requireNonNull(json.get("owner"))).target();
        Element before = base.find(id).orElse(null);
        Rank rank = before != null && Objects.equals(before.owner(), owner) ? before.rank() : rank(owner);
        Element element = new Element(
                id, kind, owner, rank, text("declaredName", json), text("declaredShortName", json), Map.of());
        for (Map.Entry<String, @Nullable Object> entry : json.entrySet()) {
            element = with(number, element, entry.getKey(), entry.getValue());
        }
        return element;
    }

    /** Behind all that the owner has and that this commit gives it. */
    private Rank rank(@Nullable ElementId owner) {
        return lastOf.compute(
                Optional.ofNullable(owner),
                (_, last) -> last != null
                        ? Rank.between(last, null)
                        : owner != null && !base.has(owner) ? Rank.between(null, null) : base.rankAtEnd(owner));
    }

    private static ElementKind kind(Map<String, @Nullable Object> json) {
        String type = text(ElementJson.TYPE, json);
        if (type == null) {
            throw new Wrong(ElementJson.TYPE, "every payload has a type, for instance PartUsage");
        }
        String membership = null;
        String role = null;
        if (json.get(ElementJson.MEMBERSHIP) instanceof Map<?, ?> object) {
            membership = String.valueOf(object.get(ElementJson.TYPE));
            role = object.get("kind") == null ? null : String.valueOf(object.get("kind"));
        }
        Metaclass metaclass = new Metaclass(type, membership, role);
        return metaclass
                .kind()
                .or(() -> new Metaclass(type, null, null).kind())
                .orElseThrow(() -> new Wrong(
                        ElementJson.TYPE,
                        "there is no metaclass '" + type
                                + "' that can be written; examples are Package, PartDefinition, AttributeUsage"));
    }

    private Element with(int number, Element element, String name, @Nullable Object value) {
        if (value == null
                || ElementJson.DERIVED.contains(name)
                || Set.of(ElementJson.TYPE, ElementJson.MEMBERSHIP, "owner", "declaredName", "declaredShortName")
                        .contains(name)) {
            return element;
        }
        Property<?> property = ElementJson.withName(name);
        if (property == null || !element.kind().takes(property)) {
            throw new Wrong(
                    name,
                    element.kind().titleWithArticle() + " has no attribute '" + name + "'; it has "
                            + String.join(", ", ElementJson.attributes(element)));
        }
        return with(number, element, property, name, value);
    }

    @SuppressWarnings("unchecked")
    private Element with(int number, Element element, Property<?> property, String name, Object value) {
        return switch (property.shape()) {
            case TEXT, CHOICE -> element.with((Property<String>) property, string(name, value));
            case FLAG ->
                Boolean.TRUE.equals(flag(name, value)) ? element.with((Property<Boolean>) property, true) : element;
            case REFERENCE -> element.with((Property<Reference>) property, reference(name, value));
            case REFERENCES ->
                element.with(
                        (Property<List<Reference>>) property,
                        list(name, value).stream()
                                .map(each -> reference(name, each))
                                .toList());
            case MULTIPLICITY -> element.with((Property<Multiplicity>) property, multiplicity(name, value));
            case EXPRESSION -> {
                pending.add(new Pending(number, element.id(), property, string(name, value), null));
                yield element;
            }
            case VALUE -> {
                Map<String, Object> object = object(name, value);
                boolean initial = Boolean.TRUE.equals(object.get("isInitial"));
                boolean isDefault = Boolean.TRUE.equals(object.get("isDefault"));
                FeatureValue.Kind kind = isDefault
                        ? initial ? FeatureValue.Kind.DEFAULT_INITIAL : FeatureValue.Kind.DEFAULT
                        : initial ? FeatureValue.Kind.INITIAL : FeatureValue.Kind.FIXED;
                if (object.get("expression") == null) {
                    throw new Wrong(
                            name,
                            "a value is an object with an expression in the notation, for instance {\"expression\": \"12 [m]\"}");
                }
                pending.add(new Pending(number, element.id(), property, string(name, object.get("expression")), kind));
                yield element;
            }
        };
    }

    /** Reads the expressions, with the names of all that is put. */
    @SuppressWarnings("unchecked")
    private void expressions() {
        if (pending.isEmpty()) {
            return;
        }
        Model tentative = base.replay(base.difference(new Edit(List.copyOf(put.values()), removed)));
        for (Pending each : pending) {
            Element element = Objects.requireNonNull(put.get(each.element()));
            NotationReader.ExpressionReading reading = NotationReader.readExpression(
                    tentative, ElementJson.scope(tentative, element, each.property()), each.text());
            if (reading.expression() == null) {
                reading.problems()
                        .forEach(problem -> faults.add(new Fault(
                                each.change(),
                                ElementJson.nameOf(each.property()),
                                problem.message() + " (column " + problem.column() + " of the expression)")));
            } else {
                put.put(
                        element.id(),
                        each.kind() == null
                                ? element.with((Property<Expression>) each.property(), reading.expression())
                                : element.with(Property.VALUE, new FeatureValue(each.kind(), reading.expression())));
            }
        }
    }

    private static @Nullable String text(String name, Map<String, @Nullable Object> json) {
        Object value = json.get(name);
        return value == null ? null : string(name, value);
    }

    private static String string(String name, @Nullable Object value) {
        if (value instanceof String text) {
            return text;
        }
        throw new Wrong(name, "this is a text, not " + value);
    }

    private static Boolean flag(String name, Object value) {
        if (value instanceof Boolean flag) {
            return flag;
        }
        throw new Wrong(name, "this is true or false, not " + value);
    }

    private static List<?> list(String name, Object value) {
        if (value instanceof List<?> list) {
            return list;
        }
        throw new Wrong(name, "this is a list of references, each an object with an @id");
    }

    @SuppressWarnings("unchecked")
    private static Map<String, Object> object(String name, @Nullable Object value) {
        if (value instanceof Map<?, ?> map) {
            return (Map<String, Object>) map;
        }
        throw new Wrong(name, "this is an object, not " + value);
    }

    private static ElementId id(String name, @Nullable Object value) {
        try {
            return ElementId.parse(String.valueOf(value));
        } catch (IllegalArgumentException _) {
            throw new Wrong(name, "'" + value + "' is no UUID");
        }
    }

    private static Reference reference(String name, Object value) {
        Map<String, Object> object = object(name, value);
        if (object.get("chainingFeature") instanceof List<?> chain && !chain.isEmpty()) {
            return new Reference(chain.stream()
                    .map(each -> id(name, object(name, each).get(ElementJson.ID)))
                    .toList());
        }
        if (object.get(ElementJson.ID) == null) {
            throw new Wrong(name, "a reference is an object with an @id");
        }
        return Reference.to(id(name, object.get(ElementJson.ID)));
    }

    private static Multiplicity multiplicity(String name, Object value) {
        Map<String, Object> object = object(name, value);
        if (object.get("lowerBound") instanceof Number lower
                && (object.get("upperBound") instanceof Number || "*".equals(object.get("upperBound")))) {
            try {
                return new Multiplicity(
                        lower.intValue(),
                        object.get("upperBound") instanceof Number upper ? upper.intValue() : Multiplicity.MANY);
            } catch (IllegalArgumentException e) {
                throw new Wrong(name, Objects.requireNonNull(e.getMessage()));
            }
        }
        throw new Wrong(
                name, "a multiplicity is {\"lowerBound\": 0, \"upperBound\": 1}, with \"*\" above for any number");
    }
}
