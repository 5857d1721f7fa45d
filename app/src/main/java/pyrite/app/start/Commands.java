package pyrite.app.start;

import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.springframework.boot.Banner;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import pyrite.app.Pyrite;

/** What can be said at a terminal to the server's jar. */
@Command(
        name = "pyrite",
        description = "The Pyrite workbench.",
        mixinStandardHelpOptions = true,
        subcommands = {Commands.Serve.class, Commands.Backup.class, Commands.Restore.class})
public final class Commands {
    private Commands() {}

    /** Gives the exit code: 0 where all went well. The server goes on in threads of its own. */
    public static int execute(String[] arguments) {
        return new CommandLine(new Commands())
                .setExecutionExceptionHandler((fault, commandLine, _) -> {
                    commandLine.getErr().println("pyrite: " + sentence(fault));
                    return 1;
                })
                .execute(arguments);
    }

    private static String sentence(Throwable fault) {
        if (fault instanceof DataFolder.InUse || fault instanceof Archive.InvalidArchive) {
            return Objects.requireNonNullElse(fault.getMessage(), fault.toString());
        }
        Throwable cause = fault;
        while (cause.getCause() != null) {
            cause = cause.getCause();
        }
        return "could not go on: " + cause.getMessage() + " (more in pyrite.log in the data folder)";
    }

    /** The data folder of a command. */
    private static final class InFolder {
        @Option(
                names = "--data",
                defaultValue = "data",
                description = "Folder for the database (default ./${DEFAULT-VALUE}).")
        private Path data = Path.of("data");
    }

    @Command(
            name = "serve",
            description = "Serves the Pyrite workbench on this machine.",
            mixinStandardHelpOptions = true)
    static final class Serve implements Callable<Integer> {
        @Option(names = "--port", defaultValue = "8080", description = "Port to listen on (default ${DEFAULT-VALUE}).")
        private int port;

        @CommandLine.Mixin
        private InFolder folder = new InFolder();

        @Option(names = "--demo", description = "Load the demo project into a new data folder.")
        private boolean demo;

        @Override
        public Integer call() throws Exception {
            requireFree(port);
            DataFolder owned = DataFolder.own(folder.data);
            new Server(owned, this::start).open();
            System.out.println("Pyrite is ready at http://localhost:" + port + " (data in " + owned.path() + ")");
            return 0;
        }

        private ConfigurableApplicationContext start() {
            SpringApplication application = new SpringApplication(Pyrite.class);
            application.setBannerMode(Banner.Mode.OFF);
            application.setLogStartupInfo(false);
            application.setDefaultProperties(Map.of(
                    "server.port",
                    port,
                    "pyrite.data",
                    folder.data.toAbsolutePath().toString(),
                    "pyrite.demo",
                    demo));
            return application.run();
        }

        private static void requireFree(int port) throws DataFolder.InUse {
            try (ServerSocket socket = new ServerSocket()) {
                socket.bind(new InetSocketAddress(port));
            } catch (IOException | IllegalArgumentException e) {
                throw new DataFolder.InUse(
                        e instanceof IOException
                                ? "port " + port + " is taken; choose another with --port"
                                : "a port is a number from 0 to 65535, not " + port);
            }
        }
    }

    @Command(
            name = "backup",
            description = "Writes all data into one new file, whether or not Pyrite is running on it.",
            mixinStandardHelpOptions = true)
    static final class Backup implements Callable<Integer> {
        @Parameters(paramLabel = "FILE", description = "The file to write.")
        private Path file = Path.of("");

        @CommandLine.Mixin
        private InFolder folder = new InFolder();

        @Override
        public Integer call() throws Exception {
            Path absolute = file.toAbsolutePath().normalize();
            if (Server.isRunningOn(folder.data)) {
                Server.ask(folder.data, Server.BACKUP, absolute);
            } else {
                try (DataFolder owned = DataFolder.own(folder.data)) {
                    Archive.writeOf(owned.path(), absolute);
                }
            }
            System.out.println("Everything is in " + absolute);
            return 0;
        }
    }

    @Command(
            name = "restore",
            description = "Puts the data of a backup in the place of what is there, which is kept under another name.",
            mixinStandardHelpOptions = true)
    static final class Restore implements Callable<Integer> {
        @Parameters(paramLabel = "FILE", description = "A file that 'pyrite backup' wrote.")
        private Path file = Path.of("");

        @CommandLine.Mixin
        private InFolder folder = new InFolder();

        @Override
        public Integer call() throws Exception {
            Path absolute = file.toAbsolutePath().normalize();
            String kept;
            if (Server.isRunningOn(folder.data)) {
                kept = Server.ask(folder.data, Server.RESTORE, absolute);
            } else {
                try (DataFolder owned = DataFolder.own(folder.data)) {
                    kept = Archive.swap(Archive.unpack(absolute, owned.path()), owned.path(), Instant.now())
                            .toString();
                }
            }
            System.out.println("Restored. What was there before is kept as " + kept);
            return 0;
        }
    }
}
