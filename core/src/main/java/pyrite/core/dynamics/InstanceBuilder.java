package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Inheritance;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;

/**
 * Builds instance trees of usages and records which elements it read. What runs is built whole; for other results a
 * part is built when something looks into it, so that they take, and rest on, no more than they need.
 */
final class InstanceBuilder {
    private static final int DEEPEST = 64;
    private static final int CHECK_EVERY = 1024;

    private final Model model;
    private final RunControl control;
    private final Budget budget;
    private final boolean isWhole;
    private final Inheritance inheritance;
    private Set<ElementId> read = new LinkedHashSet<>();
    private final List<Instance> built = new ArrayList<>();
    private final List<FlatAttribute> quantities = new ArrayList<>();

    InstanceBuilder(Model model, RunControl control, Budget budget, boolean isWhole) {
        this.budget = budget;
        this.isWhole = isWhole;
        this.model = model;
        this.control = control;
        this.inheritance = model.inheritance();
    }

    /** Every instance built so far; grows while elements outside the tree are reached. */
    List<Instance> built() {
        return built;
    }

    List<FlatAttribute> quantities() {
        return quantities;
    }

    /** What was read since the last call. */
    Set<ElementId> drainRead() {
        Set<ElementId> taken = read;
        read = new LinkedHashSet<>();
        return taken;
    }

    /** With all from which it inherits. */
    void noteRead(Element element) {
        inheritance.generals(element).forEach(this::noteReadAlone);
    }

    void noteReadAlone(Element element) {
        read.add(element.id());
    }

    Instance build(Element usage, String path, @Nullable Instance around, Map<ElementId, Instance> links) {
        return build(usage, path, around, links, 0);
    }

    /**
     * An instance of a calculation, for one call of it; it is no part of the system, adds no equations, and what it has
     * is worked out only as far as the call needs it.
     */
    Instance call(Element calculation, String path) {
        int instancesBefore = built.size();
        int quantitiesBefore = quantities.size();
        Instance call = build(calculation, path, null, Map.of(), 0);
        built.subList(instancesBefore, built.size()).clear();
        quantities.subList(quantitiesBefore, quantities.size()).clear();
        return call;
    }

    private Instance build(
            Element usage, String path, @Nullable Instance around, Map<ElementId, Instance> links, int depth) {
        requireEnd(usage, around, depth);
        noteRead(usage);
        Instance instance = new Instance(path, usage, around);
        built.add(instance);
        for (Element feature : inheritance.features(usage)) {
            Instance link = links.get(feature.id());
            put(
                    instance,
                    feature,
                    link != null ? new Instance.Slot.Parts(List.of(link)) : slot(instance, feature, depth));
        }
        for (Element general : inheritance.generals(usage)) {
            for (Element member : model.children(general.id())) {
                if (member.kind() == ElementKind.BINDING) {
                    instance.bindings().add(member);
                } else if (member.kind() == ElementKind.LOOP_VARIABLE) {
                    put(instance, member, attribute(instance, member, depth));
                } else if (member.kind().isUsage() && instance.slot(member.id()).isEmpty()) {
                    alias(instance, member);
                }
            }
        }
        return instance;
    }

    /** What is in itself is in itself again, and with two such parts there are soon more than any memory holds. */
    private void requireEnd(Element usage, @Nullable Instance around, int depth) {
        boolean isInItself = false;
        for (Instance outer = around; outer != null; outer = outer.around()) {
            isInItself |= outer.usage().id().equals(usage.id());
        }
        if (isInItself || depth > DEEPEST) {
            throw Composition.endless(model, usage);
        }
        if (!budget.allowsInstance(built.size())) {
            throw new ModelFault(
                    "this takes more than " + budget.mostInstances() + " parts; '" + nameOf(usage)
                            + "' is one too many",
                    List.of(usage.id()));
        }
        if (built.size() % CHECK_EVERY == 0) {
            control.requireGoingOn();
        }
    }

    private void put(Instance instance, Element feature, Instance.@Nullable Slot slot) {
        if (slot == null) {
            return;
        }
        if (feature.kind() != ElementKind.OCCURRENCE && feature.kind() != ElementKind.ACTION) {
            noteRead(feature);
        }
        for (Element old : inheritance.redefined(feature)) {
            instance.put(old.id(), slot);
        }
    }

    /** A feature that is hidden by another one without being redefined by name is found as that other one. */
    private void alias(Instance instance, Element hidden) {
        inheritance
                .effective(instance.usage(), hidden.id())
                .flatMap(shown -> instance.slot(shown.id()))
                .ifPresent(slot -> instance.put(hidden.id(), slot));
    }

    private Instance.@Nullable Slot slot(Instance instance, Element feature, int depth) {
        if (feature.get(Property.PORTION).isPresent()) {
            // A portion is the same thing at another time, and no part of it.
            return null;
        }
        return switch (feature.kind()) {
            case PART -> parts(instance, feature, depth);
            // A port adds quantities only where something is bound to what it carries.
            case PORT -> new Instance.Slot.Later(() -> several(instance, feature, depth));
            // What a path or a function has is worked out where an expression names it.
            case OCCURRENCE, ACTION -> new Instance.Slot.Later(() -> several(instance, feature, depth));
            case ITEM, PAYLOAD -> new Instance.Slot.Later(() -> one(instance, feature, depth));
            case ATTRIBUTE, REFERENCE, SUBJECT -> attribute(instance, feature, depth);
            case ASSERTED_CONSTRAINT -> {
                instance.constraints().add(feature);
                noteRead(feature);
                yield null;
            }
            default ->
                feature.kind().isBehavior() ? new Instance.Slot.Later(() -> behaviors(instance, feature, depth)) : null;
        };
    }

