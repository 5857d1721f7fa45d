package pyrite.app;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.env.Environment;

/** The application as a user starts it, on a free port with its own data folder; can be stopped and started again. */
final class Application implements AutoCloseable {
    static {
        // Logging belongs to the whole process; two that start at once would set it up against each other.
        System.setProperty("org.springframework.boot.logging.LoggingSystem", "none");
        java.util.logging.LogManager.getLogManager().reset();
    }

    private static CompletableFuture<Application> next;

    private final Path data;
    private final boolean demo;
    private final boolean history;
    private ConfigurableApplicationContext context;

    Application(Path data, boolean demo) {
        this(data, demo, false);
    }

    private Application(Path data, boolean demo, boolean history) {
        this.data = data;
        this.demo = demo;
        this.history = history;
        start();
    }

    /** With what the people of the demo did after its model was loaded. */
    static Application withHistory(Path data) {
        return new Application(data, true, true);
    }

    /** With the demo in a folder of its own. The next one starts while a test works with this one. */
    static synchronized Application inNewFolder() {
        CompletableFuture<Application> given = next == null ? starting() : next;
        next = starting();
        return given.join();
    }

    private static CompletableFuture<Application> starting() {
        return CompletableFuture.supplyAsync(
                Application::startInNewFolder, task -> Thread.ofPlatform().start(task));
    }

    /** The folder is copied from one that was filled once: filling it takes as long as starting. */
    private static Application startInNewFolder() {
        try {
            Path folder = Folders.make("pyrite-test");
            try (Stream<Path> files = Files.walk(Filled.FOLDER)) {
                for (Path file : files.filter(Files::isRegularFile).toList()) {
                    Path copy = folder.resolve(Filled.FOLDER.relativize(file));
                    Files.createDirectories(copy.getParent());
                    Files.copy(file, copy);
                }
            }
            return new Application(folder, true);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static final class Filled {
        static final Path FOLDER = fill();

        private static Path fill() {
            Path folder = Folders.make("pyrite-test");
            new Application(folder, true).close();
            return folder;
        }
    }

    void start() {
        SpringApplication application = new SpringApplication(Pyrite.class);
        application.setDefaultProperties(Map.of(
                "server.port",
                0,
                "pyrite.data",
                data.toAbsolutePath().toString(),
                "pyrite.demo",
                demo,
                "pyrite.demo-history",
                history,
                "spring.main.banner-mode",
                "off"));
        // A page that is gone is noticed soon, and nobody tries the passwords.
        context = application.run("--pyrite.events.heartbeat=300ms", "--pyrite.passwords.strength=4");
    }

    Path data() {
        return data;
    }

    <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    <T> T bean(String name, Class<T> type) {
        return context.getBean(name, type);
    }

    String address() {
        return "http://localhost:" + context.getBean(Environment.class).getProperty("local.server.port");
    }

    @Override
    public void close() {
        context.close();
    }
}
