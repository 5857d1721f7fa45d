package pyrite.core.model;

import java.util.List;

/** What came of an edit. */
public sealed interface Outcome {
    record Applied(Model model, Difference difference) implements Outcome {}

    /** The edit would make the model wrong; nothing changed. */
    record Refused(List<Problem> problems) implements Outcome {
        public Refused {
            problems = List.copyOf(problems);
        }
    }
}
