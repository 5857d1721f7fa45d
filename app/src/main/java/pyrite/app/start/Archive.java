package pyrite.app.start;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Arrays;
import java.util.Enumeration;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.CheckedInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationState;

/**
 * A whole data folder as one file: a zip archive of the database, as H2's {@code BACKUP TO} writes it while the
 * database is in use. Restoring replaces the current data, which is kept beside it under another name.
 */
final class Archive {
    private static final String DATABASE = "pyrite.mv.db";
    private static final String RESTORING = "restoring";
    private static final String KEPT = "before-restore-";
    private static final long LARGEST = 64L << 30;
    private static final DateTimeFormatter STAMP =
            DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss").withZone(ZoneOffset.UTC);

    private Archive() {}

    /** The archive or the folder is not usable; the message is for the person at the terminal. */
    static final class InvalidArchive extends Exception {
        InvalidArchive(String message) {
            super(message);
        }
    }

    /**
     * Writes all that is committed, at one moment, into a new file. It is written under another name first, so that the
     * file is whole if it is there.
     */
    static void write(Connection database, Path file) throws InvalidArchive, SQLException, IOException {
        if (Files.exists(file)) {
            throw new InvalidArchive(file + " is there already; choose another name");
        }
        Path folder = file.toAbsolutePath().getParent();
        if (folder == null || !Files.isDirectory(folder)) {
            throw new InvalidArchive("there is no folder " + folder);
        }
        Path part = folder.resolve(file.getFileName() + ".part");
        try (Statement statement = database.createStatement()) {
            statement.execute("BACKUP TO '" + part.toString().replace("'", "''") + "'");
            Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(part);
        }
    }

    /** Writes an archive of a folder that no program is using. */
    static void writeOf(Path data, Path file) throws InvalidArchive, SQLException, IOException {
        if (!Files.exists(data.resolve(DATABASE))) {
            throw new InvalidArchive("there is no Pyrite data in " + data + "; name the folder with --data");
        }
        try (Connection database = open(data)) {
            write(database, file);
        }
    }

    /**
     * Unpacks an archive beside the database of a folder and makes sure that it can be opened; nothing is replaced yet.
     */
    static Path unpack(Path file, Path data) throws InvalidArchive, IOException {
        Files.createDirectories(data);
        Path folder = Files.createTempDirectory(data, RESTORING);
        try (ZipFile archive = new ZipFile(file.toFile())) {
            ZipEntry entry = onlyEntry(archive, file);
            CheckedInputStream in = new CheckedInputStream(archive.getInputStream(entry), new CRC32());
            try (in;
                    OutputStream out = Files.newOutputStream(folder.resolve(DATABASE))) {
                if (in.transferTo(new Limited(out)) == 0) {
                    throw new InvalidArchive(file + " holds an empty database");
                }
            }
            if (in.getChecksum().getValue() != entry.getCrc()) {
                throw new InvalidArchive(file + " is damaged: its checksum is another one");
            }
            requireReadable(folder, file);
            return folder;
        } catch (IOException | SQLException | InvalidArchive e) {
            remove(folder);
            throw e instanceof InvalidArchive unfit
                    ? unfit
                    : new InvalidArchive(
                            file + " is no archive that Pyrite wrote, or it is damaged: " + e.getMessage());
        }
    }

    private static void requireReadable(Path folder, Path file) throws InvalidArchive, SQLException {
        try (Connection database = open(folder);
                Statement statement = database.createStatement()) {
            statement.executeQuery("select count(*) from branch").close();
        }
        boolean isNewer = Arrays.stream(Flyway.configure()
                        .dataSource(address(folder), "sa", "")
                        .load()
                        .info()
                        .applied())
                .anyMatch(migration -> migration.getState() == MigrationState.FUTURE_SUCCESS);
        if (isNewer) {
            throw new InvalidArchive(file + " was written by a newer Pyrite; restore it with that");
        }
    }

    private static ZipEntry onlyEntry(ZipFile archive, Path file) throws InvalidArchive {
        Enumeration<? extends ZipEntry> entries = archive.entries();
        while (entries.hasMoreElements()) {
            ZipEntry entry = entries.nextElement();
            if (entry.getName().equals(DATABASE)) {
                return entry;
            }
        }
        throw new InvalidArchive(file + " holds no database of Pyrite's");
    }

    /** Stops an archive that would fill the disk. */
    private static final class Limited extends OutputStream {
        private final OutputStream out;
        private long written;

        Limited(OutputStream out) {
            this.out = out;
        }

        @Override
        public void write(int b) throws IOException {
            write(new byte[] {(byte) b}, 0, 1);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            written += length;
            if (written > LARGEST) {
                throw new IOException("it holds more than " + (LARGEST >> 30) + " GiB");
            }
            out.write(bytes, from, length);
        }
    }

    /**
     * Puts what was unpacked in the place of the database, and gives where the old one is now. The folder must not be
     * in use.
     */
    static Path swap(Path unpacked, Path data, Instant now) throws IOException {
        Path database = data.resolve(DATABASE);
        Path kept = data.resolve(KEPT + STAMP.format(now) + ".mv.db");
        // A second name for the old one, so that there is a database at every moment, whenever the process may be
        // killed.
        if (Files.exists(database)) {
            try {
                Files.createLink(kept, database);
            } catch (UnsupportedOperationException | FileSystemException withoutLinks) {
                Files.copy(database, kept);
            }
        }
        Files.move(unpacked.resolve(DATABASE), database, StandardCopyOption.ATOMIC_MOVE);
        remove(unpacked);
        return kept;
    }

    /** Takes a swap back, if there were data; what was put in place is dropped, for it is in its archive. */
    static void putBack(Path kept, Path data) throws IOException {
        if (Files.exists(kept)) {
            Files.move(kept, data.resolve(DATABASE), StandardCopyOption.REPLACE_EXISTING);
        }
    }

    private static Connection open(Path data) throws SQLException {
        return DriverManager.getConnection(address(data), "sa", "");
    }

    private static String address(Path data) {
        return "jdbc:h2:file:" + data.toAbsolutePath().resolve("pyrite") + ";IFEXISTS=TRUE";
    }

    /** Removes what a restore that was killed left in a folder that nobody uses. */
    static void clean(Path data) throws IOException {
        List<Path> all;
        try (Stream<Path> files = Files.list(data)) {
            all = files.toList();
        }
        for (Path each : all) {
            String name = each.getFileName().toString();
            if (name.startsWith(RESTORING) && Files.isDirectory(each)) {
                remove(each);
            } else if (name.startsWith(KEPT)
                    && Files.exists(data.resolve(DATABASE))
                    && Files.isSameFile(each, data.resolve(DATABASE))) {
                // The old data had its second name already, and was not replaced.
                Files.delete(each);
            }
        }
    }

    private static void remove(Path folder) throws IOException {
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }
}
