package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The program as a process of its own, as at a terminal: what a kill leaves, and its data as one file and back. */
class BackupTest {
    private static final int WRITERS = 4;
    private static final int BEFORE_THE_KILL = 60;

    @TempDir
    private Path folder;

    private final int port = freePort();

    private static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What was said at a terminal, the exit code and what was answered. */
    private record Said(int exit, String text) {}

    private ProcessBuilder command(String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xss4m",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                "pyrite.app.Pyrite"));
        command.addAll(List.of(arguments));
        return new ProcessBuilder(command).redirectErrorStream(true);
    }

    private Said say(String... arguments) throws Exception {
        Process process = command(arguments).start();
        String text = new String(process.getInputStream().readAllBytes());
        return new Said(process.waitFor(), text);
    }

    private Process serve(Path data) throws Exception {
        Process process = command("serve", "--demo", "--port", String.valueOf(port), "--data", data.toString())
                .start();
        String line;
        do {
            line = process.inputReader().readLine();
            assertThat(line).as("the server says that it is ready").isNotNull();
        } while (!line.contains("is ready"));
        return process;
    }

    private Session ines() throws Exception {
        return new Session("http://localhost:" + port).signIn("ines", "merrow");
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
