package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;
import static pyrite.core.Models.id;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Redefinitions;
import pyrite.core.model.Reference;

/** What redefines something goes on to redefine what is nearest (KerML 1.0, 8.3.3.1.10). */
class RedefinitionsTest {
    private static final Model MODEL = Models.of("""
            part def Rotor { attribute v : Real default 0; attribute w : Real default 0; }
            part def Motor { part rotor : Rotor; }
            part def Fast :> Motor { part :>> rotor { attribute :>> v default 2; } }
            part def Pump :> Motor;
            part pump : Pump { part :>> rotor { attribute :>> v default 3; attribute :>> w = 4; } }
            """);

    @Test
    void whatBecomesASpecialOneOfSomethingElseRedefinesWhatThatHas() {
        Element pump = element(MODEL, "Test::Pump");
        Model after =
                applied(MODEL, NotationReader.readBack(MODEL, List.of(pump), new Source("", "part def Pump :> Fast;")));
        assertThat(redefined(after, "Test::pump::rotor")).containsExactly(id(after, "Test::Fast::rotor"));
        assertThat(redefined(after, "Test::pump::rotor::v")).containsExactly(id(after, "Test::Fast::rotor::v"));
        assertThat(redefined(after, "Test::pump::rotor::w")).containsExactly(id(after, "Test::Rotor::w"));
        assertThat(Models.read(NotationWriter.write(after, after.ownRoots())).ownElements())
                .hasSameSizeAs(after.ownElements());
    }

    @Test
    void anEditThatAddsNoRedefinitionStaysAsItIs() {
        Element rotor = element(MODEL, "Test::Rotor").with(Property.ABSTRACT, true);
        assertThat(Redefinitions.nearest(MODEL, Edit.put(rotor)).put()).containsExactly(rotor);
    }

    @Test
    void whatIsLedToSomethingRemovedGoesBackToWhatThatRedefined() {
        Element pump = element(MODEL, "Test::Pump");
        Model fast =
                applied(MODEL, NotationReader.readBack(MODEL, List.of(pump), new Source("", "part def Pump :> Fast;")));
        Authoring.Proposal removal = new Authoring(fast).removal(element(fast, "Test::Fast::rotor"));
        Model after = applied(fast, ((Authoring.Proposal.Accepted) removal).edit());
        assertThat(redefined(after, "Test::pump::rotor")).containsExactly(id(after, "Test::Motor::rotor"));
        assertThat(redefined(after, "Test::pump::rotor::v")).containsExactly(id(after, "Test::Rotor::v"));
    }

    @Test
    void whatIsInheritedNoMoreGivesWayToWhatItRedefined() {
        Element pump = element(MODEL, "Test::Pump");
        Model fast =
                applied(MODEL, NotationReader.readBack(MODEL, List.of(pump), new Source("", "part def Pump :> Fast;")));
        Model after =
                applied(fast, NotationReader.readBack(fast, List.of(pump), new Source("", "part def Pump :> Motor;")));
        assertThat(after.ownElements()).containsExactlyInAnyOrderElementsOf(MODEL.ownElements());
    }

    @Test
    void whatNothingRedefinesAnyMoreIsRefused() {
        Element pump = element(MODEL, "Test::Pump");
        ReadResult read = NotationReader.readBack(MODEL, List.of(pump), new Source("", "part def Pump;"));
        assertThat(read.problems())
                .extracting(TextProblem::message)
                .anyMatch(message ->
                        message.contains("'rotor' is not inherited by 'pump', so it cannot be redefined there"));
        assertThat(MODEL.apply(Edit.put(pump.with(Property.SPECIALIZES, List.of()))))
                .isInstanceOf(EditResult.Refused.class);
    }

    private static Model applied(Model model, ReadResult read) {
        assertThat(read.problems()).isEmpty();
        return applied(model, read.edit());
    }

    private static Model applied(Model model, Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    private static List<ElementId> redefined(Model model, String name) {
        return element(model, name).references(Property.REDEFINES).stream()
                .map(Reference::target)
                .toList();
    }
}
