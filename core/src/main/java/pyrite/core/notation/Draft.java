package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Property;

/** An element as read, with its references still names. Lives only while a text is being read. */
final class Draft {
    /** References as written, for one property. */
    record Pending(List<Referent> chain, Span span) {
        String lastName() {
            return ((Name) chain.getLast()).last();
        }
    }

    final Element element;
    final Map<Property<?>, List<Pending>> references = new TreeMap<>();
    @Nullable Expression result;
    @Nullable Expression value;
    FeatureValue.@Nullable Kind valueKind;

    Draft(Element element) {
        this.element = element;
    }

    void refer(Property<?> property, Pending reference) {
        references.computeIfAbsent(property, _ -> new ArrayList<>()).add(reference);
    }

    List<Pending> pending(Property<?> property) {
        return references.getOrDefault(property, List.of());
    }
}
