package pyrite.core.verification;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Witness;
import pyrite.core.model.Element;

/** Tells a watcher what happens, not more often than somebody can look, and another witness everything. */
final class WatchedRun implements Witness {
    private static final long EVERY_NS = 400_000_000;
    /** So often the clock is looked at. */
    private static final int TURNS = 64;

    private final Witness inner;
    private final Watcher watcher;
    private @Nullable Supplier<EventLog> log;
    private long reportedAt = System.nanoTime();
    private int turns;

    WatchedRun(Witness inner, Watcher watcher) {
        this.inner = inner;
        this.watcher = watcher;
    }

    void log(Supplier<EventLog> log) {
        this.log = log;
    }

    @Override
    public void item(double time, Outcome outcome, Thing thing, @Nullable Instance place, int subject) {
        inner.item(time, outcome, thing, place, subject);
    }

    @Override
    public void set(double time, String path, double value, Element attribute) {
        inner.set(time, path, value, attribute);
    }

    @Override
    public void turn(double time, boolean begins, int subject) {
        inner.turn(time, begins, subject);
        Supplier<EventLog> known = log;
        if (known != null && ++turns % TURNS == 0 && System.nanoTime() - reportedAt > EVERY_NS) {
            reportedAt = System.nanoTime();
            watcher.happened(known.get().copy(), time);
        }
    }
}
