package pyrite.core.execution;

import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Moment;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.SortedSystem;
import pyrite.core.dynamics.Sorting;
import pyrite.core.expression.Distribution;

/**
 * Tries, within bounds, all orders in which things can happen: at each point what is planned next comes, or any item
 * that the system accepts and nothing in it sends; of several things due at one instant each may come first; and a
 * branch with a share is taken and not taken. Other values that are drawn have their median. Situations that were met
 * before are not gone on from, so that each is reached by a shortest way (breadth first).
 */
public final class Exploration {
    private static final Duration NEVER = Duration.ofDays(365);
    /** In so many pieces an idle stretch is looked at for a condition that comes about. */
    private static final int PIECES = 50;
    /** What equations move is followed as closely as an exploration needs. */
    private static final double TOLERANCE = 1e-4;

    private final Program program;
    private final SortedSystem sorted;
    private final Outside outside;
    private final Map<String, Condition> claims;
    private final Bounds bounds;
    private final Set<String> met = new HashSet<>();
    private final BitSet reached = new BitSet();
    private final Map<String, Found> found = new LinkedHashMap<>();
    private final RunControl control;
    /** What nothing in the system sends, so that it comes from outside if at all. */
    private final List<Integer> offers = new ArrayList<>();

    private final List<Instance> places = new ArrayList<>();
    private int tried;
    private long patienceEnds;
    private boolean isCut;

    /**
     * How far it goes.
     *
     * @param moves how many things come after each other at the most
     * @param runs how many ways are tried at the most
     * @param horizon how far time passes at the most, s
     * @param patience how long it computes
     */
    public record Bounds(int moves, int runs, double horizon, Duration patience) {}

    /** What was found. */
    public enum Kind {
        STANDSTILL,
        VIOLATION,
        FAILURE
    }

    /**
     * Something that can happen and should not.
     *
     * @param way what leads there, to be tried again with {@link #replay}
     * @param words the same for people
     * @param isReplayable whether it rests on nothing but what comes from outside, so that a recording repeats it
     */
    public record Found(Kind kind, String what, List<Integer> way, List<String> words, boolean isReplayable) {}

    /**
     * @param unreached the states and steps that no way led to, but not what stands inside one of them
     * @param situations how many different situations there are
     * @param isComplete whether all was tried, so that what was not found cannot happen
     */
    public record Result(List<Found> found, List<Subject> unreached, int situations, boolean isComplete) {}

    /** A choice beyond those that a way tells. */
    private static final class Open extends RuntimeException {
        private static final long serialVersionUID = 1;

        private final int options;

        Open(int options) {
            super(null, null, false, false);
            this.options = options;
        }
    }

    /** @param claims conditions that hold in every situation, by what they are called */
    public Exploration(
            Program program, Outside outside, Map<String, Condition> claims, Bounds bounds, RunControl control) {
        this.program = program;
        this.outside = outside;
        this.claims = claims;
        this.bounds = bounds;
        begin();
        this.control = new RunControl() {
            @Override
            public boolean isCancelled() {
                return control.isCancelled() || System.nanoTime() > patienceEnds;
            }
        };
        for (int i = 0; i < outside.offers().size(); i++) {
            if (!outside.isSentWithin(i)) {
                offers.add(i);
                places.add(outside.place(i));
            }
        }
        this.sorted = Sorting.sort(program.flat(), this.control);
    }

    /** The patience begins anew with each request: a way may be asked for long after it was found. */
    private void begin() {
        patienceEnds = System.nanoTime() + bounds.patience().toNanos();
    }

    public Result explore() {
        begin();
        Deque<int[]> open = new ArrayDeque<>();
        open.add(new int[0]);
        while (!open.isEmpty()) {
            int[] way = open.poll();
            if (++tried > bounds.runs() || control.isCancelled()) {
                isCut = true;
                break;
            }
            int options = new Trial(way, Witness.NOBODY).run();
            for (int choice = 0; choice < options; choice++) {
                int[] longer = Arrays.copyOf(way, way.length + 1);
                longer[way.length] = choice;
                open.add(longer);
            }
        }
        List<Subject> unreached = new ArrayList<>();
        for (int i = 0; i < program.subjects().size(); i++) {
            Subject subject = program.subjects().get(i);
            boolean happens = subject.kind() == Subject.Kind.STATE || subject.kind() == Subject.Kind.STEP;
            boolean isInsideUnreached = subject.parent() >= 0 && !reached.get(subject.parent());
            if (happens && !reached.get(i) && !isInsideUnreached) {
                unreached.add(subject);
            }
        }
        // Situations that differ only in what equations move count as one: then not all was tried.
        boolean isAll = !isCut && program.flat().rates().isEmpty();
        return new Result(List.copyOf(found.values()), unreached, met.size(), isAll);
    }

