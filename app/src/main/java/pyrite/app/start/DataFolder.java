package pyrite.app.start;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** A data folder that belongs to this process until it is closed or the process ends. */
record DataFolder(Path path, FileChannel lock) implements AutoCloseable {

    /**
     * The folder is not usable, for instance because another process uses it; the message is for the person at the
     * terminal.
     */
    static final class InUse extends Exception {
        InUse(String message) {
            super(message);
        }
    }

    static DataFolder own(Path data) throws InUse {
        Path path = data.toAbsolutePath().normalize();
        try {
            Files.createDirectories(path);
            FileChannel channel =
                    FileChannel.open(path.resolve("pyrite.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
            FileLock lock = channel.tryLock();
            if (lock == null) {
                throw new OverlappingFileLockException();
            }
            Archive.clean(path);
            return new DataFolder(path, channel);
        } catch (OverlappingFileLockException _) {
            throw new InUse(
                    "the data folder " + data + " is in use by another Pyrite; stop it or choose another with --data");
        } catch (IOException _) {
            throw new InUse("the data folder " + data + " cannot be written; choose another with --data");
        }
    }

    @Override
    public void close() throws IOException {
        lock.close();
    }
}
