package pyrite.core.execution;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.PriorityQueue;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.Happenings;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.Moment;
import pyrite.core.dynamics.RunFailure;
import pyrite.core.dynamics.Term;
import pyrite.core.dynamics.Variable;
import pyrite.core.model.ElementId;

/**
 * Lets the behaviour of a program happen: events in the order of time, at one instant in the order in which they were
 * planned. What is due at an instant is carried out one piece of work after the other until nothing is left; each piece
 * begins others at the end of the queue. So the same program and seed give the same run.
 */
public final class Engine implements Happenings {
    /** So many pieces of work at one instant have no end. */
    private static final int MOST_AT_ONCE = 200_000;

    private static final int MOST_EVENTS = 20_000_000;

    private final Program program;
    private final RandomStreams streams;
    private final EventLog log;
    private final PriorityQueue<Timer> agenda = new PriorityQueue<>();
    private final Deque<Piece> work = new ArrayDeque<>();
    private final List<Watch> watches = new ArrayList<>();
    private final Set<Wait> waits = new LinkedHashSet<>();
    private final Map<Integer, Assigned> assigned = new HashMap<>();
    private final Map<Instance, Item> current = new IdentityHashMap<>();
    private final Performances performances;
    private final Machines machines;
    private final Pools pools;
    private final Mail mail;
    private @Nullable Moment moment;
    private final Witness witness;
    private final Choices choices;
    private final Deque<Stimulus> stimuli;
    private long planned;
    /** The event from which follows what happens now; -1 for none. */
    private int cause = -1;

    private int events;
    private int itemCount;
    private boolean isStill;

    /** Something to be done now, and the event it follows from. */
    private record Piece(int cause, Runnable task) {}

    /** What is to be done at an instant, unless it is called off. */
    static final class Timer implements Comparable<Timer> {
        private final double time;
        private final long order;
        private final Piece piece;
        private boolean isOff;

        private Timer(double time, long order, Piece piece) {
            this.time = time;
            this.order = order;
            this.piece = piece;
        }

        void callOff() {
            isOff = true;
        }

        @Override
        public int compareTo(Timer other) {
            int byTime = Double.compare(time, other.time);
            return byTime != 0 ? byTime : Long.compare(order, other.order);
        }
    }

    /** What waits for a condition. */
    static final class Watch {
        private final Condition condition;
        private final Piece piece;
        private boolean isOff;

        private Watch(Condition condition, Piece piece) {
            this.condition = condition;
            this.piece = piece;
        }

        void callOff() {
            isOff = true;
        }
    }

    /**
     * That something waits.
     *
     * @param subject the index of what waits, or, of a control node, of the behaviour around it
     * @param at the element that waits
     * @param what in words, such as {@code waits for 'Order' via kitchen.counter}
     * @param asked the conditions none of which holds
     */
    public record Wait(int subject, ElementId at, Kind kind, String what, List<Instance> for_, List<Condition> asked) {
        /** What kind of thing is missing. */
        public enum Kind {
            ITEM,
            POOL,
            STEP,
            CONDITION,
            BRANCH,
            /** A state waits for what may come at any time, which is nothing to worry about. */
            EVENT
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return this == other;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(this);
        }
    }

    /**
     * @param seed of the random numbers
     * @param replication tells several runs with one seed from each other
     */
    public Engine(Program program, long seed, int replication) {
        this(program, seed, replication, List.of(), Witness.NOBODY);
    }

    /**
     * @param stimuli what comes from outside, in the order of time; each when all that is due at its instant has
     *     happened
     */
    public Engine(Program program, long seed, int replication, List<Stimulus> stimuli, Witness witness) {
        this(program, seed, replication, stimuli, witness, Choices.USUAL);
    }

    Engine(Program program, long seed, int replication, List<Stimulus> stimuli, Witness witness, Choices choices) {
        this.choices = choices;
        this.program = program;
        this.stimuli = new ArrayDeque<>(stimuli);
        this.witness = witness;
        this.streams = new RandomStreams(seed, replication);
        this.log = new EventLog(program.subjects());
        this.performances = new Performances(this, program);
        this.machines = new Machines(this);
        this.pools = new Pools(this, program);
        this.mail = new Mail(this, program);
    }

