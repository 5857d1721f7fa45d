package pyrite.core.dynamics;

import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Inheritance;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;

/**
 * Whether a part can be built at all, found from each feature once, however many parts it stands for. What contains
 * itself has no end.
 *
 * @param read the elements this rests on
 * @param fault says what contains itself; null if nothing does
 */
public record Composition(Set<ElementId> read, @Nullable ModelFault fault) {
    private static final int DEEPEST = 64;

    public static Composition of(Model model, Element usage) {
        Walk walk = new Walk(model);
        try {
            walk.into(usage);
            return new Composition(walk.read, null);
        } catch (ModelFault endless) {
            return new Composition(walk.read, endless);
        }
    }

    /** Whether a feature stands for parts that are built with what it belongs to. */
    static boolean isBuilt(Model model, Element feature) {
        boolean isPart = feature.kind() == ElementKind.PART
                || (feature.kind() == ElementKind.ATTRIBUTE
                                || feature.kind() == ElementKind.REFERENCE
                                || feature.kind() == ElementKind.SUBJECT)
                        && model.environment().typeOf(feature.id()) instanceof Type.Thing;
        return isPart
                && feature.get(Property.PORTION).isEmpty()
                && model.inheritance().value(feature).isEmpty();
    }

    static ModelFault endless(Model model, Element usage) {
        return new ModelFault(
                "'" + Lowering.nameOf(model.names(), usage) + "' contains itself without end", List.of(usage.id()));
    }

    private static final class Walk {
        private final Model model;
        private final Inheritance inheritance;
        private final Set<ElementId> read = new LinkedHashSet<>();
        private final Set<ElementId> around = new LinkedHashSet<>();
        private final Set<ElementId> ended = new HashSet<>();

        Walk(Model model) {
            this.model = model;
            this.inheritance = model.inheritance();
        }

        void into(Element usage) {
            if (ended.contains(usage.id())) {
                return;
            }
            if (around.size() > DEEPEST || !around.add(usage.id())) {
                throw endless(model, usage);
            }
            inheritance.generals(usage).forEach(general -> read.add(general.id()));
            inheritance.features(usage).stream()
                    .filter(feature -> isBuilt(model, feature))
                    .peek(feature -> inheritance.generals(feature).forEach(general -> read.add(general.id())))
                    .filter(this::isThere)
                    .forEach(this::into);
            around.remove(usage.id());
            ended.add(usage.id());
        }

        private boolean isThere(Element feature) {
            Multiplicity multiplicity = inheritance.multiplicity(feature);
            return multiplicity.isFixed() && multiplicity.upper() > 0;
        }
    }
}
