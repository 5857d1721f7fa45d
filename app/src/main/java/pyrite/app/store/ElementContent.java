package pyrite.app.store;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.StoredExpression;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.TokenStreamFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The JSON text of an element's row; the id is a column of its own. */
final class ElementContent {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private ElementContent() {}

    static String write(Element element) {
        ObjectNode node = JSON.createObjectNode();
        node.put("kind", element.kind().name());
        node.put("rank", element.rank().digits());
        put(node, "owner", element.owner() == null ? null : element.owner().toString());
        put(node, "name", element.name());
        put(node, "short", element.shortName());
        element.properties().forEach((property, value) -> node.set(property.key(), write(property, value)));
        return node.toString();
    }

    private static void put(ObjectNode node, String key, @Nullable String value) {
        if (value != null) {
            node.put(key, value);
        }
    }

    private static JsonNode write(Property<?> property, Object value) {
        return switch (property.shape()) {
            case TEXT, CHOICE -> JSON.getNodeFactory().stringNode((String) value);
            case FLAG -> JSON.getNodeFactory().booleanNode((Boolean) value);
            case REFERENCE -> chain((Reference) value);
            case REFERENCES -> {
                ArrayNode array = JSON.createArrayNode();
                ((List<?>) value).forEach(reference -> array.add(chain((Reference) reference)));
                yield array;
            }
            case EXPRESSION -> JSON.getNodeFactory().stringNode(StoredExpression.write((Expression) value));
            case VALUE -> {
                FeatureValue featureValue = (FeatureValue) value;
                yield JSON.createObjectNode()
                        .put("kind", featureValue.kind().name())
                        .put("expression", StoredExpression.write(featureValue.expression()));
            }
            case MULTIPLICITY -> {
                Multiplicity multiplicity = (Multiplicity) value;
                yield JSON.createArrayNode().add(multiplicity.lower()).add(multiplicity.upper());
            }
        };
    }

    private static ArrayNode chain(Reference reference) {
        ArrayNode array = JSON.createArrayNode();
        reference.chain().forEach(id -> array.add(id.toString()));
        return array;
    }

    /** Decodes rows. Equal expressions become one object, because most values occur in many places. */
    static final class Reader {
        private static final TokenStreamFactory TOKENS = JSON.tokenStreamFactory();

        private final Map<String, Expression> known = new HashMap<>();

        /**
         * Reads token by token, because a branch may hold a hundred thousand of these.
         *
         * @throws IllegalStateException if the row is not what {@link ElementContent#write} made
         */
        Element read(UUID id, String content) {
            try (JsonParser json = TOKENS.createParser(ObjectReadContext.empty(), content)) {
                Parts parts = new Parts();
                json.nextToken();
                while (json.nextToken() == JsonToken.PROPERTY_NAME) {
                    String key = json.currentName();
                    json.nextToken();
                    parts.take(key, json);
                }
                return new Element(
                        ElementId.of(id),
                        Objects.requireNonNull(parts.kind, "its kind"),
                        parts.owner,
                        Objects.requireNonNull(parts.rank, "its rank"),
                        parts.name,
                        parts.shortName,
                        parts.properties);
            } catch (RuntimeException e) {
                throw new IllegalStateException("element " + id + " cannot be read from the database", e);
            }
        }

        /** The parts of an element read so far. */
        private final class Parts {
            private final Map<Property<?>, Object> properties = new TreeMap<>();
            private @Nullable ElementKind kind;
            private @Nullable ElementId owner;
            private @Nullable Rank rank;
            private @Nullable String name;
            private @Nullable String shortName;

            void take(String key, JsonParser json) {
                switch (key) {
                    case "kind" -> kind = ElementKind.valueOf(json.getString());
                    case "owner" -> owner = ElementId.parse(json.getString());
                    case "rank" -> rank = new Rank(json.getString());
                    case "name" -> name = json.getString();
                    case "short" -> shortName = json.getString();
                    default -> property(key, json);
                }
            }

            private void property(String key, JsonParser json) {
                Property<?> property = Property.withKey(key);
                if (property == null) {
                    json.skipChildren();
                } else {
                    properties.put(property, value(property, json));
                }
            }
        }

        private Object value(Property<?> property, JsonParser json) {
            return switch (property.shape()) {
                case TEXT, CHOICE -> json.getString();
                case FLAG -> json.getBooleanValue();
                case REFERENCE -> chain(json);
                case REFERENCES -> {
                    List<Reference> references = new ArrayList<>(1);
                    while (json.nextToken() != JsonToken.END_ARRAY) {
                        references.add(chain(json));
                    }
                    yield List.copyOf(references);
                }
                case EXPRESSION -> expression(json.getString());
                case VALUE -> featureValue(json);
                case MULTIPLICITY -> {
                    json.nextToken();
                    int lower = json.getIntValue();
                    json.nextToken();
                    int upper = json.getIntValue();
                    json.nextToken();
                    yield new Multiplicity(lower, upper);
                }
            };
        }

        private FeatureValue featureValue(JsonParser json) {
            FeatureValue.Kind kind = null;
            String expression = null;
            while (json.nextToken() == JsonToken.PROPERTY_NAME) {
                String key = json.currentName();
                json.nextToken();
                if (key.equals("kind")) {
                    kind = FeatureValue.Kind.valueOf(json.getString());
                } else {
                    expression = json.getString();
                }
            }
            return new FeatureValue(
                    Objects.requireNonNull(kind, "the kind of its value"),
                    expression(Objects.requireNonNull(expression, "its value")));
        }

        private Expression expression(String text) {
            return known.computeIfAbsent(text, StoredExpression::read);
        }

        private static Reference chain(JsonParser json) {
            List<ElementId> ids = new ArrayList<>(1);
            while (json.nextToken() != JsonToken.END_ARRAY) {
                ids.add(ElementId.parse(json.getString()));
            }
            return new Reference(ids);
        }
    }
}
