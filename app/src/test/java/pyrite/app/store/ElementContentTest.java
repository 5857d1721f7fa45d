package pyrite.app.store;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/** What is stored is read back the same. */
class ElementContentTest {
    private static final String EVERYTHING = """
            // a note
            package P {
                doc /* "quoted" and \\ back, ünïcode ✓ */
                private import ISQ::*; private import SI::*; private import Dynamics::*; private import ScalarValues::*;
                abstract part def <'a b'> A { attribute x : LengthValue default := 2 [km]; // behind
                    assert constraint c { der(x) == if x > 1 [m] and not (time < 3 [s]) ? -x / 2 [s] else 0 [m/s] } }
                part def B :> A { attribute :>> x := 3 [cm]; }
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
        ReadResult reading = NotationReader.read(Library.model(), List.of(new Source("x", EVERYTHING)));
        assertThat(reading.problems()).isEmpty();
        Model model = reading.model();
        survives(model);
    }

    /** As rows and as a checkpoint. */
    private static void survives(Model model) {
        for (Element element : model.ownElements()) {
            assertThat(new ElementContent.Reader().read(element.id().value(), ElementContent.write(element)))
                    .isEqualTo(element);
        }
        assertThat(CheckpointReader.read(CheckpointWriter.write(model.ownElements())))
                .isEqualTo(model.ownElements());
    }

    /** Every construct of the notation, as the page about it shows it. */
    @Test
    void everyConstructOfTheNotationSurvives() throws IOException {
        Matcher block = Pattern.compile("```sysml\n(.*?)```", Pattern.DOTALL)
                .matcher(Files.readString(Path.of("../docs/notation.md")));
        int blocks = 0;
        for (; block.find(); blocks++) {
            String text = block.group(1).startsWith("package")
                    ? block.group(1)
                    : "package Test { private import ScalarValues::*; private import ISQ::*; "
                            + "private import SI::*; private import Dynamics::*;\n"
                            + block.group(1) + "}";
            ReadResult reading = NotationReader.read(Library.model(), List.of(new Source("x", text)));
            assertThat(reading.problems()).isEmpty();
            survives(reading.model());
        }
        assertThat(blocks).isGreaterThan(8);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "{",
                "{}",
                "{\"kind\":\"NOTHING\",\"rank\":\"i\"}",
                "{\"kind\":\"PART\",\"rank\":\"i\",\"types\":[[\"x\"]]}"
            })
    void aDamagedRowNamesItsElement(String content) {
        UUID id = UUID.randomUUID();
        assertThatThrownBy(() -> new ElementContent.Reader().read(id, content))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining(id.toString());
    }
}