    public EventLog log() {
        return log;
    }

    /** What happened so far, and what waits now. */
    public Happened happened() {
        return new Happened(log, Standstill.of(this));
    }

    boolean isStandingStill() {
        return isStill;
    }

    /** What waits now, in the order in which it began to. */
    public List<Wait> waits() {
        return List.copyOf(waits);
    }

    Program program() {
        return program;
    }

    Performances performances() {
        return performances;
    }

    Machines machines() {
        return machines;
    }

    Pools pools() {
        return pools;
    }

    Mail mail() {
        return mail;
    }

    // Happenings

    @Override
    public void begin(Moment first) {
        moment = first;
        program.atStart().forEach(draw -> first.set(draw.variable(), drawn(draw)));
        program.steps().values().forEach(step -> {
            if (step.counted != null) {
                first.set(step.counted.first(), 0);
                first.set(step.counted.second(), 0);
            }
        });
        program.states().forEach(state -> {
            first.set(state.counted.first(), 0);
            first.set(state.counted.second(), 0);
        });
        program.assigned().forEach(this::initial);
        pools.begin();
        program.performed().stream()
                .filter(top -> top.step().needs.isEmpty())
                .forEach(top -> soon(() -> performances.begin(top.step(), null, List.of())));
    }

    /** The first value of an attribute; one that has none is no number until it is assigned. */
    void initial(HeldAttribute attribute) {
        if (attribute.start() != null) {
            set(attribute.variable(), number(new Formula(attribute.start(), attribute.draws())));
        }
    }

    @Override
    public double next() {
        while (!agenda.isEmpty() && agenda.peek().isOff) {
            agenda.poll();
        }
        double planned = agenda.isEmpty() ? Double.POSITIVE_INFINITY : agenda.peek().time;
        return stimuli.isEmpty() ? planned : Math.min(planned, stimuli.peek().time());
    }

    @Override
    public void happen(Moment now) {
        moment = now;
        int atOnce = 0;
        while (true) {
            Piece piece = work.poll();
            if (piece == null) {
                piece = due();
            }
            if (piece == null) {
                piece = watched();
            }
            if (piece == null) {
                piece = fromOutside();
            }
            if (piece == null) {
                break;
            }
            if (++atOnce > MOST_AT_ONCE || ++events > MOST_EVENTS) {
                throw failure(
                        "at t = " + now.time() + " s more than "
                                + (atOnce > MOST_AT_ONCE
                                        ? MOST_AT_ONCE + " things happen at one instant"
                                        : MOST_EVENTS + " things have happened")
                                + "; " + lastSubject() + " is one of them; give something in the circle a duration",
                        List.of());
            }
            cause = piece.cause();
            piece.task().run();
        }
        cause = -1;
        noticeStandstill(now.time());
    }

    private String lastSubject() {
        return log.size() == 0
                ? "what is performed first"
                : "'"
                        + program.subjects()
                                .get(log.get(log.size() - 1).subject())
                                .path() + "'";
    }

    private @Nullable Piece due() {
        next();
        if (agenda.isEmpty() || agenda.peek().time > now()) {
            return null;
        }
        return choices == Choices.USUAL ? agenda.poll().piece : oneOfTheDue();
    }

    private Piece oneOfTheDue() {
        List<Timer> due = new ArrayList<>();
        while (next() <= now() && !agenda.isEmpty() && agenda.peek().time <= now()) {
            due.add(agenda.poll());
        }
        Timer chosen = due.remove(due.size() == 1 ? 0 : choices.among(due.size()));
        agenda.addAll(due);
        return chosen.piece;
    }

    private @Nullable Piece fromOutside() {
        if (stimuli.isEmpty() || stimuli.peek().time() > now()) {
            return null;
        }
        Stimulus next = stimuli.poll();
        return new Piece(-1, () -> come(next));
    }

