package pyrite.core.expression;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.TextProblem;

class TypeCheckTest {
    private static final String FEATURES = """
            attribute length : LengthValue = 2 [m];
            attribute mass : MassValue = 3 [kg];
            attribute angle : AngularMeasureValue = 30 [deg];
            attribute on : Boolean = true;
            """;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "attribute x = length + mass;|a quantity in m and a quantity in kg cannot be added",
                "attribute x = length - 1;|a quantity in m and a number cannot be subtracted",
                "attribute x : Boolean = length < mass;|a quantity in m and a quantity in kg cannot be compared",
                "attribute x = sin(length);|sin takes a plain number or an angle, but this is a quantity in m",
                "attribute x = length^mass;|an exponent is a plain number, but this is a quantity in kg",
                "attribute x = if on ? length else mass;|both branches of an 'if' give the same kind of value",
                "attribute x = on + 1;|'+' works on numbers, but this is a condition",
                "attribute x : Boolean = not length;|'not' works on conditions, but this is a quantity in m",
                "attribute x = sqrt(length, mass);|sqrt takes 1 argument, not 2",
                "attribute x : MassValue = length;|'x' is a quantity in kg, but its value is a quantity in m",
                "attribute x = 2 [m] [kg];|a plain number stands before a unit, but this is a quantity in m",
                "constraint c { length * 2 }|a constraint comes to true or false, but this is a quantity in m",
                "constraint c { length == mass }|a quantity in m and a quantity in kg cannot be equated",
                "attribute x = (1, 2)#(length);|an index is a plain number, but this is a quantity in m",
                "attribute x = (length, mass);|the items of a sequence are of one kind, but a quantity in m "
                        + "comes first and this is a quantity in kg",
                "attribute x = length [kg];|a plain number stands before a unit",
                "attribute x : Boolean = on < true;|",
                "attribute x = -on;|",
                "attribute x : Boolean = length == \"long\";|cannot be equated",
                "attribute x = if length ? 1 else 2;|",
                "attribute x : LengthValue = length^(-1);|",
                "attribute x : TemperatureValue = 20 ['°C'] + 20 ['°C'];|",
                "attribute x = 2 * 20 ['°C'];|",
                "attribute x : LengthValue = (length, length)->collect { in l : LengthValue; l * mass }->sum();|",
                "attribute x = der(length * 2);|der takes the name of one quantity that changes",
                "attribute x = at(length);|at takes a quantity and an instant",
                "attribute x = maximum(length, 1 [m], 2 [m]);|cannot be used as an instant"
            })
    void mismatchesAreRefusedInWords(String declaration, String message) {
        assertThat(Models.problemsOf(FEATURES + declaration))
                .anySatisfy(problem -> assertThat(problem).contains(message == null ? "" : message));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "attribute x : AreaValue = length * length;",
                "attribute x : AreaValue = length^2;",
                "attribute x : Real = length / 1 [m];",
                "attribute x : LengthValue = sqrt(length^2);",
                "attribute x : Real = sin(angle);",
                "attribute x : LengthValue = max(length, 30 [cm]);",
                "attribute x : SpeedValue = der(length);",
                "attribute x : Boolean = on and length > 1 [mm];",
                "attribute x : LengthValue = if on implies length >= 2 [m] ? length else 0 [m];",
                "attribute x : Real = length^(-1) * length;",
                "attribute x : LengthValue = (length^2)^(1/2);",
                "attribute x : LengthValue = (length, 2 [m])#(1);",
                "attribute x : Real = (1, 2)->collect { in i; i * length }->sum() / 1 [m];",
                "attribute x : Boolean = (length, 3 [m])->forAll { in l : LengthValue; l > 1 [m] };",
                "attribute x : ThermodynamicTemperatureValue = 30 ['°C'] - 20 ['°C'];",
                "attribute x : String = \"a\" + \"b\";",
                "attribute x : Boolean = on xor not on or length > 1 [m] and true;",
                "attribute x : LengthValue = (length as LengthValue);",
                "attribute x : ForceValue = mass * 9.81 [m/s^2];",
                "attribute x : VolumeValue = (length^4)^(3/4);"
            })
    void soundExpressionsAreTaken(String declaration) {
        assertThat(Models.problemsOf(FEATURES + declaration)).isEmpty();
    }

    @Test
    void aFaultIsAtItsPlaceAndReportedOnce() {
        ReadResult reading = Models.tryRead("""
                package P {
                    private import ISQ::*;
                    private import SI::*;
                    attribute length : LengthValue = 2 [m];
                    attribute sum : LengthValue = 1 [m] + (length + 3 [kg]) + length;
                }
                """);
        TextProblem problem = reading.problems().getFirst();
        assertThat(reading.problems()).hasSize(1);
        assertThat(problem.line()).isEqualTo(5);
        assertThat(problem.column()).isEqualTo(44);
        assertThat(problem.toString())
                .startsWith("test.sysml:5:44: error: a quantity in m and a quantity in kg cannot be added");
    }
}
