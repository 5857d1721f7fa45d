package pyrite.app.store;

import com.zaxxer.hikari.HikariDataSource;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;
import org.springframework.util.unit.DataSize;

/**
 * Watches the disk and the database. Edits are refused while there is too little room, before the database would fail
 * by it; one that has failed all the same is opened anew.
 */
@Component("store")
public class StoreGuard implements HealthIndicator {
    private static final Logger LOG = LoggerFactory.getLogger(StoreGuard.class);
    private static final long EVERY_S = 2;

    private final HikariDataSource database;
    private final Path data;
    private final DataSize leastRoom;
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().name("store-watch").daemon().factory());
    private volatile String fault = "";

    /** There is too little room on the disk for an edit. */
    public static final class NoRoom extends RuntimeException {
        NoRoom(String message) {
            super(message);
        }
    }

    /** @param leastRoom so much must be free for anything to be written */
    StoreGuard(
            HikariDataSource database,
            @Value("${pyrite.data}") Path data,
            @Value("${pyrite.store.least-room}") DataSize leastRoom) {
        this.database = database;
        this.data = data;
        this.leastRoom = leastRoom;
        watch.scheduleWithFixedDelay(this::look, EVERY_S, EVERY_S, TimeUnit.SECONDS);
    }

    /** @throws NoRoom if nothing may be written now */
    public void requireRoom() {
        long room = room();
        if (room < leastRoom.toBytes()) {
            throw new NoRoom("the server's disk has %d MB left and needs %d MB; nothing was saved. "
                            .formatted(room >> 20, leastRoom.toMegabytes())
                    + "Whoever looks after the server can make room, then try again");
        }
    }

    private long room() {
        try {
            return Files.getFileStore(data).getUsableSpace();
        } catch (IOException unknown) {
            // A disk that does not tell is as good as any: the database will say if it is full.
            return Long.MAX_VALUE;
        }
    }

    /** A database that could not write closes for good while any connection is open. */
    private void look() {
        try (Connection connection = database.getConnection();
                Statement statement = connection.createStatement()) {
            statement.executeQuery("select count(*) from branch").close();
            if (!fault.isEmpty()) {
                LOG.warn("the database is open again");
            }
            fault = "";
        } catch (SQLException | RuntimeException closed) {
            if (fault.isEmpty()) {
                LOG.error("the database cannot be used", closed);
            }
            fault = String.valueOf(closed.getMessage());
            if (database.getHikariPoolMXBean() != null) {
                database.getHikariPoolMXBean().softEvictConnections();
            }
        }
    }

    @Override
    public Health health() {
        if (!fault.isEmpty()) {
            return Health.down().withDetail("database", fault).build();
        }
        long room = room();
        return (room < leastRoom.toBytes() ? Health.down() : Health.up())
                .withDetail("room", DataSize.ofBytes(room).toMegabytes() + " MB")
                .build();
    }

    @PreDestroy
    void stop() {
        watch.shutdownNow();
    }
}
