package pyrite.app.store;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** An element as the JSON text of its row; the id is a column of its own. */
final class ElementContent {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private ElementContent() {
    }

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
                yield JSON.createObjectNode().put("kind", featureValue.kind().name())
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

    /** @throws IllegalStateException if the row is not what {@link #write} made */
    static Element read(UUID id, String content) {
        try {
            JsonNode node = JSON.readTree(content);
            Map<Property<?>, Object> properties = new TreeMap<>();
            node.propertyStream().forEach(entry -> {
                Property<?> property = Property.withKey(entry.getKey());
                if (property != null) {
                    properties.put(property, read(property, entry.getValue()));
                }
            });
            String owner = text(node, "owner");
            return new Element(ElementId.of(id), ElementKind.valueOf(node.get("kind").asString()),
                    owner == null ? null : ElementId.parse(owner), new Rank(node.get("rank").asString()),
                    text(node, "name"), text(node, "short"), properties);
        } catch (RuntimeException e) {
            throw new IllegalStateException("element " + id + " cannot be read from the database", e);
        }
    }

    private static @Nullable String text(JsonNode node, String key) {
        JsonNode value = node.get(key);
        return value == null ? null : value.asString();
    }

    private static Object read(Property<?> property, JsonNode node) {
        return switch (property.shape()) {
            case TEXT, CHOICE -> node.asString();
            case FLAG -> node.asBoolean();
            case REFERENCE -> chain(node);
            case REFERENCES -> {
                List<Reference> references = new ArrayList<>();
                node.forEach(item -> references.add(chain(item)));
                yield List.copyOf(references);
            }
            case EXPRESSION -> StoredExpression.read(node.asString());
            case VALUE -> new FeatureValue(FeatureValue.Kind.valueOf(node.get("kind").asString()),
                    StoredExpression.read(node.get("expression").asString()));
            case MULTIPLICITY -> new Multiplicity(node.get(0).asInt(), node.get(1).asInt());
        };
    }

    private static Reference chain(JsonNode node) {
        List<ElementId> ids = new ArrayList<>();
        node.forEach(id -> ids.add(ElementId.parse(id.asString())));
        return new Reference(ids);
    }
}
