package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;

class InheritanceTest {
    private static final Model MODEL = Models.of("""
            part def Machine { doc /* A machine. */ attribute mass : MassValue default 1 [kg]; attribute power : PowerValue; part rack; }
            part def Motor :> Machine { attribute :>> mass default 2 [kg]; attribute torque : TorqueValue; }
            part motor : Motor[3] { attribute :>> mass = 3 [kg]; }
            part def Diamond :> Motor, Machine;
            requirement def Limit { doc /* At most so much. */ subject m : Machine; require constraint { m.mass <= 5 [kg] } }
            requirement <'R-1'> limit : Limit { subject m : Motor; }
            requirement def <'R-2'> Other { subject m : Machine; }
            requirement other : Other;
            """);

    private static java.util.List<String> features(String name) {
        return MODEL.inheritance().features(element(MODEL, "Test::" + name)).stream()
                .map(f -> MODEL.names().qualifiedName(f).replace("Test::", ""))
                .toList();
    }

    @Test
    void aRedefinedFeatureGivesWayToTheOneThatRedefinesIt() {
        assertThat(features("Motor"))
                .containsExactlyInAnyOrder("Motor::mass", "Motor::torque", "Machine::power", "Machine::rack");
        assertThat(features("motor"))
                .containsExactlyInAnyOrder("motor::mass", "Motor::torque", "Machine::power", "Machine::rack");
    }

    @Test
    void aFeatureInheritedOnTwoWaysIsThereOnce() {
        assertThat(features("Diamond"))
                .containsExactlyInAnyOrder("Motor::mass", "Motor::torque", "Machine::power", "Machine::rack");
    }

    /** KerML 1.0, 8.3.3.1.10: of what is inherited, that goes which redefines what an own feature redefines. */
    @Test
    void anOwnRedefinitionCountsInThePlaceOfAnInheritedOneOfTheSame() {
        Model model = Models.of("""
                part def Machine { attribute mass : MassValue; part rack; }
                part def Shop { part machine : Machine { part heavy :>> rack; part extra; } }
                part shop : Shop { part :>> machine { part light :>> Machine::rack; } }
                """);
        Element machine = model.children(element(model, "Test::shop").id()).getFirst();
        Element heavy = element(model, "Test::Shop::machine::heavy");
        Element light = model.children(machine.id()).getFirst();
        assertThat(model.inheritance().features(machine))
                .contains(light)
                .doesNotContain(heavy, element(model, "Test::Machine::rack"));
        assertThat(model.inheritance().effective(machine, heavy.id())).contains(light);
    }

    @Test
    void theEffectiveFeatureIsFoundByWhatItRedefines() {
        ElementId original = element(MODEL, "Test::Machine::mass").id();
        assertThat(MODEL.inheritance().effective(element(MODEL, "Test::motor"), original))
                .contains(element(MODEL, "Test::motor::mass"));
        assertThat(MODEL.inheritance()
                        .effective(
                                element(MODEL, "Test::motor"),
                                element(MODEL, "Test::limit").id()))
                .isEmpty();
    }

    @Test
    void theNearestValueAndMultiplicityCount() {
        Element mass = element(MODEL, "Test::motor::mass");
        assertThat(MODEL.inheritance().owning(mass, Property.VALUE)).contains(mass);
        assertThat(MODEL.inheritance().multiplicity(element(MODEL, "Test::motor")))
                .isEqualTo(new Multiplicity(3, 3));
        assertThat(MODEL.inheritance().multiplicity(mass)).isEqualTo(Multiplicity.ONE);
    }

    @Test
    void aSubjectTakesThePlaceOfTheInheritedOne() {
        assertThat(features("limit").stream().filter(name -> name.endsWith("::m")))
                .containsExactly("limit::m");
    }

    @Test
    void documentationAndIdsComeFromTheNearestThatHasOne() {
        assertThat(MODEL.inheritance().documentation(element(MODEL, "Test::motor")))
                .isEqualTo("A machine.");
        assertThat(MODEL.inheritance().documentation(element(MODEL, "Test::limit")))
                .isEqualTo("At most so much.");
        assertThat(RequirementIds.of(MODEL, element(MODEL, "Test::limit"))).isEqualTo("R-1");
        assertThat(RequirementIds.of(MODEL, element(MODEL, "Test::other"))).isEqualTo("R-2");
    }

    @Test
    void kindsAreInheritedThroughAllGenerals() {
        assertThat(MODEL.inheritance()
                        .isA(
                                element(MODEL, "Test::motor"),
                                element(MODEL, "Test::Machine").id()))
                .isTrue();
        assertThat(MODEL.inheritance()
                        .isA(
                                element(MODEL, "Test::Machine"),
                                element(MODEL, "Test::Motor").id()))
                .isFalse();
    }

    /** Of what it redefines, and if that has no name either, of what that redefines in its turn. */
    @Test
    void whoDeclaresNoNameGoesByTheNearestOneItRedefines() {
        Model model = Models.of("""
                part def Gate { attribute width : LengthValue; attribute height : LengthValue; }
                part def SluiceGate :> Gate { attribute :>> width; attribute high :>> height; }
                part gate : SluiceGate { attribute :>> width = 4 [m]; attribute :>> high = 3 [m]; }
                """);
        assertThat(model.children(element(model, "Test::SluiceGate").id()))
                .extracting(model.names()::effectiveName)
                .containsExactly("width", "high");
        assertThat(model.children(element(model, "Test::gate").id()))
                .extracting(model.names()::effectiveName)
                .containsExactly("width", "high");
    }
}
