package pyrite.core.verification;

import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.execution.Outside;
import pyrite.core.execution.Program;
import pyrite.core.execution.Stimulus;
import pyrite.core.execution.Witness;
import pyrite.core.model.Model;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceComparison;
import pyrite.core.sequence.SequenceNotes;

/** What a recording gives to its system, and who notes what that does; of a case that is none, nothing and nobody. */
record Replay(Model model, Program program, @Nullable Sequence recorded, List<Stimulus> stimuli) {
    static Replay of(Model model, Flattening flattening, Program program, @Nullable Sequence recorded) {
        return new Replay(
                model,
                program,
                recorded,
                recorded == null ? List.of() : recorded.stimuli(new Outside(model, flattening, program)));
    }

    /** One for each run. */
    Witness witness() {
        return recorded == null ? Witness.NOBODY : new SequenceNotes(model, program.subjects());
    }

    @Nullable
    SequenceComparison comparison(Witness witness) {
        return recorded != null && witness instanceof SequenceNotes notes
                ? SequenceComparison.of(recorded, notes.steps())
                : null;
    }
}
