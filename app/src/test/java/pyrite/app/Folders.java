package pyrite.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.util.FileSystemUtils;

/** Folders for as long as the tests run; gone when they end, whatever happened in between. */
final class Folders {
    private static final List<Path> MADE = new CopyOnWriteArrayList<>();

    static {
        Runtime.getRuntime().addShutdownHook(new Thread(() -> MADE.forEach(Folders::delete)));
    }

    private Folders() {}

    static Path make(String prefix) {
        try {
            Path folder = Files.createTempDirectory(prefix);
            MADE.add(folder);
            return folder;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void delete(Path folder) {
        try {
            FileSystemUtils.deleteRecursively(folder);
        } catch (IOException _) {
            // A browser may still be writing its last; the folder stays then.
        }
    }
}
