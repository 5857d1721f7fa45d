package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Family;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** docs/library.md lists the packages of the library, each with all its members and what is done with them. */
class LibraryPageTest {
    private static final Path PAGE = Path.of("../docs/library.md");
    private static final String HEAD = """
            # The library

            These packages are in every project. *Computed* are functions that a run or a verdict works out, quantities whose
            dimension is checked and units that are converted. Everything else is *read*: it can be imported, specialised, used
            as a type and shown, and its name is the standard's (SysML 2.0, clause 9, and KerML 1.0, clause 9). `LibraryPageTest`
            holds this page to the library; it writes the page it expects to `core/target/library.md`.
            """;
    private static final Model LIBRARY = Library.model();

    @Test
    void thePageListsWhatThereIs() throws IOException {
        String expected = HEAD + "\n"
                + LIBRARY.roots().stream()
                        .sorted(Comparator.comparing(LibraryPageTest::nameOf))
                        .map(LibraryPageTest::section)
                        .collect(Collectors.joining("\n"));
        Files.writeString(Path.of("target/library.md"), expected);
        assertThat(Files.readString(PAGE)).isEqualTo(expected);
    }

    private static String section(Element library) {
        Map<String, List<String>> byState = LIBRARY.children(library.id()).stream()
                .filter(member -> LIBRARY.names().effectiveName(member) != null)
                .collect(Collectors.groupingBy(
                        LibraryPageTest::state,
                        TreeMap::new,
                        Collectors.mapping(LibraryPageTest::nameOf, Collectors.toList())));
        String section = "## " + nameOf(library) + "\n\n" + about(library) + broughtIn(library)
                + byState.entrySet().stream()
                        .map(entry -> entry.getKey() + ": "
                                + entry.getValue().stream()
                                        .distinct()
                                        .map(name -> "`" + name + "`")
                                        .collect(Collectors.joining(", "))
                                + "\n")
                        .collect(Collectors.joining("\n"));
        return section.stripTrailing() + "\n";
    }

    private static String broughtIn(Element library) {
        String names = LIBRARY.children(library.id()).stream()
                .filter(member -> member.kind() == ElementKind.IMPORT)
                .filter(member ->
                        "public".equals(member.get(Property.VISIBILITY).orElse("")))
                .flatMap(member -> member.get(Property.TARGET).stream())
                .map(target -> "`" + LIBRARY.names().qualifiedName(LIBRARY.get(target.target())) + "`")
                .collect(Collectors.joining(", "));
        return names.isEmpty() ? "" : "with what is in " + names + "\n\n";
    }

    private static String about(Element library) {
        return LIBRARY.inheritance()
                .documentationOf(library)
                .flatMap(doc -> doc.get(Property.TEXT))
                .map(text -> text.replaceAll("\\s+", " ") + "\n\n")
                .orElse("");
    }

    private static String nameOf(Element element) {
        String name = LIBRARY.names().effectiveName(element);
        return element.shortName() == null || name.equals(element.shortName())
                ? name
                : element.shortName() + " " + name;
    }

    private static String state(Element member) {
        return isComputed(member) ? "computed" : "read";
    }

    private static boolean isComputed(Element member) {
        if (member.get(Property.ABSTRACT).orElse(false)) {
            return false;
        }
        if (member.kind() == ElementKind.CALCULATION_DEFINITION) {
            return !(LIBRARY.environment().function(member.id()).orElse(null) instanceof ModelFunction.Defined)
                    || LIBRARY.inheritance().owning(member, Property.RESULT).isPresent();
        }
        boolean data = member.kind() == ElementKind.ATTRIBUTE_DEFINITION || member.kind() == ElementKind.ATTRIBUTE;
        return data
                && member.kind().family() == Family.STRUCTURE
                && LIBRARY.environment().typeOf(member.id()) instanceof Type.Number;
    }
}
