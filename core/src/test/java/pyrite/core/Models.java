package pyrite.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/** Models for tests, from a few lines of notation. */
public final class Models {
    private static final String IMPORTS = """
            private import ScalarValues::*;
            private import ISQ::*;
            private import SI::*;
            private import Dynamics::*;
            """;

    private Models() {}

    /** The members of a package {@code Test} that imports the usual libraries. */
    public static Model of(String members) {
        return read("package Test {\n" + IMPORTS + members + "\n}");
    }

    public static Model read(String text) {
        ReadResult reading = tryRead(text);
        assertThat(reading.problems()).isEmpty();
        return reading.model();
    }

    public static ReadResult tryRead(String text) {
        return NotationReader.read(Library.model(), List.of(new Source("test.sysml", text)));
    }

    /** The problems of the members of a package {@code Test}, as messages. */
    public static List<String> problemsOf(String members) {
        return tryRead("package Test {\n" + IMPORTS + members + "\n}").problems().stream()
                .map(problem -> problem.message())
                .toList();
    }

    /** The element with a qualified name. */
    public static Element element(Model model, String qualifiedName) {
        return model.ownElements().stream()
                .filter(e -> model.names().qualifiedName(e).equals(qualifiedName))
                .findFirst()
                .orElseThrow(() -> new AssertionError("no " + qualifiedName));
    }

    public static ElementId id(Model model, String qualifiedName) {
        return element(model, qualifiedName).id();
    }
}
