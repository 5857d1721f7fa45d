package pyrite.core.execution;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.Sorting;
import pyrite.core.dynamics.Variable;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Trigger;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * A system that is played by hand: time passes when somebody asks for it, and items come and values change from
 * outside. Not safe for several threads.
 */
public final class Bench {
    /** So long one request may compute. */
    private static final Duration PATIENCE = Duration.ofSeconds(10);
    /** The machine's own budget begins anew with each request, so that of the whole is never used up. */
    private static final Duration NEVER = Duration.ofDays(365);

    private final Model model;
    private final Program program;
    private final Engine engine;
    private final Simulation simulation;
    private final double horizon;
    private final Layouts layouts;
    private final List<Offer> offers = new ArrayList<>();
    private long patienceEnds;

    /**
     * What can be given to the system from outside.
     *
     * @param at where it arrives: a port, or a part
     * @param type null for anything
     */
    public record Offer(String at, @Nullable Element type, List<Field> fields) {
        /** @param unit empty for a plain number */
        public record Field(String name, boolean isTruth, String unit) {}
    }

    /** An attribute that can be set from outside, and its value now, in its unit. */
    public record Input(String path, Element feature, boolean isTruth, double value, String unit) {}

    private final List<Instance> places = new ArrayList<>();
    private final List<HeldAttribute> held = new ArrayList<>();

    private Bench(Model model, Element part, double horizon, long seed) {
        this.model = model;
        this.horizon = horizon;
        RunControl control = new RunControl() {
            @Override
            public boolean isCancelled() {
                return System.nanoTime() > patienceEnds;
            }
        };
        begin();
        Flattening flattening = new Flattening(model, control);
        flattening.running(part);
        this.layouts = new Layouts(model, flattening);
        this.program = ProgramBuilder.build(model, flattening);
        this.engine = new Engine(program, seed, 0);
        this.simulation = Simulation.of(
                Sorting.sort(program.flat(), control),
                RunSettings.of(0, horizon).withBudget(NEVER),
                control,
                engine);
        simulation.begin();
        findOffers();
        program.assigned().forEach(held::add);
    }

    /**
     * Puts a part on the bench, at its first instant.
     *
     * @param horizon the last instant that can be reached, s
     * @throws ModelFault if it cannot run
     * @throws RunFailure if the first instant cannot be computed
     */
    public static Bench of(Model model, Element part, double horizon, long seed) {
        return new Bench(model, part, horizon, seed);
    }

    private void begin() {
        patienceEnds = System.nanoTime() + PATIENCE.toNanos();
    }

    private void findOffers() {
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
                .filter(attribute -> isNumber(attribute) || isTruth(attribute))
                .map(attribute -> new Offer.Field(
                        Objects.requireNonNullElse(model.names().effectiveName(attribute), "value"),
                        isTruth(attribute),
                        new DisplayUnits(model).of(attribute).symbol()))
                .toList();
    }

    private boolean isNumber(Element attribute) {
        return model.environment().typeOf(attribute.id()) instanceof pyrite.core.expression.Type.Number;
    }

    private boolean isTruth(Element attribute) {
        return model.environment().typeOf(attribute.id()) instanceof pyrite.core.expression.Type.Truth;
    }

    public double now() {
        return simulation.time();
    }

    public double horizon() {
        return horizon;
    }

    public EventLog log() {
        return engine.log();
    }

    public List<Offer> offers() {
        return List.copyOf(offers);
    }

    /** The next instant at which something is planned, s; infinite if nothing is. */
    public double next() {
        return engine.next();
    }

    /** Lets time pass up to an instant, s. */
    public void advance(double until) {
        begin();
        simulation.advance(Math.min(until, horizon));
    }

    /** Lets time pass until something happens, at most up to an instant, s; whether something did. */
    public boolean advanceToEvent(double until) {
        begin();
        int before = engine.log().size();
        double limit = Math.min(until, horizon);
        while (simulation.time() < limit && engine.log().size() == before) {
            // A condition may come about before what is planned next.
            double step = Math.min(limit, Math.min(engine.next(), simulation.time() + (horizon / 5_000)));
            simulation.advance(step);
        }
        return engine.log().size() > before;
    }

    /**
     * Gives an item to the system, now.
     *
     * @param values by the names of its attributes, in their units
     */
    public void give(int offer, Map<String, Double> values) {
        begin();
        Offer chosen = offers.get(offer);
        Item.Layout layout = chosen.type() == null ? Item.Layout.VALUE : layouts.of(chosen.type());
        double[] content = new double[layout.attributes().size()];
        for (int i = 0; i < content.length; i++) {
            Element attribute = layout.attributes().get(i);
            Double value = values.get(model.names().effectiveName(attribute));
            content[i] = value == null
                    ? usual(attribute)
                    : new DisplayUnits(model).of(attribute).unit().toSi(value);
        }
        engine.giveFromOutside(places.get(offer), new Item(layout, engine.nextItem(), content));
        simulation.happen();
    }

    /** What an attribute of an item is given by its definition, if that is a number. */
    private double usual(Element attribute) {
        return model.inheritance()
                .value(attribute)
                .flatMap(value -> {
                    Flattening flattening = new Flattening(model);
                    return flattening.constant(value.expression(), flattening.root(attribute));
                })
                .orElse(Double.NaN);
    }

    /** The attributes that can be set, with their values now. */
    public List<Input> inputs() {
        return held.stream().map(this::input).toList();
    }

    private Input input(HeldAttribute attribute) {
        Variable variable = program.flat().variables().get(attribute.variable());
        double value = simulation.get(attribute.variable());
        return new Input(
                attribute.path(),
                attribute.feature(),
                attribute.isTruth(),
                variable.unit().unit().fromSi(value),
                variable.unit().symbol());
    }

    /** Sets an attribute from now on, in its unit. */
    public void set(int input, double value) {
        begin();
        HeldAttribute attribute = held.get(input);
        Variable variable = program.flat().variables().get(attribute.variable());
        simulation.set(
                attribute.variable(),
                attribute.isTruth() ? value : variable.unit().unit().toSi(value));
        simulation.happen();
    }

    /** The values of all attributes that change, in their units, by their paths. */
    public Map<String, String> values() {
        Map<String, String> values = new LinkedHashMap<>();
        for (int i = 0; i < program.flat().variables().size(); i++) {
            Variable variable = program.flat().variables().get(i);
            if (isShown(i, variable)) {
                double shown = variable.unit().unit().fromSi(simulation.get(i));
                values.put(
                        variable.path(),
                        shown(shown)
                                + (variable.unit().symbol().isEmpty()
                                        ? ""
                                        : " " + variable.unit().symbol()));
            }
        }
        return values;
    }

    /** What parts have; what a step keeps for itself, and what was accepted last, tell little. */
    private boolean isShown(int index, Variable variable) {
        return switch (variable.role()) {
            case STATE, ALGEBRAIC -> true;
            case HELD ->
                variable.path().endsWith(")") || held.stream().anyMatch(attribute -> attribute.variable() == index);
            case RATE, COUNT -> false;
        };
    }

    private static String shown(double value) {
        return Double.isFinite(value)
                ? new java.math.BigDecimal(value)
                        .round(new java.math.MathContext(5))
                        .stripTrailingZeros()
                        .toPlainString()
                : "–";
    }
}
