package pyrite.core.execution;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.EventLog.Kind;
import pyrite.core.execution.Routes.ChannelNode;
import pyrite.core.execution.Routes.Reached;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Parameter;
import pyrite.core.execution.StepNode.Trigger;
import pyrite.core.execution.Witness.Outcome;
import pyrite.core.model.ElementId;
import pyrite.core.model.LibraryNames;

/**
 * Brings items from where they are sent to where they are accepted. A state machine is asked first; then the accept
 * action that has waited longest takes the item; else it is queued where some accept action may come to want it.
 */
final class Mail {
    private static final ElementId SIZE = LibraryNames.id("Execution::Sized::size");

    private final Engine engine;
    private final Program program;
    private final Map<Instance, Inbox> inboxes = new IdentityHashMap<>();
    private final Map<ChannelNode, Double> freeAt = new HashMap<>();
    private final Map<Parameter, Deque<Item>> kept = new IdentityHashMap<>();

    /** A port, or a part itself, where items arrive. */
    private static final class Inbox {
        private final Deque<Item> queue = new ArrayDeque<>();
        private final List<Waiting> waiting = new ArrayList<>();
        private final List<Machines.Machine> machines = new ArrayList<>();
        private final List<Trigger.OfItem> wanted = new ArrayList<>();
        private final List<Trigger.OfItem> handled = new ArrayList<>();
    }

    private record Waiting(Performance performance, Trigger.OfItem trigger, Engine.Wait until) {}

    Mail(Engine engine, Program program) {
        this.engine = engine;
        this.program = program;
        program.steps().values().forEach(step -> {
            if (step.deed instanceof Deed.Accept(Trigger.OfItem of)) {
                of.inboxes().forEach(inbox -> inbox(inbox).wanted.add(of));
            }
        });
        program.states()
                .forEach(state -> state.ways.forEach(way -> {
                    if (way.trigger() instanceof Trigger.OfItem of) {
                        of.inboxes().forEach(inbox -> inbox(inbox).handled.add(of));
                    }
                }));
    }

    private Inbox inbox(Instance at) {
        return inboxes.computeIfAbsent(at, _ -> new Inbox());
    }

    void register(Machines.Machine machine, Instance at) {
        if (!inbox(at).machines.contains(machine)) {
            inbox(at).machines.add(machine);
        }
    }

    void unregister(Machines.Machine machine) {
        inboxes.values().forEach(inbox -> inbox.machines.remove(machine));
    }

    // Sending

    void send(Performance performance, Deed.Send send) {
        Item item = made(send);
        String what = words(item);
        StepNode node = performance.node;
        engine.log(Kind.SENT, node.subject, performance.occasion, what);
        engine.witness(Outcome.SENT, item, null, node.subject);
        boolean isReceived = false;
        for (Instance receiver : send.receivers()) {
            isReceived |= isWanted(receiver, item);
            deliver(receiver, item);
        }
        for (Instance port : send.ports()) {
            for (Reached reached : program.routes().from(port)) {
                if (isWanted(reached.port(), item)) {
                    isReceived = true;
                    travel(reached, 0, item, what);
                }
            }
        }
        if (!isReceived) {
            engine.witness(Outcome.LOST, item, null, node.subject);
            engine.log(Kind.LOST, node.subject, performance.occasion, what + ": nobody there accepts it");
        }
    }

    private Item made(Deed.Send send) {
        if (send.from() != null) {
            Item known = engine.current(send.from());
            if (known != null) {
                return known;
            }
        }
        double[] values = new double[send.values().size()];
        for (int i = 0; i < values.length; i++) {
            @Nullable Formula value = send.values().get(i);
            values[i] = value == null ? Double.NaN : engine.number(value);
        }
        return new Item(send.layout(), engine.nextItem(), values);
    }

    /** Type and number: what tells an item from all others. */
    static String words(Item item) {
        String type = item.layout().type() == null
                ? "value"
                : String.valueOf(item.layout().type().name());
        return type + " " + item.number();
    }

    /** Over one channel after the other; each takes items in the order in which they come. */
    private void travel(Reached reached, int channel, Item item, String what) {
        if (channel == reached.channels().size()) {
            deliver(reached.port(), item);
            return;
        }
        over(reached.channels().get(channel), item, () -> travel(reached, channel + 1, item, what));
    }

    /** Over what takes time; items go in the order in which they come. */
    void over(ChannelNode over, Item item, Runnable arrival) {
        double now = engine.now();
        double begins = Math.max(now, freeAt.getOrDefault(over, now));
        double ends = over.rate() == null ? begins : begins + size(item) / engine.number(over.rate());
        if (!(ends >= begins)) {
            throw engine.failure(
                    "the rate of '" + over.instance().path() + "' is not positive",
                    List.of(over.instance().usage().id()));
        }
        freeAt.put(over, ends);
        double arrives = ends + (over.latency() == null ? 0 : engine.number(over.latency()));
        engine.plan(arrives, arrival);
    }

