package pyrite.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/** Reads model files and reports their problems. */
final class Files {
    /** What stands for standard input among the files. */
    static final String STANDARD_INPUT = "-";

    static final String WHICH =
            "Model files, folders of which every *.sysml is read, or - for standard input; they may refer to each other.";

    private Files() {}

    static ReadResult read(List<Path> paths) {
        return readAll(sources(paths));
    }

    static ReadResult readAll(List<Source> sources) {
        return NotationReader.read(Library.model(), sources);
    }

    /** The texts of files, and of those in folders. */
    static List<Source> sources(List<Path> paths) {
        List<Source> sources = new ArrayList<>();
        paths.forEach(path -> files(path).forEach(file -> sources.add(source(file))));
        if (sources.isEmpty()) {
            throw new UsageFault("there is no file that ends in .sysml in "
                    + String.join(", ", paths.stream().map(Path::toString).toList()));
        }
        return sources;
    }

    private static List<Path> files(Path path) {
        if (!java.nio.file.Files.isDirectory(path)) {
            return List.of(path);
        }
        try (Stream<Path> found = java.nio.file.Files.walk(path)) {
            return found.filter(file -> file.toString().endsWith(".sysml") && java.nio.file.Files.isRegularFile(file))
                    .sorted()
                    .toList();
        } catch (IOException _) {
            throw new UsageFault(path + " cannot be read");
        }
    }

    private static Source source(Path path) {
        try {
            byte[] bytes =
                    path.toString().equals(STANDARD_INPUT) ? standardInput() : java.nio.file.Files.readAllBytes(path);
            return new Source(
                    path.toString(),
                    StandardCharsets.UTF_8
                            .newDecoder()
                            .decode(ByteBuffer.wrap(bytes))
                            .toString());
        } catch (CharacterCodingException _) {
            throw new UsageFault(path + " is not UTF-8 text");
        } catch (IOException _) {
            throw new UsageFault(path + " cannot be read");
        }
    }

    private static byte[] standardInput() throws IOException {
        InputStream in = System.in;
        return in.readAllBytes();
    }

    /** Prints every problem as {@code path:line:column: error: message} and says whether there is none. */
    static boolean report(ReadResult reading, PrintWriter to) {
        reading.problems().forEach(to::println);
        return reading.isGood();
    }
}
