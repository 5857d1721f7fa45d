package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** What a requirement or use case is about, by the name of a definition. */
class SubjectEditingTest {
    private static final Model MODEL = Models.of("""
            part def Pump { attribute power : PowerValue; }
            part def FastPump :> Pump;
            requirement limit { subject pump : Pump; require constraint { pump.power <= 5 [kW] } }
            requirement free { subject pump : Pump; }
            """);

    private static String after(String requirement, String type) {
        UseCaseEditing.Made made = new UseCaseEditing(MODEL).subject(Models.element(MODEL, requirement), type);
        Model model = ((EditResult.Applied) MODEL.apply(made.edit())).model();
        return NotationWriter.write(model, model.ownRoots());
    }

    @Test
    void anotherDefinitionIsItsType() {
        assertThat(after("Test::limit", " FastPump ")).contains("subject pump : FastPump;");
    }

    @Test
    void aNewDefinitionIsMadeWhereNothingRestsOnTheSubject() {
        assertThat(after("Test::free", "Winch")).contains("part def Winch;", "subject pump : Winch;");
    }

    @Test
    void aMistypedNameIsNoNewDefinitionWhereAConstraintRestsOnTheSubject() {
        assertThatThrownBy(() -> after("Test::limit", "FastPmp"))
                .hasMessage("there is no part or item definition 'FastPmp'; did you mean 'FastPump'?");
    }
}
