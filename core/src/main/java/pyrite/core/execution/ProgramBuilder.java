package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.dynamics.FlatSystem;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.Terms;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * Prepares what the parts of a system perform and exhibit. First everything is built and what is assigned is noted;
 * then the expressions are lowered, because what is assigned is read otherwise.
 */
public final class ProgramBuilder extends Preparing {
    private final PoolsPreparing pools = new PoolsPreparing(this);
    private final ConnectionsPreparing connections = new ConnectionsPreparing(this);
    private final DeedsPreparing deeds = new DeedsPreparing(this);
    private final StepsPreparing steps = new StepsPreparing(this, pools, connections, deeds);

    private final boolean isToBePlayed;

    private ProgramBuilder(Model model, Flattening flattening, boolean isToBePlayed) {
        super(model, flattening);
        this.isToBePlayed = isToBePlayed;
    }

    /**
     * Prepares what runs, together with its system of equations: what is assigned is no unknown of it.
     *
     * @param flattening one in which what runs was built
     * @throws ModelFault if something cannot be run as it is written
     */
    public static Program build(Model model, Flattening flattening) {
        return build(model, flattening, () -> {});
    }

    /** @param more lowers what else is asked while it runs; called when it is known what is assigned */
    public static Program build(Model model, Flattening flattening, Runnable more) {
        return new ProgramBuilder(model, flattening, false).build(more);
    }

    /** As {@link #build} for somebody who plays: what has no value begins at zero, and can be set. */
    static Program buildToPlay(Model model, Flattening flattening) {
        return new ProgramBuilder(model, flattening, true).build(() -> {});
    }

    private Program build(Runnable more) {
        List<Program.Top> tops = new ArrayList<>();
        List<Instance> parts = flattening.built();
        for (Instance part : parts) {
            if (isPart(part)) {
                performed(part, tops);
            }
        }
        parts.forEach(connections::joined);
        later.forEach(Runnable::run);
        if (isToBePlayed) {
            steps.steps().values().forEach(step -> step.frame.replaceAll(ProgramBuilder::beginning));
        }
        parts.stream().filter(pools::isPool).forEach(pools::pool);
        more.run();
        FlatSystem flat = flattening.system();
        flattening.constants().forEach(constant -> deeds.assigned().putIfAbsent(constant.path(), withValue(constant)));
        return new Program(
                tops,
                List.copyOf(deeds.assigned().values()),
                flattening.drawsAtStart(),
                pools.pools(),
                connections.routes(),
                List.copyOf(subjects),
                steps.steps(),
                steps.states().states(),
                steps.stepCount(),
                (type, general) -> model.inheritance().isA(type, general.id()),
                flattening.isRandom(),
                flat);
    }

    private static HeldAttribute beginning(HeldAttribute own) {
        return own.start() == null && !own.isFixed() ? own.beginningWith(Terms.ZERO) : own;
    }

    /** What is read where something happens, and neither assigned nor determined, keeps the value it begins with. */
    private HeldAttribute withValue(HeldAttribute constant) {
        if (constant.start() != null) {
            return constant;
        }
        if (isToBePlayed) {
            return constant.beginningWith(Terms.ZERO);
        }
        throw new ModelFault(
                "'" + constant.path()
                        + "' is used by what happens, but nothing gives it a value; write '= …', or ':= …' if an action assigns it",
                List.of(constant.feature().id()));
    }

    private void performed(Instance part, List<Program.Top> tops) {
        for (Element feature : model.inheritance().features(part.usage())) {
            boolean isPerformed = feature.kind() == ElementKind.PERFORM || feature.kind() == ElementKind.EXHIBIT;
            if (isPerformed && !model.isLibrary(feature.id())) {
                flattening
                        .in(part, feature)
                        .forEach(instance -> tops.add(new Program.Top(part, steps.step(feature, instance))));
            }
        }
    }
}