    /** Goes a way again, and tells a witness what happens on it; the instant at which it ends, s. */
    public double replay(List<Integer> way, Witness witness) {
        begin();
        Trial trial = new Trial(way.stream().mapToInt(Integer::intValue).toArray(), witness);
        trial.run();
        return trial.simulation.time();
    }

    /** One way, from the beginning. */
    private final class Trial implements Choices {
        private final int[] way;
        private final List<String> words = new ArrayList<>();
        private final Engine engine;
        private final Simulation simulation;
        private int at;
        private int moves;
        /** Whether chance or an order at one instant was decided on the way. */
        private boolean isChosen;

        Trial(int[] way, Witness witness) {
            this.way = way;
            this.engine = new Engine(program, 1, 0, List.of(), witness, this);
            RunSettings settings =
                    RunSettings.of(0, bounds.horizon()).withTolerance(TOLERANCE).withBudget(NEVER);
            this.simulation = Simulation.of(sorted, settings, control, engine);
        }

        /** How many choices there are where the way ends; 0 if nothing is to be tried from there. */
        int run() {
            try {
                simulation.begin();
                while (at < way.length) {
                    move(choose(1 + offers.size()));
                    moves++;
                }
                return arrived();
            } catch (Open choice) {
                return choice.options;
            } catch (RunFailure e) {
                if (e.reason() == RunFailure.Reason.CANCELLED) {
                    isCut = true;
                } else {
                    note(Kind.FAILURE, String.valueOf(e.getMessage()));
                }
                return 0;
            }
        }

        private void move(int choice) {
            if (choice > 0) {
                int which = offers.get(choice - 1);
                Outside.Offer offer = outside.offers().get(which);
                words.add((offer.type() == null ? "an item" : offer.type().name()) + " comes to " + offer.at() + " at "
                        + seconds(simulation.time()));
                engine.come(outside.give(simulation.time(), which, Map.of()));
                simulation.happen();
                return;
            }
            int before = engine.log().size();
            double begun = simulation.time();
            while (simulation.time() < bounds.horizon() && engine.log().size() == before) {
                double piece = simulation.time() + bounds.horizon() / PIECES;
                simulation.advance(Math.min(bounds.horizon(), Math.min(engine.next(), piece)));
            }
            if (simulation.time() > begun) {
                words.add("time passes to " + seconds(simulation.time()));
            }
        }

        private static String seconds(double time) {
            return Math.round(time * 1000) / 1000.0 + " s";
        }

        /** Looks at the situation where the way ends. */
        private int arrived() {
            for (int i = 0; i < engine.log().size(); i++) {
                EventLog.Event event = engine.log().get(i);
                if (event.kind() == EventLog.Kind.STARTED || event.kind() == EventLog.Kind.ENTERED) {
                    reached.set(event.subject());
                }
            }
            if (!met.add(engine.situation())) {
                return 0;
            }
            claims.forEach((name, claim) -> {
                if (!simulation.holds(claim)) {
                    note(Kind.VIOLATION, name + " does not hold");
                }
            });
            String stands = engine.isStandingStill() ? standstill() : "";
            if (!stands.isEmpty()) {
                note(Kind.STANDSTILL, stands);
            }
            boolean isOver = simulation.time() >= bounds.horizon();
            if (moves >= bounds.moves() || isOver) {
                isCut |= moves >= bounds.moves();
                return 0;
            }
            return 1 + offers.size();
        }

        /** What waits, and not for something that may still come from outside. */
        private String standstill() {
            return String.join(
                    "; ",
                    engine.waits().stream()
                            .filter(wait -> wait.subject() >= 0 && wait.kind() != Engine.Wait.Kind.EVENT)
                            .filter(wait -> wait.for_().stream().noneMatch(places::contains))
                            .map(wait ->
                                    "'" + program.subjects().get(wait.subject()).path() + "' " + wait.what())
                            .toList());
        }

        private void note(Kind kind, String what) {
            found.putIfAbsent(
                    kind + what,
                    new Found(
                            kind,
                            what,
                            Arrays.stream(way).boxed().toList(),
                            List.copyOf(words),
                            !isChosen && !program.isRandom()));
        }

        private int choose(int options) {
            if (at == way.length) {
                throw new Open(options);
            }
            return way[at++];
        }

        @Override
        public int among(int options) {
            int chosen = choose(options);
            isChosen = true;
            words.add("of " + options + " things due at " + seconds(simulation.time()) + " number " + (chosen + 1)
                    + " comes first");
            return chosen;
        }

        @Override
        public double draw(Draw draw, RandomStreams usual, Moment moment) {
            if (draw.distribution() != Distribution.CHANCE) {
                return usual.quantile(draw, moment, 0.5);
            }
            double share = moment.value(draw.parameters().getFirst());
            if (share <= 0 || share >= 1) {
                return share;
            }
            int chosen = choose(2);
            words.add("a branch is " + (chosen == 1 ? "taken" : "not taken"));
            return chosen;
        }
    }
}
