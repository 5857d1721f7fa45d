package pyrite.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Reading;
import pyrite.core.notation.Source;

/** Reads model files and reports what is wrong with them. */
final class Files {
    private Files() {
    }

    static Reading read(List<Path> paths) {
        return NotationReader.read(Library.model(), paths.stream().map(Files::source).toList());
    }

    static Source source(Path path) {
        try {
            byte[] bytes = java.nio.file.Files.readAllBytes(path);
            return new Source(path.toString(), StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString());
        } catch (CharacterCodingException _) {
            throw new UsageFault(path + " is not UTF-8 text");
        } catch (IOException _) {
            throw new UsageFault(path + " cannot be read");
        }
    }

    /** Prints every problem as {@code path:line:column: error: message} and says whether there is none. */
    static boolean report(Reading reading, PrintWriter to) {
        reading.problems().forEach(to::println);
        return reading.isGood();
    }
}
