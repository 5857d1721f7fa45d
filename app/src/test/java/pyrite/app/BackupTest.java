package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import pyrite.app.Terminal.Said;

/** The program as a process of its own, as at a terminal: what a kill leaves, and its data as one file and back. */
class BackupTest {
    private static final int WRITERS = 4;
    private static final int BEFORE_THE_KILL = 60;

    @TempDir
    private Path folder;

    private final Terminal terminal = new Terminal();

    private Process serve(Path data) throws Exception {
        return terminal.serve(data);
    }

    private static Said say(String... arguments) throws Exception {
        return Terminal.say(arguments);
    }

    private Session ines() throws Exception {
        return new Session(terminal.address()).signIn("ines", "merrow");
    }

    private static boolean add(Session session, String token, String name) throws Exception {
        return session.post(
                                "/p/merrow/main/members",
                                "application/json",
                                "{\"text\":\"package " + name + "\",\"base\":1}",
                                token)
                        .statusCode()
                == 200;
    }

    @Test
    void whatWasAcknowledgedIsThereAfterAKillInAStreamOfEditsByFour() throws Exception {
        Path data = folder.resolve("data");
        Process process = serve(data);
        ConcurrentLinkedQueue<String> acknowledged = new ConcurrentLinkedQueue<>();
        AtomicInteger tried = new AtomicInteger();
        try (ExecutorService writers = Executors.newFixedThreadPool(WRITERS)) {
            List<Callable<Void>> tasks = IntStream.range(0, WRITERS)
                    .<Callable<Void>>mapToObj(_ -> () -> {
                        Session session = ines();
                        String token = session.token("/p/merrow/main/requirements");
                        try {
                            for (; ; ) {
                                String name = "Killed" + tried.incrementAndGet();
                                if (add(session, token, name)) {
                                    acknowledged.add(name);
                                }
                                if (acknowledged.size() >= BEFORE_THE_KILL) {
                                    process.destroyForcibly();
                                }
                            }
                        } catch (IOException killed) {
                            return null;
                        }
                    })
                    .toList();
            for (var task : writers.invokeAll(tasks)) {
                task.get();
            }
        }
        process.waitFor();
        assertThat(acknowledged).hasSizeGreaterThanOrEqualTo(BEFORE_THE_KILL);
        try (Application again = new Application(data, true)) {
            var names =
                    again.bean(pyrite.app.workspace.Workspace.class).head("merrow", "main").model().ownRoots().stream()
                            .map(root -> root.name())
                            .filter(name -> name.startsWith("Killed"))
                            .toList();
            assertThat(names).containsAll(acknowledged).hasSizeLessThanOrEqualTo(acknowledged.size() + WRITERS);
        }
    }

    @Test
    void aBackupOfARunningServerIsRestoredIntoItWhileItRuns() throws Exception {
        Path data = folder.resolve("data");
        Path file = folder.resolve("merrow.backup");
        Process process = serve(data);
        try {
            Session ines = ines();
            String token = ines.token("/p/merrow/main/requirements");
            assertThat(add(ines, token, "Before")).isTrue();
            assertThat(say("backup", file.toString(), "--data", data.toString()))
                    .isEqualTo(new Said(0, "Everything is in " + file + "\n"));
            assertThat(add(ines, token, "After")).isTrue();
            assertThat(say("backup", file.toString(), "--data", data.toString()).text())
                    .contains("is there already");
            Said restored = say("restore", file.toString(), "--data", data.toString());
            assertThat(restored.text()).contains("Restored", "before-restore-");
            assertThat(ines().get("/p/merrow/main/architecture/outline.json").body())
                    .contains("\"Before\"")
                    .doesNotContain("\"After\"");
            assertThat(Path.of(restored.text().strip().replaceFirst(".*kept as ", "")))
                    .exists();
        } finally {
            process.destroyForcibly().waitFor();
        }
    }

