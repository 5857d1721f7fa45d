package pyrite.core.execution;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;

/** Which ports are joined, over how many connections ever; an item goes to all that can be reached. */
final class Routes {
    private final Map<Instance, List<Hop>> hops = new IdentityHashMap<>();
    /** Several runs of one program look for ways at once; instances are told apart by their identity. */
    private final Map<Instance, List<Reached>> known = new ConcurrentHashMap<>();

    /**
     * A connection over which items take time.
     *
     * @param rate how many pass in a second; null for any number at once
     * @param latency s; null for none
     */
    record ChannelNode(
            Instance instance,
            @Nullable Formula rate,
            @Nullable Formula latency) {}

    private record Hop(Instance to, @Nullable ChannelNode channel) {}

    /** A port that can be reached, and the channels on the way. */
    record Reached(Instance port, List<ChannelNode> channels) {}

    void join(Instance one, Instance other, @Nullable ChannelNode channel) {
        hop(one, other, channel);
        hop(other, one, channel);
    }

    void hop(Instance from, Instance to, @Nullable ChannelNode channel) {
        hops.computeIfAbsent(from, _ -> new ArrayList<>()).add(new Hop(to, channel));
    }

    /** All ports that an item from one reaches, the nearest first. */
    List<Reached> from(Instance port) {
        return known.computeIfAbsent(port, this::search);
    }

    private List<Reached> search(Instance port) {
        Map<Instance, Boolean> seen = new IdentityHashMap<>();
        seen.put(port, true);
        List<Reached> reached = new ArrayList<>();
        Deque<Reached> open = new ArrayDeque<>(List.of(new Reached(port, List.of())));
        while (!open.isEmpty()) {
            Reached at = open.poll();
            for (Hop hop : hops.getOrDefault(at.port(), List.of())) {
                if (seen.put(hop.to(), true) == null) {
                    List<ChannelNode> channels = new ArrayList<>(at.channels());
                    if (hop.channel() != null) {
                        channels.add(hop.channel());
                    }
                    Reached next = new Reached(hop.to(), List.copyOf(channels));
                    reached.add(next);
                    open.add(next);
                }
            }
        }
        return reached;
    }
}
