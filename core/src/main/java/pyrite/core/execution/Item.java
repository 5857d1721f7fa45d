package pyrite.core.execution;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * What is sent, flows and is accepted: a thing with the values of its attributes, or a value alone.
 *
 * @param number tells it from all others of a run, in the order in which they were made
 * @param values one for each attribute of the layout, coherent SI; of a value alone itself
 */
record Item(Layout layout, int number, double[] values) {
    Witness.Thing thing() {
        Map<Element, Double> content = new LinkedHashMap<>();
        for (int i = 0; i < layout.attributes().size(); i++) {
            content.put(layout.attributes().get(i), values[i]);
        }
        return new Witness.Thing(
                number, layout.type(), content, layout.type() == null && values.length > 0 ? values[0] : Double.NaN);
    }

    /**
     * The attributes of a type of items.
     *
     * @param type null for a value alone
     * @param places of each attribute, by its own id and those of what it redefines
     */
    record Layout(@Nullable Element type, List<Element> attributes, Map<ElementId, Integer> places) {
        static final Layout VALUE = new Layout(null, List.of(), Map.of());

        /** The place of an attribute that any of the features stands for; -1 if there is none. */
        int place(Set<ElementId> features) {
            for (ElementId feature : features) {
                Integer place = places.get(feature);
                if (place != null) {
                    return place;
                }
            }
            return -1;
        }
    }
}
