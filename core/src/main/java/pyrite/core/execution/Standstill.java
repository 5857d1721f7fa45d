package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jgrapht.Graph;
import org.jgrapht.alg.connectivity.KosarajuStrongConnectivityInspector;
import org.jgrapht.graph.DefaultDirectedGraph;
import org.jgrapht.graph.DefaultEdge;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.Engine.Wait;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Trigger;

/**
 * Who waits for what at the end of a run, who could have given it, and why nobody did; circles first.
 *
 * @param isComplete whether nothing could happen any more when it was looked at
 */
public record Standstill(boolean isComplete, List<Entry> entries) {
    public static final Standstill NONE = new Standstill(false, List.of());

    /**
     * One that waits.
     *
     * @param subject the index among the subjects of the log
     * @param isInCircle whether it waits, over others, for itself
     */
    public record Entry(int subject, String what, boolean isInCircle, List<Giver> givers) {}

    /**
     * One that could have given what is missing.
     *
     * @param subject -1 where it is said that there is none
     */
    public record Giver(int subject, String why) {}

    public Standstill {
        entries = List.copyOf(entries);
    }

    static Standstill of(Engine engine) {
        return new Search(engine).found();
    }

    private static final class Search {
        private final Engine engine;
        private final Program program;
        private final Map<Integer, Wait> waiting = new HashMap<>();
        private final Map<Instance, StepNode> steps;

        Search(Engine engine) {
            this.engine = engine;
            this.program = engine.program();
            this.steps = program.steps();
            engine.waits().forEach(wait -> waiting.putIfAbsent(wait.subject(), wait));
        }

        Standstill found() {
            List<Entry> entries = new ArrayList<>();
            for (Wait wait : engine.waits()) {
                if (wait.kind() != Wait.Kind.EVENT && wait.subject() >= 0) {
                    entries.add(new Entry(wait.subject(), engine.inWords(wait), false, givers(wait)));
                }
            }
            Set<Integer> circles = circles(entries);
            List<Entry> ordered = new ArrayList<>();
            entries.stream()
                    .filter(entry -> circles.contains(entry.subject()))
                    .map(entry -> new Entry(entry.subject(), entry.what(), true, entry.givers()))
                    .forEach(ordered::add);
            entries.stream().filter(entry -> !circles.contains(entry.subject())).forEach(ordered::add);
            return new Standstill(engine.isStandingStill(), ordered);
        }

        private static Set<Integer> circles(List<Entry> entries) {
            Graph<Integer, DefaultEdge> graph = new DefaultDirectedGraph<>(DefaultEdge.class);
            entries.forEach(entry -> graph.addVertex(entry.subject()));
            entries.forEach(entry -> entry.givers().stream()
                    .filter(giver -> graph.containsVertex(giver.subject()))
                    .forEach(giver -> graph.addEdge(entry.subject(), giver.subject())));
            Set<Integer> circles = new HashSet<>();
            new KosarajuStrongConnectivityInspector<>(graph)
                    .stronglyConnectedSets().stream()
                            .filter(set -> set.size() > 1
                                    || graph.containsEdge(
                                            set.iterator().next(),
                                            set.iterator().next()))
                            .forEach(circles::addAll);
            return circles;
        }

        private List<Giver> givers(Wait wait) {
            return switch (wait.kind()) {
                case POOL ->
                    wait.for_().stream().flatMap(pool -> holders(pool).stream()).toList();
                case STEP -> wait.for_().stream().map(step -> state(step, wait)).toList();
                case ITEM -> senders(wait);
                case CONDITION, BRANCH, EVENT -> List.of();
            };
        }

        private List<Giver> holders(Instance pool) {
            return engine.pools().holders(pool).stream()
                    .map(performance -> new Giver(
                            performance.node.subject,
                            "'" + performance.node.path() + "' holds '" + pool.path() + "'"
                                    + (waiting.containsKey(performance.node.subject)
                                            ? " and itself "
                                                    + waiting.get(performance.node.subject)
                                                            .what()
                                            : "")))
                    .toList();
        }

        /** What has become of a step that somebody waits for. */
        private Giver state(Instance instance, Wait asking) {
            StepNode step = steps.get(instance);
            if (step == null || step.subject < 0 || step.counted == null) {
                return new Giver(-1, "'" + instance.path() + "' has nothing to hand on");
            }
            double started = engine.get(step.counted.first());
            double ended = engine.get(step.counted.second());
            Wait own = waitingWithin(step.subject);
            String why = own != null
                    ? "'" + step.path() + "' itself " + own.what()
                    : started == 0
                            ? "'" + step.path() + "' was never started"
                            : started > ended
                                    ? "'" + step.path() + "' goes on"
                                    : "'" + step.path() + "' has ended " + times(ended)
                                            + (engine.isStandingStill() ? " and does not start again" : "");
            Wait before = own == null && started == 0 ? waitingAround(step, asking) : null;
            if (before != null) {
                return new Giver(
                        before.subject(),
                        why + "; before it, '"
                                + program.subjects().get(before.subject()).path() + "' " + before.what());
            }
            return new Giver(own == null ? step.subject : own.subject(), why);
        }

        /** What keeps the behaviour around a step from coming to it. */
        private @Nullable Wait waitingAround(StepNode step, Wait asking) {
            for (int at = program.subjects().get(step.subject).parent();
                    at >= 0;
                    at = program.subjects().get(at).parent()) {
                Wait found = waitingWithin(at);
                if (found != null) {
                    return found == asking || found.kind() == Wait.Kind.STEP ? null : found;
                }
            }
            return null;
        }

        /** What a step or state, or something in it, waits for. */
        private @Nullable Wait waitingWithin(int subject) {
            for (Wait wait : engine.waits()) {
                for (int at = wait.subject();
                        at >= 0;
                        at = program.subjects().get(at).parent()) {
                    if (at == subject) {
                        return wait;
                    }
                }
            }
            return null;
        }

        private static String times(double count) {
            return count == 1 ? "once" : (int) count + " times";
        }

        private List<Giver> senders(Wait wait) {
            List<Giver> givers = new ArrayList<>();
            StepNode waits = steps.values().stream()
                    .filter(step -> step.subject == wait.subject())
                    .findFirst()
                    .orElse(null);
            Trigger.OfItem wanted = waits != null && waits.deed instanceof Deed.Accept(Trigger.OfItem of) ? of : null;
            steps.values().stream()
                    .filter(step -> step.deed instanceof Deed.Send send && reaches(send, wait, wanted))
                    .sorted(java.util.Comparator.comparing(step -> step.number))
                    .forEach(step -> givers.add(state(step.instance, wait)));
            if (givers.isEmpty()) {
                givers.add(new Giver(-1, "nothing in what runs sends it there"));
            }
            return givers;
        }

        private boolean reaches(Deed.Send send, Wait wait, Trigger.@Nullable OfItem wanted) {
            boolean isThere = send.receivers().stream().anyMatch(wait.for_()::contains)
                    || send.ports().stream()
                            .flatMap(port -> program.routes().from(port).stream())
                            .anyMatch(reached -> wait.for_().contains(reached.port()));
            return isThere
                    && (wanted == null
                            || wanted.type() == null
                            || send.layout().type() != null
                                    && program.kinship()
                                            .isA(
                                                    Objects.requireNonNull(
                                                            send.layout().type()),
                                                    wanted.type()));
        }
    }
}
