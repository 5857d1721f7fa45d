package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * One instance of a usage in the part tree, with a slot for each of its features. A feature is found by its own id and
 * by the ids of all features it redefines, so an expression written for a definition finds the slot of the usage.
 */
public final class Instance {
    /** The content of a feature in an instance. */
    sealed interface Slot {
        record Value(FlatAttribute quantity) implements Slot {}

        /** Parts: one, or several by multiplicity. */
        record Parts(List<Instance> instances) implements Slot {}

        /** Parts that are built when something looks into them. */
        final class Later implements Slot {
            private final Supplier<List<Instance>> building;
            private @Nullable List<Instance> built;

            Later(Supplier<List<Instance>> building) {
                this.building = building;
            }

            List<Instance> instances() {
                if (built == null) {
                    built = building.get();
                }
                return built;
            }
        }

        /** A parameter: stands for an expression read in another instance. */
        record Alias(Expression expression, Instance scope) implements Slot {}
    }

    /** An instance in which parameters of a body stand for values, before everything else there. */
    Instance within(Map<String, Object> parameters) {
        Instance inside = new Instance(path, usage, this);
        inside.locals.putAll(parameters);
        return inside;
    }

    /** What a parameter of a body around stands for; nothing if no body around has it. */
    Optional<Object> local(String name) {
        for (Instance at = this; at != null; at = at.around) {
            Object value = at.locals.get(name);
            if (value != null) {
                return Optional.of(value);
            }
        }
        return Optional.empty();
    }

    /**
     * What a run counts of a step or state, how often it was started and ended; of a pool, how much of it is held, and
     * how many wait for it. The indices of variables.
     */
    record Counts(int first, int second) {}

    private @Nullable Counts counts;

    @Nullable
    Counts counts() {
        return counts;
    }

    void counts(Counts those) {
        counts = those;
    }

    private final String path;
    private final Element usage;
    private final @Nullable Instance around;
    private final Map<ElementId, Slot> slots = new HashMap<>();
    private final Map<String, Object> locals = new HashMap<>(0);
    private final List<Element> constraints = new ArrayList<>();
    private final List<Element> bindings = new ArrayList<>();

    Instance(String path, Element usage, @Nullable Instance around) {
        this.path = path;
        this.usage = usage;
        this.around = around;
    }

    /** {@code gate.leaf#(2)}: names from the root, with the number where there are several. */
    public String path() {
        return path;
    }

    public Element usage() {
        return usage;
    }

    public @Nullable Instance around() {
        return around;
    }

    void put(ElementId feature, Slot slot) {
        slots.putIfAbsent(feature, slot);
    }

    void replace(ElementId feature, Slot slot) {
        slots.put(feature, slot);
    }

    Optional<Slot> slot(ElementId feature) {
        return Optional.ofNullable(slots.get(feature));
    }

    List<Element> constraints() {
        return constraints;
    }

    List<Element> bindings() {
        return bindings;
    }

    /** The instance that is around this one and in no other. */
    Instance outermost() {
        return around == null ? this : around.outermost();
    }

    String pathOf(String name) {
        return path.isEmpty() ? name : path + "." + name;
    }
}