    private @Nullable Piece watched() {
        for (int i = 0; i < watches.size(); i++) {
            Watch watch = watches.get(i);
            if (watch.isOff) {
                watches.remove(i--);
            } else if (moment().holds(watch.condition)) {
                watches.remove(i);
                return watch.piece;
            }
        }
        return null;
    }

    private void noticeStandstill(double time) {
        boolean isNow = agenda.isEmpty()
                && stimuli.isEmpty()
                && watches.isEmpty()
                && waits.stream().anyMatch(wait -> wait.kind() != Wait.Kind.EVENT);
        if (isNow && !isStill) {
            waits.stream()
                    .filter(wait -> wait.subject() >= 0 && wait.kind() != Wait.Kind.EVENT)
                    .forEach(wait -> log.add(time, EventLog.Kind.STANDSTILL, wait.subject(), 0, inWords(wait), -1));
        }
        isStill = isNow;
    }

    /** Something comes from outside, now. */
    void come(Stimulus stimulus) {
        switch (stimulus.what()) {
            case Stimulus.What.Give(Instance at, Item.Layout layout, double[] values) -> {
                Item item = new Item(layout, nextItem(), values);
                witness(Witness.Outcome.GIVEN, item, at, -1);
                soon(() -> mail.deliver(at, item));
            }
            case Stimulus.What.Set(HeldAttribute attribute, double value) -> {
                witness.set(now(), attribute.path(), value, attribute.feature());
                set(attribute.variable(), value);
                performances.saveLoaded();
            }
        }
    }

    void witness(Witness.Outcome outcome, Item item, @Nullable Instance place, int subject) {
        if (witness != Witness.NOBODY) {
            witness.item(now(), outcome, item.thing(), place, subject);
        }
    }

    // What the parts of the engine ask for

    private Moment moment() {
        return Objects.requireNonNull(moment, "the run has not begun");
    }

    double now() {
        return moment().time();
    }

    void soon(Runnable task) {
        work.add(new Piece(cause, task));
    }

    Timer plan(double time, Runnable task) {
        Timer timer = new Timer(time, planned++, new Piece(cause, task));
        agenda.add(timer);
        return timer;
    }

    Watch watch(Condition condition, Runnable task) {
        Watch watch = new Watch(condition, new Piece(cause, task));
        watches.add(watch);
        return watch;
    }

    Wait waiting(int subject, Wait.Kind kind, String what, List<Instance> for_) {
        return waitingAt(program.subjects().get(subject).element(), subject, kind, what, for_);
    }

    Wait waitingAt(ElementId at, int subject, Wait.Kind kind, String what, List<Instance> for_) {
        return begun(new Wait(subject, at, kind, what, for_, List.of()));
    }

    Wait waitingUntil(ElementId at, int subject, Wait.Kind kind, String what, List<Condition> asked) {
        return begun(new Wait(subject, at, kind, what, List.of(), asked));
    }

    private Wait begun(Wait wait) {
        waits.add(wait);
        return wait;
    }

    /** What something waits for, with the values that its conditions have now. */
    String inWords(Wait wait) {
        Set<String> values = new LinkedHashSet<>();
        wait.asked()
                .forEach(condition -> condition.variables(index -> {
                    Variable variable = program.flat().variables().get(index);
                    values.add(variable.path() + " = " + variable.inWords(get(index)));
                }));
        return values.isEmpty() ? wait.what() : wait.what() + " (" + String.join(", ", values) + ")";
    }

    void goesOn(@Nullable Wait wait) {
        if (wait != null) {
            waits.remove(wait);
        }
    }

    double number(Formula formula) {
        for (Draw draw : formula.draws()) {
            set(draw.variable(), drawn(draw));
        }
        double value = moment().value(formula.term());
        if (Double.isNaN(value)) {
            throw failure(
                    "something is used at t = " + now() + " s that has no value yet" + about(formula.term()),
                    List.of());
        }
        return value;
    }

