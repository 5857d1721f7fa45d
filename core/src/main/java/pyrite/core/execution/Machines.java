package pyrite.core.execution;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.EventLog.Kind;
import pyrite.core.execution.StateNode.Way;
import pyrite.core.execution.StepNode.Trigger;

/**
 * Runs state machines (SysML 2.0, 7.18): one event after the other, each to its completion. States are left innermost
 * first and entered outermost first; a transition of an inner state comes before one of an outer; parallel states are
 * asked in the order in which they are declared. A completed state takes its transition without event.
 */
final class Machines {
    private final Engine engine;
    private final Map<Performance, Machine> machines = new HashMap<>();
    private int occasions;

    /** One performance of a state with all in it. */
    static final class Machine {
        private final Performance performance;
        private final Runnable done;
        private final Deque<Runnable> pending = new ArrayDeque<>();
        private @Nullable Active root;
        private int busy;

        Machine(Performance performance, Runnable done) {
            this.performance = performance;
            this.done = done;
        }

        int subject() {
            return performance.node.subject;
        }
    }

    /** A state that is active. */
    private static final class Active {
        private final StateNode node;
        private final @Nullable Active around;
        private final int occasion;
        private final List<Active> inner = new ArrayList<>();
        private final List<Runnable> callOff = new ArrayList<>();
        private @Nullable Performance during;
        private boolean isDuringDone;
        private boolean isLeft;
        /** Whether a transition to done was taken in it. */
        private boolean isFinished;

        private boolean isCompleted;

        Active(StateNode node, @Nullable Active around, int occasion) {
            this.node = node;
            this.around = around;
            this.occasion = occasion;
        }
    }

    Machines(Engine engine) {
        this.engine = engine;
    }

    /** Which states are active, and whether their inside is done. */
    void describe(StringBuilder words) {
        machines.values().stream()
                .filter(machine -> machine.root != null)
                .sorted(Comparator.comparingInt(Machine::subject))
                .forEach(machine -> {
                    describe(Objects.requireNonNull(machine.root), words);
                    words.append(machine.pending.size());
                });
    }

    private static void describe(Active active, StringBuilder words) {
        words.append('s')
                .append(active.node.subject)
                .append(active.isDuringDone)
                .append(active.isFinished)
                .append(active.isCompleted);
        active.inner.forEach(inner -> describe(inner, words));
        words.append('.');
    }

    void start(StateNode root, Performance performance, Runnable done) {
        Machine machine = new Machine(performance, done);
        machines.put(performance, machine);
        register(machine, root);
        machine.busy++;
        enter(machine, root, null, List.of(), () -> settled(machine));
    }

    private void register(Machine machine, StateNode node) {
        node.ways.forEach(way -> {
            if (way.trigger() instanceof Trigger.OfItem of) {
                of.inboxes().forEach(at -> engine.mail().register(machine, at));
            }
        });
        node.states.forEach(state -> register(machine, state));
    }

    // Entering and leaving

    /** @param path the states that are entered below it, instead of where it begins */
    private void enter(Machine machine, StateNode node, @Nullable Active around, List<StateNode> path, Runnable then) {
        Active active = new Active(node, around, ++occasions);
        if (around == null) {
            machine.root = active;
        } else {
            around.inner.add(active);
        }
        engine.count(node.counted.first(), 1);
        engine.log(Kind.ENTERED, node.subject, active.occasion, "");
        act(machine, node.entry, () -> {
            arm(machine, active);
            during(machine, active);
            enterInner(machine, active, path, then);
        });
    }

    private void act(Machine machine, @Nullable StepNode step, Runnable then) {
        if (step == null) {
            then.run();
        } else {
            engine.performances().begin(step, machine.performance, List.of(), then);
        }
    }

    private void during(Machine machine, Active active) {
        if (active.node.during == null) {
            active.isDuringDone = true;
            return;
        }
        active.during = engine.performances().begin(active.node.during, machine.performance, List.of(), () -> {
            active.isDuringDone = true;
            engine.soon(() -> event(machine, () -> complete(machine, active)));
        });
    }

