package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;

/** What docs/notation.md shows is read, written and read again as the same. */
class ManualTest {
    private static final Pattern BLOCK = Pattern.compile("## ([^\n]+)\n+(?:[^`#][^\n]*\n+)*```sysml\n(.*?)```", Pattern.DOTALL);

    /** One block of the page, under its heading. */
    record Example(String heading, String text) {
        @Override
        public String toString() {
            return heading;
        }

        Model read() {
            return text.startsWith("package") ? Models.read(text) : Models.of(text);
        }
    }

    static Stream<Example> examples() throws IOException {
        Matcher matcher = BLOCK.matcher(Files.readString(Path.of("../docs/notation.md")));
        List<Example> examples = new ArrayList<>();
        while (matcher.find()) {
            examples.add(new Example(matcher.group(1), matcher.group(2)));
        }
        assertThat(examples).hasSizeGreaterThan(8);
        return examples.stream();
    }

    private static String written(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    /** Kinds, names and properties from the top down, with what is referred to by name. */
    private static List<String> shape(Model model) {
        return model.ownRoots().stream().flatMap(root -> model.subtree(root.id()).stream()).map(element -> line(model, element)).toList();
    }

    private static String line(Model model, Element element) {
        return element.kind() + " " + model.names().qualifiedName(element) + " " + element.shortName() + " "
                + element.properties().entrySet().stream().filter(e -> e.getValue() instanceof Boolean || e.getValue() instanceof String
                        || e.getValue() instanceof Multiplicity).map(Object::toString).collect(Collectors.joining(", "))
                + " " + element.properties().keySet() + " "
                + element.outgoing().stream().map(id -> model.names().qualifiedName(model.get(id))).toList();
    }

    @ParameterizedTest
    @MethodSource("examples")
    void everyExampleIsReadWrittenAndReadAgainAsTheSame(Example example) {
        Model first = example.read();
        String text = written(first);
        Model second = Models.read(text);
        assertThat(written(second)).isEqualTo(text);
        assertThat(shape(second)).isEqualTo(shape(first));
    }

    @Test
    void everyKindOfElementIsShown() throws IOException {
        Set<ElementKind> shown = EnumSet.noneOf(ElementKind.class);
        examples().forEach(example -> example.read().ownElements().forEach(element -> shown.add(element.kind())));
        assertThat(EnumSet.complementOf(EnumSet.copyOf(shown))).isEmpty();
    }
}
