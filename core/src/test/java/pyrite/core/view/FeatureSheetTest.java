package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class FeatureSheetTest {
    private static final Model MODEL = Models.of("""
            attribute gravity : AccelerationValue = 9.81 [m/s^2];
            part def Leaf {
                attribute mass : MassValue default 148 [t];
                attribute weight : ForceValue = mass * gravity;
                attribute angle : AngularMeasureValue := 0 [deg];
                attribute torque : TorqueValue;
                assert constraint still { doc /* It rests. */ der(angle) == 0 [1/s] }
            }
            part leaf : Leaf { attribute :>> mass = 100 [t]; part hinge[2]; }
            """);

    private static FeatureSheet of(String name) {
        return FeatureSheet.of(MODEL, Models.element(MODEL, "Test::" + name));
    }

    private static FeatureSheet.Attribute attribute(FeatureSheet sheet, String name) {
        return sheet.attributes().stream()
                .filter(a -> a.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void formulasShowWhatTheyComeToWhereTheyStand() {
        assertThat(attribute(of("Leaf"), "weight").computed()).isCloseTo(148_000 * 9.81, within(1e-6));
        assertThat(attribute(of("leaf"), "weight").computed()).isCloseTo(100_000 * 9.81, within(1e-6));
        assertThat(attribute(of("leaf"), "weight").unit().symbol()).isEqualTo("N");
        assertThat(attribute(of("leaf"), "mass").computed()).isNull();
    }

    @Test
    void equationsShowWhatIsConstantInThem() {
        Model model = Models.of("""
                part def Tank {
                    attribute area : AreaValue default 3 [m^2];
                    attribute level : LengthValue := 2 [m];
                    attribute inflow : VolumeFlowRateValue = 0.5 [m^3/s];
                    assert constraint balance { area * der(level) == inflow }
                }
                part tank : Tank { attribute :>> area = 4 [m^2]; }
                """);
        FeatureSheet sheet = FeatureSheet.of(model, Models.element(model, "Test::tank"));
        assertThat(sheet.equations().getFirst().known())
                .extracting(FeatureSheet.Known::name)
                .containsExactly("area", "inflow");
        assertThat(sheet.equations().getFirst().known().getFirst().value()).isEqualTo(4);
    }

    @Test
    void usesAreListedWithWhatTheElementIsThere() {
        assertThat(Uses.of(MODEL, Models.id(MODEL, "Test::gravity")))
                .singleElement()
                .isEqualTo(new Uses.Use("is in the value of", Models.element(MODEL, "Test::Leaf::weight")));
        assertThat(Uses.of(MODEL, Models.id(MODEL, "Test::Leaf")))
                .extracting(Uses.Use::relation)
                .containsExactly("types");
        assertThat(Uses.of(MODEL, Models.id(MODEL, "Test::Leaf::mass")))
                .extracting(Uses.Use::relation)
                .containsExactly("is in the value of", "is redefined by");
    }

    @Test
    void conditionsChoicesAndTextsShowWhatTheyComeTo() {
        Model model = Models.of("""
                enum def Condition { good; worn; }
                part def Wheel { attribute mass : MassValue default 3 [kg]; attribute condition : Condition = Condition::good; }
                part cart {
                    part wheel : Wheel[2];
                    attribute light : Boolean = wheel->forAll { in w : Wheel; w.mass < 4 [kg] };
                    attribute state1 : Condition = if light ? Condition::good else Condition::worn;
                    attribute label : String = if state1 == Condition::good ? "as new" else "used";
                    attribute known : Boolean = label == "as new";
                    attribute plain : Boolean = true;
                }
                """);
        FeatureSheet sheet = FeatureSheet.of(model, Models.element(model, "Test::cart"));
        assertThat(attribute(sheet, "light").result()).isEqualTo("true");
        assertThat(attribute(sheet, "state1").result()).isEqualTo("good");
        assertThat(attribute(sheet, "label").result()).isEqualTo("as new");
        assertThat(attribute(sheet, "known").result()).isEqualTo("true");
        assertThat(attribute(sheet, "plain").result()).isNull();
        assertThat(attribute(FeatureSheet.of(model, Models.element(model, "Test::Wheel")), "condition")
                        .result())
                .isNull();
    }

    @Test
    void rolesTellFixedStartAndOpenValues() {
        FeatureSheet sheet = of("Leaf");
        assertThat(attribute(sheet, "mass").role()).isEqualTo(FeatureSheet.Role.FIXED);
        assertThat(attribute(sheet, "angle").role()).isEqualTo(FeatureSheet.Role.INITIAL);
        assertThat(attribute(sheet, "torque").role()).isEqualTo(FeatureSheet.Role.OPEN);
    }

    @Test
    void aRedefinedFeatureStandsWhereTheInheritedOneStood() {
        assertThat(of("leaf").attributes())
                .extracting(FeatureSheet.Attribute::name)
                .containsExactly("mass", "weight", "angle", "torque");
        assertThat(attribute(of("leaf"), "mass").from()).isNull();
        assertThat(attribute(of("leaf"), "angle").from()).isEqualTo(Models.element(MODEL, "Test::Leaf"));
    }

    @Test
    void whateverElseItHoldsIsShownByItsDeclaration() {
        Model model = Models.of("""
                port def Supply;
                action def Close { in x : Real; action wait; action raise; first wait then raise; }
                part def Pump { port supply : Supply; perform action run; }
                part pump : Pump { connect supply to supply; attribute a : Real; doc /* no member */ }
                """);
        assertThat(FeatureSheet.of(model, Models.element(model, "Test::Close")).members())
                .extracting(FeatureSheet.Member::declaration)
                .containsExactly("action wait", "action raise", "first wait then raise");
        assertThat(FeatureSheet.of(model, Models.element(model, "Test::pump")).members())
                .extracting(FeatureSheet.Member::declaration)
                .containsExactly("port supply : Supply", "perform action run", "connect supply to supply");
    }

    @Test
    void partsAndEquationsComeWithTheirOrigin() {
        FeatureSheet sheet = of("leaf");
        assertThat(sheet.parts())
                .singleElement()
                .satisfies(part -> assertThat(part.multiplicity()).isEqualTo("2"));
        assertThat(sheet.equations()).singleElement().satisfies(equation -> {
            assertThat(equation.text()).isEqualTo("der(angle) == 0 [1/s]");
            assertThat(equation.documentation()).isEqualTo("It rests.");
        });
    }
}
