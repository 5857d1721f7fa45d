package pyrite.core.execution;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Endpoint;
import pyrite.core.execution.StepNode.Parameter;

/** Brings what steps give to the steps that it flows to. */
final class ItemFlows {
    private final Engine engine;
    private final Program program;
    private final StepTokens tokens;

    ItemFlows(Engine engine, Program program, StepTokens tokens) {
        this.engine = engine;
        this.program = program;
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
                Performance around = within(from, step);
                if (endpoint.over() == null) {
                    arrive(around, step, endpoint, item);
                } else {
                    travel(around, step, endpoint, item);
                }
            }
        }
    }

    /** The behaviour around is not done as long as an item is on its way in it. */
    private void travel(@Nullable Performance around, StepNode step, Endpoint endpoint, Item item) {
        if (around != null) {
            around.pending++;
        }
        engine.mail().over(Objects.requireNonNull(endpoint.over()), item, () -> {
            if (around != null) {
                around.pending--;
            }
            if (around == null || !around.isEnded) {
                arrive(around, step, endpoint, item);
            }
            if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
                tokens.settle(around, net);
            }
        });
    }

    private void arrive(@Nullable Performance around, StepNode step, Endpoint endpoint, Item item) {
        Parameter need = needOf(step, endpoint);
        if (need == null) {
            // An out of the behaviour around: what it holds is given on when that ends.
            outOf(step, endpoint, item);
        } else if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
            around.arrived(need).add(item);
            tokens.offer(around, net, net.steps().indexOf(step));
        } else {
            engine.mail().keep(step, need, item);
        }
    }

    private void outOf(StepNode step, Endpoint endpoint, Item item) {
        step.gives.stream()
                .filter(each -> isFeature(each, endpoint))
                .findFirst()
                .ifPresent(each -> engine.put(item, each.slot()));
    }

    private @Nullable Parameter needOf(StepNode step, Endpoint endpoint) {
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
