package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Parameter;

/**
 * Leads from step to step within a behaviour. A succession hands on a token when the step it comes from ends; a step
 * begins when each succession that leads to it has one and each item that flows to it has arrived (SysML 2.0, 7.17.4;
 * KerML 1.0, 9.2.4).
 */
final class StepTokens {
    private final Engine engine;
    private final Performances performances;

    StepTokens(Engine engine, Performances performances) {
        this.engine = engine;
        this.performances = performances;
    }

    void begin(Performance performance, StepNet net) {
        performance.tokens = new int[net.successions().size()];
        for (Parameter parameter : performance.node.needs) {
            performances.flows().handOn(performance, parameter);
        }
        for (StepNode step : net.steps()) {
            step.needs.forEach(
                    need -> performance.arrived(need).addAll(engine.mail().kept(need)));
            step.needs.forEach(need -> engine.mail().kept(need).clear());
        }
        for (int place : net.begin()) {
            hand(performance, net, place);
        }
        settle(performance, net);
    }

    void ended(Performance around, StepNet net, int step) {
        if (around.isEnded) {
            return;
        }
        performances.load(around);
        boolean isDecision =
                net.steps().get(step).deed instanceof Deed.Control(var kind) && kind == Deed.Control.Node.DECIDE;
        boolean anyTaken = false;
        boolean anyConditional = false;
        int otherwise = -1;
        for (int place : net.out().get(step)) {
            StepNet.Succession succession = net.successions().get(place);
            if (succession.isElse()) {
                otherwise = place;
                continue;
            }
            anyConditional |= succession.guard() != null;
            boolean isOpen = !(isDecision && anyTaken) && engine.holds(succession.guard());
            if (isOpen) {
                anyTaken |= succession.guard() != null || isDecision;
                hand(around, net, place);
            }
        }
        if (otherwise >= 0 && !anyTaken) {
            hand(around, net, otherwise);
            anyTaken = true;
        }
        if (!anyTaken && anyConditional && isDecision) {
            around.blocked.add(engine.waitingUntil(
                    net.steps().get(step).element.id(),
                    around.node.subject,
                    Engine.Wait.Kind.BRANCH,
                    "no branch of '" + net.steps().get(step).path() + "' is open",
                    guards(net, step)));
        }
        settle(around, net);
    }

    private static List<Condition> guards(StepNet net, int step) {
        List<Condition> guards = new ArrayList<>();
        for (int place : net.out().get(step)) {
            Question guard = net.successions().get(place).guard();
            if (guard != null) {
                guards.add(guard.condition());
            }
        }
        return guards;
    }

    private void hand(Performance around, StepNet net, int place) {
        int to = net.successions().get(place).to();
        if (to == StepNet.DONE) {
            return;
        }
        around.tokens[place]++;
        offer(around, net, to);
    }

    /** Begins a step as often as what it waits for is there. */
    void offer(Performance around, StepNet net, int to) {
        StepNode step = net.steps().get(to);
        boolean isMerge = step.deed instanceof Deed.Control(var kind) && kind == Deed.Control.Node.MERGE;
        int[] in = net.in().get(to);
        while (isReady(around, step, in, isMerge)) {
            for (int place : in) {
                if (around.tokens[place] > 0) {
                    around.tokens[place]--;
                    if (isMerge) {
                        break;
                    }
                }
            }
            List<Item> items = step.needs.isEmpty() ? List.of() : taken(around, step);
            around.pending++;
            engine.soon(() -> {
                around.pending--;
                if (!around.isEnded) {
                    performances.begin(step, around, items);
                }
            });
        }
    }

    private static List<Item> taken(Performance around, StepNode step) {
        return step.needs.stream()
                .map(need -> around.arrived(need).removeFirst())
                .toList();
    }

    private static boolean isReady(Performance around, StepNode step, int[] in, boolean isMerge) {
        if (in.length == 0 && step.needs.isEmpty()) {
            return false;
        }
        for (Parameter need : step.needs) {
            if (around.arrived(need).isEmpty()) {
                return false;
            }
        }
        return isMerge ? hasAny(around, in) : hasAll(around, in);
    }

    private static boolean hasAny(Performance around, int[] places) {
        for (int place : places) {
            if (around.tokens[place] > 0) {
                return true;
            }
        }
        return false;
    }

    private static boolean hasAll(Performance around, int[] places) {
        for (int place : places) {
            if (around.tokens[place] == 0) {
                return false;
            }
        }
        return true;
    }

    /** A behaviour is done when nothing goes on in it and nothing in it waits. */
    void settle(Performance around, StepNet net) {
        if (around.isEnded || around.pending > 0 || !around.running.isEmpty()) {
            return;
        }
        engine.goesOn(around.stuck);
        around.stuck = null;
        for (int to = 0; to < net.steps().size(); to++) {
            int[] in = net.in().get(to);
            if (hasAny(around, in)) {
                around.stuck = missing(around, net, to);
                return;
            }
        }
        boolean isOpen = net.begin().isEmpty() && !net.steps().isEmpty();
        if (!isOpen && around.blocked.isEmpty()) {
            performances.end(around);
        }
    }

    /** What a step waits for that has a token already. */
    private Engine.Wait missing(Performance around, StepNet net, int to) {
        StepNode step = net.steps().get(to);
        List<String> what = new ArrayList<>();
        List<Instance> from = new ArrayList<>();
        for (int place : net.in().get(to)) {
            int source = net.successions().get(place).from();
            if (around.tokens[place] == 0 && source >= 0) {
                what.add("'" + net.steps().get(source).path() + "' to end");
                from.add(net.steps().get(source).instance);
            }
        }
        for (Parameter need : step.needs) {
            if (around.arrived(need).isEmpty()) {
                what.add("'" + need.feature().name() + "' to arrive");
            }
        }
        int subject = step.subject >= 0 ? step.subject : around.node.subject;
        return engine.waitingAt(
                step.element.id(),
                subject,
                Engine.Wait.Kind.STEP,
                (step.subject >= 0 ? "waits for " : "waits at '" + step.path() + "' for ") + String.join(" and ", what),
                from);
    }
}
