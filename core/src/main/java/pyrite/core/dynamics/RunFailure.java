package pyrite.core.dynamics;

import java.util.List;
import pyrite.core.expression.ExplainedException;
import pyrite.core.model.ElementId;

/** The reason why a run ended before its stop time, with the simulated time and the elements concerned. */
public final class RunFailure extends ExplainedException {
    /** Why a run ended early. */
    public enum Reason {
        DIVERGED,
        CHATTERING,
        /** What happens makes no sense or has no end at one instant. */
        HAPPENING,
        BUDGET_EXCEEDED,
        CANCELLED
    }

    private final Reason reason;
    private final double time;
    private final transient List<ElementId> elements;

    public RunFailure(Reason reason, double time, String message, List<ElementId> elements) {
        super(message);
        this.reason = reason;
        this.time = time;
        this.elements = List.copyOf(elements);
    }

    public Reason reason() {
        return reason;
    }

    /** Simulated time, s. */
    public double time() {
        return time;
    }

    public List<ElementId> elements() {
        return elements;
    }
}
