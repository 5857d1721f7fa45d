package pyrite.app.start;

import java.io.BufferedReader;
import java.io.IOException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.channels.Channels;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.time.Instant;
import java.util.function.Supplier;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ConfigurableApplicationContext;
import pyrite.app.security.Audit;

/**
 * The running program. Beside the pages it listens on a socket in the data folder, accessible only to the folder's
 * owner. There the commands {@code backup} and {@code restore} request what cannot be done to a database in use. A
 * request has two lines, the command and a file; the answer is one line, {@code ok}, or {@code no} and a sentence.
 */
final class Server {
    static final String BACKUP = "backup";
    static final String RESTORE = "restore";
    private static final Logger LOG = LoggerFactory.getLogger(Server.class);
    private static final String SOCKET = "pyrite.socket";
    /** The longest address of such a socket that every system takes. */
    private static final int LONGEST_ADDRESS = 100;

    private final DataFolder data;
    private final Supplier<ConfigurableApplicationContext> start;
    private volatile ConfigurableApplicationContext context;

    Server(DataFolder data, Supplier<ConfigurableApplicationContext> start) {
        this.data = data;
        this.start = start;
        this.context = start.get();
    }

    void open() throws IOException {
        Path socket = data.path().resolve(SOCKET);
        if (socket.toString().length() > LONGEST_ADDRESS) {
            LOG.warn("the path of the data folder is too long for a socket; stop Pyrite before a backup or a restore");
            return;
        }
        Files.deleteIfExists(socket);
        ServerSocketChannel listening = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
        listening.bind(UnixDomainSocketAddress.of(socket));
        Files.setPosixFilePermissions(socket, PosixFilePermissions.fromString("rw-------"));
        // Not a daemon: while the pages are down for a restore, it is what keeps the program alive.
        Thread.ofPlatform().name("terminal").daemon(false).start(() -> listen(listening));
    }

    private void listen(ServerSocketChannel listening) {
        while (listening.isOpen()) {
            try (SocketChannel caller = listening.accept()) {
                answer(caller);
            } catch (IOException fault) {
                if (listening.isOpen()) {
                    LOG.warn("a command at the terminal was cut off", fault);
                }
            }
        }
    }

    private void answer(SocketChannel caller) throws IOException {
        BufferedReader in = new BufferedReader(Channels.newReader(caller, StandardCharsets.UTF_8));
        String requested = String.valueOf(in.readLine());
        Path file = Path.of(String.valueOf(in.readLine()));
        String answer;
        try {
            answer = "ok "
                    + switch (requested) {
                        case BACKUP -> backup(file);
                        case RESTORE -> restore(file);
                        default -> throw new Archive.InvalidArchive("there is no command " + requested);
                    };
        } catch (Exception fault) {
            LOG.warn("{} {} failed", requested, file, fault);
            answer = "no " + fault.getMessage();
        }
        caller.write(StandardCharsets.UTF_8.encode(answer.lines().findFirst().orElse("no") + "\n"));
    }

    private String backup(Path file) throws Exception {
        try (Connection database = context.getBean(DataSource.class).getConnection()) {
            Archive.write(database, file);
        }
        context.getBean(Audit.class).note("terminal", "backed up to", file.toString());
        return file.toString();
    }

    /**
     * Stops the pages, puts the other data in place and starts them again; with the old data if the new do not start.
     */
    private String restore(Path file) throws Exception {
        Path unpacked = Archive.unpack(file, data.path());
        context.close();
        Path kept;
        try {
            kept = Archive.swap(unpacked, data.path(), Instant.now());
        } catch (IOException notSwapped) {
            context = start.get();
            throw notSwapped;
        }
        try {
            context = start.get();
        } catch (RuntimeException | Error doesNotStart) {
            Archive.putBack(kept, data.path());
            context = start.get();
            throw new Archive.InvalidArchive("Pyrite does not start with it; the data are as they were before");
        }
        context.getBean(Audit.class).note("terminal", "restored from", file.toString());
        return kept.toString();
    }

    static boolean isRunningOn(Path data) {
        try (SocketChannel channel = SocketChannel.open(address(data))) {
            return channel.isConnected();
        } catch (IOException | IllegalArgumentException _) {
            return false;
        }
    }

    /** Asks the program that runs on a folder, and gives what it says. */
    static String ask(Path data, String requested, Path file) throws IOException, Archive.InvalidArchive {
        try (SocketChannel channel = SocketChannel.open(address(data))) {
            channel.write(StandardCharsets.UTF_8.encode(requested + "\n" + file + "\n"));
            String answer = new BufferedReader(Channels.newReader(channel, StandardCharsets.UTF_8)).readLine();
            if (answer == null || !answer.startsWith("ok ")) {
                throw new Archive.InvalidArchive(
                        answer == null ? "Pyrite stopped before it had answered" : answer.substring(3));
            }
            return answer.substring(3);
        }
    }

    private static UnixDomainSocketAddress address(Path data) {
        return UnixDomainSocketAddress.of(data.toAbsolutePath().normalize().resolve(SOCKET));
    }
}
