package pyrite.core.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Taking back an edit on a head that may have moved on. */
class RevertTest {
    private static final Model MODEL = Models.of("part sea; part basin; part gate { part leaf; }");

    private static Element named(Model model, String name) {
        return Models.element(model, "Test::" + name);
    }

    private static EditResult.Applied apply(Model model, Edit edit) {
        return (EditResult.Applied) model.apply(edit);
    }

    private static Model revert(Model head, Difference difference) {
        return apply(head, ((Revert.Possible) Revert.on(head, difference.inverse(), List.of())).edit())
                .model();
    }

    @Test
    void anEditIsTakenBackAlthoughOthersChangedOtherElementsSince() {
        EditResult.Applied renamed = apply(MODEL, Edit.put(named(MODEL, "sea").withName("ocean")));
        Model head = apply(
                        renamed.model(),
                        Edit.put(named(renamed.model(), "basin").withName("harbour")))
                .model();
        Model back = revert(head, renamed.difference());
        assertThat(named(back, "sea")).isEqualTo(named(MODEL, "sea"));
        assertThat(named(back, "harbour").name()).isEqualTo("harbour");
    }

    @Test
    void aRemovalIsTakenBackWithAllThatWasOwned() {
        EditResult.Applied removed =
                apply(MODEL, Edit.remove(named(MODEL, "gate").id()));
        assertThat(removed.model().find(named(MODEL, "gate::leaf").id())).isEmpty();
        assertThat(Set.copyOf(revert(removed.model(), removed.difference()).ownElements()))
                .isEqualTo(Set.copyOf(MODEL.ownElements()));
    }

    @Test
    void whatSomebodyElseChangedSinceIsNotOverwrittenButNamed() {
        EditResult.Applied renamed = apply(MODEL, Edit.put(named(MODEL, "sea").withName("ocean")));
        Model head = apply(
                        renamed.model(),
                        Edit.put(named(renamed.model(), "ocean").withName("water")))
                .model();
        assertThat(Revert.on(head, renamed.difference().inverse(), List.of()))
                .isEqualTo(new Revert.Overtaken(
                        java.util.List.of(named(MODEL, "sea").id())));
    }

    @Test
    void anElementThatIsGoneCannotBeTakenBackToItsFormerName() {
        EditResult.Applied renamed = apply(MODEL, Edit.put(named(MODEL, "sea").withName("ocean")));
        Model head = apply(
                        renamed.model(),
                        Edit.remove(named(renamed.model(), "ocean").id()))
                .model();
        assertThat(Revert.on(head, renamed.difference().inverse(), List.of())).isInstanceOf(Revert.Overtaken.class);
    }
}