    private void enterInner(Machine machine, Active active, List<StateNode> path, Runnable then) {
        List<StateNode> entered = new ArrayList<>();
        if (active.node.isParallel) {
            entered.addAll(active.node.states);
        } else if (!path.isEmpty()) {
            entered.add(path.getFirst());
        } else {
            for (StateNode.Beginning beginning : active.node.beginnings) {
                if (engine.holds(beginning.guard())) {
                    entered.add(downTo(active.node, beginning.state()).getFirst());
                    break;
                }
            }
        }
        enterEach(machine, active, entered, 0, path, then);
    }

    private void enterEach(
            Machine machine, Active around, List<StateNode> states, int next, List<StateNode> path, Runnable then) {
        if (next == states.size()) {
            engine.soon(() -> event(machine, () -> complete(machine, around)));
            then.run();
            return;
        }
        StateNode state = states.get(next);
        List<StateNode> below = !path.isEmpty() && path.getFirst() == state ? path.subList(1, path.size()) : List.of();
        enter(machine, state, around, below, () -> enterEach(machine, around, states, next + 1, path, then));
    }

    private void leave(Active active, Machine machine, Runnable then) {
        active.isLeft = true;
        leaveInner(active, machine, () -> {
            if (active.during != null) {
                engine.performances().cut(active.during);
            }
            active.callOff.forEach(Runnable::run);
            act(machine, active.node.exit, () -> {
                left(active);
                then.run();
            });
        });
    }

    private void left(Active active) {
        engine.count(active.node.counted.second(), 1);
        engine.log(Kind.LEFT, active.node.subject, active.occasion, "");
        if (active.around != null) {
            active.around.inner.remove(active);
        }
    }

    private void leaveInner(Active active, Machine machine, Runnable then) {
        if (active.inner.isEmpty()) {
            then.run();
        } else {
            leave(active.inner.getLast(), machine, () -> leaveInner(active, machine, then));
        }
    }

    /** A machine whose performance is cut short: nothing in it goes on, and nothing is done on exit. */
    void cut(Performance performance) {
        Machine machine = machines.remove(performance);
        if (machine != null && machine.root != null) {
            engine.mail().unregister(machine);
            cut(machine.root);
        }
    }

    private void cut(Active active) {
        active.isLeft = true;
        List.copyOf(active.inner).forEach(this::cut);
        active.callOff.forEach(Runnable::run);
        left(active);
    }

    // Events

    /** Carries out an event, or keeps it until the one before it has been carried out to its end. */
    private void event(Machine machine, Runnable what) {
        if (machine.busy > 0) {
            machine.pending.add(what);
        } else {
            what.run();
        }
    }

    private void settled(Machine machine) {
        machine.busy--;
        if (machine.busy == 0 && !machine.pending.isEmpty()) {
            engine.soon(() -> {
                Runnable next = machine.busy == 0 ? machine.pending.poll() : null;
                if (next != null) {
                    next.run();
                    if (machine.busy == 0) {
                        machine.busy++;
                        settled(machine);
                    }
                }
            });
        }
    }

    private void arm(Machine machine, Active active) {
        for (Way way : active.node.ways) {
            switch (way.trigger()) {
                case Trigger.OfTime(Formula formula, boolean isAbsolute) -> {
                    double time = engine.number(formula);
                    double at = isAbsolute ? time : engine.now() + time;
                    if (!(at >= engine.now())) {
                        if (isAbsolute) {
                            break;
                        }
                        throw engine.failure(
                                "'" + active.node.instance.path() + "' would be left after " + time
                                        + " s; a waiting time is not negative",
                                List.of(way.element().id()));
                    }
                    Engine.Timer timer = engine.plan(
                            at,
                            () -> event(machine, () -> {
                                if (!active.isLeft && engine.holds(way.guard())) {
                                    take(machine, active, way);
                                }
                            }));
                    active.callOff.add(timer::callOff);
                }
                case Trigger.OfChange(Condition condition, String _) -> watch(machine, active, way, condition);
                case Trigger.OfItem of -> {
                    Engine.Wait wait = engine.waiting(
                            active.node.subject, Engine.Wait.Kind.EVENT, "waits for " + of.words(), of.inboxes());
                    active.callOff.add(() -> engine.goesOn(wait));
                }
                case null -> {}
            }
        }
    }

