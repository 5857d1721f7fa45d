package pyrite.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Reading;
import pyrite.core.notation.Source;

/** What is stored is read back the same. */
class ElementContentTest {
    private static final String EVERYTHING = """
            // a note
            package P {
                doc /* "quoted" and \\ back, ünïcode ✓ */
                private import ISQ::*; private import SI::*; private import Dynamics::*; private import ScalarValues::*;
                abstract part def <'a b'> A { attribute x : LengthValue := 2 [km]; // behind
                    assert constraint c { der(x) == if x > 1 [m] and not (time < 3 [s]) ? -x / 2 [s] else 0 [m/s] } }
                part def B :> A { attribute :>> x = 3 [cm]; }
                part b : B[2..5];
                part d : B;
                attribute t : ThermodynamicTemperatureValue = 20 ['°C'];
                attribute text : String = "a \\"quoted\\" text";
                requirement r { subject s : B; require constraint { always(s.x <= 2 [m], 0 [s], 1 [s]) } }
                satisfy r by d;
                verification v : SimulatedCheck { subject :>> system = d; attribute :>> stopTime = 1 [min]; objective { verify r; } }
                part e { attribute y : Real; attribute z : Real; bind y = z; }
                constraint def Law { in p : LengthValue; p == 2 [m] }
                /* a comment */
            }
            """;

    @Test
    void everyPropertySurvives() {
        Reading reading = NotationReader.read(Library.model(), List.of(new Source("x", EVERYTHING)));
        assertThat(reading.problems()).isEmpty();
        Model model = reading.model();
        for (Element element : model.ownElements()) {
            assertThat(ElementContent.read(element.id().value(), ElementContent.write(element))).isEqualTo(element);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "{", "{}", "{\"kind\":\"NOTHING\",\"rank\":\"i\"}", "{\"kind\":\"PART\",\"rank\":\"i\",\"types\":[[\"x\"]]}"})
    void aDamagedRowNamesItsElement(String content) {
        UUID id = UUID.randomUUID();
        assertThatThrownBy(() -> ElementContent.read(id, content)).isInstanceOf(IllegalStateException.class).hasMessageContaining(id.toString());
    }

    @Test
    void seriesArePackedWithoutLossAndDamageIsNoticed() {
        double[] values = new Random(7).doubles(5000, -1e6, 1e6).toArray();
        values[17] = Double.NaN;
        values[18] = Double.NEGATIVE_INFINITY;
        byte[] packed = SeriesBytes.pack(values);
        assertThat(SeriesBytes.unpack(packed)).containsExactly(values);
        assertThat(SeriesBytes.unpack(SeriesBytes.pack(new double[0]))).isEmpty();
        assertThat(SeriesBytes.pack(new double[5000]).length).isLessThan(1000);
        assertThatThrownBy(() -> SeriesBytes.unpack(java.util.Arrays.copyOf(packed, packed.length / 2)))
                .isInstanceOf(IllegalStateException.class);
        packed[0] = 0;
        assertThatThrownBy(() -> SeriesBytes.unpack(packed)).isInstanceOf(IllegalStateException.class);
    }
}
