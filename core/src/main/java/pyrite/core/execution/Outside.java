package pyrite.core.execution;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Term;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Trigger;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;

/** What can come to a system from outside: items that something accepts, and values of attributes. */
public final class Outside {
    private final Model model;
    private final Program program;
    private final Flattening flattening;
    private final Layouts layouts;
    private final List<Offer> offers = new ArrayList<>();
    private final List<Instance> places = new ArrayList<>();

    /**
     * What can be given to the system.
     *
     * @param at where it arrives: a port, or a part
     * @param type null for anything
     */
    public record Offer(String at, @Nullable Element type, List<Field> fields) {
        /** @param unit empty for a plain number */
        public record Field(String name, boolean isTruth, String unit) {}
    }

    /** @param flattening the one the program was built in */
    public Outside(Model model, Flattening flattening, Program program) {
        this.model = model;
        this.program = program;
        this.flattening = flattening;
        this.layouts = new Layouts(model, flattening);
        Map<String, Runnable> found = new TreeMap<>();
        program.steps().values().forEach(step -> {
            if (step.deed instanceof Deed.Accept(Trigger.OfItem of)) {
                found(of, found);
            }
        });
        program.states()
                .forEach(state -> state.ways.forEach(way -> {
                    if (way.trigger() instanceof Trigger.OfItem of) {
                        found(of, found);
                    }
                }));
        found.values().forEach(Runnable::run);
    }

    private void found(Trigger.OfItem trigger, Map<String, Runnable> found) {
        for (Instance at : trigger.inboxes()) {
            Element type = trigger.type();
            String key = at.path() + " " + (type == null ? "" : model.names().qualifiedName(type));
            found.putIfAbsent(key, () -> {
                places.add(at);
                offers.add(new Offer(at.path(), type, type == null ? List.of() : fields(layouts.of(type))));
            });
        }
    }

    private List<Offer.Field> fields(Item.Layout layout) {
        return layout.attributes().stream()
                .filter(this::travels)
                .map(attribute -> new Offer.Field(
                        name(attribute),
                        isTruth(attribute),
                        new DisplayUnits(model).of(attribute).symbol()))
                .toList();
    }

    /** Whether items bring the value of an attribute along. */
    public boolean travels(Element attribute) {
        return model.environment().typeOf(attribute.id()) instanceof Type.Number || isTruth(attribute);
    }

    private boolean isTruth(Element attribute) {
        return model.environment().typeOf(attribute.id()) instanceof Type.Truth;
    }

    private String name(Element attribute) {
        return Objects.requireNonNullElse(model.names().effectiveName(attribute), "value");
    }

    public List<Offer> offers() {
        return List.copyOf(offers);
    }

    /** Whether something in the system itself sends such items there. */
    public boolean isSentWithin(int offer) {
        Element type = offers.get(offer).type();
        Instance place = places.get(offer);
        return program.steps().values().stream()
                .anyMatch(step -> step.deed instanceof Deed.Send send
                        && (type == null
                                || send.layout().type() != null
                                        && program.kinship().isA(send.layout().type(), type))
                        && (send.receivers().contains(place)
                                || send.ports().stream()
                                        .flatMap(port -> program.routes().from(port).stream())
                                        .anyMatch(reached -> reached.port() == place)));
    }

    Instance place(int offer) {
        return places.get(offer);
    }

    /** The attributes that can be set: what behaviours assign, and what those that parts perform have of their own. */
    public List<HeldAttribute> settable() {
        Map<String, HeldAttribute> byPath = new LinkedHashMap<>();
        program.assigned().forEach(attribute -> byPath.put(attribute.path(), attribute));
        program.performed().forEach(top -> own(top.step()).forEach(own -> byPath.putIfAbsent(own.path(), own)));
        return List.copyOf(byPath.values());
    }

    /** Not what the items in it have. */
    private static Stream<HeldAttribute> own(StepNode step) {
        return step.frame.stream()
                .filter(attribute -> !attribute.isFixed()
                        && attribute.path().lastIndexOf('.') == step.path().length());
    }

    /**
     * An item that arrives.
     *
     * @param values of its attributes, coherent SI; what is left out has the value its definition gives
     */
    public Stimulus give(double time, int offer, Map<String, Double> values) {
        return give(time, places.get(offer), offers.get(offer).type(), values);
    }

    /** The same at a place that is named, if anything accepts items there. */
    public Optional<Stimulus> give(double time, String at, @Nullable ElementId type, Map<String, Double> values) {
        return places.stream()
                .filter(place -> place.path().equals(at))
                .findFirst()
                .map(place -> give(time, place, type == null ? null : model.get(type), values));
    }

    private Stimulus give(double time, Instance at, @Nullable Element type, Map<String, Double> values) {
        Item.Layout layout = type == null ? Item.Layout.VALUE : layouts.of(type);
        double[] content = layout.attributes().stream()
                .mapToDouble(attribute -> Objects.requireNonNullElseGet(
                        values.get(name(attribute)), () -> usual(attribute).orElse(Double.NaN)))
                .toArray();
        return new Stimulus(time, new Stimulus.What.Give(at, layout, content));
    }

    /** What the definition of an item gives an attribute, if that is known without a run; 1 for true. */
    private Optional<Double> usual(Element attribute) {
        return model.inheritance()
                .value(attribute)
                .map(FeatureValue::expression)
                .flatMap(value -> {
                    Term term = flattening.momentaryNumber(value, flattening.root(attribute), isTruth(attribute));
                    return term instanceof Term.Constant(double number) ? Optional.of(number) : Optional.empty();
                });
    }

    /** Another value for an attribute, coherent SI; nothing if no behaviour uses or assigns one of that path. */
    public Optional<Stimulus> set(double time, String path, double value) {
        return settable().stream()
                .filter(attribute -> attribute.path().equals(path))
                .findFirst()
                .map(attribute -> new Stimulus(time, new Stimulus.What.Set(attribute, value)));
    }
}
