package pyrite.core.execution;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Draw;
import pyrite.core.dynamics.FlatSystem;
import pyrite.core.dynamics.Flattening.Counted;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.model.Element;

/**
 * All that the parts of what runs perform and exhibit, ready to happen.
 *
 * @param performed in the order of the parts and of what is written in each
 * @param flat the equations of the same parts
 * @param assigned the attributes of parts that actions assign
 * @param atStart what is drawn before anything happens
 */
public record Program(
        List<Top> performed,
        List<HeldAttribute> assigned,
        List<Draw> atStart,
        Map<Instance, PoolNode> pools,
        Routes routes,
        List<Subject> subjects,
        Map<Instance, StepNode> steps,
        Collection<StateNode> states,
        int stepCount,
        Kinship kinship,
        boolean isRandom,
        FlatSystem flat) {

    /** What one part performs or exhibits of its own accord. */
    record Top(Instance part, StepNode step) {}

    /** A pool and what it can hold. */
    record PoolNode(
            Instance instance,
            int subject,
            Counted counted,
            Formula capacity,
            @Nullable Formula initially) {}

    /** Which types of items are also others. */
    interface Kinship {
        boolean isA(Element type, Element general);
    }

    /** Whether two steps or states go on beside each other: in different parts, or in parallel states. */
    boolean areApart(int one, int other) {
        int shared = one;
        while (shared >= 0 && !isWithin(other, shared)) {
            shared = subjects.get(shared).parent();
        }
        int common = shared;
        return common < 0 || states.stream().anyMatch(state -> state.subject == common && state.isParallel);
    }

    private boolean isWithin(int subject, int outer) {
        for (int at = subject; at >= 0; at = subjects.get(at).parent()) {
            if (at == outer) {
                return true;
            }
        }
        return false;
    }
}
