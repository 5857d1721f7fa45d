package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Models;
import pyrite.core.expression.Type;

/** What type a feature has that does not state one itself: that of the nearest it inherits from, else of its value. */
class TypesTest {
    private static String typeOf(Model model, String name) {
        return model.environment().typeOf(element(model, "Test::" + name).id()).toString();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "attribute x : MassValue;|a quantity in kg",
                "attribute x : Real;|a number",
                "attribute x : Boolean;|a condition (true or false)",
                "attribute a : MassValue; attribute x :> a;|a quantity in kg",
                "attribute a : MassValue; attribute b :> a; attribute x ::> b;|a quantity in kg",
                "attribute def Load :> MassValue; attribute x : Load;|a quantity in kg",
                "attribute def Load :> MassValue; attribute def Heavy :> Load; attribute x : Heavy;|a quantity in kg",
                "attribute x = 3 [m] * 2 [m];|a quantity in m^2",
                "attribute a = 3 [s]; attribute x = a;|a quantity in s",
                "attribute a : LengthValue; attribute b : MassValue; attribute x :> a, b;|a quantity in m",
                "attribute a : LengthValue; attribute x : Real :> a;|a number",
                "part def P { attribute y : MassValue; } part p : P { attribute :>> y; } attribute x = p.y;|a quantity in kg",
                "enum def Size :> Real { one = 1; two = 2; } attribute x : Size;|a number"
            })
    void aFeatureHasTheTypeOfTheNearestThatStatesOne(String members, String type) {
        assertThat(typeOf(Models.of(members), "x")).isEqualTo(type);
    }

    /** Shorter and longer than what is looked at each time anew. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 7, 8, 9, 40})
    void aTypeIsFoundAlongAnyNumberOfRedefinitions(int steps) {
        String definitions = IntStream.rangeClosed(1, steps)
                .mapToObj(i -> "part def D" + i + " :> D" + (i - 1) + " { attribute :>> y; }")
                .collect(Collectors.joining("\n"));
        Model model = Models.of("part def D0 { attribute y : SpeedValue; }\n" + definitions);
        Element last = model.children(element(model, "Test::D" + steps).id()).getFirst();
        assertThat(model.environment().typeOf(last.id())).hasToString("a quantity in m/s");
        assertThat(model.environment().typeOf(last.id()))
                .isEqualTo(
                        model.environment().typeOf(element(model, "Test::D0::y").id()));
        assertThat(model.names().effectiveName(last)).isEqualTo("y");
    }

    @Test
    void aTypeFollowsAnEditFarUpTheChain() {
        Model model = Models.of("attribute a : MassValue; attribute b :> a; attribute c :> b;");
        assertThat(typeOf(model, "c")).isEqualTo("a quantity in kg");
        Element a = element(model, "Test::a")
                .with(Property.TYPES, List.of(Reference.to(LibraryNames.id("ISQ::LengthValue"))));
        Model after = ((EditResult.Applied) model.apply(Edit.put(a))).model();
        assertThat(typeOf(after, "c")).isEqualTo("a quantity in m");
        assertThat(typeOf(model, "c")).isEqualTo("a quantity in kg");
    }

    @Test
    void whatStatesNothingAndHasNoValueHasNoTypeYet() {
        Model model = Models.of("attribute x; attribute y :> x; part p; ref part q : Q; part def Q;");
        assertThat(model.environment().typeOf(element(model, "Test::x").id())).isEqualTo(Type.UNKNOWN);
        assertThat(model.environment().typeOf(element(model, "Test::y").id())).isEqualTo(Type.UNKNOWN);
        assertThat(model.environment().typeOf(element(model, "Test::p").id())).isInstanceOf(Type.Thing.class);
        assertThat(model.environment().typeOf(element(model, "Test::q").id())).isInstanceOf(Type.Thing.class);
        assertThat(model.environment().typeOf(ElementId.fresh())).isEqualTo(Type.UNKNOWN);
    }
}
