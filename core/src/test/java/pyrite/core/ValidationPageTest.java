package pyrite.core;

import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The page that lists what is validated says what the tests say; it is written when the property asks for it. */
@Tag("validation")
class ValidationPageTest {
    private static final Path PAGE = Path.of("../docs/validation.md");
    private static final String WRITE = "validation.write";

    private static final String HEAD = """
            # Validation

            What Pyrite computes, and the answers from elsewhere that tests compare it with. `bin/pyrite validate` runs these tests and
            writes this page. The laws among them, with random data, run with `bin/pyrite test`.
            """;

    private static final Map<String, String> AREAS = new TreeMap<>(Map.of(
            "dynamics", "Integration, switching, steps",
            "expression", "Units and functions",
            "model", "Dimensions",
            "trace", "Links and questions about them",
            "verification", "Observations, margins, verdicts"));

    @Test
    void thePageSaysWhatTheTestsSay() throws IOException {
        if (Boolean.getBoolean(WRITE)) {
            Files.writeString(PAGE, page());
        }
        assertThat(Files.readString(PAGE))
                .as("run 'bin/pyrite validate' to write it")
                .isEqualTo(page());
    }

    private static String page() {
        JavaClasses classes = new ClassFileImporter()
                .withImportOption(ImportOption.Predefined.ONLY_INCLUDE_TESTS)
                .importPackages("pyrite.core");
        return HEAD
                + AREAS.entrySet().stream()
                        .map(area -> "\n## " + area.getValue()
                                + "\n\n| what | against | within | test |\n|---|---|---|---|\n"
                                + classes.stream()
                                        .filter(each -> each.getPackageName().equals("pyrite.core." + area.getKey()))
                                        .flatMap(ValidationPageTest::rows)
                                        .sorted()
                                        .collect(Collectors.joining()))
                        .collect(Collectors.joining());
    }

    private static Stream<String> rows(JavaClass type) {
        Stream<String> ofType = type.isAnnotatedWith(Validates.class)
                ? Stream.of(row(type.getAnnotationOfType(Validates.class), type.getSimpleName()))
                : Stream.of();
        return Stream.concat(
                ofType,
                type.getMethods().stream()
                        .filter(method -> method.isAnnotatedWith(Validates.class))
                        .map(method -> row(
                                method.getAnnotationOfType(Validates.class),
                                type.getSimpleName() + "." + method.getName())));
    }

    private static String row(Validates validates, String test) {
        String within = validates.within().isEmpty() ? "equal" : validates.within();
        return "| " + validates.what() + " | " + validates.against() + " | " + within + " | `" + test + "` |\n";
    }
}