    @Test
    void whatIsNoBackupIsRefusedAndTheDataStayAsTheyWere() throws Exception {
        Path data = folder.resolve("data");
        new Application(data, true).close();
        byte[] before = Files.readAllBytes(data.resolve("pyrite.mv.db"));
        Path text = Files.writeString(folder.resolve("text"), "no archive at all");
        Path other = folder.resolve("other.zip");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(other))) {
            zip.putNextEntry(new ZipEntry("../../pyrite.mv.db"));
            zip.write(1);
        }
        Path damaged = folder.resolve("damaged.zip");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(damaged))) {
            zip.putNextEntry(new ZipEntry("pyrite.mv.db"));
            zip.write(new byte[5000]);
        }
        for (Path file : List.of(text, other, damaged, folder.resolve("nowhere"))) {
            Said said = say("restore", file.toString(), "--data", data.toString());
            assertThat(said.exit()).as(said.text()).isEqualTo(1);
            assertThat(said.text()).startsWith("pyrite: ").contains(file.toString());
        }
        assertThat(Files.readAllBytes(data.resolve("pyrite.mv.db"))).isEqualTo(before);
        try (Stream<Path> left = Files.list(data)) {
            assertThat(left.filter(path -> path.getFileName().toString().startsWith("restoring")))
                    .isEmpty();
        }
    }

    /** One bit of what is stored differs from what its checksum is of; the database might well open with it. */
    @Test
    void anArchiveWithOneWrongBitIsRefused() throws Exception {
        Path data = folder.resolve("data");
        new Application(data, true).close();
        Path file = folder.resolve("merrow.backup");
        assertThat(say("backup", file.toString(), "--data", data.toString()).exit())
                .isZero();
        Path stored = folder.resolve("stored.zip");
        byte[] database;
        try (ZipFile zip = new ZipFile(file.toFile())) {
            database = zip.getInputStream(zip.getEntry("pyrite.mv.db")).readAllBytes();
        }
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(stored))) {
            ZipEntry entry = new ZipEntry("pyrite.mv.db");
            CRC32 checksum = new CRC32();
            checksum.update(database);
            entry.setMethod(ZipEntry.STORED);
            entry.setSize(database.length);
            entry.setCrc(checksum.getValue());
            zip.putNextEntry(entry);
            zip.write(database);
        }
        byte[] bytes = Files.readAllBytes(stored);
        bytes[bytes.length / 2] ^= 1;
        Files.write(stored, bytes);
        Said said = say("restore", stored.toString(), "--data", data.toString());
        assertThat(said.exit()).isEqualTo(1);
        assertThat(said.text()).contains("damaged", "checksum");
    }

    @Test
    void whatARestoreThatWasKilledLeftIsRemovedAtTheNextStart() throws Exception {
        Path data = folder.resolve("data");
        new Application(data, true).close();
        Path unpacked = Files.createDirectories(data.resolve("restoring123"));
        Files.writeString(unpacked.resolve("pyrite.mv.db"), "half of it");
        Path secondName = Files.createLink(data.resolve("before-restore-now.mv.db"), data.resolve("pyrite.mv.db"));
        Path kept = Files.writeString(data.resolve("before-restore-then.mv.db"), "old data");
        assertThat(say("backup", folder.resolve("b").toString(), "--data", data.toString())
                        .exit())
                .isZero();
        assertThat(unpacked).doesNotExist();
        assertThat(secondName).doesNotExist();
        assertThat(kept).exists();
    }

    @Test
    void aFolderNobodyUsesIsBackedUpAndRestoredAsWell() throws Exception {
        Path data = folder.resolve("data");
        new Application(data, true).close();
        Path file = folder.resolve("cold.backup");
        assertThat(say("backup", file.toString(), "--data", data.toString()).exit())
                .isZero();
        Path elsewhere = folder.resolve("elsewhere");
        assertThat(say("restore", file.toString(), "--data", elsewhere.toString())
                        .exit())
                .isZero();
        try (Application there = new Application(elsewhere, false)) {
            assertThat(there.bean(pyrite.app.workspace.Workspace.class)
                            .head("merrow", "main")
                            .number())
                    .isEqualTo(1);
        }
        assertThat(say(
                                "backup",
                                file.toString(),
                                "--data",
                                folder.resolve("nothing").toString())
                        .text())
                .contains("there is no Pyrite data");
    }
}
