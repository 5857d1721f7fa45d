package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.io.OutputStream;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A disk of 64 MB that fills up and has room again. Mounting one takes rights that not every machine gives. */
class FullDiskTest {
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    @TempDir
    private Path disk;

    private final Terminal terminal = new Terminal();

    private static boolean does(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command).redirectErrorStream(true).start().waitFor() == 0;
    }

    @BeforeEach
    void mount() throws Exception {
        boolean isMounted;
        try {
            isMounted = does("mount", "-t", "tmpfs", "-o", "size=64m", "tmpfs", disk.toString());
        } catch (IOException notHere) {
            isMounted = false;
        }
        assumeThat(isMounted).as("a small disk can be mounted").isTrue();
    }

    @AfterEach
    void unmount() throws Exception {
        does("umount", disk.toString());
    }

    private Path fill() throws IOException {
        Path file = disk.resolve("fill");
        try (OutputStream out = Files.newOutputStream(file)) {
            byte[] much = new byte[1 << 16];
            while (true) {
                out.write(much);
            }
        } catch (IOException full) {
            return file;
        }
    }

    private HttpResponse<String> health() throws Exception {
        return new Session(terminal.address()).get("/actuator/health");
    }

    private HttpResponse<String> add(Session session, String name) throws Exception {
        return session.edit("/members", "package " + name);
    }

    @Test
    void editsAreRefusedWithTheReasonAndWorkAgainOnceThereIsRoom() throws Exception {
        Process process = terminal.serve(disk.resolve("data"), "PYRITE_STORE_LEAST_ROOM", "16MB");
        try {
            Session ines = new Session(terminal.address()).signIn("ines", "merrow");
            assertThat(add(ines, "Before").statusCode()).isEqualTo(200);
            Path file = Files.write(disk.resolve("fill"), new byte[50 << 20]);
            HttpResponse<String> refused = add(ines, "Meanwhile");
            assertThat(refused.statusCode()).isEqualTo(507);
            assertThat(refused.body()).contains("the server's disk has", "nothing was saved");
            assertThat(health().statusCode()).isEqualTo(503);
            assertThat(health().body()).contains("DOWN");
            assertThat(ines.get("/p/merrow/main/requirements").statusCode()).isEqualTo(200);
            Files.delete(file);
            assertThat(add(ines, "After").statusCode()).isEqualTo(200);
            assertThat(health().body()).contains("UP");
        } finally {
            process.destroyForcibly().waitFor();
        }
    }

    /** Something else fills the disk at once, and the database fails by it. */
    @Test
    void aDatabaseThatFailedIsOpenedAgainAndHasAllThatWasAcknowledged() throws Exception {
        Process process = terminal.serve(disk.resolve("data"), "PYRITE_STORE_LEAST_ROOM", "0MB");
        try {
            Session ines = new Session(terminal.address()).signIn("ines", "merrow");
            assertThat(add(ines, "Before").statusCode()).isEqualTo(200);
            Path file = fill();
            await().atMost(PATIENCE)
                    .until(() -> add(ines, "Meanwhile").statusCode() >= 500 && health().statusCode() == 503);
            Files.delete(file);
            await().atMost(PATIENCE).until(() -> health().statusCode() == 200);
            Session again = new Session(terminal.address()).signIn("ines", "merrow");
            assertThat(add(again, "After").statusCode()).isEqualTo(200);
            String outline =
                    again.get("/p/merrow/main/architecture/outline.json").body();
            for (String name : List.of("Before", "After")) {
                assertThat(outline).contains("\"" + name + "\"");
            }
        } finally {
            process.destroyForcibly().waitFor();
        }
    }
}
