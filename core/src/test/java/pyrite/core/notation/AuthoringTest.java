package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring.Proposal;

class AuthoringTest {
    private static final Model MODEL = Models.of("""
            part def Drive { doc /* Turns the leaf. */ attribute speed : AngularVelocityValue = 0.4 [deg/s]; }
            part def Gate { part drive : Drive; }
            """);
    private static final Authoring AUTHORING = new Authoring(MODEL);

    private static Model after(Proposal proposal) {
        Edit edit = ((Proposal.Accepted) proposal).edit();
        return ((EditResult.Applied) MODEL.apply(edit)).model();
    }

    private static String message(Proposal proposal) {
        return ((Proposal.Rejected) proposal).problems().getFirst().message();
    }

    @Test
    void aValueGivenToAnInheritedFeatureRedefinesItThereAlone() {
        Element drive = element(MODEL, "Test::Gate::drive");
        Proposal proposal = AUTHORING.value(drive, element(MODEL, "Test::Drive::speed"), "0.5 [deg/s]");
        String text = NotationWriter.write(after(proposal), after(proposal).ownRoots());
        assertThat(text)
                .contains(
                        "attribute speed : AngularVelocityValue default 0.4 [deg/s];",
                        "part drive : Drive {\n            attribute :>> speed = 0.5 [deg/s];");
        assertThat(((Proposal.Accepted) proposal).summary())
                .isEqualTo("speed of drive: 0.4 [deg/s] → 0.5 [deg/s]; in Drive it is a default now");
    }

    @Test
    void aValueGivenToAnOwnFeatureReplacesIt() {
        Element definition = element(MODEL, "Test::Drive");
        Model changed = after(AUTHORING.value(definition, element(MODEL, "Test::Drive::speed"), "1 [rpm]"));
        assertThat(NotationWriter.write(changed, changed.ownRoots()))
                .contains("speed : AngularVelocityValue = 1 [rpm];");
    }

    @Test
    void aTypedValueMayHaveAUnitThatNothingImportsThere() {
        Model model = Models.of("part def Pump { attribute price : Economics::MoneyValue; }");
        Proposal typed = new Authoring(model)
                .value(element(model, "Test::Pump"), element(model, "Test::Pump::price"), "9000 [EUR]");
        Model changed = ((EditResult.Applied) model.apply(((Proposal.Accepted) typed).edit())).model();
        String text = NotationWriter.write(changed, changed.ownRoots());
        assertThat(text).contains("= 9000 [Economics::euro];");
        Model again = Models.read(text);
        assertThat(NotationWriter.write(again, again.ownRoots())).isEqualTo(text);
        assertThat(Models.problemsOf("attribute price : Economics::MoneyValue = 9000 [EUR];"))
                .singleElement()
                .asString()
                .contains("'private import Economics::*;' brings it");
    }

    @Test
    void anElementMovesWithAllItOwnsAndStaysTheSame() {
        Element drive = element(MODEL, "Test::Drive");
        Model moved = after(AUTHORING.move(drive, element(MODEL, "Test::Gate"), null));
        assertThat(element(moved, "Test::Gate::Drive").id()).isEqualTo(drive.id());
        assertThat(element(moved, "Test::Gate::Drive::speed").owner()).isEqualTo(drive.id());
        assertThat(NotationWriter.write(moved, moved.ownRoots())).contains("part drive : Drive;");
    }

    @Test
    void aPlaceAmongTheOthersIsBeforeOneOrAtTheEnd() {
        Element gate = element(MODEL, "Test::Gate");
        Element drive = element(MODEL, "Test::Drive");
        Element test = element(MODEL, "Test");
        assertThat(definitions(after(AUTHORING.move(gate, test, drive)))).containsExactly("Gate", "Drive");
        assertThat(definitions(after(AUTHORING.move(drive, test, null)))).containsExactly("Gate", "Drive");
        assertThat(((Proposal.Accepted) AUTHORING.move(gate, test, drive)).summary())
                .isEqualTo("Gate put elsewhere in Test");
        assertThat(((Proposal.Accepted) AUTHORING.move(drive, gate, null)).summary())
                .isEqualTo("Drive moved in Gate");
    }

    private static List<String> definitions(Model model) {
        return model.children(element(model, "Test").id()).stream()
                .filter(e -> e.kind().isDefinition())
                .map(Element::name)
                .toList();
    }

    @Test
    void aMoveThatTheRulesForbidIsRefusedWithTheReason() {
        assertThat(message(AUTHORING.move(element(MODEL, "Test"), element(MODEL, "Test::Gate"), null)))
                .isNotEmpty();
        assertThat(message(AUTHORING.move(element(MODEL, "Test::Gate"), element(MODEL, "Test::Gate::drive"), null)))
                .isNotEmpty();
    }

