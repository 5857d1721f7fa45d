package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

class SpecialisingTest {
    private static final Model MODEL = Models.of("""
            part def Wheel; part def Car { part wheels : Wheel[4]; } part def Van :> Car; part van : Van;
            """);
    private static final Element VAN = Models.element(MODEL, "Test::Van");
    private static final Element WHEELS = Models.element(MODEL, "Test::Car::wheels");

    private static String written(Specialising.Result result) {
        Model made = ((EditResult.Applied) MODEL.apply(((Specialising.Result.Made) result).edit())).model();
        return NotationWriter.write(made, List.of(made.get(VAN.id())));
    }

    @Test
    void whatIsInheritedIsRedefinedOrSubset() {
        assertThat(written(Specialising.redefine(MODEL, VAN, WHEELS)))
                .isEqualToIgnoringWhitespace("part def Van :> Car { part :>> wheels; }");
        assertThat(written(Specialising.subset(MODEL, VAN, WHEELS, "spare")))
                .isEqualToIgnoringWhitespace("part def Van :> Car { part spare :> wheels; }");
    }

    @Test
    void whatIsOwnOrNamelessIsRefused() {
        assertThat(Specialising.redefine(MODEL, Models.element(MODEL, "Test::Car"), WHEELS))
                .isEqualTo(new Specialising.Result.Refused(
                        "'wheels' is its own already; only what is inherited is redefined"));
        assertThat(Specialising.subset(MODEL, VAN, WHEELS, " "))
                .isEqualTo(new Specialising.Result.Refused("what subsets 'wheels' has a name of its own"));
        assertThat(Specialising.subset(MODEL, VAN, WHEELS, "wheels")).isInstanceOf(Specialising.Result.Refused.class);
    }
}
