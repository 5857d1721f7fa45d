package pyrite.core.dynamics;

import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Dimension;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Element;
import pyrite.core.model.FeatureValue;

/** One attribute of one instance. Its term is determined on first use while the system is flattened. */
final class FlatAttribute {
    final Element feature;
    final Instance owner;
    final String path;
    final boolean truth;
    final Dimension dimension;
    final DisplayUnit unit;
    final @Nullable FeatureValue value;

    @Nullable
    Term term;

    @Nullable
    Condition condition;

    /** Whether it keeps its value until something that happens gives it another. */
    boolean held;
    /** Whether it counts something, and is no attribute of the model. */
    boolean counts;

    boolean inProgress;
    /** The index of the time derivative among the variables, -1 where none is asked for. */
    int rate = -1;

    FlatAttribute(
            Element feature,
            Instance owner,
            String path,
            boolean truth,
            Dimension dimension,
            DisplayUnit unit,
            @Nullable FeatureValue value) {
        this.feature = feature;
        this.owner = owner;
        this.path = path;
        this.truth = truth;
        this.dimension = dimension;
        this.unit = unit;
        this.value = value;
    }

    boolean isFixed() {
        return value != null && !value.kind().isInitial();
    }
}
