package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The program as a process of its own, on a port of its own. */
final class Terminal {
    private final int port = freePort();

    private static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What was said at a terminal, the exit code and what was answered. */
    record Said(int exit, String text) {}

    private static ProcessBuilder command(String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xss4m",
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-cp",
                System.getProperty("java.class.path"),
                "pyrite.app.Pyrite"));
        command.addAll(List.of(arguments));
        return new ProcessBuilder(command).redirectErrorStream(true);
    }

    static Said say(String... arguments) throws Exception {
        Process process = command(arguments).start();
        String text = new String(process.getInputStream().readAllBytes());
        return new Said(process.waitFor(), text);
    }

    /** @param settings as environment variables: a name, its value, and so on */
    Process serve(Path data, String... settings) throws Exception {
        ProcessBuilder serve = command("serve", "--demo", "--port", String.valueOf(port), "--data", data.toString());
        for (int i = 0; i < settings.length; i += 2) {
            serve.environment().put(settings[i], settings[i + 1]);
        }
        Process process = serve.start();
        String line;
        do {
            line = process.inputReader().readLine();
            assertThat(line).as("the server says that it is ready").isNotNull();
        } while (!line.contains("is ready"));
        return process;
    }

    String address() {
        return "http://localhost:" + port;
    }
}
