package pyrite.app.runs;

import jakarta.annotation.PreDestroy;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import pyrite.app.store.Branch;
import pyrite.app.store.Person;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.Events;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Element;
import pyrite.core.verification.CaseRun;

/** Runs cases in the background, some at a time, and tells open pages how far they are. */
@Service
@Order(0)
public class Jobs implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
    private static final int AT_ONCE = Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
    private static final long NEWS_EVERY_MS = 100;

    private final RunStore store;
    private final Events events;
    private final ExecutorService workers = Executors.newFixedThreadPool(AT_ONCE, Thread.ofPlatform().name("run-", 1).factory());
    private final Map<Long, Job> running = new ConcurrentHashMap<>();

    Jobs(RunStore store, Events events) {
        this.store = store;
        this.events = events;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        store.interruptAll();
    }

    /** Starts a case on a snapshot and gives the id of the run. */
    public long start(Workspace.Head head, Element usage, Person person) {
        String name = head.model().names().qualifiedName(usage);
        long id = store.begin(head.branch(), usage, name, head.number(), person);
        Job job = new Job(id, head.branch());
        running.put(id, job);
        workers.submit(() -> work(job, head, usage));
        return id;
    }

    public void cancel(long id) {
        Job job = running.get(id);
        if (job != null) {
            job.cancelled = true;
        }
    }

    /** How far a run is, 0 to 1; empty if it does not run. */
    public OptionalDouble progress(long id) {
        Job job = running.get(id);
        return job == null ? OptionalDouble.empty() : OptionalDouble.of(job.fraction);
    }

    private void work(Job job, Workspace.Head head, Element usage) {
        try {
            store.end(job.id, CaseRun.of(head.model(), usage, job));
        } catch (RuntimeException | StackOverflowError fault) {
            LOG.error("run {} of {} failed", job.id, usage.id(), fault);
            store.fail(job.id, "Pyrite met a fault of its own while running this: " + fault);
        } finally {
            running.remove(job.id);
            events.publish(job.branch, "run", Map.of("id", job.id, "done", true));
        }
    }

    private final class Job implements RunControl {
        private final long id;
        private final Branch branch;
        private volatile boolean cancelled;
        private volatile double fraction;
        private long told;

        Job(long id, Branch branch) {
            this.id = id;
            this.branch = branch;
        }

        @Override
        public void progress(double done) {
            fraction = done;
            long now = System.currentTimeMillis();
            if (now - told >= NEWS_EVERY_MS) {
                told = now;
                events.publish(branch, "run", Map.of("id", id, "done", false, "fraction", done));
            }
        }

        @Override
        public boolean isCancelled() {
            return cancelled;
        }
    }

    @PreDestroy
    void stop() {
        running.values().forEach(job -> job.cancelled = true);
        workers.shutdown();
    }
}
