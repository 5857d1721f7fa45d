package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Lowers {@code total(gate.mass)}: what an attribute adds up to over the tree of parts. A part with a value states it
 * for all that it contains; without one it has the sum of its parts, each as often as its multiplicity says. What has
 * no such parts either is a variable of the run.
 */
final class TotalLowering {
    private final Model model;
    private final Lowering lowering;

    TotalLowering(Model model, Lowering lowering) {
        this.model = model;
        this.lowering = lowering;
    }

    Term term(FeatureReference attribute, Instance scope) {
        return lowering.targets().of(attribute, scope).stream()
                .map(target -> switch (target) {
                    case FlatAttribute quantity -> total(quantity, attribute);
                    default -> throw new FaultException(attribute.span(), "only attributes of parts add up");
                })
                .reduce(Terms.ZERO, Terms::plus);
    }

    private Term total(FlatAttribute whole, Expression at) {
        List<ElementId> origins = origins(whole.feature);
        return total(whole.owner, origins, at).orElseGet(() -> lowering.term(whole));
    }

    /** What the attribute redefines in the end: by that it is found in other parts. */
    private List<ElementId> origins(Element attribute) {
        return model.inheritance().redefined(attribute).stream()
                .filter(each -> each.references(Property.REDEFINES).isEmpty())
                .map(Element::id)
                .toList();
    }

    /** Nothing if neither the part nor anything in it has the attribute. */
    private Optional<Term> total(Instance part, List<ElementId> attribute, Expression at) {
        lowering.spend(1, at);
        FlatAttribute own = own(part, attribute);
        if (own != null && own.isFixed()) {
            return Optional.of(lowering.term(own));
        }
        return parts(part).stream()
                .flatMap(inner -> total(inner, attribute, at).stream())
                .reduce(Terms::plus)
                .or(() -> Optional.ofNullable(own).map(lowering::term));
    }

    private static @Nullable FlatAttribute own(Instance part, List<ElementId> attribute) {
        return attribute.stream()
                .flatMap(each -> part.slot(each).stream())
                .map(slot -> slot instanceof Instance.Slot.Value(FlatAttribute quantity) ? quantity : null)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
    }

    private List<Instance> parts(Instance part) {
        List<Instance> parts = new ArrayList<>();
        for (Element feature : model.inheritance().features(part.usage())) {
            if (isContained(feature)) {
                part.slot(feature.id()).ifPresent(slot -> parts.addAll(instances(slot)));
            }
        }
        return parts;
    }

    private static boolean isContained(Element feature) {
        return feature.kind() == ElementKind.PART
                && !feature.get(Property.REFERENTIAL).orElse(false);
    }

    private static List<Instance> instances(Instance.Slot slot) {
        return switch (slot) {
            case Instance.Slot.Parts(List<Instance> instances) -> instances;
            case Instance.Slot.Later later -> later.instances();
            case Instance.Slot.Value _, Instance.Slot.Alias _ -> List.of();
        };
    }
}
