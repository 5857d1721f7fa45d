package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NoSuchElementException;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class PropertyMapTest {
    private static final List<Property<?>> PROPERTIES = List.of(
            Property.TEXT, Property.TYPES, Property.ABSTRACT, Property.DIRECTION, Property.VALUE, Property.THEN);

    /**
     * Against a sorted map of the same steps, of which every third takes a property out; each map stays as it was when
     * others are made from it.
     */
    @net.jqwik.api.Property(tries = 300)
    void holdsWhatASortedMapHoldsAndEarlierOnesStay(@ForAll @Size(max = 20) List<@IntRange(max = 17) Integer> steps) {
        PropertyMap map = PropertyMap.EMPTY;
        TreeMap<Property<?>, Object> expected = new TreeMap<>();
        List<PropertyMap> maps = new ArrayList<>();
        List<Map<Property<?>, Object>> before = new ArrayList<>();
        for (int step : steps) {
            Property<?> property = PROPERTIES.get(step % PROPERTIES.size());
            if (step < PROPERTIES.size()) {
                map = map.without(property);
                expected.remove(property);
            } else {
                map = map.with(property, "value " + step);
                expected.put(property, "value " + step);
            }
            maps.add(map);
            before.add(new TreeMap<>(expected));
        }
        for (int i = 0; i < maps.size(); i++) {
            assertThat(maps.get(i)).isEqualTo(before.get(i));
            assertThat(maps.get(i).entrySet())
                    .containsExactlyElementsOf(before.get(i).entrySet());
            assertThat(maps.get(i)).hasSameHashCodeAs(before.get(i));
        }
    }

    @Test
    void anyMapIsCopiedIntoTheOrderOfTheProperties() {
        Map<Property<?>, Object> mixed = new HashMap<>();
        PROPERTIES.forEach(property -> mixed.put(property, property.key()));
        PropertyMap copy = PropertyMap.copyOf(mixed);
        assertThat(copy.keySet()).containsExactlyElementsOf(new java.util.TreeSet<>(PROPERTIES));
        assertThat(PropertyMap.copyOf(copy)).isSameAs(copy);
        mixed.clear();
        assertThat(copy).hasSize(PROPERTIES.size());
    }

    @Test
    void nothingIsWrittenToIt() {
        PropertyMap map = PropertyMap.EMPTY.with(Property.TEXT, "the sluice closes");
        assertThatThrownBy(() -> map.put(Property.TEXT, "it opens")).isInstanceOf(UnsupportedOperationException.class);
        assertThatThrownBy(() -> map.remove(Property.TEXT)).isInstanceOf(UnsupportedOperationException.class);
        assertThatThrownBy(map::clear).isInstanceOf(UnsupportedOperationException.class);
        var entries = map.entrySet().iterator();
        entries.next();
        assertThatThrownBy(entries::next).isInstanceOf(NoSuchElementException.class);
    }

    @Test
    void anElementKeepsItsIdThroughChangesOfItsProperties() {
        Element pump = Element.of(ElementKind.PART, null, Rank.between(null, null), "pump");
        Element many = pump.with(Property.MULTIPLICITY, Multiplicity.ONE).with(Property.ABSTRACT, true);
        assertThat(many.properties().keySet()).containsExactlyInAnyOrder(Property.MULTIPLICITY, Property.ABSTRACT);
        assertThat(many.with(Property.ABSTRACT, true)).isSameAs(many);
        assertThat(many.with(Property.ABSTRACT, null).with(Property.MULTIPLICITY, null))
                .isEqualTo(pump)
                .hasSameHashCodeAs(many);
        assertThat(many.withAll(Map.of())).isEqualTo(pump);
    }
}
