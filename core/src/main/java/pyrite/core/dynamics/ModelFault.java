package pyrite.core.dynamics;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.ExplainedException;
import pyrite.core.expression.Span;
import pyrite.core.model.ElementId;
import pyrite.core.model.Property;

/** The reason why a model cannot be run, with the elements concerned. */
public final class ModelFault extends ExplainedException {
    private final transient List<ElementId> elements;
    private final transient @Nullable Property<?> property;
    private final transient Span span;

    public ModelFault(String message, List<ElementId> elements) {
        this(message, elements, null, Span.NONE);
    }

    public ModelFault(String message, List<ElementId> elements, @Nullable Property<?> property, Span span) {
        super(message);
        this.elements = List.copyOf(elements);
        this.property = property;
        this.span = span;
    }

    public List<ElementId> elements() {
        return elements;
    }

    public @Nullable Property<?> property() {
        return property;
    }

    public Span span() {
        return span;
    }
}
