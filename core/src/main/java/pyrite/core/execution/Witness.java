package pyrite.core.execution;

import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.model.Element;

/** Is told what happens while it happens, in its order. */
public interface Witness {
    Witness NOBODY = new Witness() {};

    /** What became of an item. */
    enum Outcome {
        /** It came from outside. */
        GIVEN,
        SENT,
        ACCEPTED,
        /** Nothing accepted it when it arrived. */
        DROPPED,
        /** Nobody was there to receive it. */
        LOST
    }

    /**
     * What is known of an item.
     *
     * @param number tells it from all others of the run
     * @param type null for a value alone
     * @param content the values of its attributes, coherent SI; of a value alone itself
     */
    record Thing(int number, @Nullable Element type, Map<Element, Double> content, double value) {}

    /**
     * Something became of an item.
     *
     * @param place the port or part where it is; null where it is sent or lost
     * @param subject the step or state that sent or accepted it; -1 if it came from outside
     */
    default void item(double time, Outcome outcome, Thing thing, @Nullable Instance place, int subject) {}

    /** An attribute was set from outside, to a value in coherent SI. */
    default void set(double time, String path, double value, Element attribute) {}

    /** A step began or a state was entered, or either ended. */
    default void turn(double time, boolean begins, int subject) {}
}