    /** Which of the variables in a term has no value. */
    private String about(Term term) {
        List<String> names = new ArrayList<>();
        term.variables(index -> {
            if (Double.isNaN(get(index))) {
                names.add("'" + program.flat().variables().get(index).path() + "'");
            }
        });
        return names.isEmpty() ? "" : ": " + String.join(", ", names);
    }

    private void requireValues(Condition condition) {
        condition.variables(index -> {
            if (Double.isNaN(get(index))) {
                throw failure(
                        "'" + program.flat().variables().get(index).path() + "' is asked for at t = " + now()
                                + " s and has no value yet; give it one with ':='",
                        List.of(program.flat().variables().get(index).feature()));
            }
        });
    }

    private double drawn(Draw draw) {
        try {
            return choices.draw(draw, streams, moment());
        } catch (RandomStreams.ImpossibleDraw e) {
            throw failure(draw.source().strip().split(" ")[0] + ": " + e.getMessage(), List.of());
        }
    }

    boolean holds(@Nullable Question question) {
        if (question == null) {
            return true;
        }
        question.draws().forEach(draw -> set(draw.variable(), drawn(draw)));
        requireValues(question.condition());
        return moment().holds(question.condition());
    }

    double get(int variable) {
        return moment().get(variable);
    }

    void set(int variable, double value) {
        moment().set(variable, value);
    }

    private record Assigned(double time, double value, int subject) {}

    /** Assigns, and notes if something apart from it gave the attribute another value at the same instant. */
    void assign(HeldAttribute target, double value, int subject, int occasion) {
        Assigned before = assigned.put(target.variable(), new Assigned(now(), value, subject));
        set(target.variable(), value);
        log(EventLog.Kind.ASSIGNED, subject, occasion, target.path() + " := " + value);
        if (before != null
                && before.time() == now()
                && before.value() != value
                && program.areApart(before.subject(), subject)) {
            log(
                    EventLog.Kind.OVERWRITTEN,
                    subject,
                    occasion,
                    target.path() + " was " + before.value() + " at this instant, assigned by '"
                            + program.subjects().get(before.subject()).path() + "'");
        }
    }

    void count(int variable, double more) {
        set(variable, get(variable) + more);
    }

    void log(EventLog.Kind kind, int subject, int occasion, String detail) {
        log.add(now(), kind, subject, occasion, detail, cause);
        cause = log.size() - 1;
        switch (kind) {
            case STARTED, ENTERED -> witness.turn(now(), true, subject);
            case ENDED, CUT, LEFT -> witness.turn(now(), false, subject);
            default -> {}
        }
    }

    /**
     * All that what can happen next depends on, but for the values of equations: what goes on with its tokens, items on
     * the way, values that are held, and how long it is until what is planned.
     */
    String situation() {
        StringBuilder words = new StringBuilder();
        performances.describe(words);
        machines.describe(words);
        mail.describe(words);
        waits.stream().map(wait -> wait.subject() + wait.what()).sorted().forEach(words::append);
        for (int i = 0; i < program.flat().variables().size(); i++) {
            if (program.flat().variables().get(i).role() == Variable.Role.HELD) {
                words.append((float) get(i)).append(' ');
            }
        }
        agenda.stream()
                .filter(timer -> !timer.isOff)
                .map(timer -> (float) (timer.time - now()))
                .sorted()
                .forEach(left -> words.append(left).append(';'));
        return words.toString();
    }

    RunFailure failure(String message, List<ElementId> elements) {
        return new RunFailure(RunFailure.Reason.HAPPENING, now(), message, elements);
    }

    int nextItem() {
        return ++itemCount;
    }

    /** What a place for items holds now. */
    @Nullable
    Item current(Instance slot) {
        return current.get(slot);
    }

    void current(Instance slot, Item item) {
        current.put(slot, item);
    }

    /** Writes the values of an item where they are read. */
    void put(Item item, ItemSlot slot) {
        for (HeldAttribute attribute : slot.attributes()) {
            int place = item.layout().type() == null ? 0 : item.layout().place(attribute.features());
            if (place >= 0 && place < item.values().length) {
                set(attribute.variable(), item.values()[place]);
            }
        }
    }
}
