package pyrite.core.execution;

import java.util.List;
import pyrite.core.model.ElementId;

/**
 * What the events of a run are about.
 *
 * @param path names from the root of what runs
 * @param parent the index of the step or state around it; -1 if there is none
 * @param isTimeless whether it is a step of which nothing says how long it takes, so that it takes no time
 */
public record Subject(Kind kind, String path, ElementId element, int parent, boolean isTimeless) {
    /** The path of the part that performs one of some subjects. */
    public static String part(List<Subject> subjects, int index) {
        int top = index;
        while (subjects.get(top).parent() >= 0) {
            top = subjects.get(top).parent();
        }
        return before(subjects.get(top).path());
    }

    /** A path without its last name. */
    public static String before(String path) {
        int dot = path.lastIndexOf('.');
        return dot < 0 ? path : path.substring(0, dot);
    }

    /** What a subject is. */
    public enum Kind {
        STEP,
        STATE,
        POOL,
        PORT
    }
}
