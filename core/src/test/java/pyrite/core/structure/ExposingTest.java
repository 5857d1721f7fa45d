package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.notation.NotationWriter;
import pyrite.core.structure.Exposing.Exposed;
import pyrite.core.structure.Exposing.Request;
import pyrite.core.structure.PortFace.Way;

/** The port that comes of chosen features; the expected notation is written by hand. */
class ExposingTest {
    private static final Model MODEL = Models.of("""
            item def Oil;
            port def Supply { in attribute demand : PressureValue; out item oil : Oil; }
            part def Drive {
                attribute pressure : PressureValue = 3 [bar];
                attribute demand : PressureValue;
                item oil : Oil [2];
                item oilOut : Oil;
                action start;
                port taken;
            }
            part drive : Drive;
            """);

    private static Element element(String name) {
        return Models.element(MODEL, "Test::" + name);
    }

    private static Exposed of(String feature, Way way, String name) {
        return new Exposed(element("Drive::" + feature).id(), way, name);
    }

    private static Exposing.Result expose(
            String port, @Nullable String definition, Multiplicity multiplicity, Exposed... features) {
        return Exposing.expose(
                MODEL,
                new Request(
                        element("drive"),
                        List.of(features),
                        port,
                        definition == null ? null : element(definition),
                        "",
                        multiplicity));
    }

    private static String written(Exposing.Result result, String... names) {
        assertThat(result).isInstanceOf(Exposing.Result.Made.class);
        Model next = ((EditResult.Applied) MODEL.apply(((Exposing.Result.Made) result).edit())).model();
        return NotationWriter.write(
                next,
                Stream.of(names)
                        .map(name -> Models.element(next, "Test::" + name))
                        .toList());
    }

    private static String refusal(Exposing.Result result) {
        assertThat(result).isInstanceOf(Exposing.Result.Refused.class);
        return ((Exposing.Result.Refused) result).reason();
    }

    @Test
    void chosenFeaturesBecomeAPortDefinitionAPortAndBindings() {
        Exposing.Result made = expose(
                "supply",
                null,
                Multiplicity.ONE,
                of("demand", Way.IN, "demand"),
                of("oil", Way.OUT, "cleanOil"),
                of("start", Way.OUT, "start"));
        assertThat(written(made, "SupplyPort")).isEqualTo("""
                port def SupplyPort {
                    in attribute demand : PressureValue;
                    out item cleanOil[2] : Oil;
                    out action start;
                }
                """);
        assertThat(written(made, "Drive"))
                .contains("port supply : SupplyPort;")
                .contains("bind supply.demand = demand;")
                .contains("bind supply.cleanOil = oil;")
                .contains("bind supply.start = start;");
        assertThat(((Exposing.Result.Made) made).summary())
                .isEqualTo("port supply : SupplyPort added to Drive, carrying demand, cleanOil, start");
    }

    @Test
    void aDefinitionThatIsThereIsUsedInTheDirectionThatFits() {
        assertThat(written(
                        expose(
                                "line",
                                "Supply",
                                Multiplicity.ONE,
                                of("demand", Way.IN, "demand"),
                                of("oilOut", Way.OUT, "oil")),
                        "Drive"))
                .contains("port line : Supply;", "bind line.oil = oilOut;");
        assertThat(written(expose("line", "Supply", new Multiplicity(2, 2), of("demand", Way.OUT, "demand")), "Drive"))
                .contains("port line[2] : ~Supply;")
                .doesNotContain("bind");
        assertThat(refusal(expose("line", "Supply", Multiplicity.ONE, of("pressure", Way.IN, "pressure"))))
                .contains("'Supply' carries in demand, out oil, which is not what was chosen");
    }

    @Test
    void whatCannotBeExposedIsRefused() {
        assertThat(refusal(expose("supply", null, Multiplicity.ONE))).contains("choose at least one feature");
        assertThat(refusal(expose("taken", null, Multiplicity.ONE, of("demand", Way.IN, "demand"))))
                .isEqualTo("'Drive' has a 'taken' already");
        assertThat(refusal(expose("p", null, Multiplicity.ONE, of("taken", Way.IN, "taken"))))
                .contains("no such attribute, item or action");
        assertThat(refusal(expose("p", null, Multiplicity.ONE, of("demand", Way.IN, "x"), of("pressure", Way.IN, "x"))))
                .contains("same name");
        assertThat(refusal(expose("p", "Oil", Multiplicity.ONE, of("demand", Way.IN, "x"))))
                .contains("'Oil' is an item definition");
    }
}
