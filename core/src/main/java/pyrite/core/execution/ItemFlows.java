package pyrite.core.execution;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Endpoint;
import pyrite.core.execution.StepNode.Parameter;

/** Brings what steps give to the steps that it flows to. */
final class ItemFlows {
    private final Engine engine;
    private final Program program;
    private final Performances performances;
    private final StepTokens tokens;

    ItemFlows(Engine engine, Program program, Performances performances, StepTokens tokens) {
        this.engine = engine;
        this.program = program;
        this.performances = performances;
        this.tokens = tokens;
    }

    /** An item that came in goes on to the steps inside that take it. */
    void handOn(Performance performance, Parameter parameter) {
        if (!parameter.endpoints().isEmpty()) {
            deliver(performance, parameter.endpoints(), item(parameter));
        }
    }

    private Item item(Parameter parameter) {
        double[] values = new double
                [Math.max(
                        parameter.layout().attributes().size(), parameter.slot().isValue() ? 1 : 0)];
        Arrays.fill(values, Double.NaN);
        for (HeldAttribute attribute : parameter.slot().attributes()) {
            int place = parameter.slot().isValue() ? 0 : parameter.layout().place(attribute.features());
            if (place >= 0) {
                values[place] = engine.get(attribute.variable());
            }
        }
        return new Item(parameter.layout(), engine.nextItem(), values);
    }

    void give(Performance performance, Parameter parameter) {
        for (HeldAttribute attribute : parameter.slot().attributes()) {
            if (attribute.isFixed() && attribute.start() != null) {
                engine.initial(attribute);
            }
        }
        deliver(
                performance,
                parameter.endpoints(),
                parameter.value() == null
                        ? item(parameter)
                        : new Item(
                                Item.Layout.VALUE, engine.nextItem(), new double[] {engine.number(parameter.value())}));
    }

    private void deliver(Performance from, List<Endpoint> endpoints, Item item) {
        for (Endpoint endpoint : endpoints) {
            StepNode step = program.steps().get(endpoint.step());
            if (step != null) {
                Parameter need = needOf(step, endpoint);
                if (need == null) {
                    outOf(step, endpoint).ifPresent(out -> leave(performing(from, step), out, endpoint, item));
                } else {
                    enter(within(from, step), step, need, endpoint, item);
                }
            }
        }
    }

    private void enter(@Nullable Performance around, StepNode step, Parameter need, Endpoint endpoint, Item item) {
        onTheWay(around, endpoint, item, () -> {
            if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
                around.arrived(need).add(item);
                tokens.offer(around, net, net.steps().indexOf(step));
            } else {
                engine.mail().keep(step, need, item);
            }
        });
    }

    /** What reaches an out of the behaviour around is held there, and given on when that ends. */
    private void leave(@Nullable Performance of, Parameter out, Endpoint endpoint, Item item) {
        onTheWay(of, endpoint, item, () -> performances.receive(of, out, item));
    }

    /** A behaviour is not done as long as an item is on its way in it. */
    private void onTheWay(@Nullable Performance in, Endpoint endpoint, Item item, Runnable arrives) {
        if (endpoint.over() == null) {
            arrives.run();
            return;
        }
        if (in != null) {
            in.pending++;
        }
        engine.mail().over(endpoint.over(), item, () -> {
            if (in != null) {
                in.pending--;
            }
            if (in == null || !in.isEnded) {
                arrives.run();
            }
            if (in != null && in.node.deed instanceof Deed.Steps(StepNet net)) {
                tokens.settle(in, net);
            }
        });
    }

    private static Optional<Parameter> outOf(StepNode step, Endpoint endpoint) {
        return step.gives.stream().filter(each -> isFeature(each, endpoint)).findFirst();
    }

    private static @Nullable Parameter needOf(StepNode step, Endpoint endpoint) {
        return step.needs.stream()
                .filter(each -> isFeature(each, endpoint))
                .findFirst()
                .orElse(null);
    }

    private static boolean isFeature(Parameter parameter, Endpoint endpoint) {
        return parameter.feature().id().equals(endpoint.feature())
                || parameter.slot().attributes().stream()
                        .anyMatch(attribute -> attribute.features().contains(endpoint.feature()));
    }

    /** The performance of a step in which something comes from. */
    private static @Nullable Performance performing(Performance from, StepNode step) {
        Performance at = from;
        while (at != null && at.node != step) {
            at = at.around;
        }
        return at;
    }

    /** The performance around a step that is nearest to where an item comes from. */
    private static @Nullable Performance within(Performance from, StepNode step) {
        for (Performance at = from; at != null; at = at.around) {
            if (at.node.instance == step.instance.around()) {
                return at;
            }
        }
        return null;
    }
}
