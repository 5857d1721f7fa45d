package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;

class WellFormednessTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "part def A; part def A;|the name 'A' is already taken by a part definition beside it",
                "part def <x> A; part x;|the name 'x' is already taken",
                "part def A :> B; part def B :> A;|specialises itself, directly or in a circle",
                "part def A :> A;|specialises itself",
                "part a; part b : a;|a type is a definition, but 'a' is a part; use :> to subset it",
                "part def A; part b :> A;|a usage subsets a usage, but 'A' is a definition; use : to type by it",
                "part def A; attribute b : A;|an attribute cannot be typed by a part definition",
                "part def A { attribute x : Real; } part b { attribute :>> x = 1; }|there is no inherited 'x' to redefine",
                "part a; part b; satisfy a by b;|what is satisfied is a requirement, but 'a' is a part",
                "part a { subject s; }|a part cannot own a subject",
                "part a { package P; }|a part cannot own a package",
                "requirement r { objective o; }|a requirement cannot own an objective",
                "part def Tank { attribute level : LengthValue; } part t : Tank; attribute x = t.depth;|'t' has no 'depth'",
                "part def Tank { attribute level : LengthValue; } part t : Tank; attribute x = t.levle;|did you mean 'level'?",
                "attribute a : LengthValue; attribute b : MassValue; bind a = b;|a quantity in m and a quantity in kg cannot be bound",
                "attribute x = nothing;|there is no 'nothing' here",
                "attribute x = lenght(3);|there is no function 'lenght'",
                "part def A { attribute x : Real; } part def B :> A { attribute x : Real; }|"
                        + "'x' is inherited from 'A' already; write ':>> x' to redefine it",
                "part def A { part w[1..2]; } part def B :> A { part :>> w[3]; }|[3] is not within [1..2] of 'w', which it redefines",
                "part def A { part w[1..2]; } part def B :> A { part :>> w[0..1]; }|[0..1] is not within [1..2] of 'w', which it redefines",
                "part many[2]; part more :> many [3];|[3] is not within [2] of 'many', which it subsets",
                "part def A { private attribute x : Real = 1; } part a : A; attribute y = a.x;|'a' has no 'x'",
                "package Q { private part def Secret; } part p : Q::Secret;|'Secret' is private in 'Q'; make it public there",
                "attribute t : ThermodynamicTemperatureValue = 20 ['°C'] + 5 ['°C'];|"
                        + "a reading on a scale with its own zero cannot be added to another; "
                        + "write 20 as a difference, in [K]",
                "attribute t : ThermodynamicTemperatureValue = 2 * 20 ['°C'];|cannot be multiplied or divided",
                "attribute l = 3 [dB];|'dB' is a logarithmic unit",
                "private import Economics::*; attribute price : MoneyValue = 3 [pcs];|"
                        + "a quantity in EUR, but its value is a quantity in pcs",
                "private import Economics::*; attribute price = 3 [EUR] + 2;|a quantity in EUR and a number cannot be added",
                "attribute a : Real = b; attribute b : Real = c + 1; attribute c : Real = a;|"
                        + "these values depend on each other in a circle: a → b → c → a",
                "attribute self1 : Real = 2 * self1;|in a circle: self1 → self1",
                "attribute x; state def S { state a; transition first a then x; }|"
                        + "joins steps such as actions or states, but 'x' is an attribute",
                "part a { 1 + 1 }|an expression cannot stand alone in a part"
            })
    void aBrokenRuleIsExplained(String members, String message) {
        assertThat(Models.problemsOf(members))
                .anySatisfy(problem -> assertThat(problem).contains(message));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "part def A { attribute x : Real default 1; } part def B :> A { attribute :>> x default 2; } "
                        + "part b : B { attribute :>> x = 3; }",
                "requirement def R { subject s; } requirement r : R; part p; satisfy r by p;",
                "private import Economics::*; attribute <SEK> krona : MoneyUnit = 0.09 [EUR]; "
                        + "attribute price : MoneyValue = 100 [SEK]; attribute each = price / 4 [pcs];",
                "attribute <ell> oldEll : LengthUnit = 0.594 [m]; "
                        + "attribute <mach> machNumber : SpeedUnit = (1225 / 3.6) [m/s]; "
                        + "attribute v : SpeedValue = 2 [mach] + 3 [ell/s];",
                "attribute t : ThermodynamicTemperatureValue = 20 ['°C'] - 5 ['°C'] + 300 [K];",
                "part def A { private attribute x : Real = 1; attribute y : Real = x; } part def B :> A { attribute x : Real = 3; }",
                "part def Wheel; part def Cart { part wheel : Wheel[2..4]; } part cart : Cart { part :>> wheel[2]; }",
                "constraint def Law { in a : LengthValue; in b : LengthValue; a == b } "
                        + "part p { attribute h : LengthValue := 1 [m]; assert constraint c : Law { in a = h; "
                        + "in b = 2 [m]; } }"
            })
    void soundModelsAreTaken(String members) {
        assertThat(Models.problemsOf(members)).isEmpty();
    }
}
