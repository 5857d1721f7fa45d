package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;
import pyrite.core.notation.TextProblem;
import pyrite.core.structure.Fit.Reason;
import pyrite.core.structure.PortFace.Way;

/** Known answers: the standard's conjugation (SysML 2.0, 7.12.2), and connections of which anybody can say why not. */
class FitTest {
    private static final String DEFINITIONS = """
            item def Oil; item def CleanOil :> Oil; item def Water;
            port def Hose { in item oil : Oil; out attribute pressure : PressureValue; }
            port def CleanHose { in item oil : CleanOil; out attribute pressure : PressureValue; }
            port def WaterHose { in item oil : Water; out attribute pressure : PressureValue; }
            port def LevelHose { in item oil : Oil; out attribute pressure : LengthValue; }
            port def TwinHose { in item oil : Oil [2]; out attribute pressure : PressureValue; }
            port def Drain { in item oil : Oil; }
            port def Signal { inout item telegram; }
            port def Bolt { attribute diameter : LengthValue; }
            port def Block { port left : Hose; port right : ~Hose; }
            """;

    private static List<Fit.Misfit> between(String one, String other) {
        Model model = Models.of(DEFINITIONS + "part a { port p" + one + " } part b { port q" + other
                + " } connection c connect a.p to b.q;");
        return Fit.of(model, Models.element(model, "Test::c"));
    }

    @ParameterizedTest
    @CsvSource({
        ": Hose;, : ~Hose;",
        ": ~Hose;, : Hose;",
        ": ~CleanHose;, : Hose;",
        ": Signal;, : Signal;",
        ": Signal;, : ~Signal;",
        ": Bolt;, : Bolt;",
        ": Block;, : ~Block;",
        ";, : Hose;",
        ": Hose { out item spill : Oil; }, : ~Hose { in item spill : Oil; }"
    })
    void whatIsSentOnOneSideIsReceivedOnTheOther(String one, String other) {
        assertThat(between(one, other)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                ": Hose;       | : Hose;      | DIRECTION    | oil      | both receive",
                ": ~Hose;      | : ~Hose;     | DIRECTION    | oil      | both send",
                ": ~Hose;      | : CleanHose; | TYPE         | oil      | is of Oil at",
                ": ~WaterHose; | : Hose;      | TYPE         | oil      | takes Oil or a kind of it",
                ": Hose;       | : ~LevelHose;| DIMENSION    | pressure | is PressureValue at",
                ": ~TwinHose;  | : Hose;      | MULTIPLICITY | oil      | has [2] of",
                ": ~Hose;      | : TwinHose;  | MULTIPLICITY | oil      | has [2]",
                ": ~Hose;      | : Drain;     | MISSING      | pressure | receives",
                ": Block;      | : Block;     | DIRECTION    | left.oil | both receive"
            })
    void whatDoesNotFitIsSaidWithItsReason(String one, String other, Reason reason, String feature, String sentence) {
        assertThat(between(one, other)).anySatisfy(misfit -> {
            assertThat(misfit.reason()).isEqualTo(reason);
            assertThat(misfit.feature()).isEqualTo(feature);
            assertThat(misfit.sentence()).contains(sentence.replace("'", ""));
        });
        assertThat(between(other, one)).as("the other way round").hasSameSizeAs(between(one, other));
    }

    @Test
    void aConjugatedPortHasTheFeaturesOfItsDefinitionWithInAndOutExchanged() {
        Model model = Models.of(DEFINITIONS + "port plain : Hose; port conjugate : ~Hose; port again :> conjugate; "
                + "port nested : ~Block;");
        assertThat(PortFace.of(model, Models.element(model, "Test::plain")).features())
                .extracting(PortFace.Feature::name, PortFace.Feature::way)
                .containsExactlyInAnyOrder(tuple("oil", Way.IN), tuple("pressure", Way.OUT));
        for (String conjugate : List.of("conjugate", "again")) {
            assertThat(PortFace.of(model, Models.element(model, "Test::" + conjugate))
                            .features())
                    .extracting(PortFace.Feature::name, PortFace.Feature::way)
                    .containsExactlyInAnyOrder(tuple("oil", Way.OUT), tuple("pressure", Way.IN));
        }
        assertThat(PortFace.of(model, Models.element(model, "Test::nested")).features())
                .extracting(PortFace.Feature::name, PortFace.Feature::way)
                .containsExactlyInAnyOrder(
                        tuple("left.oil", Way.OUT),
                        tuple("left.pressure", Way.IN),
                        tuple("right.oil", Way.IN),
                        tuple("right.pressure", Way.OUT));
    }

    @Test
    void onlyPortsAreCompared() {
        Model model = Models.of(DEFINITIONS + "part a; part b { port q : Hose; } connection c connect a to b.q;");
        assertThat(Fit.of(model, Models.element(model, "Test::c"))).isEmpty();
    }

    @Test
    void whatAPartRedefinesCounts() {
        Model model = Models.of(DEFINITIONS
                + "part def Pump { port outlet : ~Hose; } part def Valve { port oil : CleanHose; } "
                + "part pump : Pump { port :>> outlet : ~CleanHose; } part valve : Valve; "
                + "connection c connect pump.outlet to valve.oil;");
        assertThat(Fit.of(model, Models.element(model, "Test::c"))).isEmpty();
    }

    @Test
    void aTextSaysWhatDoesNotFitWhereItIsConnectedAndIsReadAllTheSame() {
        ReadResult read = NotationReader.read(Library.model(), List.of(new Source("yard.sysml", """
                        package Yard {
                            item def Oil;
                            port def Hose { in item oil : Oil; }
                            part pump { port outlet : Hose; }
                            part valve { port inlet : Hose; }
                            connect pump.outlet to valve.inlet;
                        }
                        """)));
        assertThat(read.isGood()).isTrue();
        assertThat(read.hints())
                .extracting(TextProblem::toString)
                .singleElement()
                .asString()
                .contains("yard.sysml:6", "'pump.outlet' and 'valve.inlet' both receive 'oil'", "written with '~'");
    }

    /** Ten ports in each of ten, nine levels deep: nobody waits for a thousand million, and nothing false is said. */
    @Test
    void portsWithinPortsThatAreTooManyAreNotCompared() {
        StringBuilder text = new StringBuilder("port def P0 { in item oil; }\n");
        for (int level = 1; level < 10; level++) {
            text.append("port def P").append(level).append(" {");
            for (int i = 0; i < 10; i++) {
                text.append(" port p")
                        .append(i)
                        .append(" : P")
                        .append(level - 1)
                        .append(';');
            }
            text.append(" }\n");
        }
        Model model =
                Models.of(text + "part a { port p : P9; } part b { port q : P9; } connection c connect a.p to b.q;");
        assertThat(Fit.of(model, Models.element(model, "Test::c"))).isEmpty();
        assertThat(InterfaceTable.of(model).rows())
                .singleElement()
                .satisfies(row -> assertThat(row.isCompared()).isFalse());
    }
}