    /** A step or state, so often as is said; however many there may be, they happen in one place. */
    private List<Instance> behaviors(Instance instance, Element feature, int depth) {
        return inheritance.multiplicity(feature).isFixed()
                        && inheritance.multiplicity(feature).upper() > 1
                ? several(instance, feature, depth)
                : one(instance, feature, depth);
    }

    private List<Instance> one(Instance instance, Element feature, int depth) {
        return List.of(build(feature, instance.pathOf(nameOf(feature)), instance, new HashMap<>(), depth + 1));
    }

    private Instance.Slot attribute(Instance instance, Element feature, int depth) {
        Type type = model.environment().typeOf(feature.id());
        FeatureValue value = inheritance.value(feature).orElse(null);
        // What a parameter only begins with is its own; what it equals is said by who uses the behaviour.
        if (feature.get(Property.DIRECTION).isPresent()
                && value != null
                && !value.kind().isInitial()
                && instance.around() != null) {
            return new Instance.Slot.Alias(value.expression(), instance.around());
        }
        if (type instanceof Type.Thing) {
            return parts(instance, feature, depth);
        }
        return new Instance.Slot.Value(quantity(instance, feature, type, value));
    }

    FlatAttribute quantity(Instance instance, Element feature, Type type, @Nullable FeatureValue value) {
        Dimension dimension = type instanceof Type.Number(Dimension d) ? d : Dimension.ONE;
        DisplayUnit unit = new DisplayUnits(model).of(feature);
        FlatAttribute quantity = new FlatAttribute(
                feature,
                instance,
                instance.pathOf(nameOf(feature)),
                type instanceof Type.Truth,
                dimension,
                unit,
                value);
        quantity.held = isHeld(instance, feature, value);
        quantities.add(quantity);
        return quantity;
    }

    /** What a behaviour has of its own, and what an item that arrives has, holds from one event to the next. */
    private boolean isHeld(Instance instance, Element feature, @Nullable FeatureValue value) {
        boolean isOpen = value == null || value.kind().isInitial();
        return switch (instance.usage().kind()) {
            case ITEM, PAYLOAD ->
                instance.around() != null && isBehavior(instance.around()) && feature.kind() == ElementKind.ATTRIBUTE;
            default -> isOpen && isBehavior(instance);
        };
    }

    /** Whether an instance is a step, a state or an item in one: what it has is asked for where something happens. */
    static boolean isWithinBehavior(Instance instance) {
        return isBehavior(instance)
                || instance.around() != null
                        && isBehavior(instance.around())
                        && (instance.usage().kind() == ElementKind.ITEM
                                || instance.usage().kind() == ElementKind.PAYLOAD);
    }

    private static boolean isBehavior(Instance instance) {
        ElementKind kind = instance.usage().kind();
        return kind.family() == ElementKind.Family.BEHAVIOR;
    }

    /**
     * What counts something of an instance; it is no attribute of it.
     *
     * @param like an attribute in whose unit it is counted; null for plain numbers
     */
    FlatAttribute counter(Element of, Instance owner, String name, @Nullable Element like) {
        DisplayUnit unit = like == null ? DisplayUnit.coherent(Dimension.ONE) : new DisplayUnits(model).of(like);
        FlatAttribute counter = new FlatAttribute(
                of, owner, name + "(" + owner.path() + ")", false, unit.unit().dimension(), unit, null);
        counter.held = true;
        return counter;
    }

    private String nameOf(Element feature) {
        String name = model.names().effectiveName(feature);
        return name != null
                ? name
                : feature.kind().isBehavior()
                        ? UnnamedSteps.name(model, feature)
                        : feature.kind().title();
    }

    private Instance.Slot parts(Instance instance, Element feature, int depth) {
        FeatureValue value = inheritance.value(feature).orElse(null);
        if (value != null) {
            return new Instance.Slot.Alias(value.expression(), instance);
        }
        return isWhole
                ? new Instance.Slot.Parts(several(instance, feature, depth))
                : new Instance.Slot.Later(() -> several(instance, feature, depth));
    }

    private List<Instance> several(Instance instance, Element feature, int depth) {
        Multiplicity multiplicity = inheritance.multiplicity(feature);
        String name = nameOf(feature);
        if (!multiplicity.isFixed()) {
            throw new ModelFault(
                    "it must be known how many '" + name + "' there are, but [" + multiplicity
                            + "] leaves it open; redefine it with a fixed number such as [1]",
                    List.of(feature.id()));
        }
        List<Instance> parts = new ArrayList<>();
        for (int i = 1; i <= multiplicity.upper(); i++) {
            String path = instance.pathOf(multiplicity.upper() == 1 ? name : name + "#(" + i + ")");
            parts.add(build(feature, path, instance, new HashMap<>(), depth + 1));
        }
        return List.copyOf(parts);
    }
}
