package pyrite.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

class GivingTest {
    private Model model = Models.of("""
            action def Watch; action def Close { action watch : Watch; action bare; }
            part def Sensor; part def Float :> Sensor;
            part def Gate { part sensor : Float; part lid; }
            attribute def Level;""");

    private Element at(String name) {
        return Models.element(model, "Test::" + name);
    }

    private void apply(Giving.Made made) {
        switch (model.apply(made.edit())) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
    }

    private String text(String name) {
        return NotationWriter.write(model, List.of(at(name)));
    }

    @Test
    void aFunctionIsGivenToWhatThePartIsDefinedBy() {
        Giving.Made made = Giving.give(model, at("Close::watch"), at("Gate::sensor"));
        assertThat(made.summary()).isEqualTo("Float performs Watch");
        apply(made);
        assertThat(text("Float")).contains("perform action watch : Watch;");
        apply(Giving.give(model, at("Watch"), at("Gate::lid")));
        assertThat(text("Gate")).contains("perform action watch : Watch;");
    }

    @Test
    void itIsTakenBackWhereItStands() {
        apply(Giving.give(model, at("Watch"), at("Sensor")));
        assertThatThrownBy(() -> Giving.give(model, at("Watch"), at("Gate::sensor")))
                .hasMessage("'sensor' performs 'Watch' already");
        assertThatThrownBy(() -> Giving.take(model, at("Watch"), at("Gate::sensor")))
                .hasMessage("'sensor' has this function from 'Sensor'; take it away there");
        apply(Giving.take(model, at("Watch"), at("Sensor")));
        assertThat(text("Sensor")).doesNotContain("perform");
        assertThatThrownBy(() -> Giving.take(model, at("Watch"), at("Sensor")))
                .hasMessage("'Sensor' no longer performs 'Watch'");
    }

    @Test
    void onlyPartsPerformAndOnlyWhatHasADefinitionIsPerformed() {
        assertThatThrownBy(() -> Giving.give(model, at("Close::bare"), at("Sensor")))
                .hasMessageContaining("has no action definition");
        assertThatThrownBy(() -> Giving.give(model, at("Watch"), at("Close")))
                .hasMessage("a part performs functions, and 'Close' is an action definition");
        assertThatThrownBy(() -> Giving.give(model, at("Sensor"), at("Gate")))
                .hasMessageContaining("has no action definition");
    }
}
