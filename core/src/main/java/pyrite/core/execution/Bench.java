package pyrite.core.execution;

import java.time.Duration;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.IntStream;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.Sorting;
import pyrite.core.dynamics.Variable;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
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
    private final Outside outside;
    private final long seed;
    private long patienceEnds;
    /** The report of a standstill, and how many events there were then: it takes long where very much waits. */
    private Standstill standstill = Standstill.NONE;

    private int reportedAt = -1;

    /**
     * An attribute that can be set from outside, and its value now, in its unit.
     *
     * @param isGiven whether the model gives it a value
     */
    public record Input(String path, Element feature, boolean isTruth, double value, String unit, boolean isGiven) {}

    private Bench(
            Model model, Element part, double horizon, long seed, Function<List<Subject>, ? extends Witness> witness) {
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
        this.program = ProgramBuilder.buildToPlay(model, flattening);
        this.outside = new Outside(model, flattening, program);
        this.seed = seed;
        this.engine = new Engine(program, seed, 0, List.of(), witness.apply(program.subjects()));
        this.simulation = Simulation.of(
                Sorting.sort(program.flat(), control),
                RunSettings.of(0, horizon).withBudget(NEVER),
                control,
                engine);
        simulation.begin();
    }

    /**
     * Puts a part on the bench, at its first instant.
     *
     * @param horizon the last instant that can be reached, s
     * @param witness is told what happens, by the subjects of the events
     * @throws ModelFault if it cannot run
     * @throws RunFailure if the first instant cannot be computed
     */
    public static Bench of(
            Model model, Element part, double horizon, long seed, Function<List<Subject>, ? extends Witness> witness) {
        return new Bench(model, part, horizon, seed, witness);
    }

    private void begin() {
        patienceEnds = System.nanoTime() + PATIENCE.toNanos();
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

    public long seed() {
        return seed;
    }

    public List<Outside.Offer> offers() {
        return outside.offers();
    }

    /** For each offer whether something in the system sends it itself. */
    public List<Boolean> sentWithin() {
        return IntStream.range(0, outside.offers().size())
                .mapToObj(outside::isSentWithin)
                .toList();
    }

    /** The next instant at which something is planned, s; infinite if nothing is. */
    public double next() {
        return engine.next();
    }

    /** Whether nothing happens any more unless something comes from outside. */
    public boolean isOver() {
        return Double.isInfinite(next()) && simulation.isStill();
    }

    /** Who waits for what, and why nobody gives it; nothing as long as something can happen by itself. */
    public Standstill standstill() {
        if (!isOver()) {
            return Standstill.NONE;
        }
        if (reportedAt != engine.log().size()) {
            reportedAt = engine.log().size();
            standstill = Standstill.of(engine);
        }
        return standstill;
    }

    /** What each element waits for that keeps everything from going on; nothing as long as something can happen. */
    public Map<ElementId, String> stuck() {
        Map<ElementId, String> stuck = new LinkedHashMap<>();
        if (isOver()) {
            engine.waits().stream()
                    .filter(wait -> wait.kind() != Engine.Wait.Kind.EVENT)
                    .forEach(wait -> stuck.putIfAbsent(wait.at(), engine.inWords(wait)));
        }
        return stuck;
    }

    /** Lets time pass up to an instant, s. */
    public void advance(double until) {
        begin();
        simulation.advance(Math.min(until, horizon));
    }

    /** Lets time pass until something happens, at most up to an instant, s; not at all if nothing can. */
    public boolean advanceToEvent(double until) {
        if (isOver()) {
            return false;
        }
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
        Map<String, Double> si = new HashMap<>();
        Element type = outside.offers().get(offer).type();
        if (type != null) {
            for (Element attribute : model.inheritance().features(type)) {
                Double value = values.get(model.names().effectiveName(attribute));
                if (value != null) {
                    si.put(
                            Objects.requireNonNull(model.names().effectiveName(attribute)),
                            new DisplayUnits(model).of(attribute).unit().toSi(value));
                }
            }
        }
        engine.come(outside.give(simulation.time(), offer, si));
        simulation.happen();
    }

    /** The attributes that can be set, with their values now. */
    public List<Input> inputs() {
        return outside.settable().stream().map(this::input).toList();
    }

    private Input input(HeldAttribute attribute) {
        Variable variable = program.flat().variables().get(attribute.variable());
        double value = simulation.get(attribute.variable());
        return new Input(
                attribute.path(),
                attribute.feature(),
                attribute.isTruth(),
                variable.unit().unit().fromSi(value),
                variable.unit().symbol(),
                model.inheritance().value(attribute.feature()).isPresent());
    }

    /** Sets an attribute from now on, in its unit. */
    public void set(int input, double value) {
        begin();
        HeldAttribute attribute = outside.settable().get(input);
        Variable variable = program.flat().variables().get(attribute.variable());
        double si = attribute.isTruth() ? value : variable.unit().unit().toSi(value);
        engine.come(outside.set(simulation.time(), attribute.path(), si).orElseThrow());
        simulation.happen();
    }

    /** The values of all attributes that change, in their units, by their paths. */
    public Map<String, String> values() {
        Map<String, String> values = new LinkedHashMap<>();
        for (int i = 0; i < program.flat().variables().size(); i++) {
            Variable variable = program.flat().variables().get(i);
            if (isShown(i, variable)) {
                values.put(variable.path(), variable.inWords(simulation.get(i)));
            }
        }
        return values;
    }

    /** What parts have; what a step keeps for itself, and what was accepted last, tell little. */
    private boolean isShown(int index, Variable variable) {
        return switch (variable.role()) {
            case STATE, ALGEBRAIC -> true;
            case HELD ->
                variable.path().endsWith(")")
                        || outside.settable().stream().anyMatch(attribute -> attribute.variable() == index);
            case RATE, COUNT -> false;
        };
    }
}
