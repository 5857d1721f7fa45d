package pyrite.app.store;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.app.store.CheckpointWriter.Tag;
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

/** Decodes the output of {@link CheckpointWriter}. Equal values, ranks and property sets become shared objects. */
final class CheckpointReader {
    private static final Tag[] TAGS = Tag.values();

    private final byte[] bytes;
    private int at;
    private final ElementId[] ids;
    private final String[] words;
    private final StoredExpression.Form[] forms;
    private final Object[] values;
    private final List<Map<Property<?>, Object>> sets;
    /** By the words they are. */
    private final Rank[] ranks;

    private CheckpointReader(byte[] bytes) {
        this.bytes = bytes;
        int version = number();
        if (version != CheckpointWriter.VERSION) {
            throw new IllegalStateException("it is of version " + version);
        }
        ids = table(new ElementId[count()], this::id);
        words = table(new String[count()], this::text);
        forms = table(new StoredExpression.Form[count()], () -> new StoredExpression.Form(text()));
        values = new Object[count()];
        table(values, this::value);
        sets = new ArrayList<>(listed(count(), _ -> set()));
        ranks = new Rank[words.length];
    }

    /**
     * @throws IllegalStateException if these are not bytes of this version, whole and undamaged as far as that can be
     *     seen
     */
    static List<Element> read(byte[] bytes) {
        try {
            CheckpointReader tables = new CheckpointReader(bytes);
            List<Element> elements = tables.elements();
            if (tables.at != bytes.length) {
                throw new IllegalStateException("it goes on after its end");
            }
            return elements;
        } catch (IllegalArgumentException
                | IndexOutOfBoundsException
                | ClassCastException
                | NegativeArraySizeException fault) {
            throw new IllegalStateException("it is damaged: " + fault.getMessage(), fault);
        }
    }

    private static <T> T[] table(T[] entries, Supplier<T> next) {
        for (int i = 0; i < entries.length; i++) {
            entries[i] = next.get();
        }
        return entries;
    }

    private static <T> List<T> listed(int size, IntFunction<T> next) {
        List<T> list = new ArrayList<>(size);
        for (int i = 0; i < size; i++) {
            list.add(next.apply(i));
        }
        return list;
    }

    private int number() {
        int number = 0;
        for (int shift = 0; ; shift += 7) {
            byte next = bytes[at++];
            number |= (next & 0x7F) << shift;
            if (next >= 0) {
                return number;
            }
        }
    }

    /** The number of things that follow, each of at least one byte. */
    private int count() {
        int count = number();
        if (count < 0 || count > bytes.length - at) {
            throw new IllegalStateException("it breaks off");
        }
        return count;
    }

    private ElementId id() {
        ByteBuffer id = ByteBuffer.wrap(bytes, at, 2 * Long.BYTES);
        at += 2 * Long.BYTES;
        return new ElementId(id.getLong(), id.getLong());
    }

    private String text() {
        int length = count();
        String text = new String(bytes, at, length, StandardCharsets.UTF_8);
        at += length;
        return text;
    }

    private Object value() {
        return switch (TAGS[number()]) {
            case TEXT -> words[number()];
            case FLAG -> number() != 0;
            case MULTIPLICITY -> new Multiplicity(number(), number());
            case REFERENCE -> new Reference(ids());
            case REFERENCES -> List.copyOf(listed(count(), _ -> (Reference) values[number()]));
            case VALUE -> new FeatureValue(FeatureValue.Kind.valueOf(words[number()]), (Expression) values[number()]);
            case EXPRESSION -> forms[number()].with(ids(), listed(count(), _ -> words[number()]));
        };
    }

    private List<ElementId> ids() {
        int size = count();
        return size == 1 ? List.of(ids[number()]) : listed(size, _ -> ids[number()]);
    }

    private Map<Property<?>, Object> set() {
        Map<Property<?>, Object> set = new TreeMap<>();
        for (int left = count(); left > 0; left -= 2) {
            Property<?> property = Property.withKey(words[number()]);
            Object value = values[number()];
            if (property != null) {
                set.put(property, value);
            }
        }
        return set;
    }

    private List<Element> elements() {
        int size = count();
        List<Element> elements = new ArrayList<>(size);
        for (int i = 0; i < size; i++) {
            elements.add(element(ids[i]));
        }
        return elements;
    }

    private Element element(ElementId id) {
        ElementKind kind = ElementKind.valueOf(words[number()]);
        int owner = number();
        Rank rank = rank(number());
        String name = wordOrNone();
        String shortName = wordOrNone();
        int set = number();
        Element element =
                new Element(id, kind, owner == 0 ? null : ids[owner - 1], rank, name, shortName, sets.get(set));
        // The element has made it lean; who comes after takes the same.
        sets.set(set, element.properties());
        return element;
    }

    private @Nullable String wordOrNone() {
        int word = number();
        return word == 0 ? null : words[word - 1];
    }

    private Rank rank(int word) {
        Rank known = ranks[word];
        if (known == null) {
            known = new Rank(words[word]);
            ranks[word] = known;
        }
        return known;
    }
}