    /** A change that the guard refuses counts again when the condition has been false between. */
    private void watch(Machine machine, Active active, Way way, Condition condition) {
        Engine.Watch watch = engine.watch(
                condition,
                () -> event(machine, () -> {
                    if (active.isLeft) {
                        return;
                    }
                    if (engine.holds(way.guard())) {
                        take(machine, active, way);
                    } else {
                        Engine.Watch again = engine.watch(
                                new Condition.Not(condition), () -> watch(machine, active, way, condition));
                        active.callOff.add(again::callOff);
                    }
                }));
        active.callOff.add(watch::callOff);
    }

    /** Whether a machine takes an item, now or as soon as it has carried out what came before. */
    boolean offer(Machine machine, Instance at, Item item) {
        if (machine.busy > 0) {
            machine.pending.add(() -> engine.mail().deliver(at, item));
            return true;
        }
        return machine.root != null && dispatch(machine, machine.root, at, item);
    }

    private boolean dispatch(Machine machine, Active active, Instance at, Item item) {
        boolean isTaken = false;
        for (Active inner : List.copyOf(active.inner)) {
            isTaken |= !inner.isLeft && dispatch(machine, inner, at, item);
        }
        if (isTaken || active.isLeft) {
            return isTaken;
        }
        for (Way way : active.node.ways) {
            if (way.trigger() instanceof Trigger.OfItem of && engine.mail().isOf(of, at, item)) {
                engine.put(item, of.slot());
                if (engine.holds(way.guard())) {
                    engine.log(Kind.ACCEPTED, active.node.subject, active.occasion, Mail.words(item) + of.place());
                    engine.witness(Witness.Outcome.ACCEPTED, item, at, active.node.subject);
                    take(machine, active, way);
                    return true;
                }
            }
        }
        return false;
    }

    // Transitions

    private void take(Machine machine, Active from, Way way) {
        machine.busy++;
        StateNode to = way.to();
        engine.log(Kind.TAKEN, from.node.subject, from.occasion, "to " + (to == null ? "done" : to.instance.path()));
        Active outer = from.around;
        while (outer != null && to != null && (to == outer.node || !to.isWithin(outer.node))) {
            outer = outer.around;
        }
        Active around = outer;
        if (around == null) {
            leave(from, machine, () -> act(machine, way.effect(), () -> finish(machine)));
            return;
        }
        Active left = from;
        while (left.around != around) {
            left = Objects.requireNonNull(left.around);
        }
        leave(
                left,
                machine,
                () -> act(machine, way.effect(), () -> {
                    if (to == null) {
                        around.isFinished = true;
                        engine.soon(() -> event(machine, () -> complete(machine, around)));
                        settled(machine);
                        return;
                    }
                    List<StateNode> path = downTo(around.node, to);
                    enter(machine, path.getFirst(), around, path.subList(1, path.size()), () -> settled(machine));
                }));
    }

    /** The states from one within another down to it, the outermost first. */
    private static List<StateNode> downTo(StateNode outer, StateNode to) {
        List<StateNode> path = new ArrayList<>();
        for (StateNode at = to; at != null && at != outer; at = at.around) {
            path.addFirst(at);
        }
        return path;
    }

    private void complete(Machine machine, Active active) {
        if (active.isLeft || active.isCompleted || !isComplete(active)) {
            return;
        }
        active.isCompleted = true;
        for (Way way : active.node.ways) {
            if (way.trigger() == null && engine.holds(way.guard())) {
                take(machine, active, way);
                return;
            }
        }
        if (active.around == null) {
            leave(active, machine, () -> finish(machine));
        } else if (active.around.node.isParallel) {
            complete(machine, active.around);
        }
    }

    private static boolean isComplete(Active active) {
        boolean isInsideDone = active.node.states.isEmpty()
                || (active.node.isParallel
                        ? active.inner.stream().allMatch(inner -> inner.isCompleted)
                        : active.isFinished);
        return isInsideDone && active.isDuringDone;
    }

    private void finish(Machine machine) {
        machines.remove(machine.performance);
        engine.mail().unregister(machine);
        machine.done.run();
    }
}
