package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening.Counted;
import pyrite.core.dynamics.Instance;
import pyrite.core.model.Element;

/** One state in one place of what runs, with the states in it. */
final class StateNode {
    final Element element;
    final Instance instance;
    final int subject;
    final Counted counted;
    final @Nullable StateNode around;
    final boolean isParallel;
    final List<StateNode> states = new ArrayList<>();
    final List<Beginning> beginnings = new ArrayList<>();
    /** Those that leave this state, in the order in which they are asked. */
    final List<Way> ways = new ArrayList<>();

    @Nullable
    StepNode entry;

    @Nullable
    StepNode during;

    @Nullable
    StepNode exit;

    /** Where it begins, if the condition holds. */
    record Beginning(StateNode state, @Nullable Question guard) {}

    /**
     * A transition.
     *
     * @param trigger null for one that is taken when the state is completed
     * @param to null where the state around is done with it
     */
    record Way(
            Element element,
            StepNode.@Nullable Trigger trigger,
            @Nullable Question guard,
            @Nullable StepNode effect,
            @Nullable StateNode to) {}

    StateNode(
            Element element,
            Instance instance,
            int subject,
            Counted counted,
            @Nullable StateNode around,
            boolean isParallel) {
        this.element = element;
        this.instance = instance;
        this.subject = subject;
        this.counted = counted;
        this.around = around;
        this.isParallel = isParallel;
    }

    /** Whether it is a state or stands within it. */
    boolean isWithin(StateNode outer) {
        for (StateNode at = this; at != null; at = at.around) {
            if (at == outer) {
                return true;
            }
        }
        return false;
    }
}
