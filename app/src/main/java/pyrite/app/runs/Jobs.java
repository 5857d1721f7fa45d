package pyrite.app.runs;

import jakarta.annotation.PreDestroy;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;
import pyrite.app.store.Person;
import pyrite.app.store.RunRecord;
import pyrite.app.store.RunStore;
import pyrite.app.store.StoreGuard;
import pyrite.app.workspace.Events;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.TooMany;
import pyrite.app.workspace.Workspace;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.EventLog;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.Watcher;

/**
 * Runs cases in the background, a limited number at a time and the others in a queue, and reports progress to open
 * pages. After a restart the queue continues; a run that was interrupted is marked so, because half a run is no
 * evidence.
 */
@Service
@Order(2)
public class Jobs implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(Jobs.class);
    private static final int AT_ONCE = Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
    private static final long NEWS_EVERY_MS = 100;
    private static final long AGAIN_AFTER_S = 5;

    private final RunStore store;
    private final Workspace workspace;
    private final Events events;
    private final StoreGuard guard;
    private final ExecutorService workers = Executors.newFixedThreadPool(
            AT_ONCE, Thread.ofPlatform().name("run-", 1).factory());
    private final ScheduledExecutorService later = Executors.newSingleThreadScheduledExecutor(
            Thread.ofPlatform().name("run-notes").daemon().factory());
    private final int mostAPerson;
    private volatile boolean stopping;
    private final Map<Long, Job> jobs = new ConcurrentHashMap<>();

    Jobs(
            RunStore store,
            Workspace workspace,
            Events events,
            StoreGuard guard,
            @Value("${pyrite.runs.most-a-person}") int mostAPerson) {
        this.mostAPerson = mostAPerson;
        this.guard = guard;
        this.store = store;
        this.workspace = workspace;
        this.events = events;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        store.interruptAll();
        store.queued().forEach(run -> submit(new Job(run, null)));
    }

    /**
     * Queues a case on a snapshot and gives the id of the run.
     *
     * @throws StoreGuard.NoRoom if the disk is full
     * @throws TooMany if the person has as many under way as one may have
     */
    public long start(Workspace.Head head, Element usage, Person person) {
        return start(head, List.of(usage), person).getFirst();
    }

    /** Queues several cases, all or none of them. */
    public List<Long> start(Workspace.Head head, List<Element> usages, Person person) {
        guard.requireRoom();
        long underWay = jobs.values().stream()
                .filter(job -> job.run.person().equals(person.name()))
                .count();
        if (underWay + usages.size() > mostAPerson) {
            throw new TooMany("you may have " + mostAPerson + " runs under way or in the queue and have " + underWay
                    + "; wait for them or cancel some");
        }
        return usages.stream().map(usage -> queue(head, usage, person)).toList();
    }

    private long queue(Workspace.Head head, Element usage, Person person) {
        String name = head.model().names().qualifiedName(usage);
        RunRecord run = store.get(store.queue(head.branch(), usage, name, head.number(), person));
        submit(new Job(run, head));
        return run.id();
    }

    private void submit(Job job) {
        jobs.put(job.run.id(), job);
        job.future = workers.submit(() -> work(job));
    }

    /** Stops a run, or takes it out of the queue. */
    public void cancel(long id) {
        Job job = jobs.get(id);
        if (job == null) {
            return;
        }
        job.cancelled = true;
        Future<?> future = job.future;
        if (future != null && future.cancel(false) && !job.begun) {
            store.cancelled(id);
            done(job);
        }
    }

    /** How far a run is, 0 to 1; empty if it is not under way. */
    public OptionalDouble progress(long id) {
        Job job = jobs.get(id);
        return job == null ? OptionalDouble.empty() : OptionalDouble.of(job.fraction);
    }

    /** @param now s */
    record SoFar(EventLog log, double now) {}

    /** What has happened in a run that is under way; empty if nothing is known yet. */
    Optional<SoFar> soFar(long id) {
        Job job = jobs.get(id);
        return Optional.ofNullable(job == null ? null : job.soFar);
    }

    private void work(Job job) {
        long id = job.run.id();
        if (stopping || !store.started(id)) {
            return;
        }
        job.begun = true;
        events.publish(job.run.branchId(), "run", Map.of("id", id, "begun", true, "done", false, "fraction", 0.0));
        try {
            Workspace.Head head = job.head != null
                    ? job.head
                    : workspace.asOf(workspace.head(job.run.branchId()), job.run.revisionNumber());
            Element usage = head.model()
                    .find(ElementId.of(job.run.caseId()))
                    .orElseThrow(() -> new NotFound("the case is not in the model"));
            CaseRun result = CaseRun.of(head.model(), usage, job, job);
            if (!stopping) {
                guard.requireRoom();
                store.end(job.run, result);
            }
        } catch (StoreGuard.NoRoom full) {
            fail(id, "the result could not be kept: " + full.getMessage());
        } catch (RuntimeException | StackOverflowError | OutOfMemoryError fault) {
            LOG.error("run {} of {} failed", id, job.run.caseId(), fault);
            fail(id, "Pyrite met a fault of its own while running this: " + fault);
        } finally {
            done(job);
        }
    }

    /** Noted as soon as the store takes it: no run stays under way that is not. */
    private void fail(long id, String message) {
        try {
            store.fail(id, message);
        } catch (RuntimeException closed) {
            LOG.warn("that run {} failed could not be noted yet", id, closed);
            later.schedule(() -> fail(id, message), AGAIN_AFTER_S, TimeUnit.SECONDS);
        }
    }

    private void done(Job job) {
        jobs.remove(job.run.id());
        events.publish(job.run.branchId(), "run", Map.of("id", job.run.id(), "done", true));
    }

    /** A run in the queue or in progress; its snapshot is in memory unless the program was restarted since. */
    private final class Job implements RunControl, Watcher {
        private final RunRecord run;
        private final Workspace.@Nullable Head head;
        private volatile @Nullable Future<?> future;
        private volatile boolean begun;
        private volatile boolean cancelled;
        private volatile double fraction;
        private volatile @Nullable SoFar soFar;
        private long reportedAt;

        Job(RunRecord run, Workspace.@Nullable Head head) {
            this.run = run;
            this.head = head;
        }

        @Override
        public void happened(EventLog log, double now) {
            soFar = new SoFar(log, now);
        }

        @Override
        public void progress(double done) {
            fraction = done;
            long now = System.currentTimeMillis();
            if (now - reportedAt >= NEWS_EVERY_MS) {
                reportedAt = now;
                events.publish(run.branchId(), "run", Map.of("id", run.id(), "done", false, "fraction", done));
            }
        }

        @Override
        public boolean isCancelled() {
            return cancelled;
        }
    }

    /** What runs is cut off and marked so at the next start; what is queued stays so and goes on then. */
    @PreDestroy
    void stop() {
        stopping = true;
        workers.shutdown();
        later.shutdownNow();
        jobs.values().forEach(job -> job.cancelled = true);
    }
}
