package pyrite.core.execution;

import pyrite.core.model.ElementId;

/**
 * What the events of a run are about.
 *
 * @param path names from the root of what runs
 * @param parent the index of the step or state around it; -1 if there is none
 * @param isTimeless whether it is a step of which nothing says how long it takes, so that it takes no time
 */
public record Subject(Kind kind, String path, ElementId element, int parent, boolean isTimeless) {
    /** What a subject is. */
    public enum Kind {
        STEP,
        STATE,
        POOL,
        PORT
    }
}