    /** An item may say that it counts as so many. */
    private static double size(Item item) {
        int place = item.layout().place(Set.of(SIZE));
        return place < 0 || Double.isNaN(item.values()[place]) ? 1 : item.values()[place];
    }

    // Arriving

    private boolean matches(Trigger.OfItem trigger, Item item) {
        return trigger.type() == null
                || item.layout().type() != null
                        && program.kinship().isA(item.layout().type(), trigger.type());
    }

    private boolean isWanted(Instance at, Item item) {
        Inbox inbox = inboxes.get(at);
        return inbox != null
                && (inbox.wanted.stream().anyMatch(each -> matches(each, item))
                        || inbox.handled.stream().anyMatch(each -> matches(each, item)));
    }

    /** From a part of the engine, or from outside. */
    void deliver(Instance at, Item item) {
        Inbox inbox = inboxes.get(at);
        if (inbox == null) {
            return;
        }
        for (Machines.Machine machine : List.copyOf(inbox.machines)) {
            if (engine.machines().offer(machine, at, item)) {
                return;
            }
        }
        for (Iterator<Waiting> waiting = inbox.waiting.iterator(); waiting.hasNext(); ) {
            Waiting next = waiting.next();
            if (matches(next.trigger(), item)) {
                waiting.remove();
                accepted(next, item);
                return;
            }
        }
        if (inbox.wanted.stream().anyMatch(each -> matches(each, item))) {
            inbox.queue.add(item);
        } else {
            engine.witness(Outcome.DROPPED, item, at, -1);
            dropped(inbox, item);
        }
    }

    private void dropped(Inbox inbox, Item item) {
        for (Machines.Machine machine : inbox.machines) {
            engine.log(Kind.DROPPED, machine.subject(), 0, words(item) + ": no transition accepts it now");
        }
    }

    private void accepted(Waiting waiting, Item item) {
        engine.goesOn(waiting.until());
        // Whatever other ports it waited at, it waits no more.
        waiting.trigger()
                .inboxes()
                .forEach(each -> inbox(each).waiting.removeIf(one -> one.performance() == waiting.performance()));
        engine.soon(() -> {
            if (!waiting.performance().isEnded) {
                engine.performances().accepted(waiting.performance(), waiting.trigger(), item);
            }
        });
    }

    /** An accept action takes the first item that it wants, or waits for one. */
    void await(Performance performance, Trigger.OfItem trigger) {
        for (Instance at : trigger.inboxes()) {
            for (Iterator<Item> queued = inbox(at).queue.iterator(); queued.hasNext(); ) {
                Item item = queued.next();
                if (matches(trigger, item)) {
                    queued.remove();
                    engine.soon(() -> {
                        if (!performance.isEnded) {
                            engine.performances().accepted(performance, trigger, item);
                        }
                    });
                    return;
                }
            }
        }
        Engine.Wait wait = engine.waiting(
                performance.node.subject, Engine.Wait.Kind.ITEM, "waits for " + trigger.words(), trigger.inboxes());
        engine.log(Kind.WAITS, performance.node.subject, performance.occasion, wait.what());
        Waiting waiting = new Waiting(performance, trigger, wait);
        trigger.inboxes().forEach(at -> inbox(at).waiting.add(waiting));
        performance.callOff.add(() -> {
            engine.goesOn(wait);
            trigger.inboxes().forEach(at -> inbox(at).waiting.remove(waiting));
        });
    }

    boolean isOf(Trigger.OfItem trigger, Instance at, Item item) {
        return trigger.inboxes().contains(at) && matches(trigger, item);
    }

    /** The items that are queued, in an order that does not depend on who came first elsewhere. */
    void describe(StringBuilder words) {
        inboxes.entrySet().stream()
                .filter(entry -> !entry.getValue().queue.isEmpty())
                .sorted(Comparator.comparing(entry -> entry.getKey().path()))
                .forEach(entry -> {
                    words.append(entry.getKey().path());
                    entry.getValue()
                            .queue
                            .forEach(item -> words.append(item.layout().type()).append(Arrays.toString(item.values())));
                });
    }

    /** How many items are queued at a port. */
    int queued(Instance at) {
        Inbox inbox = inboxes.get(at);
        return inbox == null ? 0 : inbox.queue.size();
    }

    // Items that flow to steps of behaviours that do not go on yet

    void keep(StepNode step, Parameter need, Item item) {
        kept.computeIfAbsent(need, _ -> new ArrayDeque<>()).add(item);
        boolean isTop = program.performed().stream().anyMatch(top -> top.step() == step);
        while (isTop && step.needs.stream().noneMatch(each -> kept(each).isEmpty())) {
            List<Item> items =
                    step.needs.stream().map(each -> kept(each).removeFirst()).toList();
            engine.soon(() -> engine.performances().begin(step, null, items));
        }
    }

    Deque<Item> kept(Parameter need) {
        return kept.computeIfAbsent(need, _ -> new ArrayDeque<>());
    }
}