    @Test
    void aForgottenUnitIsAskedForWithAnExample() {
        assertThat(message(AUTHORING.value(element(MODEL, "Test::Drive"), element(MODEL, "Test::Drive::speed"), "0.5")))
                .contains("'speed' is a quantity in 1/s, but its value is a number", "for instance 0.5 [deg/s]");
    }

    @Test
    void aWrongUnitIsRefusedAtItsPlace() {
        Proposal proposal =
                AUTHORING.value(element(MODEL, "Test::Drive"), element(MODEL, "Test::Drive::speed"), "1 [m] + 2 [kg]");
        TextProblem problem = ((Proposal.Rejected) proposal).problems().getFirst();
        assertThat(problem.message()).contains("a quantity in m and a quantity in kg cannot be added");
        assertThat(problem.span().start()).isZero();
        assertThat(problem.span().end()).isEqualTo(14);
    }

    @Test
    void textIsReplacedAddedAndTakenAway() {
        Model changed = after(AUTHORING.documentation(element(MODEL, "Test::Drive"), "  Turns the leaf\n   slowly. "));
        assertThat(changed.inheritance().documentation(element(changed, "Test::Drive")))
                .isEqualTo("Turns the leaf\n   slowly.");
        Model added = after(AUTHORING.documentation(element(MODEL, "Test::Gate"), "A gate."));
        assertThat(NotationWriter.write(added, added.ownRoots())).contains("doc /* A gate. */");
        Model removed = after(AUTHORING.documentation(element(MODEL, "Test::Drive"), ""));
        assertThat(removed.inheritance().documentation(element(removed, "Test::Drive")))
                .isEmpty();
        assertThat(message(AUTHORING.documentation(element(MODEL, "Test::Drive"), "ends */ early")))
                .contains("cannot contain '*/'");
    }

    @Test
    void aLineOfNotationAddsAMember() {
        Proposal proposal = AUTHORING.members(element(MODEL, "Test::Gate"), "part spare : Drive");
        assertThat(((Proposal.Accepted) proposal).summary()).isEqualTo("part spare added to Gate");
        assertThat(after(proposal).children(element(MODEL, "Test::Gate").id())).hasSize(2);
        assertThat(message(AUTHORING.members(element(MODEL, "Test::Gate"), "part spare : Drove")))
                .contains("did you mean 'Drive'?");
        assertThat(message(AUTHORING.members(element(MODEL, "Test::Gate"), "part drive")))
                .contains("already taken");
    }

    @Test
    void renamingAndRemovingSayWhatTheyDo() {
        assertThat(((Proposal.Accepted) AUTHORING.name(element(MODEL, "Test::Drive"), "Motor")).summary())
                .isEqualTo("Drive renamed to Motor");
        assertThat(message(AUTHORING.name(element(MODEL, "Test::Drive"), " "))).isEqualTo("a name is not empty");
        assertThat(((Proposal.Accepted) AUTHORING.removal(element(MODEL, "Test::Gate"))).summary())
                .isEqualTo("Gate removed with 1 element it owns");
        assertThat(message(AUTHORING.removal(element(MODEL, "Test::Drive")))).contains("uses Test::Drive");
    }

    private static final Model LIMITED = Models.of("requirement def Light { attribute mass : MassValue = 3 [kg]; }");
    private static final Element LIGHT = element(LIMITED, "Test::Light");

    @Test
    void aConstraintAndAValueAreAddedByWhatIsTypedOfThem() {
        Authoring authoring = new Authoring(LIMITED);
        Model model = ((EditResult.Applied) LIMITED.apply(
                        ((Proposal.Accepted) authoring.attribute(LIGHT, "most mass", "", " 60 [kg] ")).edit()))
                .model();
        Proposal constraint = new Authoring(model).constraint(LIGHT, true, "mass <= 'most mass'");
        Model after = ((EditResult.Applied) model.apply(((Proposal.Accepted) constraint).edit())).model();
        assertThat(NotationWriter.write(after, after.ownRoots()))
                .contains("attribute 'most mass' = 60 [kg];", "assume constraint { mass <= 'most mass' }");
    }

    @Test
    void whatIsTypedOfAConstraintIsCorrectedByItself() {
        Authoring authoring = new Authoring(LIMITED);
        assertThat(message(authoring.constraint(LIGHT, false, "mass <= ")))
                .isEqualTo("expected an expression, found the end of the text");
        assertThat(message(authoring.constraint(LIGHT, false, "mass <= 3 [kg] } requirement r; constraint { true")))
                .contains("found '}'");
        assertThat(message(authoring.attribute(LIGHT, "most", "", "3 [kg]; attribute b = ")))
                .contains("found ';'");
        assertThat(message(authoring.attribute(LIGHT, " ", "", "3"))).isEqualTo("a name is not empty");
        assertThat(message(authoring.attribute(LIGHT, "most", "MassValue", "3 [s]")))
                .contains("a quantity in kg");
    }
}
