package pyrite.bench.load;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import org.springframework.util.FileSystemUtils;

/** A server with the demo, in a process of its own and with a data folder of its own that is removed with it. */
final class OwnServer implements AutoCloseable {
    private static final int PATIENCE = 120;

    private final Process process;
    private final URI address;
    private final Path folder;

    OwnServer(Path jar) throws IOException {
        this.folder = Files.createTempDirectory("pyrite-load");
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        this.address = URI.create("http://localhost:" + port);
        this.process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:+UseG1GC",
                        "-Xss4m",
                        "-Xmx2g",
                        "--enable-native-access=ALL-UNNAMED",
                        "-jar",
                        jar.toString(),
                        "serve",
                        "--demo",
                        "--port",
                        String.valueOf(port),
                        "--data",
                        folder.toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("out.txt").toFile())
                .start();
    }

    URI address() {
        return address;
    }

    long pid() {
        return process.pid();
    }

    /** Signs the administrator in as soon as the server is up. */
    SignedIn firstSignIn() throws IOException, InterruptedException {
        for (int tries = 0; ; tries++) {
            try {
                return new SignedIn(address, "admin", "merrow");
            } catch (IOException notYet) {
                if (tries == PATIENCE || !process.isAlive()) {
                    throw new IOException(Files.readString(folder.resolve("out.txt")), notYet);
                }
                Thread.sleep(500);
            }
        }
    }

    @Override
    public void close() throws InterruptedException, IOException {
        process.destroy();
        process.waitFor();
        FileSystemUtils.deleteRecursively(folder);
    }
}
