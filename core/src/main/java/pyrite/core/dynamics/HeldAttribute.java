package pyrite.core.dynamics;

import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * An attribute that keeps its value until something that happens gives it another.
 *
 * @param features it and all that it redefines
 * @param variable its index among the variables
 * @param start the value it begins with; null if none is given
 * @param isFixed whether that is written with {@code =}: it holds unless another comes from outside
 * @param draws what is drawn for that
 */
public record HeldAttribute(
        Element feature,
        Set<ElementId> features,
        String path,
        int variable,
        boolean isTruth,
        @Nullable Term start,
        boolean isFixed,
        List<Draw> draws) {
    /** The same with another value to begin with. */
    public HeldAttribute beginningWith(Term other) {
        return new HeldAttribute(feature, features, path, variable, isTruth, other, isFixed, draws);
    }
}
