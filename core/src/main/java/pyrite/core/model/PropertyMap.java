package pyrite.core.model;

import java.util.AbstractMap;
import java.util.AbstractSet;
import java.util.Iterator;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The properties of one element in the order of their keys, immutable. An element has one to four as a rule, so they stand
 * in two short arrays that are searched from the front: a tenth of the memory of a tree, and quicker.
 */
final class PropertyMap extends AbstractMap<Property<?>, Object> {
    private static final PropertyMap EMPTY = new PropertyMap(new Property<?>[0], new Object[0]);

    private final Property<?>[] keys;
    private final Object[] values;

    private PropertyMap(Property<?>[] keys, Object[] values) {
        this.keys = keys;
        this.values = values;
    }

    static PropertyMap copyOf(Map<Property<?>, Object> properties) {
        if (properties instanceof PropertyMap same) {
            return same;
        }
        if (properties.isEmpty()) {
            return EMPTY;
        }
        Map<Property<?>, Object> ordered = properties.size() == 1 || properties instanceof SortedMap ? properties : new TreeMap<>(properties);
        Property<?>[] keys = new Property<?>[ordered.size()];
        Object[] values = new Object[keys.length];
        int place = 0;
        for (Map.Entry<Property<?>, Object> entry : ordered.entrySet()) {
            keys[place] = entry.getKey();
            values[place++] = entry.getValue();
        }
        return new PropertyMap(keys, values);
    }

    @Override
    public @Nullable Object get(Object key) {
        for (int i = 0; i < keys.length; i++) {
            if (keys[i] == key) {
                return values[i];
            }
        }
        return null;
    }

    @Override
    public boolean containsKey(Object key) {
        return get(key) != null;
    }

    @Override
    public int size() {
        return keys.length;
    }

    @Override
    public Set<Entry<Property<?>, Object>> entrySet() {
        return new Entries();
    }

    Property<?> key(int place) {
        return keys[place];
    }

    Object value(int place) {
        return values[place];
    }

    private final class Entries extends AbstractSet<Entry<Property<?>, Object>> {
        @Override
        public int size() {
            return keys.length;
        }

        @Override
        public Iterator<Entry<Property<?>, Object>> iterator() {
            return new Iterator<>() {
                private int next;

                @Override
                public boolean hasNext() {
                    return next < keys.length;
                }

                @Override
                public Entry<Property<?>, Object> next() {
                    if (!hasNext()) {
                        throw new NoSuchElementException();
                    }
                    return Map.entry(keys[next], values[next++]);
                }
            };
        }
    }
}
