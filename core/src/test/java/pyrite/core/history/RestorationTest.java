package pyrite.core.history;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

class RestorationTest {
    private static final Model THEN = Models.read("""
            package P {
                part def Gate {
                    part leaf { part seal; }
                    part hinge;
                }
                part spare;
            }
            """);

    private static Element named(Model model, String name) {
        return model.ownElements().stream()
                .filter(e -> name.equals(e.name()))
                .findFirst()
                .orElseThrow();
    }

    private static Model after(Model model, Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    private static Model restored(Model now, Restoration restoration) {
        return after(now, ((Restoration.Possible) restoration).edit());
    }

    private static String text(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    @Test
    void whatWasRemovedComesBackWithAllItOwned() {
        Model now = after(THEN, Edit.remove(named(THEN, "Gate").id()));
        assertThat(text(restored(
                        now,
                        Restoration.withAllItOwned(
                                now, THEN, named(THEN, "Gate").id()))))
                .isEqualTo(text(THEN));
    }

    @Test
    void aloneItComesBackWithoutWhatItOwned() {
        Model now = after(THEN, Edit.remove(named(THEN, "leaf").id()));
        Model alone =
                restored(now, Restoration.alone(now, THEN, named(THEN, "leaf").id()));
        assertThat(text(alone)).contains("part leaf;").doesNotContain("seal");
    }

    @Test
    void whatWasAddedSinceGoesAndWhatWasMovedInGoesBackAsItIsNow() {
        Element gate = named(THEN, "Gate");
        Element moved = named(THEN, "spare").withName("reserve").withOwner(gate.id(), THEN.rankAtEnd(gate.id()));
        Model now = after(
                after(THEN, Edit.put(moved, named(THEN, "hinge").withName("axle"))),
                Edit.put(Element.of(ElementKind.PART, gate.id(), THEN.rankAtEnd(gate.id()), "lamp")));
        String restored = text(restored(now, Restoration.withAllItOwned(now, THEN, gate.id())));
        assertThat(restored).isEqualTo(text(THEN).replace("part spare;", "part reserve;"));
    }

    @Test
    void whatWasMovedInFromAnOwnerThatIsGoneIsRemoved() {
        Model then = Models.read("package P { part def Gate; } package Q { part lamp; part bell; }");
        Element gate = named(then, "Gate");
        Model now = after(
                after(then, Edit.put(named(then, "lamp").withOwner(gate.id(), then.rankAtEnd(gate.id())))),
                Edit.remove(named(then, "Q").id()));
        assertThat(text(restored(now, Restoration.withAllItOwned(now, then, gate.id()))))
                .isEqualTo(text(after(then, Edit.remove(named(then, "Q").id()))));
    }

    @Test
    void aPackageThatWasMovedInFromTheTopGoesBackThere() {
        Model then = Models.read("package P { package Inner; } package Q;");
        Element inner = named(then, "Inner");
        Model now = after(then, Edit.put(named(then, "Q").withOwner(inner.id(), then.rankAtEnd(inner.id()))));
        assertThat(text(restored(now, Restoration.withAllItOwned(now, then, inner.id()))))
                .isEqualTo(text(then));
    }

    @Test
    void whatStoodInSomethingThatIsGoneSaysWhatIsToBeRestoredFirst() {
        Model now = after(THEN, Edit.remove(named(THEN, "Gate").id()));
        assertThat(Restoration.withAllItOwned(now, THEN, named(THEN, "seal").id()))
                .isEqualTo(new Restoration.WithoutOwner(named(THEN, "leaf")));
        assertThat(List.of(Restoration.alone(now, THEN, named(THEN, "leaf").id())))
                .containsExactly(new Restoration.WithoutOwner(named(THEN, "Gate")));
    }
}
