package pyrite.core.notation;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/** The library packages that every model can import, read once from the texts shipped with core. */
public final class Library {
    private static final List<String> FILES = List.of(
            "ScalarValues",
            "Quantities",
            "MeasurementReferences",
            "ISQ",
            "SI",
            "Functions",
            "SystemsLibrary",
            "Economics",
            "Budgets",
            "Candidates",
            "Libraries",
            "Stories",
            "Consolidation",
            "FunctionPaths",
            "Dynamics",
            "Execution",
            "Recordings",
            "Specifications",
            "Tracing",
            "Placement",
            "Metamodel");

    private Library() {}

    /** A model that holds the library packages and nothing else; what every project begins with. */
    public static Model model() {
        return Holder.MODEL;
    }

    private static Model read() {
        List<Source> sources = FILES.stream()
                .map(name -> new Source(name + ".sysml", text(name)))
                .toList();
        ReadResult reading = NotationReader.read(
                Model.EMPTY,
                null,
                sources,
                (draft, rank) -> ElementId.ofLibrary(DraftCompletion.qualifiedName(draft, rank)));
        if (!reading.isGood()) {
            throw new IllegalStateException(
                    "the library cannot be read: " + reading.problems().getFirst());
        }
        return reading.model().asLibrary();
    }

    private static String text(String name) {
        String path = "/pyrite/library/" + name + ".sysml";
        try (InputStream in = Objects.requireNonNull(Library.class.getResourceAsStream(path), path)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static final class Holder {
        static final Model MODEL = read();
    }
}
