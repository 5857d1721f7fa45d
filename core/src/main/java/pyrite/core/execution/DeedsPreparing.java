package pyrite.core.execution;

import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.Accepting;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/** Prepares what single steps do: accept, send, assign and terminate; and what transitions wait for. */
final class DeedsPreparing extends Preparing {
    private final Map<String, HeldAttribute> assigned = new LinkedHashMap<>();
    private final Map<Instance, StepNode.Trigger> triggerOf = new IdentityHashMap<>();

    DeedsPreparing(Preparing shared) {
        super(shared);
    }

    /** The attributes that something assigns, by their paths. */
    Map<String, HeldAttribute> assigned() {
        return assigned;
    }

    /** What was lowered for an accept action or a transition; nothing for one without an event. */
    StepNode.@Nullable Trigger triggerOf(Instance instance) {
        return triggerOf.get(instance);
    }

    Deed accept(StepNode node) {
        trigger(node.element, node.instance, part(node.instance));
        later.add(() -> node.deed = new Deed.Accept(Objects.requireNonNull(triggerOf.get(node.instance))));
        return new Deed.Nothing();
    }

    /** The trigger of an accept action or a transition, if it has one, is lowered later. */
    void trigger(Element element, Instance instance, Instance part) {
        Accepting.of(model, element)
                .ifPresent(accepting -> later.add(() -> triggerOf.put(instance, trigger(accepting, instance, part))));
    }

    private StepNode.Trigger trigger(Accepting accepting, Instance instance, Instance part) {
        if (accepting.kind().equals("accept")) {
            return acceptance(accepting, instance, part);
        }
        Expression content = Objects.requireNonNull(accepting.content());
        return accepting.kind().equals("when")
                ? new StepNode.Trigger.OfChange(watched(content, instance), words(content))
                : new StepNode.Trigger.OfTime(
                        formula(content, instance), accepting.kind().equals("at"));
    }

    private StepNode.Trigger acceptance(Accepting accepting, Instance instance, Instance part) {
        Element payload = accepting.payload();
        Element type = payload == null ? null : typeOf(payload).orElse(null);
        ItemSlot slot = payload == null
                ? ItemSlot.NOTHING
                : new ItemSlot(
                        flattening.in(instance, payload).stream()
                                .flatMap(each -> flattening.held(each).stream())
                                .toList(),
                        false);
        Expression via = accepting.via();
        List<Instance> inboxes = via == null ? List.of(part) : ports(via, instance, accepting.declaring());
        String words = (type == null ? "anything" : "'" + name(type) + "'")
                + (via == null ? "" : " via " + inboxes.getFirst().path());
        return new StepNode.Trigger.OfItem(type, slot, inboxes, words);
    }

    private List<Instance> ports(Expression via, Instance scope, Element at) {
        List<Instance> ports =
                via instanceof FeatureReference reference ? flattening.instances(reference, scope) : List.of();
        if (ports.isEmpty()) {
            throw new ModelFault(
                    "'" + scope.path() + "' says 'via' what is no port of what runs",
                    List.of(at.id()),
                    Property.VIA,
                    via.span());
        }
        return ports;
    }

    Deed send(StepNode node) {
        later.add(() -> node.deed = sending(node));
        return new Deed.Nothing();
    }

    private Deed sending(StepNode node) {
        Element element = node.element;
        Expression content =
                model.inheritance().nearest(element, Property.CONTENT).orElse(null);
        Expression via = model.inheritance().nearest(element, Property.VIA).orElse(null);
        Expression to = model.inheritance().nearest(element, Property.RECEIVER).orElse(null);
        List<Instance> ports = via == null ? List.of() : ports(via, node.instance, element);
        List<Instance> receivers = to == null
                ? via == null ? List.of(part(node.instance)) : List.of()
                : to instanceof FeatureReference reference ? flattening.instances(reference, node.instance) : List.of();
        if (content == null) {
            throw new ModelFault(
                    "'" + node.path() + "' does not say what it sends; write 'send new Signal()' with an item of yours",
                    List.of(element.id()));
        }
        if (content instanceof FeatureReference reference) {
            List<Instance> things = flattening.instances(reference, node.instance);
            if (!things.isEmpty()) {
                Element usage = things.getFirst().usage();
                return new Deed.Send(
                        layouts.of(typeOf(usage).orElse(usage)), List.of(), things.getFirst(), ports, receivers);
            }
        }
        Layouts.Made made = layouts.made(content, node.instance);
        return made == null
                ? new Deed.Send(Item.Layout.VALUE, List.of(formula(content, node.instance)), null, ports, receivers)
                : new Deed.Send(made.layout(), made.values(), null, ports, receivers);
    }

    Deed assignment(StepNode node) {
        Reference target = model.inheritance()
                .nearest(node.element, Property.TARGET)
                .orElseThrow(() -> new ModelFault(
                        "'" + node.path() + "' does not say what it assigns to", List.of(node.element.id())));
        flattening.assigned(target.chain(), node.instance);
        later.add(() -> node.deed = assigning(node, target));
        return new Deed.Nothing();
    }

    private Deed assigning(StepNode node, Reference target) {
        List<HeldAttribute> targets = flattening.held(target.chain(), node.instance);
        Expression value = model.inheritance()
                .nearest(node.element, Property.CONTENT)
                .orElseThrow(() -> new ModelFault("'" + node.path() + "' assigns nothing", List.of(node.element.id())));
        if (targets.isEmpty()) {
            throw new ModelFault(
                    "'" + node.path()
                            + "' assigns to what is no number and no condition; other values cannot be assigned in a run yet",
                    List.of(node.element.id()),
                    Property.TARGET,
                    Span.NONE);
        }
        targets.forEach(each -> {
            requireFree(each, node);
            assigned.putIfAbsent(each.path(), each);
        });
        return new Deed.Assign(
                targets, number(value, node.instance, targets.getFirst().isTruth(), node.element));
    }

    private void requireFree(HeldAttribute target, StepNode node) {
        FeatureValue value = model.inheritance().value(target.feature()).orElse(null);
        if (value != null && !value.kind().isInitial()) {
            throw new ModelFault(
                    "'" + target.path() + "' is fixed with '=', so '" + node.path()
                            + "' cannot assign to it; give it its first value with ':='",
                    List.of(target.feature().id(), node.element.id()));
        }
    }

    Deed terminate(StepNode node) {
        Expression content =
                model.inheritance().nearest(node.element, Property.CONTENT).orElse(null);
        if (content == null) {
            return new Deed.Terminate(null);
        }
        List<Instance> ended = content instanceof FeatureReference reference
                ? flattening.instances(reference, node.instance)
                : List.of();
        if (ended.isEmpty()) {
            throw new ModelFault("'" + node.path() + "' ends what is no step of what runs", List.of(node.element.id()));
        }
        return new Deed.Terminate(ended.getFirst());
    }
}
