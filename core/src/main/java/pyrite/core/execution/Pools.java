package pyrite.core.execution;

import java.util.ArrayList;
import java.util.Collections;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.StepNode.ClaimNode;
import pyrite.core.execution.StepNode.ClaimNode.Use;

/**
 * Grants what steps claim of pools: all claims of a step at once, by priority and then in the order in which they came.
 * Nobody passes one that waits for the same pool before it.
 */
final class Pools {
    /** So much less than needed is rounding. */
    private static final double ROUNDING = 1e-9;

    private final Engine engine;
    private final Program program;
    private final Map<Instance, Level> levels = new IdentityHashMap<>();
    /** How many queues there are in all, so that nobody looks behind those that all are blocked. */
    private int queues;

    private final List<Request> waiting = new ArrayList<>();
    private final Map<Performance, List<Held>> held = new IdentityHashMap<>();

    /** What a step waits for, in words. */
    private final Map<StepNode, String> words = new IdentityHashMap<>();

    private static final class Level {
        private final Program.PoolNode node;
        private final double capacity;
        private double available;
        /** What steps that fill will add. */
        private double coming;

        private final Object fills = new Object();

        Level(Program.PoolNode node, double capacity, double available) {
            this.node = node;
            this.capacity = capacity;
            this.available = available;
        }
    }

    private record Held(Level level, double amount, Use use) {
        /** What it waits in line with. */
        Object queue() {
            return use == Use.FILL ? level.fills : level;
        }
    }

    private record Request(
            Performance performance, List<Held> wanted, double priority, Runnable granted, Engine.Wait until) {}

    Pools(Engine engine, Program program) {
        this.engine = engine;
        this.program = program;
    }

    void begin() {
        program.pools().forEach((instance, node) -> {
            double capacity = engine.number(node.capacity());
            double initially = node.initially() == null ? capacity : engine.number(node.initially());
            levels.put(instance, new Level(node, capacity, initially));
            engine.set(node.counted().first(), capacity - initially);
            engine.set(node.counted().second(), 0);
        });
        queues = (int) program.steps().values().stream()
                .flatMap(step -> step.claims.stream())
                .map(claim -> Map.entry(System.identityHashCode(claim.pool()), claim.use() == Use.FILL))
                .distinct()
                .count();
    }

    void claim(Performance performance, Runnable granted) {
        List<Held> wanted = new ArrayList<>();
        double priority = Double.NEGATIVE_INFINITY;
        for (ClaimNode claim : performance.node.claims) {
            Level level = Objects.requireNonNull(levels.get(claim.pool()));
            double amount = engine.number(claim.amount());
            priority = Math.max(priority, engine.number(claim.priority()));
            if (!(amount >= 0) || amount > level.capacity * (1 + ROUNDING)) {
                throw engine.failure(
                        "'" + performance.node.path() + "' claims " + amount + " of '"
                                + claim.pool().path() + "', which never has more than " + level.capacity,
                        List.of(performance.node.element.id()));
            }
            wanted.add(new Held(level, amount, claim.use()));
        }
        if (waiting.isEmpty() && all(wanted, Pools::fits)) {
            hold(performance, wanted);
            engine.soon(granted);
            return;
        }
        Engine.Wait wait = engine.waiting(
                performance.node.subject,
                Engine.Wait.Kind.POOL,
                words.computeIfAbsent(performance.node, Pools::words),
                pools(performance.node));
        Request request = new Request(performance, wanted, priority, granted, wait);
        int place = waiting.size();
        while (place > 0 && waiting.get(place - 1).priority() < priority) {
            place--;
        }
        waiting.add(place, request);
        wanted.forEach(each -> engine.count(each.level().node.counted().second(), 1));
        grant();
        if (waiting.contains(request)) {
            engine.log(EventLog.Kind.QUEUED, performance.node.subject, performance.occasion, wait.what());
            performance.callOff.add(() -> withdraw(request));
        }
    }

    private static String words(StepNode node) {
        return pools(node).stream()
                .map(pool -> "'" + pool.path() + "'")
                .collect(Collectors.joining(" and ", "waits for ", ""));
    }

    private static List<Instance> pools(StepNode node) {
        return node.claims.stream().map(ClaimNode::pool).toList();
    }

    private void withdraw(Request request) {
        if (waiting.remove(request)) {
            engine.goesOn(request.until());
            request.wanted()
                    .forEach(each -> engine.count(each.level().node.counted().second(), -1));
            engine.soon(this::grant);
        }
    }

    private void grant() {
        if (waiting.isEmpty()) {
            return;
        }
        // Who fills does not wait behind who takes: it may be what that one waits for.
        Set<Object> passed = Collections.newSetFromMap(new IdentityHashMap<>());
        for (int i = 0; i < waiting.size(); i++) {
            Request request = waiting.get(i);
            boolean isFirst = all(request.wanted(), each -> !passed.contains(each.queue()));
            if (isFirst && all(request.wanted(), Pools::fits)) {
                waiting.remove(i--);
                give(request);
            } else {
                request.wanted().forEach(each -> passed.add(each.queue()));
                if (passed.size() == queues) {
                    return;
                }
            }
        }
    }

    private static boolean all(List<Held> wanted, Predicate<Held> holds) {
        for (Held each : wanted) {
            if (!holds.test(each)) {
                return false;
            }
        }
        return true;
    }

    private static boolean fits(Held wanted) {
        Level level = wanted.level();
        double room = level.capacity * ROUNDING;
        return wanted.use() == Use.FILL
                ? level.available + level.coming + wanted.amount() <= level.capacity + room
                : wanted.amount() <= level.available + room;
    }

    private void give(Request request) {
        engine.goesOn(request.until());
        request.wanted()
                .forEach(each -> engine.count(each.level().node.counted().second(), -1));
        hold(request.performance(), request.wanted());
        engine.soon(request.granted());
    }

    private void hold(Performance performance, List<Held> wanted) {
        for (Held each : wanted) {
            if (each.use() == Use.FILL) {
                each.level().coming += each.amount();
            } else {
                change(each.level(), -each.amount());
            }
        }
        held.put(performance, wanted);
    }

    private void change(Level level, double more) {
        level.available += more;
        engine.set(level.node.counted().first(), level.capacity - level.available);
    }

    /** @param isDone whether the step came to its end; one that was cut short fills nothing */
    void release(Performance performance, boolean isDone) {
        List<Held> given = performance.node.claims.isEmpty() ? null : held.remove(performance);
        if (given == null) {
            return;
        }
        for (Held each : given) {
            switch (each.use()) {
                case HOLD -> change(each.level(), each.amount());
                case DRAW -> {}
                case FILL -> {
                    each.level().coming -= each.amount();
                    if (isDone) {
                        change(each.level(), each.amount());
                    }
                }
            }
        }
        grant();
    }

    /** The performances that hold something of a pool. */
    List<Performance> holders(Instance pool) {
        return held.entrySet().stream()
                .filter(each -> each.getValue().stream()
                        .anyMatch(one -> one.level().node.instance() == pool))
                .map(Map.Entry::getKey)
                .toList();
    }
}
