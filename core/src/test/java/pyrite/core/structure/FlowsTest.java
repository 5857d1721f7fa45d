package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** What goes where over a connection, and what is paired in an interface definition; written out by hand. */
class FlowsTest {
    private static final Model MODEL = Models.of("""
            item def Oil; item def Note; item def Telegram :> Note;
            port def Hose { in item oil : Oil; out attribute pressure : PressureValue; inout item note : Note; attribute bolt : Real; }
            port def Desk { out item paper : Note; in item reply : Note; in item oil : Oil; }
            port def Wire { in item telegram : Note; out item answer : Telegram; in item oil : Oil; }
            interface def Line { end port desk : Desk; end port wire : Wire; bind desk.paper = wire.telegram; }
            part def A { port outlet : ~Hose; port desk : Desk; } part def B { port inlet : Hose; port wire : Wire; }
            part def W { part a : A; part b : B; connection c connect a.outlet to b.inlet; }
            part w : W;
            """);

    private static Model applied(Model model, Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    @Test
    void flowsGoWhereTheDirectionsSay() {
        Element connection = Models.element(MODEL, "Test::W::c");
        assertThat(Flows.proposed(MODEL, connection))
                .extracting(Flows.Proposal::words)
                .containsExactly(
                        "oil from a.outlet to b.inlet",
                        "pressure from b.inlet to a.outlet",
                        "note from a.outlet to b.inlet",
                        "note from b.inlet to a.outlet");
        Model made = applied(MODEL, Flows.make(MODEL, connection));
        assertThat(NotationWriter.write(made, List.of(Models.element(made, "Test::W"))))
                .contains(
                        "flow of Oil from a.outlet.oil to b.inlet.oil;",
                        "flow of PressureValue from b.inlet.pressure to a.outlet.pressure;",
                        "flow of Note from a.outlet.note to b.inlet.note;");
        assertThat(Flows.proposed(made, connection)).isEmpty();
        assertThat(made.ownElements(ElementKind.FLOW)).hasSize(4);
    }

    private static PairTable line(Model model) {
        return PairTable.of(model, Models.element(model, "Test::Line")).orElseThrow();
    }

    @Test
    void aDefinitionIsATableOfPairsThatCanBeChanged() {
        PairTable table = line(MODEL);
        assertThat(table.rows())
                .extracting(row -> row.name() + " " + row.way() + " " + row.partner())
                .containsExactly("paper sends telegram", "reply receives ", "oil receives oil");
        assertThat(table.alone()).containsExactly("answer");
        Element definition = Models.element(MODEL, "Test::Line");
        PairTable.Result.Made made =
                (PairTable.Result.Made) table.pair(MODEL, definition, Map.of("paper", "telegram", "reply", "answer"));
        Model paired = applied(MODEL, made.edit());
        assertThat(NotationWriter.write(paired, List.of(paired.get(definition.id()))))
                .contains("bind desk.paper = wire.telegram;", "bind desk.reply = wire.answer;");
        assertThat(line(paired).alone()).isEmpty();
        Model bare = applied(
                paired,
                ((PairTable.Result.Made) line(paired).pair(paired, paired.get(definition.id()), Map.of())).edit());
        assertThat(bare.ownElements(ElementKind.BINDING)).isEmpty();
    }

    @Test
    void whatDoesNotFitCannotBePaired() {
        Element definition = Models.element(MODEL, "Test::Line");
        assertThat(line(MODEL).pair(MODEL, definition, Map.of("paper", "answer")))
                .isInstanceOfSatisfying(
                        PairTable.Result.Refused.class,
                        refused -> assertThat(refused.reason()).contains("both send"));
        assertThat(line(MODEL).pair(MODEL, definition, Map.of("paper", "telegram", "oil", "telegram")))
                .isInstanceOf(PairTable.Result.Refused.class);
        assertThat(line(MODEL).pair(MODEL, definition, Map.of("paper", "nothing")))
                .isEqualTo(new PairTable.Result.Refused("the ends have no 'paper' and 'nothing'"));
    }
}
