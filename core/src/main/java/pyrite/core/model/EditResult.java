package pyrite.core.model;

import java.util.List;

/** The result of an edit. */
public sealed interface EditResult {
    record Applied(Model model, Difference difference) implements EditResult {}

    /** The edit would make the model wrong; nothing changed. */
    record Refused(List<Problem> problems) implements EditResult {
        public Refused {
            problems = List.copyOf(problems);
        }
    }
}
