package pyrite.core.execution;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** One performance of a step, from its beginning to its end. */
final class Performance {
    final StepNode node;
    final @Nullable Performance around;
    /** Told when it has ended. */
    final @Nullable Runnable behind;
    /** Tells it from the other performances of its step. */
    final int occasion;
    /** The values of what the step has of its own. */
    final double[] frame;

    /** The tokens on each succession of its steps. */
    int[] tokens = {};

    /** Items that wait for a parameter of a step in it. */
    final Map<StepNode.Parameter, Deque<Item>> arrived = new IdentityHashMap<>();

    final List<Performance> running = new ArrayList<>();
    /** What is called off when it is cut short. */
    final List<Runnable> callOff = new ArrayList<>(1);

    boolean isBegun;
    boolean isEnded;
    /** How many rounds of a loop were begun. */
    int round;

    /** How many steps in it are about to begin. */
    int pending;

    /** The step in it that misses something while nothing goes on. */
    Engine.@Nullable Wait stuck;

    /** The decisions in it of which no branch was open; what came to them goes no further. */
    final List<Engine.Wait> blocked = new ArrayList<>(0);

    Performance(StepNode node, @Nullable Performance around, @Nullable Runnable behind, int occasion) {
        this.node = node;
        this.around = around;
        this.behind = behind;
        this.occasion = occasion;
        this.frame = new double[node.frame.size()];
    }

    Deque<Item> arrived(StepNode.Parameter parameter) {
        return arrived.computeIfAbsent(parameter, _ -> new ArrayDeque<>());
    }
}
