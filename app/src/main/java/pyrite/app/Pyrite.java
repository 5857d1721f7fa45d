package pyrite.app;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.InstantSource;
import java.util.Map;
import java.util.concurrent.Callable;
import org.springframework.boot.Banner;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Starts the server, after making sure that it can: a free port, a data folder of its own. */
@SpringBootApplication
public class Pyrite {

    @Bean
    InstantSource clock() {
        return InstantSource.system();
    }

    public static void main(String[] arguments) {
        int exit = new CommandLine(new Serve()).setCommandName("pyrite serve")
                .setExecutionExceptionHandler((fault, commandLine, _) -> {
                    commandLine.getErr().println("pyrite: " + sentence(fault));
                    return 1;
                }).execute(arguments);
        if (exit != 0) {
            System.exit(exit);
        }
    }

    private static String sentence(Throwable fault) {
        Throwable cause = fault;
        while (cause.getCause() != null) {
            cause = cause.getCause();
        }
        return fault instanceof CannotStart ? fault.getMessage()
                : "could not start: " + cause.getMessage() + " (more in pyrite.log in the data folder)";
    }

    /** Something outside Pyrite keeps it from starting; the message is one sentence for the person at the terminal. */
    private static final class CannotStart extends Exception {
        CannotStart(String message) {
            super(message);
        }
    }

    @Command(description = "Serves the Pyrite workbench on this machine.", mixinStandardHelpOptions = true)
    private static final class Serve implements Callable<Integer> {
        @Option(names = "--port", defaultValue = "8080", description = "Port to listen on (default ${DEFAULT-VALUE}).")
        private int port;

        @Option(names = "--data", defaultValue = "data", description = "Folder for the database (default ./${DEFAULT-VALUE}).")
        private Path data = Path.of("data");

        @Option(names = "--demo", description = "Load the demo project into a new data folder.")
        private boolean demo;

        @Override
        public Integer call() throws CannotStart {
            requireFree(port);
            FileLock lock = own(data);
            SpringApplication application = new SpringApplication(Pyrite.class);
            application.setBannerMode(Banner.Mode.OFF);
            application.setLogStartupInfo(false);
            application.setDefaultProperties(Map.of("server.port", port, "pyrite.data", data.toAbsolutePath().toString(),
                    "pyrite.demo", demo));
            ConfigurableApplicationContext context = application.run();
            context.addApplicationListener(_ -> keep(lock));
            System.out.println("Pyrite is ready at http://localhost:" + port + " (data in " + data.toAbsolutePath().normalize() + ")");
            return 0;
        }

        private static void keep(FileLock lock) {
            java.lang.ref.Reference.reachabilityFence(lock);
        }

        private static void requireFree(int port) throws CannotStart {
            try (ServerSocket socket = new ServerSocket()) {
                socket.bind(new InetSocketAddress(port));
            } catch (IOException | IllegalArgumentException e) {
                throw new CannotStart(e instanceof IOException ? "port " + port + " is taken; choose another with --port"
                        : "a port is a number from 0 to 65535, not " + port);
            }
        }

        /** Takes the data folder for this process until it ends. */
        private static FileLock own(Path data) throws CannotStart {
            try {
                Files.createDirectories(data);
                FileChannel channel = FileChannel.open(data.resolve("pyrite.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                FileLock lock = channel.tryLock();
                if (lock == null) {
                    throw new OverlappingFileLockException();
                }
                return lock;
            } catch (OverlappingFileLockException _) {
                throw new CannotStart("the data folder " + data + " is in use by another Pyrite; stop it or choose another with --data");
            } catch (IOException _) {
                throw new CannotStart("the data folder " + data + " cannot be written; choose another with --data");
            }
        }
    }
}
