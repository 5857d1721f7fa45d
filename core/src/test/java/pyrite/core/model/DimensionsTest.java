package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.Validates;
import pyrite.core.dynamics.Flattening;

/** Every way a value reaches a place: it has the dimension of the place, or is refused. */
class DimensionsTest {
    private static final String BEFORE = """
            private import RealFunctions::*; private import TrigFunctions::*; private import NumericalFunctions::*;
            constraint def Law { in x : LengthValue; in y; x >= 0 [m] }
            calc def Twice { in x : LengthValue; return : LengthValue = 2 * x; }
            calc def Same { in x; x }
            calc def Sum { in x; in y; Same(x) + y }
            part def P { attribute l : LengthValue default 3 [m]; attribute t : TimeValue = 3 [s]; }
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "part def A :> P { assert constraint a : Law { in x = t; in y = 1; } }|in m, but its value is a quantity in s",
                "part def A :> P { calc e : Twice { in x = t; } }|in m, but its value is a quantity in s",
                "part def A :> P { attribute d : LengthValue = Twice(t); }|in m, but this is a quantity in s",
                "part def A :> P { attribute :>> l : TimeValue = 3 [s]; }|is a quantity in s, but redefines a quantity in m",
                "part def A :> P { attribute :>> l = 3 [s]; }|in m, but its value is a quantity in s",
                "attribute f : LengthValue = Same(3 [s]);|in m, but its value is a quantity in s",
                "attribute f : LengthValue = Sum(3 [s], 2 [m]);|in Sum",
                "attribute f : LengthValue = NumericalFunctions::'+'(3 [s], 2 [m]);|cannot be added",
                "attribute f : LengthValue = (3 [s]) as LengthValue;|cannot be taken as a quantity in m",
                "attribute f : TemperatureValue = -5 ['°C'];|write the sign with the number: (-5) […]"
            })
    void anotherDimensionIsRefused(String members, String fault) {
        assertThat(Models.problemsOf(BEFORE + members))
                .singleElement()
                .asString()
                .contains(fault);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "part def A :> P { assert constraint a : Law { in x = l; in y = t; } }",
                "part def A :> P { attribute :>> l : LengthValue = 4 [m]; }",
                "attribute f : LengthValue = Same(3 [m]); attribute g : TimeValue = Same(3 [s]);",
                "attribute f : LengthValue = Sum(3 [cm], 2 [m]);",
                "attribute m : LengthValue = 3 [m]; attribute n : LengthValue = 3 [mm];",
                "attribute f : TemperatureValue = (-5) ['°C'];",
                "calc def Down { in n; if n > 0 ? Down(n - 1) else n } attribute f : Real = Down(3);"
            })
    void theSameDimensionIsTaken(String members) {
        assertThat(Models.problemsOf(BEFORE + members)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "log10(1000)|3",
                "log2(8)|3",
                "cot(0.5)|1.830487721712452",
                "deg(pi)|180",
                "rad(90)|1.5707963267948966",
                "atan2(1, 2)|0.4636476090008061",
                "atan2(1, -2)|2.677945044588987",
                "atan2(-1, -2)|-2.677945044588987",
                "atan2(-1, 2)|-0.4636476090008061",
                "atan2(3, 0)|1.5707963267948966",
                "atan2(-3, 0)|-1.5707963267948966",
                "atan2(2 [m], 100 [cm])|1.1071487177940904"
            })
    @Validates(what = "log10, log2, cot, deg, rad, atan2", against = "published values", within = "1e-12")
    void theFunctionsOfTheLibraryCompute(String call, double expected) {
        Model model = Models.of(BEFORE + "part p { attribute f : Real = " + call + "; }");
        Flattening flattening = new Flattening(model);
        var root = flattening.root(Models.element(model, "Test::p"));
        assertThat(flattening.constant(
                        model.inheritance()
                                .value(Models.element(model, "Test::p::f"))
                                .orElseThrow()
                                .expression(),
                        root))
                .hasValueSatisfying(value -> assertThat(value).isCloseTo(expected, within(1e-12)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "f : Real = cos(angle)|''",
                "f : Real = angle / other|''",
                "f : AngularMeasureValue = 2 * angle|deg",
                "f : AngularMeasureValue = max(angle, other)|deg",
                "f : AngularMeasureValue = if true ? angle else 1|deg",
                "f : TemperatureValue = warm - cold|K",
                "f : TemperatureValue = warm - 5 [K]|K",
                "f : LengthValue = length * 3|mm",
                "f : AreaValue = length * length|m^2",
                "f : LengthValue = sum((length, length))|mm"
            })
    void aValueIsShownInAUnitOfItsKind(String attribute, String symbol) {
        Model model = Models.of(BEFORE + """
                attribute angle : AngularMeasureValue = 30 [deg]; attribute other : AngularMeasureValue = 60 [deg];
                attribute warm : TemperatureValue = 20 ['°C']; attribute cold : TemperatureValue = 5 ['°C'];
                attribute length : LengthValue = 30 [mm];
                """ + "attribute " + attribute + ";");
        assertThat(new DisplayUnits(model).of(Models.element(model, "Test::f")).symbol())
                .isEqualTo(symbol);
    }

    @Test
    void aUnitThatIsMadeOfItselfIsRefused() {
        assertThat(Models.problemsOf("attribute <a> au : LengthUnit = 2 [b]; attribute <b> bu : LengthUnit = 3 [a];"))
                .anyMatch(problem -> problem.contains("in a circle"));
    }
}
