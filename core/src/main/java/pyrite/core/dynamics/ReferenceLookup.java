package pyrite.core.dynamics;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** Resolves feature references in the tree of instances. */
final class ReferenceLookup {
    private final Model model;
    private final InstanceBuilder builder;
    private final Lowering lowering;
    private final Instance top;
    private final Map<ElementId, Object> outside = new HashMap<>();
    private @Nullable Instance running;

    ReferenceLookup(Model model, InstanceBuilder builder, Lowering lowering) {
        this.model = model;
        this.builder = builder;
        this.lowering = lowering;
        this.top = new Instance(
                "",
                Element.of(
                        pyrite.core.model.ElementKind.PACKAGE, null, pyrite.core.model.Rank.between(null, null), null),
                null);
    }

    void runs(Instance root) {
        running = root;
    }

    /** The one thing there is. */
    Object single(List<Object> targets, Expression at) {
        if (targets.size() != 1) {
            throw new FaultException(
                    at.span(),
                    targets.isEmpty()
                            ? "there is no value here"
                            : "this means " + targets.size()
                                    + " instances at once; use sum(…) over them, or take one with #(1)");
        }
        return targets.getFirst();
    }

    /** What a reference leads to, read in an instance: quantities, instances or aliases; several by multiplicity. */
    List<Object> of(FeatureReference reference, Instance scope) {
        List<Object> at = List.of();
        List<Referent> chain = fromRunning(reference.chain(), scope);
        for (Referent step : chain) {
            if (step instanceof Expression.Local(String name)) {
                at = scope.local(name).map(List::of).orElseGet(List::of);
                continue;
            }
            ElementId id = (ElementId) step;
            at = step == chain.getFirst()
                    ? first(id, scope)
                    : at.stream()
                            .flatMap(from -> next(from, id, reference).stream())
                            .toList();
        }
        return at;
    }

    /** A way that comes from outside and through what runs begins there. */
    private List<Referent> fromRunning(List<Referent> chain, Instance scope) {
        int start = running == null ? -1 : chain.indexOf(running.usage().id());
        return start > 0 && chain.getFirst() instanceof ElementId first && inScope(first, scope) == null
                ? chain.subList(start, chain.size())
                : chain;
    }

    private List<Object> first(ElementId id, Instance scope) {
        List<Object> found = inScope(id, scope);
        if (found != null) {
            return found;
        }
        return running != null && running.usage().id().equals(id)
                ? List.of(running)
                : List.of(outside.computeIfAbsent(id, this::outside));
    }

    private @Nullable List<Object> inScope(ElementId id, Instance scope) {
        for (Instance at = scope; at != null; at = at.around()) {
            Instance.Slot slot = at.slot(id).orElse(null);
            if (slot != null) {
                return contents(slot);
            }
            if (at.usage().id().equals(id)) {
                return List.of(at);
            }
        }
        return null;
    }

    List<Object> next(Object from, ElementId id, Expression at) {
        return switch (from) {
            case Instance instance ->
                contents(instance.slot(id)
                        .or(() -> result(instance, id))
                        .orElseThrow(() -> new FaultException(
                                at.span(),
                                "'" + instance.path() + "' has no '"
                                        + model.environment().nameOf(id) + "'")));
            default ->
                throw new FaultException(at.span(), "'" + model.environment().nameOf(id) + "' is not part of a value");
        };
    }

    /** What a calculation comes to that declares no parameter for it. */
    private Optional<Instance.Slot> result(Instance instance, ElementId id) {
        return id.equals(LibraryNames.id(LibraryNames.CALCULATION_RESULT))
                ? model.inheritance()
                        .nearest(instance.usage(), Property.RESULT)
                        .map(expression -> new Instance.Slot.Alias(expression, instance))
                : Optional.empty();
    }

    private List<Object> contents(Instance.Slot slot) {
        return switch (slot) {
            case Instance.Slot.Value(FlatAttribute quantity) -> List.of(quantity);
            case Instance.Slot.Parts(List<Instance> instances) -> List.copyOf(instances);
            case Instance.Slot.Later later -> List.copyOf(later.instances());
            case Instance.Slot.Alias(FeatureReference reference, Instance scope) -> of(reference, scope);
            case Instance.Slot.Alias(Expression expression, Instance scope)
            when CollectionLowering.isMany(expression) -> lowering.collections().values(expression, scope);
            case Instance.Slot.Alias alias -> List.of(alias);
        };
    }

    /** A usage that is not in the tree, such as a constant of a package: one instance of it for the whole system. */
    private Object outside(ElementId id) {
        Element element = model.get(id);
        builder.noteRead(element);
        String name = Objects.requireNonNullElse(model.names().effectiveName(element), "");
        Type type = model.environment().typeOf(id);
        return type instanceof Type.Number || type instanceof Type.Truth
                ? builder.quantity(
                        top, element, type, model.inheritance().value(element).orElse(null))
                : builder.build(element, name, null, Map.of());
    }
}
